/** Uses that give, draw, leave and teach are ways to have things, and are followed as all others are. */
import { describe, expect, it } from "vitest";
import { apply } from "../catalogue/apply";
import type { Catalogue } from "../catalogue/catalogue";
import { type Edit, setField } from "../catalogue/edit";
import { type Use, withDefaults } from "../kinds/index";
import { line } from "../notation/line";
import { seeded } from "../numbers/seeded";
import type { Id } from "../schema/id";
import { must } from "../testing/kitchen";
import { idOf, tried, withUses } from "../testing/tryout";
import { Readings } from "./readings";

const entry = (name: string, min = 1, max = min, from: number | null = null) => ({
  what: { is: "item" as const, item: idOf(name) },
  min,
  max,
  from,
  to: null,
});
const bought = (name: string, price: number) => ({
  [`Buy ${name}`]: { kind: "shop" as const, price, lines: [line("output", idOf(name))] },
});
const world = (): Catalogue =>
  withUses(
    tried({
      type: { Potted: {} },
      item: {
        Crate: {},
        Rope: {},
        Pearl: {},
        "Potted eel": { type: idOf("Potted") },
        Crock: {},
        Scroll: {},
        Ladder: {},
        Awl: {},
        Hide: {},
      },
      table: {
        Finds: {
          always: [entry("Rope", 1, 3)],
          chances: [{ chance: 0.25, ...entry("Pearl") }],
          draws: [
            {
              times: 1,
              back: true,
              entries: [
                { weight: 1, ...entry("Ladder", 1, 1, 9) },
                { weight: 3, what: { is: "nothing" }, min: 1, max: 1, from: null, to: null },
              ],
            },
          ],
        },
      },
      source: {
        ...bought("Crate", 10),
        ...bought("Potted eel", 6),
        ...bought("Scroll", 20),
        ...bought("Awl", 8),
        ...bought("Hide", 1),
      },
      recipe: { "Splice a ladder": { lines: [line("ingredient", idOf("Rope"), 2), line("output", idOf("Ladder"))] } },
    }),
    {
      Crate: ["Open: draws 2 from Finds, used up"],
      Scroll: ["Read: teaches Splice a ladder, kept"],
      Awl: ["Pierce: takes 2 Hide, gives 3 Rope, lasts 4 uses"],
    },
  );
const cost = (r: Readings, name: string) => r.value.cost[r.compiled.numberOf(idOf(name)) as number];

describe("uses in the network", () => {
  it("make what they give on average: a crate of 10 with 4 ropes and half a pearl", () => {
    const r = new Readings(world());
    // An awl lasts four uses: 8/4 and two hides for three ropes is 4/3, less than 10/4.
    expect(cost(r, "Rope")).toBeCloseTo(4 / 3, 9);
    expect(cost(r, "Pearl")).toBeCloseTo(20, 9);
    // From level 9 the crate gives a ladder every other time; below, two ropes do.
    expect(cost(r, "Ladder")).toBeCloseTo(8 / 3, 9);
    expect(r.levels.value[r.compiled.numberOf(idOf("Ladder")) as number]).toBeLessThan(9 * 2 ** 20);
  });

  it("leave a vessel behind, of a type for each of its items", () => {
    const r = new Readings(withUses(world(), { Potted: ["Eat: used up, leaves Crock"] }, "type"));
    expect(cost(r, "Crock")).toBe(6);
  });

  it("teach: what is taught needs the item that teaches it to be had", () => {
    const taken = (catalogue: Catalogue) =>
      must(catalogue, [
        { op: "remove", kind: "source", record: catalogue.records.source.get(idOf("Buy Scroll")) as never },
      ]);
    const level = (c: Catalogue) => cost(new Readings(c), "Ladder");
    expect(level(world())).toBeCloseTo(8 / 3, 9);
    // Without the scroll only the crate is left: half a ladder for ten, at level 9.
    expect(level(taken(world()))).toBeCloseTo(20, 9);
  });

  it("are followed from change to change as if all was compiled again", () => {
    const random = seeded(21);
    const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)];
    let catalogue = withUses(world(), { Potted: ["Eat: used up, leaves Crock"] }, "type");
    let next = 0;
    const r = new Readings(catalogue);
    const items = () => [...catalogue.records.item.keys()];
    const edits = (): Edit[] => {
      const uses = [...catalogue.records.use.values()] as Use[];
      switch (Math.floor(random() * 7)) {
        case 0:
          return uses.length ? [setField(catalogue, "use", pick(uses).id, "leaves", pick([null, ...items()]))] : [];
        case 1: {
          const effects = [
            {
              does: { is: "give" as const, item: pick(items()) },
              amount: String(1 + Math.floor(random() * 3)),
              chance: pick([1, 0.5]),
            },
          ];
          return uses.length ? [setField(catalogue, "use", pick(uses).id, "effects", effects)] : [];
        }
        case 2: {
          const id = `new${String(next++).padStart(9, "0")}` as Id;
          const owner = random() < 0.3 ? { type: idOf("Potted") } : { item: pick(items()) };
          const effects = [
            { does: { is: "teach" as const, recipe: idOf("Splice a ladder") }, amount: null, chance: 1 },
          ];
          const record = withDefaults("use", {
            id,
            key: `new_${next}`,
            name: "New",
            ...owner,
            effects,
            leaves: pick([null, ...items()]),
          });
          return [{ op: "add", kind: "use", record }];
        }
        case 3:
          return uses.length > 2 ? [{ op: "remove", kind: "use", record: pick(uses) }] : [];
        case 4:
          return [setField(catalogue, "item", pick(items()), "type", pick([null, idOf("Potted")]))];
        case 5:
          return [
            setField(catalogue, "table", idOf("Finds"), "always", [
              entry(pick(["Rope", "Pearl", "Crock"]), 1 + Math.floor(random() * 3)),
            ]),
          ];
        default:
          return uses.length
            ? [
                setField(catalogue, "use", pick(uses).id, "type", null),
                setField(catalogue, "use", pick(uses).id, "count", pick([null, 2])),
              ]
            : [];
      }
    };
    for (let n = 0; n < 120; n++) {
      const made = edits().filter((e) => e.op !== "set" || JSON.stringify(e.from) !== JSON.stringify(e.to));
      const outcome = apply(catalogue, made);
      if (!outcome.ok || !made.length) continue;
      catalogue = outcome.catalogue;
      r.advance(catalogue, made);
      const anew = new Readings(catalogue);
      for (const id of items()) {
        const [a, b] = [r.compiled.numberOf(id) as number, anew.compiled.numberOf(id) as number];
        expect(r.value.cost[a], `${n} ${catalogue.records.item.get(id)?.name}`).toBe(anew.value.cost[b]);
        expect(r.reach.items[a]).toBe(anew.reach.items[b]);
      }
    }
  });
});
