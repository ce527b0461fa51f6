/**
 * Pantries that are small to write and were long to work out: one shape for each construct that can ask for much work.
 * The bounds on their work are tested in steps, never by the clock.
 */
import { type Catalogue, catalogueOf } from "../catalogue/catalogue";
import { type Edit, setField } from "../catalogue/edit";
import { type AnyRecord, type Kind, type Pantry, type RecordOf, withDefaults } from "../kinds/index";
import { line } from "../notation/line";
import type { Id } from "../schema/id";
import { pantry } from "./kitchen";

/** A pantry and an edit of it that made everything be computed again. */
export interface Stall {
  readonly name: string;
  readonly catalogue: Catalogue;
  readonly edit: Edit;
}

/** An id that stands for a number of a kind. */
export const nth = (kind: string, n: number): Id => `${kind.slice(0, 2)}${n.toString(36).padStart(10, "0")}` as Id;

type Some = { readonly [K in Kind]?: readonly Partial<RecordOf<K>>[] };
/** Records that are numbered in the order in which they are given. */
export const world = (of: Some, settings: Partial<Pantry> = {}): Catalogue =>
  catalogueOf(1, pantry(settings), (kind): readonly AnyRecord[] =>
    ((of[kind] ?? []) as readonly Partial<RecordOf<"item">>[]).map(
      (record, n) =>
        withDefaults(
          kind as "item",
          {
            id: nth(kind, n),
            key: `${kind}_${n}`,
            name: `${kind} ${n}`,
            ...record,
          } as never,
        ) as AnyRecord,
    ),
  );

const many = <T>(n: number, of: (k: number) => T): T[] => Array.from({ length: n }, (_, k) => of(k));
const item = (n: number) => nth("item", n);
const table = (n: number) => nth("table", n);
const content = (what: object, min = 1, max = min) => ({ what, min, max, from: null, to: null });
const step = (does: object, holds: string | null = null) => ({ does, holds, refused: false });
const level = (catalogue: Catalogue, n = 0): Edit => setField(catalogue, "item", item(n), "level", 3);

/** Someone with a bag without limits, who has one resource that comes back. */
const somebody = {
  resource: [{ most: "100", recovery: "1", start: "0" }],
  subject: [{ resources: [nth("resource", 0)], bagSlots: null, bagMass: null }],
} as const;
const trial = (...steps: object[]) => ({ subject: nth("subject", 0), steps: steps as never });
const VIGOUR = `"resource:${nth("resource", 0)}"`;

/** Each stall at the size that was seen to stop a server, or at a share of it. */
export const STALLS: { readonly [name: string]: (share: number) => Catalogue } = {
  "a billion of what does not stack": () =>
    world({
      ...somebody,
      item: [{ stack: 1, status: "ready" }],
      trial: [trial(step({ is: "get", item: item(0), amount: 1e9 }))],
    }),
  "tables nested thirty deep, drawn a thousand times": (share) =>
    world({
      ...somebody,
      item: [{}],
      table: many(30, (n) => ({
        draws: [
          {
            times: 1 + Math.round(999 * share),
            back: true,
            entries: [
              { weight: 1, ...content(n < 29 ? { is: "table", table: table(n + 1) } : { is: "item", item: item(0) }) },
            ],
          },
        ] as never,
      })),
      use: [{ item: item(0), effects: [{ does: { is: "draw", table: table(0) }, amount: null, chance: 1 }] as never }],
      trial: [
        trial(step({ is: "get", item: item(0), amount: 5 }), step({ is: "use", item: item(0), use: null, times: 5 })),
      ],
    }),
  "tables that name the next one twice": (share) =>
    world({
      item: [{ status: "ready" }],
      table: many(Math.ceil(400 * share), (n) => ({
        always: [0, 1].map(() =>
          content(
            n + 1 < Math.ceil(400 * share) ? { is: "table", table: table(n + 1) } : { is: "item", item: item(0) },
          ),
        ) as never,
      })),
      source: [{ lines: [line("output", item(0))], ticks: 20 }],
      use: [{ item: item(0), effects: [{ does: { is: "draw", table: table(0) }, amount: null, chance: 1 }] as never }],
    }),
  "a chain of tables": (share) =>
    world({
      item: [{ status: "ready" }],
      table: many(Math.ceil(20_000 * share), (n) => ({
        always: [
          content(
            n + 1 < Math.ceil(20_000 * share) ? { is: "table", table: table(n + 1) } : { is: "item", item: item(0) },
          ),
        ] as never,
      })),
      source: [{ tables: [{ table: table(0), times: 1 }] as never, ticks: 20 }],
    }),
  "draws without putting back from many weights": (share) =>
    world({
      item: [{ status: "ready" }],
      table: many(Math.ceil(50 * share), () => ({
        draws: [
          {
            times: 30,
            back: false,
            entries: many(60, (k) => ({ weight: 1 + k * k, ...content({ is: "item", item: item(0) }) })),
          },
        ] as never,
      })),
      source: [{ tables: many(Math.ceil(50 * share), (n) => ({ table: table(n), times: 1 })) as never, ticks: 20 }],
    }),
  "waits during which something must hold": (share) =>
    world({
      ...somebody,
      item: [{}],
      trial: many(Math.ceil(20 * share), () =>
        trial(
          step({ is: "expect", when: "throughout" }, `${VIGOUR} >= 0`),
          step({ is: "wait", ticks: 1e9 }),
          step({ is: "wait", ticks: 1e9 }),
        ),
      ),
    }),
  "waiting for what never settles": (share) =>
    world({
      ...somebody,
      item: [{}],
      trial: many(Math.ceil(20 * share), () =>
        trial(
          step({ is: "expect", when: "throughout" }, `floor(${VIGOUR} * 1000) - floor(${VIGOUR} * 999) >= 0`),
          step({ is: "wait", ticks: 1e9 }),
        ),
      ),
    }),
  "a use without cooldown, whenever it can": (share) =>
    world({
      ...somebody,
      item: [{}],
      use: [{ item: item(0), fate: "kept", everywhere: true, effects: [] }],
      trial: many(Math.ceil(20 * share), () =>
        trial(
          step({ is: "get", item: item(0), amount: 1 }),
          step({ is: "use whenever", item: item(0), use: null }, `${VIGOUR} >= 0`),
          step({ is: "wait", ticks: 1e8 }),
        ),
      ),
    }),
  "shops that buy back what others sell": (share) => {
    const [shops, wares] = [Math.ceil(20 * Math.min(1, share * 2)), Math.ceil(50 * share)];
    return world({
      currency: [{ worth: 1 }],
      item: many(wares, () => ({ status: "ready" })),
      source: many(shops, (s) => ({
        kind: "shop",
        share: 0.9,
        currency: nth("currency", 0),
        wares: many(wares, (w) => ({
          item: item(w),
          amount: 1,
          price: 10 + ((s * 7 + w * 3) % 11),
          currency: null,
          stock: null,
          restock: null,
          level: null,
        })) as never,
      })),
    });
  },
  "fuels that leave each other": (share) => {
    const n = Math.ceil(200 * share);
    return world({
      item: many(n, (k) => ({ burns: 20 + (k % 7), ash: item((k + 1) % n), status: "ready" })),
      recipe: many(n, (k) => ({
        heat: 20,
        lines: [line("ingredient", item(k)), line("output", item((k + 3) % n), 2)],
        ticks: 20,
      })),
      source: [{ lines: [line("output", item(0))], ticks: 20 }],
    });
  },
  "vessels in a ring": (share) => {
    const n = Math.ceil(500 * share);
    return world({
      item: many(n, (k) => ({ vessel: item((k + 1) % n), status: "ready" })),
      recipe: many(n, (k) => ({
        lines: [line("ingredient", item(k)), line("output", item((k + 2) % n))],
        ticks: 20,
      })),
      source: [{ lines: [line("output", item(0))], ticks: 20 }],
    });
  },
  "recipes that take any with a tag": (share) => {
    const n = Math.ceil(2_000 * share);
    return world({
      tag: [{}],
      item: many(n, () => ({ tags: [nth("tag", 0)], status: "ready" })),
      recipe: many(n, (k) => ({
        lines: [
          { role: "ingredient", any: nth("tag", 0), min: 1, max: 1, chance: 1, uses: null },
          line("output", item(k)),
        ] as never,
        ticks: 20 + k,
      })),
      source: [{ lines: [line("output", item(0))], ticks: 20 }],
    });
  },
  "uses of a type for a thousand items": (share) => usesOfTypes(Math.ceil(1_000 * share), 4),
  "one long formula": () => formulas(1),
  "two thousand formulas": (share) => formulas(Math.ceil(2_000 * share)),
};

/** A type whose uses give something, for all its items. */
export function usesOfTypes(items: number, uses: number): Catalogue {
  return world({
    type: [{}],
    item: many(items, (n) => ({ type: n > 0 ? nth("type", 0) : null, status: "ready" })),
    use: many(uses, () => ({
      type: nth("type", 0),
      effects: [{ does: { is: "give", item: item(0) }, amount: "1", chance: 1 }] as never,
    })),
    source: [{ lines: [line("output", item(1))], ticks: 20 }],
  });
}

function formulas(n: number): Catalogue {
  const stats = many(4, (k) => `"stat:${nth("stat", k)}"`);
  const sum = (k: number) => stats.map((s, j) => `(${s} - ${0.1 + j + (k % 13) / 7})`).join(" * ");
  return world({
    stat: many(4, () => ({ min: -1000, max: 1000 })),
    condition: many(n, (k) => ({
      changes: [{ stat: nth("stat", 0), how: "multiply", by: `1 / (${sum(k)} + 4000000000000)` }] as never,
      ticks: 100,
    })),
    item: [{}],
    subject: [{ stats: Object.fromEntries(many(4, (k) => [nth("stat", k), "1"])) as never }],
  });
}

export const stall = (name: string, share = 1): Stall => {
  const catalogue = STALLS[name](share);
  return { name, catalogue, edit: editOf(catalogue) };
};

/** The edit that was seen to take as long as everything: of a price or time, else of what the pantry has. */
function editOf(catalogue: Catalogue): Edit {
  const { trial: trials, condition, source } = catalogue.records;
  if (trials.size) return setField(catalogue, "trial", nth("trial", 0), "seed", 7);
  if (condition.size) return setField(catalogue, "stat", nth("stat", 0), "max", 999);
  if (source.size) return setField(catalogue, "source", nth("source", 0), "ticks", 77);
  return level(catalogue);
}
