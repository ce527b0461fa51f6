/** Things laid in a grid, which pattern they are and which they nearly are; and what is given to rehearse a recipe. */
import { describe, expect, it } from "vitest";
import { sharedWait } from "../cards/use-words";
import type { Catalogue } from "../catalogue/catalogue";
import { around } from "../catalogue/surroundings";
import { usesOf } from "../catalogue/uses";
import type { Item, Recipe, Trial } from "../kinds/index";
import { line } from "../notation/line";
import { cellAt, NO_GRID, placesOf, sayCell } from "../notation/places";
import { formatSteps } from "../notation/trial-line";
import type { Id } from "../schema/id";
import { idOf, tried, withUses } from "../testing/tryout";
import { answerFor, type Laid } from "./laid";
import { rehearsalOf } from "./rehearsal";
import { runTrial } from "./run";

const at = (name: string, cells: number, of: "item" | "any" = "item") => {
  const n = placesOf(cells).length;
  const { item, ...rest } = line("ingredient", idOf(name), n);
  return { ...rest, ...(of === "any" ? { any: idOf(name) } : { item }), cells };
};
const A1 = cellAt(0, 0);
const B1 = cellAt(0, 1);
const A2 = cellAt(1, 0);
const out = (name: string) => line("output", idOf(name));
const grid = (width: number, height: number, more = {}) => ({ ...NO_GRID, width, height, ...more });
const catalogue: Catalogue = tried({
  tag: { fish: {}, oven: {}, fuel: {} },
  item: {
    Rope: {},
    Tar: {},
    Net: {},
    Buoy: {},
    Pot: {},
    Mat: {},
    Eel: { tags: [idOf("fish")] },
    Bass: { tags: [idOf("fish")] },
    Pie: {},
    Knife: {},
    Log: { tags: [idOf("fuel")], burns: 40 },
    Hearth: { tags: [idOf("oven")], fuel: idOf("fuel") },
    Note: {},
  },
  recipe: {
    Net: {
      kind: "pattern",
      grid: grid(2, 2, { shifted: true }),
      lines: [at("Rope", A1 | B1), at("Tar", A2), out("Net")],
    },
    Buoy: { kind: "pattern", grid: grid(2, 1), lines: [at("Rope", A1), at("Tar", B1), out("Buoy")] },
    Spit: {
      kind: "pattern",
      grid: grid(1, 2, { shifted: true, turned: true }),
      lines: [at("fish", A1, "any"), at("Log", A2), out("Pie")],
    },
    Mat: { lines: [line("ingredient", idOf("Rope"), 3), out("Mat")] },
    Gone: { kind: "pattern", status: "retired", grid: grid(1, 1), lines: [at("Tar", A1), out("Pot")] },
    Bake: {
      heat: 100,
      taughtBy: idOf("Note"),
      lines: [
        line("ingredient", idOf("Bass"), 1, 2),
        line("tool", idOf("Knife")),
        line("station", idOf("Hearth")),
        out("Pie"),
      ],
    },
  },
  cooldown: { Drinks: { ticks: 300 } },
  resource: { Vigour: { most: "100" } },
  subject: { Mara: { resources: [idOf("Vigour")] } },
} as Parameters<typeof tried>[0]);

const laid = (...rows: readonly string[]): Laid =>
  rows.map((row) => row.split(" ").map((name): Id | null => (name === "-" ? null : idOf(name))));
const told = (rows: Laid) => {
  const { are, near } = answerFor(catalogue, rows);
  return {
    are: are.map((r) => r.name),
    near: near.map(({ recipe, amiss }) => [
      recipe.name,
      ...amiss.map(
        (a) =>
          `${sayCell(a)} ${a.wants ? [...a.wants].map((id) => catalogue.records.item.get(id)?.name).join("/") : "-"}`,
      ),
    ]),
  };
};

describe("things laid in a grid", () => {
  it("are a pattern wherever it may lie, and only at its place where it may not", () => {
    expect(told(laid("Rope Rope", "Tar -")).are).toEqual(["Net"]);
    expect(told(laid("- - -", "- Rope Rope", "- Tar -")).are).toEqual(["Net"]);
    expect(told(laid("Rope Tar")).are).toEqual(["Buoy"]);
    expect(told(laid("- Rope Tar")).are).toEqual([]);
    // Any fish, turned either way.
    expect(told(laid("Eel", "Log")).are).toEqual(["Spit"]);
    expect(told(laid("- Log Bass")).are).toEqual(["Spit"]);
  });

  it("are what takes the same things in any order, and are retired with the recipe", () => {
    expect(told(laid("Rope - Rope", "- Rope -")).are).toEqual(["Mat"]);
    expect(told(laid("Tar")).are).toEqual([]);
  });

  it("are told with the nearest patterns and what is amiss where they are none", () => {
    expect(told(laid("Rope Rope", "Eel -")).near[0]).toEqual(["Net", "A2 Tar"]);
    expect(told(laid("- - -", "- Rope Rope")).near[0]).toEqual(["Net", "B3 Tar"]);
    expect(told(laid("- Rope Tar")).near[0]).toEqual(["Net", "C1 Rope", "B2 Tar"]);
    expect(told(laid("- Log Knife")).near[0]).toEqual(["Spit", "C1 Bass/Eel"]);
    expect(told(laid("Knife")).near).toEqual([]);
    expect(told(laid("-"))).toEqual({ are: [], near: [] });
  });
});

describe("a rehearsal of a recipe", () => {
  it("gives all that a run takes, so that it can be made", () => {
    const bake = catalogue.records.recipe.get(idOf("Bake")) as Recipe;
    const steps = rehearsalOf(catalogue, bake);
    expect(formatSteps(steps as never, around(catalogue)).split("\n")).toEqual([
      "get 2 Bass",
      "get Knife",
      "get Note",
      "get 3 Log",
      "make Bake",
    ]);
    expect(runTrial(catalogue, { subject: idOf("Mara"), steps: steps as Trial["steps"], seed: 1 }).ok).toBe(true);
  });
});

describe("a use with a time of its own among others that wait together", () => {
  it("says what that means with its numbers", () => {
    const drinks = withUses(
      tried({
        cooldown: { Drinks: { ticks: 300 } },
        resource: { Vigour: { most: "100" } },
        item: { Tonic: { cooldown: idOf("Drinks") }, Tea: { cooldown: idOf("Drinks") }, Pie: {} },
      }),
      {
        Tonic: ["Drink: restores 1 Vigour, ready in 10s"],
        Tea: ["Drink: restores 1 Vigour"],
        Pie: ["Eat: restores 1 Vigour, ready in 10s"],
      },
    );
    const messageFor = (name: string) =>
      sharedWait(drinks, usesOf(drinks, drinks.records.item.get(idOf(name)) as Item)[0]);
    expect(messageFor("Tonic")).toBe(
      "Its cooldown in the group Drinks is 10 s instead of 30 s; the others still wait 30 s after it.",
    );
    expect([messageFor("Tea"), messageFor("Pie")]).toEqual([null, null]);
  });
});
