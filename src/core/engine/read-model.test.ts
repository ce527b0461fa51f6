import { expect, it } from "vitest";
import { setField } from "../catalogue/edit";
import { kitchen, must, recipe } from "../testing/kitchen";
import { follow, readModelOf, rippleOf } from "../testing/read-model";

const base = kitchen(
  "gather Eel in 20s\nbuy Salt for 1\nSmoke: 2 Eel + 4 Salt -> 1 Smoked eel\nPie: 1 Smoked eel + 1 Salt -> 1 Eel pie\nPick: salvage Smoked eel -> 1 Eel",
);

it("tells what one edit moved, and follows it to the same model", () => {
  const dearer = must(base, [
    setField(
      base,
      "recipe",
      recipe(base, "Smoke").id,
      "lines",
      recipe(base, "Smoke").lines.map((l) => (l.min === 4 ? { ...l, min: 8, max: 8 } : l)) as never,
    ),
  ]);
  const [before, after] = [readModelOf(base), readModelOf(dearer)];
  const ripple = rippleOf(before, after);
  expect(ripple.moved).toMatchObject({ costs: 2, lost: 0, opened: 0, closed: 0, times: 0 });
  expect(ripple.moved.largest).toMatchObject({ from: 4, to: 8 });
  expect(ripple.figures).toHaveLength(2);
  expect(follow(before, ripple)).toEqual(after);
});

it("counts loops that opened and items that were lost", () => {
  const gaining = must(base, [
    setField(
      base,
      "recipe",
      recipe(base, "Pick").id,
      "lines",
      recipe(base, "Pick").lines.map((l) => (l.role === "output" ? { ...l, min: 3, max: 3 } : l)) as never,
    ),
  ]);
  const ripple = rippleOf(readModelOf(base), readModelOf(gaining));
  // Four salts still go in: eels multiply, but something is lost, so it is no gaining loop.
  expect(ripple.moved.gainsOpened).toBe(0);
  const [source] = [...base.records.source.values()];
  const lost = must(base, [{ op: "remove", kind: "source", record: source }]);
  expect(rippleOf(readModelOf(base), readModelOf(lost)).moved).toMatchObject({ lost: 3, regained: 0 });
  expect(rippleOf(readModelOf(lost), readModelOf(base)).moved).toMatchObject({ lost: 0, regained: 3 });
});

it("refuses to follow from another revision", () => {
  const model = readModelOf(base);
  expect(() => follow({ ...model, revision: 99 }, rippleOf(model, model))).toThrow(RangeError);
});
