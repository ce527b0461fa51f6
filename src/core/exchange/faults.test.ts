import { describe, expect, it } from "vitest";
import { emptyCatalogue } from "../catalogue/catalogue";
import { apply } from "../catalogue/apply";
import { kitchen, pantry } from "../testing/kitchen";
import { type Plan, planImport } from "./read";

const head = { format: "salty-pantry-bundle", version: 1 };
const empty = emptyCatalogue(pantry());
const plan = (body: object, into = empty): Plan => planImport(into, JSON.stringify({ ...head, ...body }));
const faults = (body: object) => plan(body).issues.map((p) => `${p.path}: ${p.message}`);

describe("a bundle's faults, each with its place and a way out", () => {
  const cases: [string, object, string, RegExp][] = [
    ["a section that is no list", { items: {} }, "items", /Expected a list/],
    ["an entry that is no object", { items: [7] }, "items[0]", /Expected an object/],
    ["a section nobody knows", { itmes: [] }, "itmes", /items/],
    [
      "a field nobody knows, with the nearest",
      { items: [{ key: "eel", raritty: "plain" }] },
      "items[0].raritty",
      /rarity/,
    ],
    ["a record without key and name", { tags: [{}] }, "tags[0]", /needs a "key" or a "name"/],
    [
      "a key that stands twice, whatever its case",
      { items: [{ key: "eel_skin" }, { key: "eelskin" }] },
      "items[1].key",
      /^The key “eelskin” appears twice\. Keys are unique within a kind, ignoring case and “_”\.$/,
    ],
    [
      "a reference to nothing, with the nearest key",
      { types: [{ key: "fare" }], items: [{ key: "eel", type: "farre" }] },
      "items[0].type",
      /There is no type “farre”. Did you mean fare\?/,
    ],
    [
      "a reference to nothing, with where to add it",
      { items: [{ key: "eel", rarity: "plain" }] },
      "items[0].rarity",
      /Add it to "rarities"/,
    ],
    ["a reference that is no key", { items: [{ key: "eel", type: 3 }] }, "items[0].type", /Expected the key of a type/],
    ["tags that are no list", { items: [{ key: "eel", tags: "fish" }] }, "items[0].tags", /Expected a list of keys/],
    [
      "stats that are no object",
      { items: [{ key: "eel", stats: [1] }] },
      "items[0].stats",
      /such as \{ "vigour": 42 \}/,
    ],
    [
      "a stat that is not there",
      { items: [{ key: "eel", stats: { vigour: 1 } }] },
      "items[0].stats.vigour",
      /There is no stat “vigour”/,
    ],
    [
      "a stat that is no number",
      { stats: [{ key: "vigour" }], items: [{ key: "eel", stats: { vigour: "much" } }] },
      "items[0].stats.vigour",
      /number/,
    ],
    ["a number out of range", { items: [{ key: "eel", level: 9999 }] }, "items[0].level", /0 to 1000/],
    ["a text where a number belongs", { items: [{ key: "eel", mass: "heavy" }] }, "items[0].mass", /number/],
    ["a choice that is none", { items: [{ key: "eel", status: "done" }] }, "items[0].status", /stub, draft, ready/],
    ["a colour that is none", { rarities: [{ key: "plain", colour: "red" }] }, "rarities[0].colour", /#/],
    [
      "a time that is none",
      { sources: [{ key: "weir", gives: ["eel"], time: "soon" }] },
      "sources[0].time",
      /such as "90s"/,
    ],
    [
      "a time that is no whole tick",
      { recipes: [{ name: "Dry", outputs: ["eel"], time: 0.01 }] },
      "recipes[0].time",
      /whole ticks/,
    ],
    [
      "a price without an amount",
      { sources: [{ key: "stall", kind: "shop", gives: ["eel"], price: { currency: "shells" } }] },
      "sources[0].price",
      /"amount": 2/,
    ],
    [
      "a price with a field nobody knows",
      {
        currencies: [{ key: "shells" }],
        sources: [{ key: "stall", gives: ["eel"], price: { amount: 2, curency: "shells" } }],
      },
      "sources[0].price.curency",
      /currency/,
    ],
    [
      "a price in a currency that is not there",
      { sources: [{ key: "stall", gives: ["eel"], price: { amount: 2, currency: "shells" } }] },
      "sources[0].price.currency",
      /no currency “shells”/,
    ],
    [
      "lines that are no list",
      { recipes: [{ name: "Dry", ingredients: "eel" }] },
      "recipes[0].ingredients",
      /Expected a list/,
    ],
    [
      "a line that is no object",
      { recipes: [{ name: "Dry", ingredients: [3] }] },
      "recipes[0].ingredients[0]",
      /"quantity": 2/,
    ],
    [
      "a line without its item",
      { recipes: [{ name: "Dry", outputs: [{ quantity: 2 }] }] },
      "recipes[0].outputs[0].item",
      /Expected the key of an item/,
    ],
    [
      "a quantity that is none",
      { recipes: [{ name: "Dry", outputs: [{ item: "eel", quantity: [1, 2, 3] }] }] },
      "recipes[0].outputs[0].quantity",
      /a range of two/,
    ],
    [
      "a chance that is none",
      { recipes: [{ name: "Dry", outputs: [{ item: "eel", chance: "often" }] }] },
      "recipes[0].outputs[0].chance",
      /between 0 and 1/,
    ],
    [
      "wear where nothing wears",
      { recipes: [{ name: "Dry", outputs: [{ item: "eel", uses: 3 }] }] },
      "recipes[0].outputs[0].uses",
      /item, quantity, chance|quantity/,
    ],
    ["a line that is no text", { recipes: [{ line: 4 }] }, "recipes[0].line", /recipe line in quotes/],
    ["a line that can't be read, with its column", { recipes: ["2 Eel + -> 1 Pie"] }, "recipes[0].line, column 9", /./],
    [
      "the same thing said by the line and beside it",
      { recipes: [{ line: "2 Eel -> 1 Pie", time: "5s" }] },
      "recipes[0].time",
      /^The line already contains this\. Use either "time" or the line\.$/,
    ],
  ];
  for (const [what, body, place, message] of cases)
    it(`tells ${what}`, () => {
      const found = plan(body);
      expect(found.edits).toEqual([]);
      const here = found.issues.filter((p) => p.path === place);
      expect({ places: found.issues.map((p) => p.path), found: here.length > 0 }).toEqual({
        places: found.issues.map((p) => p.path),
        found: true,
      });
      expect(here.map((p) => p.message).join(" ")).toMatch(message);
    });

  it("tells all of them at once", () => {
    expect(
      faults({ items: [{ key: "eel", type: "x" }, {}], recipes: ["-> ->", { line: 4 }], sources: 3 }).map(
        (f) => f.split(":")[0],
      ),
    ).toEqual(expect.arrayContaining(["items[0].type", "items[1]", "recipes[1].line", "sources"]));
  });

  it("takes every shorthand the notation and the lists have", () => {
    const body = {
      currencies: [{ name: "shells" }],
      recipes: [
        "2 Eel -> 1 Pie in 5s",
        {
          name: "Dry",
          ingredients: ["eel", { item: "coarse_salt", quantity: [1, 2] }],
          outputs: [{ item: "dried_eel", chance: 0.5 }],
          tools: [{ item: "rack", uses: 20 }],
          stations: ["cellar"],
          time: "1m30s",
          fee: { amount: 2, currency: "shells" },
        },
      ],
    };
    const found = plan(body);
    expect(found.issues).toEqual([]);
    const outcome = apply(empty, found.edits);
    if (!outcome.ok) throw new Error("refused");
    const [pie, dry] = ["Pie", "Dry"].map((name) =>
      [...outcome.catalogue.records.recipe.values()].find((r) => r.name === name),
    );
    expect(pie).toMatchObject({ ticks: 100 });
    expect(dry).toMatchObject({ ticks: 1800, fee: 2 });
    expect(dry?.lines.map((l) => [l.role, l.min, l.max, l.chance, l.uses])).toEqual([
      ["ingredient", 1, 1, 1, null],
      ["ingredient", 1, 2, 1, null],
      ["output", 1, 1, 0.5, null],
      ["station", 1, 1, 1, null],
      ["tool", 1, 1, 1, 20],
    ]);
    expect(found.notes.map((n) => n.message).join(" ")).toContain("becomes a stub");
  });

  it("does not take a pantry's own records for faults of the bundle", () => {
    const there = kitchen("gather River eel in 80s\nSmoke: 2 River eel -> 1 Smoked eel");
    expect(plan({ recipes: ["1 Smoked eel -> 1 Eel pie"] }, there)).toMatchObject({
      issues: [],
      added: 2,
      changed: 0,
    });
  });
});
