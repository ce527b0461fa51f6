/** Single edits followed by an engine, as parts of the full analysis of the same pantry. */
import { Engine } from "../src/core/engine/engine";
import { Readings } from "../src/core/analysis/readings";
import type { Catalogue } from "../src/core/catalogue/catalogue";
import { apply } from "../src/core/catalogue/apply";
import { type Edit, invert, setField, type Value } from "../src/core/catalogue/edit";
import { seeded } from "../src/core/numbers/seeded";
import { summary, time } from "./measure";
import { largeCatalogue } from "./pantry";

const EDITS = 60;

export interface EditTimes {
  /** Milliseconds of all readings, and of those with all checks: the full analysis. */
  readonly readingsMs: number;
  readonly fullMs: number;
  /** Shares of the full analysis, and milliseconds. */
  readonly kinds: {
    readonly [name: string]: {
      readings: number;
      readingsP95: number;
      ripple: number;
      rippleP95: number;
      readingsOfReadings: number;
      writingMs: number;
    };
  };
}

const opened = (items: number, loops: number): Catalogue => largeCatalogue({ items, seed: 1, loops }).catalogue;

/** Every edit is taken back before the next, so that each is one in the same pantry. */
export function editTimes(items: number): EditTimes {
  const catalogue = opened(items, 0);
  const runs = items > 30_000 ? 2 : 3;
  const readingsMs = time(() => new Readings(catalogue).revision + 1, runs).median;
  const fullMs = time(() => new Engine(catalogue).revision + 1, runs).median;
  const kinds: EditTimes["kinds"] = {
    ...measured(catalogue, readingsMs, fullMs, ["price", "quantity", "source removed", "recipe deleted", "sell price"]),
    ...rename(measured(opened(items, 5), readingsMs, fullMs, ["quantity"]), "with five gaining loops open"),
  };
  return { readingsMs, fullMs, kinds };
}
const rename = (kinds: EditTimes["kinds"], more: string) =>
  Object.fromEntries(Object.entries(kinds).map(([name, of]) => [`${name}, ${more}`, of]));

function measured(
  catalogue: Catalogue,
  readingsMs: number,
  fullMs: number,
  names: readonly string[],
): EditTimes["kinds"] {
  const random = seeded(3);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  const engine = new Engine(catalogue);
  const [sources, recipes, items] = [
    [...catalogue.records.source.values()],
    [...catalogue.records.recipe.values()],
    [...catalogue.records.item.keys()],
  ];
  const edits: { readonly [name: string]: () => Edit } = {
    price: () => setField(engine.catalogue, "source", pick(sources).id, "ticks", Math.floor(random() * 4000)),
    quantity: () => {
      const r = pick(recipes);
      return setField(
        engine.catalogue,
        "recipe",
        r.id,
        "lines",
        r.lines.map((l, k) => (k === 0 ? { ...l, min: l.min + 1, max: l.max + 1 } : l)) as unknown as Value,
      );
    },
    "source removed": () => ({ op: "remove", kind: "source", record: pick(sources) }),
    "recipe deleted": () => ({ op: "remove", kind: "recipe", record: pick(recipes) }),
    "sell price": () => setField(engine.catalogue, "item", pick(items), "sell", Math.floor(random() * 99)),
  };
  return Object.fromEntries(
    names.map((name) => {
      const [readings, ripples, written]: [number[], number[], number[]] = [[], [], []];
      for (let n = 0; n < EDITS; n++) {
        const edit = edits[name]();
        const began = performance.now();
        const outcome = apply(engine.catalogue, [edit]);
        const then = performance.now();
        if (!outcome.ok || !outcome.edits.length) continue;
        engine.follow(outcome.catalogue, outcome.edits);
        const done = performance.now();
        readings.push(engine.took);
        ripples.push(done - then);
        written.push(then - began);
        engine.change(invert(outcome.edits));
      }
      const [r, all] = [summary(readings), summary(ripples)];
      return [
        name,
        {
          readings: r.median / fullMs,
          readingsP95: r.p95 / fullMs,
          ripple: all.median / fullMs,
          rippleP95: all.p95 / fullMs,
          readingsOfReadings: r.median / readingsMs,
          writingMs: summary(written).median,
        },
      ];
    }),
  );
}
