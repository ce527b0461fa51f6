import { expect, it } from "vitest";
import { chanceOf, outcomes, runsUntil } from "../analysis/outcomes";
import { work } from "../analysis/chances";
import { newId } from "../schema/id";
import { withDefaults } from "../kinds/index";
import { item, kitchen, must, recipe } from "../testing/kitchen";
import { givenWith } from "./given";

const CRATE = kitchen("Break: 1 Crate -> 1 Nail 50% + 1 Lid\ngather Rope\ngather Float\ngather Shell");
const idOf = (name: string) => item(CRATE, name).id;
const one = (name: string, more: object = {}) => ({
  what: { is: "item", item: idOf(name) },
  min: 1,
  max: 1,
  from: null,
  to: null,
  ...more,
});
const finds = withDefaults("table", {
  id: newId(),
  key: "finds",
  name: "Finds",
  draws: [
    {
      times: 1,
      back: true,
      entries: [
        { weight: 3, ...one("Rope") },
        { weight: 1, ...one("Float", { from: 5 }) },
      ],
    },
  ],
  chances: [
    { chance: 0.2, ...one("Nail") },
    { chance: 0.5, ...one("Shell", { max: 60_000 }) },
  ],
} as never);
const catalogue = must(CRATE, [{ op: "add", kind: "table", record: finds }]);
const { lines } = recipe(catalogue, "Break");
const given = (level: number, times = 2) => givenWith(catalogue, lines, [{ table: finds.id, times }], level);

it("counts what tables give together with the lines, at the level of whoever runs it", () => {
  expect(given(0).items.map((id) => catalogue.records.item.get(id)?.name)).toEqual(["Nail", "Shell", "Rope"]);
  const [nail, , rope] = outcomes(given(0), 1);
  // Half a nail of the line, and a fifth twice: none with 0.5 × 0.8².
  expect(nail).toMatchObject({ expected: expect.closeTo(0.9, 12), none: expect.closeTo(0.32, 12) });
  expect(rope).toMatchObject({ expected: 2, none: 0, low: 2, high: 2 });
  const later = outcomes(given(5), 3).find((o) => o.item === idOf("Float"));
  expect(later).toMatchObject({ expected: expect.closeTo(1.5, 12), none: expect.closeTo(0.75 ** 6, 12), about: false });
  expect(runsUntil(given(5), idOf("Float"), 1, 0.9)).toBe(Math.ceil(Math.log(0.1) / Math.log(0.75 ** 2)));
  expect(chanceOf(given(5), idOf("Nail"), 3, 1)).toBeCloseTo(0.5 * 0.2 ** 2, 12);
});

it("without tables is what the lines give, and about so much where amounts can't be told apart", () => {
  expect(givenWith(catalogue, lines, [], 0).items).toEqual([idOf("Nail")]);
  const shell = outcomes(given(0), 100, work(1e6)).find((o) => o.item === idOf("Shell"));
  expect(shell?.about).toBe(true);
  // 200 openings, half of them with 30,000.5 on average.
  expect(Math.abs((shell?.expected ?? 0) / 3_000_050 - 1)).toBeLessThan(0.05);
  expect(shell?.low).toBeLessThan(shell?.middle ?? 0);
});
