/** A scenario over a pantry: what it moves is what making its edits moves, and nothing of it stays. */
import { describe, expect, it } from "vitest";
import { apply } from "../catalogue/apply";
import { packed } from "../catalogue/catalogue";
import { type Edit, setField } from "../catalogue/edit";
import { comparedCosts, effectsOf } from "../engine/effects";
import { Engine } from "../engine/engine";
import { follow, unpackModel } from "../engine/read-model";
import { withDefaults } from "../kinds/index";
import { seeded } from "../numbers/seeded";
import { editsText } from "../schema/edits";
import { newId } from "../schema/id";
import { item, kitchen, must, newItem, recipe, SMOKEHOUSE } from "../testing/kitchen";
import { randomEdits, randomPantry } from "../testing/random";
import { fitted, mergedEdits, newScenario, rebased, savedAs, savedEdits } from "./scenario";
import { atSlider, movedTo, numbersOf, shareOf, sliderOf, withNumber } from "./numbers";
import { whatIfServer, type Entered } from "./serve";
import { titleOf, triedIn } from "./touched";
import { WhatIf } from "./what-if";

const world = kitchen(
  `${SMOKEHOUSE}\nbuy Dish for 3..3\nPlate: 1 Smoked eel + 1 Dish -> 1 Supper fee 1 shells`.replace("3..3", "3"),
);
const source = (name: string) =>
  [...world.records.source.values()].find((s) => s.lines.some((l) => l.item === item(world, name).id));
const salt = source("Salt");
const price = (to: number, from = 1): Edit => ({
  op: "set",
  kind: "source",
  id: salt?.id as never,
  field: "price",
  from,
  to,
});
const modelOf = (catalogue: typeof world) => unpackModel(new Engine(catalogue).model());

describe("edits of a scenario", () => {
  it("of one field become one, and none where they come to nothing", () => {
    expect(mergedEdits([price(2)], [price(3, 2)])).toEqual([price(3)]);
    expect(mergedEdits([price(2)], [price(1, 2)])).toEqual([]);
  });

  it("forget what was added once it is removed again", () => {
    const pie = newItem("Eel pie");
    const added: Edit[] = [
      { op: "add", kind: "item", record: pie },
      { op: "set", kind: "item", id: pie.id, field: "level", from: pie.level, to: 3 },
    ];
    expect(mergedEdits([price(2), ...added], [{ op: "remove", kind: "item", record: { ...pie, level: 3 } }])).toEqual([
      price(2),
    ]);
  });

  it("do the same after they are merged", () => {
    const random = seeded(7);
    for (let k = 0; k < 60; k++) {
      const before = randomPantry(random, 8);
      let [after, merged] = [before, [] as Edit[]];
      for (let n = 0; n < 6; n++) {
        const outcome = apply(after, randomEdits(random, after));
        if (!outcome.ok) continue;
        after = outcome.catalogue;
        merged = mergedEdits(merged, outcome.edits);
      }
      const once = must(before, merged);
      for (const kind of ["item", "recipe", "source"] as const)
        expect([...once.records[kind].values()].sort(byId)).toEqual([...after.records[kind].values()].sort(byId));
    }
  });

  it("that no longer fit are told apart from those that do, with what stands there now", () => {
    const moved = must(world, [price(5)]);
    const level = setField(world, "item", item(world, "Salt").id, "level", 4);
    const { edits, unfit, catalogue } = fitted(moved, [price(2), level]);
    expect(edits).toEqual([level]);
    expect(item(catalogue, "Salt").level).toBe(4);
    expect(unfit).toMatchObject([{ conflict: { theirs: 5 } }]);
    expect(unfit[0].message).toMatch(/^Someone else changed price/);
    expect(fitted(moved, [rebased(price(2), 5), level]).unfit).toEqual([]);
  });

  it("are kept as a record, and read from it", () => {
    const { id, edits } = newScenario(world, "Dearer salt", [price(2)]);
    const kept = must(world, edits);
    expect(savedAs(kept, id)).toEqual([price(2)]);
    const record = kept.records.scenario.get(id) as never;
    expect(savedEdits(kept, record, "Dearer salt", [price(2)]).edits).toEqual([]);
    const changed = must(kept, savedEdits(kept, record, "Salt at three", [price(3)]).edits);
    expect(savedAs(changed, id)).toEqual([price(3)]);
    expect(savedAs(world, id)).toBeNull();
  });

  it("that can't be read are none", () => {
    const record = withDefaults("scenario", {
      id: newId(),
      key: "odd",
      name: "Odd",
      edits: editsText([{ op: "set" }]),
    });
    const records = { ...world.records, scenario: world.records.scenario.with(new Map([[record.id, record]])) };
    expect(savedAs({ ...world, records }, record.id)).toBeNull();
  });
});
const byId = (a: { id: string }, b: { id: string }) => (a.id < b.id ? -1 : 1);

describe("the engine of What-if", () => {
  it("moves what making the edits moves, whatever was tried before", () => {
    const random = seeded(11);
    for (let k = 0; k < 15; k++) {
      let base = randomPantry(random, 10);
      const engine = new WhatIf(base);
      for (let n = 0; n < 6; n++) {
        const tried = apply(base, randomEdits(random, base));
        if (!tried.ok || !tried.edits.length) continue;
        const ripple = engine.enter(tried.edits);
        if (!ripple) throw new Error("It could not be entered.");
        const through = follow(modelOf(base), ripple);
        const made = modelOf(tried.catalogue);
        expect(through.findings.map((f) => f.fingerprint)).toEqual(made.findings.map((f) => f.fingerprint));
        expect([...through.figures.entries()].sort()).toEqual([...made.figures.entries()].sort());
        if (n % 2) {
          const other = apply(base, randomEdits(random, base));
          if (!other.ok) continue;
          expect(engine.follow(other.edits, other.catalogue.revision)).toBe(true);
          base = other.catalogue;
        }
      }
    }
  }, 60_000);

  it("says which costs move, before and after, and which findings come and go", () => {
    const ripple = new WhatIf(world).enter([price(7)]);
    if (!ripple) throw new Error("No ripple.");
    const { costs } = effectsOf(modelOf(world), ripple, () => true);
    expect(costs.map(({ id, from, to }) => [world.records.item.get(id)?.name, from, to])).toEqual([
      ["Salt", 1, 7],
      ["Smoked eel", 1, 7],
      ["Supper", 5, 11],
    ]);
  });

  it("compares scenarios by the costs that differ", () => {
    const engine = new Engine(world);
    const figures = [price(2), price(4)].map((edit) => engine.whatIf([edit]).ripple?.figures ?? []);
    const rows = comparedCosts(modelOf(world), [...figures, []]);
    expect(rows.map(({ id, now, costs }) => [world.records.item.get(id)?.name, now, ...costs])).toEqual([
      ["Salt", 1, 2, 4, 1],
      ["Smoked eel", 1, 2, 4, 1],
      ["Supper", 5, 6, 8, 5],
    ]);
  });

  it("answers questions through the scenario, and says where it is behind", () => {
    const serve = whatIfServer();
    expect(serve({ id: 1, do: "ask", ask: "glance", question: {} })).toEqual({ id: 1, failed: "No pantry is open." });
    serve({ id: 2, do: "open", packed: packed(world, { bytes: false }) });
    const at = world.revision;
    serve({ id: 3, do: "enter", changes: [], edits: [price(7)], at });
    const costs = serve({ id: 4, do: "ask", ask: "costs", question: { item: item(world, "Supper").id } });
    expect("value" in costs && costs.value).toMatchObject({ value: { cost: 11 } });
    const moved = must(world, [price(2)]);
    const behind = serve({ id: 5, do: "enter", changes: [], edits: [price(7, 2)], at: moved.revision });
    expect("value" in behind && (behind.value as Entered)).toEqual({ revision: at, ripple: null });
    const there = serve({
      id: 6,
      do: "enter",
      changes: [{ revision: moved.revision, edits: [price(2)] }],
      edits: [price(7, 2)],
      at: moved.revision,
    });
    expect("value" in there && (there.value as Entered).ripple?.from).toBe(moved.revision);
    expect(serve({ id: 7, do: "ask", ask: "toString" as never, question: {} })).toMatchObject({
      failed: /no question/,
    });
  });
});

describe("the numbers of a record", () => {
  const smoke = recipe(world, "Smoke");
  it("are its fields, and the quantities and chances of its lines", () => {
    const labels = numbersOf(world, "recipe", smoke.id).map((n) => [n.label, n.value]);
    expect(labels).toEqual(
      expect.arrayContaining([
        ["Quantity of River eel", 2],
        ["Chance of Smoked eel", 1],
        ["Quantity of Smoked eel", 1],
        ["Time", 600],
      ]),
    );
  });
  it("can each be given another value, which the rules of the record take", () => {
    for (const kind of ["item", "recipe", "source", "pantry"] as const) {
      if (kind === "pantry") continue;
      for (const record of world.records[kind].values())
        for (const of of numbersOf(world, kind, record.id)) {
          const { min, max } = sliderOf(of);
          for (const share of [0, 0.3, 1]) {
            const value = atSlider(share, { min, max }, of.bounds.whole);
            const outcome = apply(world, [withNumber(world, of, Math.max(value, of.within.length ? 0.001 : value))]);
            if (of.label.startsWith("Chance") || value > 0) expect(outcome.ok, `${of.label} ${value}`).toBe(true);
          }
        }
    }
  });
  it("stand on a slider from a tenth to ten times, or over all of a short range", () => {
    expect(sliderOf({ value: 4, bounds: { min: 0, max: 1e9 } })).toEqual({ min: 0.4, max: 40 });
    expect(sliderOf({ value: 0, bounds: { min: 0, max: 1e9 } })).toEqual({ min: 0, max: 10 });
    expect(sliderOf({ value: 0.2, bounds: { min: 0, max: 1 } })).toEqual({ min: 0, max: 1 });
    const stack = { value: 5, bounds: { min: 1, max: 1e6, whole: true } };
    expect(sliderOf(stack)).toEqual({ min: 1, max: 50 });
    const range = sliderOf(stack);
    const [step, at] = [1 / 200, Math.round(shareOf(5, range) * 200) / 200];
    expect(movedTo(stack, at + step, range)).toBe(6);
    expect(movedTo(stack, at - step, range)).toBe(4);
    expect(atSlider(0.5, { min: 0.4, max: 40 })).toBe(4);
    for (const value of [0.4, 1, 7, 40])
      expect(atSlider(shareOf(value, { min: 0.4, max: 40 }), { min: 0.4, max: 40 })).toBeCloseTo(value, 6);
  });
});

describe("what a scenario changes", () => {
  it("is told by number, by factor where many are the same field, and by sentence", () => {
    const smoke = recipe(world, "Smoke");
    const amount = numbersOf(world, "recipe", smoke.id).find((n) => n.label === "Quantity of River eel");
    if (!amount) throw new Error("No such number.");
    const pie = newItem("Eel pie");
    const stacked = must(
      world,
      [...world.records.item.values()].slice(0, 4).map((i) => setField(world, "item", i.id, "stack", 10)),
    );
    const doubled = [...stacked.records.item.values()]
      .slice(0, 4)
      .map((i) => setField(stacked, "item", i.id, "stack", 20));
    const edits: Edit[] = [
      withNumber(stacked, amount, 3),
      price(2),
      { op: "add", kind: "item", record: pie },
      ...doubled,
    ];
    const tried = triedIn(stacked, must(stacked, edits), edits);
    expect(
      tried.map((t) =>
        t.is === "number"
          ? `${titleOf(stacked, t.of)} ${t.before} → ${t.of.value}`
          : t.is === "together"
            ? `${t.title} × ${t.factor}`
            : t.title,
      ),
    ).toEqual([
      "Smoke: quantity of River eel 2 → 3",
      `Price of ${salt?.name} 1 → 2`,
      "Eel pie added",
      "Stack limit of 4 items × 2",
    ]);
  });
});
