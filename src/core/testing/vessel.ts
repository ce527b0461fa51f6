/** A kind with every field type, nested lists and a union: what holds for it holds for any kind. */
import { formula } from "../formulas/field";
import { choice } from "../schema/choice";
import { colour } from "../schema/colour";
import { duration } from "../schema/duration";
import { flag } from "../schema/flag";
import type { Id } from "../schema/id";
import { group, list, maybe } from "../schema/group";
import { keyedMap } from "../schema/keyed-map";
import { defineKind, type RecordOf } from "../schema/kind";
import { money } from "../schema/money";
import { number } from "../schema/number";
import { ref, refs } from "../schema/ref";
import { ownValue } from "../schema/own-value";
import { subjects, subjectsText } from "../schema/subjects";
import { text } from "../schema/text";
import { union } from "../schema/union";
import { words } from "../schema/words";

const size = group({ long: number({ min: 0, max: 1000 }), wide: number({ min: 0, max: 1000 }) }, { noun: "size" });

export const vessel = defineKind({
  name: "vessel",
  section: "vessels",
  fields: {
    motto: text({ most: 60, optional: true }),
    story: text({ most: 500, lines: true }),
    crew: number({ min: 0, max: 40, whole: true }),
    draught: number({ min: -5, max: 5, optional: true }),
    leak: number({ min: 0, max: 1, percent: true }),
    patience: duration(),
    rest: duration({ optional: true }),
    toll: money({ currency: "tollCurrency" }),
    tollCurrency: ref("currency", { optional: true, within: "toll" }),
    worth: money({ optional: true }),
    rig: choice(["punt", "lugger", "raft"]),
    mood: choice(["calm", "rough"], { optional: true }),
    speed: formula("stats"),
    decked: flag(),
    hull: colour("#2c6e8f"),
    flagship: ref("vessel", { optional: true, tree: 4 }),
    wares: refs("item"),
    traits: keyedMap("stat", number({ min: -100, max: 100 })),
    flags: words(20),
    charts: subjects(["item", "currency"], 6),
    own: keyedMap("stat", ownValue(["item", "currency"])),
    size,
    anchor: maybe(
      group({ mass: number({ min: 0, max: 1e6 }), of: ref("item", { optional: true }) }, { noun: "anchor" }),
    ),
    duty: union(
      {
        idle: {},
        ferry: { to: text({ most: 40 }), fare: number({ min: 0, max: 100 }) },
        fish: { catch: refs("item"), nets: list({ mesh: number({ min: 0, max: 9 }) }, { most: 5, noun: "net" }) },
      },
      { is: "idle" },
    ),
    decks: list(
      {
        called: text({ most: 30 }),
        holds: list(
          {
            item: ref("item"),
            amount: number({ min: 0, max: 1e6, initial: 1 }),
            locked: flag(),
            marks: list({ sign: text({ most: 10 }) }, { most: 4, noun: "mark" }),
          },
          { most: 6, noun: "hold" },
        ),
        keeper: maybe(group({ name: text({ most: 30 }), level: number({ min: 0, max: 9, whole: true }) })),
        use: union({ none: {}, cook: { heat: number({ min: 0, max: 9 }), pots: refs("item") } }, { is: "none" }),
      },
      { most: 8, noun: "deck" },
    ),
    // More fields than one number has bits.
    ...(Object.fromEntries(
      Array.from({ length: 40 }, (_, k) => [`mark${k + 1}`, number({ min: 0, max: 9, whole: true })]),
    ) as { [name: `mark${number}`]: ReturnType<typeof number> }),
  },
});
export type Vessel = RecordOf<(typeof vessel)["fields"]>;

/** Ids that vessels may refer to, by kind. */
export type World = { readonly [kind: string]: readonly Id[] };

/** A vessel with anything in it that a vessel may have. */
export function randomVessel(random: () => number, world: World, id: Id): Vessel {
  const below = (n: number) => Math.floor(random() * n);
  const pick = <T>(all: readonly T[]): T => all[below(all.length)];
  const some = <T>(most: number, make: (k: number) => T): T[] =>
    Array.from({ length: below(most + 1) }, (_, k) => make(k));
  const several = (kind: string) => [...new Set(some(3, () => pick(world[kind])))];
  const perhaps = <T>(make: () => T): T | null => (random() < 0.5 ? make() : null);
  const amount = () => pick([0, 1, 2, 0.5, 1e-7, 999_999, 3.25]);
  const words = () => pick(["", "Salt wind", "a, b; c: {d}", 'say "ho"', "back\\slash", "Ålesund 🐟", "{}", "is: x"]);
  const twoLines = () => pick(["", "one\ntwo", "  kept  ", "x;y"]).trim();
  const net = () => ({ mesh: below(9) });
  const hold = () => ({
    item: pick(world.item),
    amount: amount(),
    locked: random() < 0.5,
    marks: some(3, () => ({ sign: pick(["", "x", ";", "}"]) })),
  });
  const deck = () => ({
    called: words(),
    holds: some(3, hold),
    ...(random() < 0.5 ? { keeper: { name: words(), level: below(9) } } : {}),
    use: pick([{ is: "none" as const }, { is: "cook" as const, heat: below(9), pots: several("item") }]),
  });
  const link = () => {
    const kind = pick(["item", "currency"]);
    return { kind, id: pick(world[kind]), amount: amount() };
  };
  const ownValueOf = () =>
    pick([words() || "Ho", "one\ntwo", amount(), -7, random() < 0.5, [link()], [link(), link()]]);
  const paid = amount();
  return {
    id,
    key: `vessel_${id.replace(/^0+/, "") || "0"}`,
    name: pick(["Eel boat", "Tar punt", "Old “Cork”"]),
    motto: perhaps(() => words() || "Ho"),
    story: twoLines(),
    crew: below(40),
    draught: perhaps(() => -1.5),
    leak: pick([0, 0.25, 1]),
    patience: below(5000),
    rest: perhaps(() => 1 + below(5000)),
    toll: paid,
    tollCurrency: perhaps(() => pick(world.currency)),
    worth: perhaps(amount),
    rig: pick(["punt", "lugger", "raft"] as const),
    mood: perhaps(() => pick(["calm", "rough"] as const)),
    speed: perhaps(() =>
      pick(["12.5", `"stat:${pick(world.stat)}" * 2 + level`, `min("stat:${pick(world.stat)}", 4)`]),
    ),
    decked: random() < 0.5,
    hull: pick(["#2c6e8f", "#000000"]),
    flagship: perhaps(() => pick(world.vessel)),
    wares: several("item"),
    traits: Object.fromEntries(several("stat").map((stat) => [stat, below(100) - 50])),
    flags: [...new Set(some(3, () => pick(["ebb", "slack water", "ΑΓΡΑ", "say “ho”"])))],
    charts: subjectsText(several("item").map((item) => ({ kind: "item", id: item }))),
    own: Object.fromEntries(several("stat").map((stat) => [stat, ownValueOf()])),
    size: { long: amount() % 1000, wide: 0 },
    ...(random() < 0.5 ? { anchor: { mass: amount(), of: perhaps(() => pick(world.item)) } } : {}),
    duty: pick([
      { is: "idle" as const },
      { is: "ferry" as const, to: words(), fare: below(100) },
      { is: "fish" as const, catch: several("item"), nets: some(4, net) },
    ]),
    decks: some(3, deck),
    ...Object.fromEntries(Array.from({ length: 40 }, (_, k) => [`mark${k + 1}`, random() < 0.8 ? 0 : below(9)])),
  } as Vessel;
}
