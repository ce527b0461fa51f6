import { describe, expect, it } from "vitest";
import { type Catalogue, withRecords } from "../catalogue/catalogue";
import { invert } from "../catalogue/edit";
import { type AnyRecord, KINDS } from "../kinds/index";
import { PersistentMap } from "../catalogue/persistent-map";
import { seeded } from "../numbers/seeded";
import { randomEdits, randomPantry } from "../testing/random";
import { follow, readModelOf } from "../testing/read-model";
import { Engine } from "./engine";
import { type GainReport, stepKey } from "../analysis/gain";
import type { LeastCost } from "../analysis/cost";
import { itemsIn, processesIn } from "../testing/told";
import type { Readings } from "../analysis/readings";

/** The same catalogue with its records as bytes. */
const dense = (catalogue: Catalogue): Catalogue =>
  withRecords(
    catalogue,
    Object.fromEntries(
      KINDS.map((kind) => [
        kind,
        PersistentMap.of(kind, [...(catalogue.records[kind] as PersistentMap<AnyRecord>).values()], 0),
      ]),
    ) as Partial<Catalogue["records"]>,
  );

/** Every reading in terms of records, so that two engines with other numbers can be compared to the bit. */
function written(r: Readings) {
  const { compiled } = r;
  const perItem = (f: (i: number) => unknown) =>
    Object.fromEntries(
      itemsIn(r)
        .map((i) => [compiled.idOf(i), f(i)])
        .sort(),
    );
  const rounds = (report: GainReport) => ({
    complete: report.complete,
    gains: report.complete
      ? report.gains.map((g) => [
          g.runs.map((x) => `${x.times} ${stepKey(compiled, x.step)}`),
          g.live,
          g.net
            .map(
              (n) =>
                `${n.amount.n}/${n.amount.d} ${n.thing.of === "item" ? compiled.idOf(n.thing.item) : n.thing.currency}`,
            )
            .sort(),
        ])
      : [],
    even: report.complete ? report.even.map((g) => g.runs.map((x) => `${x.times} ${stepKey(compiled, x.step)}`)) : [],
  });
  const cost = (least: LeastCost) => perItem((i) => least.cost[i]);
  return {
    value: cost(r.value),
    time: cost(r.time),
    bare: cost(r.bare),
    by: perItem((i) => (r.by("value", i) < 0 ? null : compiled.processId(r.by("value", i)))),
    steps: perItem((i) => r.steps(i)),
    reach: perItem((i) => r.reach.items[i]),
    level: perItem((i) => r.levels.value[i]),
    fires: Object.fromEntries(
      processesIn(r)
        .map((p) => [compiled.processId(p), r.reach.fires(p)])
        .sort(),
    ),
    gain: rounds(r.gain),
    causes: perItem((i) => {
      const cause = r.causes.get(i);
      return (
        cause && [
          cause.leaves.map((l) => compiled.idOf(l)),
          cause.by < 0 ? null : compiled.processId(cause.by),
          cause.smallest,
        ]
      );
    }),
    stuck: r.loops
      .filter((l) => l.verdict === "stuck")
      .map((l) => [l.items, l.breaks].map((items) => items.map((i) => compiled.idOf(i)))),
  };
}

describe("following changes", () => {
  it.each([
    ["tiny pantries", 1, 40, 4, 12],
    ["small pantries", 101, 12, 9, 12],
    ["middling pantries", 201, 2, 40, 8],
  ])("holds to the bit what is found from scratch: %s", (_, seed, pantries, items, changes) => {
    for (let n = 0; n < pantries; n++) {
      const random = seeded(seed + n);
      const engine = new Engine(randomPantry(random, items));
      let model = engine.model();
      for (let k = 0; k < changes; k++) {
        const edits = randomEdits(random, engine.catalogue);
        const { ripple } = engine.change(edits);
        const where = `pantry ${seed + n}, change ${k}: ${JSON.stringify(edits.map((e) => (e.op === "set" ? `${e.kind}.${e.field}` : `${e.op} ${e.kind}`)))}`;
        const scratch = new Engine(engine.catalogue);
        expect(written(engine.readings), where).toEqual(written(scratch.readings));
        model = follow(model, ripple as NonNullable<typeof ripple>);
        if (!model.complete) continue;
        expect(model, where).toEqual(scratch.model());
        expect(engine.model(), where).toEqual(scratch.model());
      }
    }
  });

  it("is the same where records are bytes as where they are objects, change after change", () => {
    for (let n = 0; n < 6; n++) {
      const random = seeded(300 + n);
      const first = randomPantry(random, 12);
      const [objects, bytes] = [new Engine(first), new Engine(dense(first))];
      expect(bytes.catalogue.records.item.binary).not.toBeNull();
      for (let k = 0; k < 8; k++) {
        const edits = randomEdits(random, objects.catalogue);
        const [told, again] = [objects.change(edits), bytes.change(edits)];
        expect(again.outcome.ok).toBe(told.outcome.ok);
        expect(bytes.model()).toEqual(objects.model());
        expect(written(bytes.readings)).toEqual(written(objects.readings));
        expect({ ...again.ripple, put: [], figures: [] }).toEqual({ ...told.ripple, put: [], figures: [] });
      }
    }
  });

  it("comes back to the same readings when everything is undone, one change after the other", () => {
    const random = seeded(77);
    const first = randomPantry(random, 30);
    const engine = new Engine(first);
    const before = written(engine.readings);
    const log = Array.from({ length: 20 }, () => {
      const edits = randomEdits(random, engine.catalogue);
      const { outcome } = engine.change(edits);
      return outcome.ok ? outcome.edits : [];
    });
    for (const edits of log.reverse()) expect(engine.change(invert(edits)).outcome.ok).toBe(true);
    expect(written(engine.readings)).toEqual(before);
    expect({ ...engine.model(), revision: 0 }).toEqual({ ...readModelOf(engine.catalogue), revision: 0 });
  });

  it("tells what edits would move without making them", () => {
    const random = seeded(5);
    const engine = new Engine(randomPantry(random, 25));
    for (let k = 0; k < 20; k++) {
      const before = engine.model();
      const edits = randomEdits(random, engine.catalogue);
      const { ripple } = engine.whatIf(edits);
      expect(engine.model()).toEqual(before);
      const made = new Engine(engine.catalogue).change(edits).ripple;
      expect({ ...ripple, put: [], figures: [] }).toEqual({ ...made, put: [], figures: [] });
      expect(new Map(ripple?.figures)).toEqual(new Map(made?.figures));
    }
  });
});
