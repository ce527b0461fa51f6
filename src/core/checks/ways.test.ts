/** The classic mistakes of variants, vessels, heat, combinations, patterns, gifts and draws: each made, told, and fixed. */
import { describe, expect, it } from "vitest";
import { readingsOf } from "../analysis/readings";
import type { Catalogue } from "../catalogue/catalogue";
import { type Edit, setField } from "../catalogue/edit";
import { Engine } from "../engine/engine";
import { withDefaults } from "../kinds/index";
import { newId } from "../schema/id";
import { item, kitchen, line, must, recipe } from "../testing/kitchen";
import { findingsOf } from "./index";

const told = (catalogue: Catalogue, rule: string): string[] =>
  findingsOf(catalogue, readingsOf(catalogue)).flatMap((f) => (f.rule === rule ? [f.message] : []));

const BANK =
  "buy Hide for 9\nbuy Clay for 2\nbuy Peat for 1\nbuy Crock for 3\nbuy Eel for 4\ngather Knife\ngather Kiln\n";
const gift = (catalogue: Catalogue, name: string, amount: number): Edit => ({
  op: "add",
  kind: "source",
  record: withDefaults("source", {
    id: newId(),
    key: "welcome",
    name: "Welcome",
    kind: "gift",
    lines: [line("output", item(catalogue, name).id, amount)],
  }),
});

/** By rule: the pantry with the mistake, what is said, and the edits after which it is not. */
const MISTAKES: { readonly [rule: string]: readonly [Catalogue, RegExp, (c: Catalogue) => Edit[]] } = {
  "variant-unreachable": [
    kitchen(`${BANK}Cut: 1 Hide -> 5 Strap using Knife | -> 6 Strap using Ghost knife`),
    /^Cut, using Ghost knife can't be made, because Ghost knife is unobtainable\.$/,
    (c) => [gift(c, "Ghost knife", 1)],
  ],
  "variant-no-more": [
    kitchen(`${BANK}gather Fine knife\nCut: 1 Hide -> 5 Strap using Knife in 20s | using Fine knife in 25s`),
    /^Cut, using Fine knife has no benefit: it gives no more, takes no less and is no quicker\.$/,
    (c) => [setField(c, "recipe", recipe(c, "Cut").id, "ticks", 9000)],
  ],
  outdone: [
    kitchen(`${BANK}Slow: 2 Clay -> 1 Brick in 30s\nGood: 3 Clay -> 4 Brick in 30s`),
    /^Slow gives 1 Brick for 4\.00 each; Good gives 4 for 1\.50, no slower and no later\.$/,
    (c) => [setField(c, "recipe", recipe(c, "Good").id, "level", 4)],
  ],
  "ware-too-dear": [
    (() => {
      const bare = kitchen(`${BANK}Cast: 2 Clay -> 1 Brick level 3`);
      const ware = { item: item(bare, "Brick").id, amount: 2, price: 48, currency: null, stock: null, restock: 0 };
      const shop = withDefaults("source", {
        id: newId(),
        key: "stall",
        name: "Stall",
        kind: "shop",
        wares: [{ ...ware, level: 4 }],
      });
      return must(bare, [{ op: "add", kind: "source", record: shop }]);
    })(),
    /^Stall sells Brick for 24\.00 from level 4; Cast costs 4\.00 from level 3, 6 times less\.$/,
    // Where it can't be made before, the shop is the only way.
    (c) => [setField(c, "recipe", recipe(c, "Cast").id, "level", 5)],
  ],
  "salvage-drifted": [
    (() => {
      const bare = kitchen(`${BANK}Pot: 5 Eel + 1 Crock -> 1 Potted eel\nUnpot: salvage Potted eel -> 3 Eel`);
      const goods = withDefaults("type", { id: newId(), key: "goods", name: "Goods" });
      const rule = withDefaults("payback", { id: newId(), key: "kept", name: "Kept", type: goods.id, share: 0.4 });
      return must(bare, [
        { op: "add", kind: "type", record: goods },
        { op: "add", kind: "payback", record: rule },
        setField(bare, "item", item(bare, "Potted eel").id, "type", goods.id),
      ]);
    })(),
    /^Unpot gives 3 Eel, but Kept returns 40% of the ingredients: 2 Eel\.$/,
    (c) => [setField(c, "payback", [...c.records.payback.keys()][0], "share", 0.6)],
  ],
  "combines-one-way": [
    kitchen(`${BANK}combine Knife kept + Hide -> 1 Thong ordered`),
    /^Knife on Hide works, Hide on Knife does nothing\.$/,
    (c) => {
      const { id, grid } = recipe(c, "Thong");
      return [setField(c, "recipe", id, "grid", { ...grid, mirrored: true })];
    },
  ],
  "container-twice": [
    kitchen(`${BANK}Pot: 1 Eel + 1 Crock -> 1 Stew\nset Stew vessel = Crock\nServe: 1 Stew -> 1 Supper + 1 Crock`),
    /^Crock is returned by Stew, but Serve also lists it as an output\.$/,
    (c) => [setField(c, "item", item(c, "Stew").id, "vessel", null)],
  ],
  "vessel-forgotten": [
    kitchen(
      `${BANK}Pot: 1 Eel + 1 Crock -> 1 Potted eel\nBrew: 1 Clay + 1 Crock -> 1 Slip\nset Slip vessel = Crock\nServe: 1 Slip + 1 Potted eel -> 1 Mess`,
    ),
    /^Potted eel is made with Crock, which other items return when used up, but Potted eel does not\.$/,
    (c) => [setField(c, "item", item(c, "Potted eel").id, "vessel", item(c, "Crock").id)],
  ],
  "burner-cold": [
    kitchen(`${BANK}Peat are turf\nset Kiln fuel = turf\nBake: 1 Clay -> 1 Brick at Kiln burning 60s`),
    /^Bake needs 60s of heat, but no obtainable item burns there \(accepted fuel: turf\)\.$/,
    (c) => [setField(c, "item", item(c, "Peat").id, "burns", 100)],
  ],
  "fuel-unburnt": [
    kitchen(`${BANK}set Hide burns = 5s`),
    /^Hide burns for 5s, but no recipe needs heat where it can burn\.$/,
    (c) => [setField(c, "item", item(c, "Hide").id, "burns", null)],
  ],
  unlearnable: [
    kitchen(`${BANK}Glaze: 1 Clay -> 1 Glazed brick taught by Lost book`),
    /^Glaze can't be learned: Lost book, which teaches it, is unobtainable\.$/,
    (c) => [gift(c, "Lost book", 1)],
  ],
  "station-unbuildable": [
    kitchen(`${BANK}Glaze: 1 Clay -> 1 Glazed brick at Great oven`),
    /^Great oven is unobtainable, but Glaze is made at it\.$/,
    (c) => [gift(c, "Great oven", 1)],
  ],
  "supply-short": [
    (() => {
      const bare = kitchen(`${BANK}Sew: 3 Old sail + 1 Hide -> 1 Banner`);
      return must(bare, [gift(bare, "Old sail", 2)]);
    })(),
    /^Only 2 Old sail can exist in a world, but Sew needs 3\.$/,
    (c) => [setField(c, "source", [...c.records.source.values()].at(-1)?.id as never, "runs", 2)],
  ],
  "draw-never-comes": [
    kitchen(`${BANK}Dig: 1 Clay -> 1 draw { 1: 1 Crock | 0: 1 Eel }`),
    /^Eel has a weight of 0 in Dig, so it is never drawn\.$/,
    (c) => {
      const { id, lines } = recipe(c, "Dig");
      return [setField(c, "recipe", id, "lines", lines.filter((l) => l.draw?.weight !== 0) as never)];
    },
  ],
};

describe("mistakes in how things become other things", () => {
  it("follows the setting of combination order: where it matters, one order only is as it was meant", () => {
    const free = kitchen(`${BANK}combine Hide + Knife kept -> 2 Strap ordered`);
    expect(told(free, "combines-one-way")).toHaveLength(1);
    const matters = setField(free, "pantry", free.pantry.id, "combinationOrder", "matters");
    expect(told(must(free, [matters]), "combines-one-way")).toEqual([]);
  });

  it("knows the other order of combinations of any items with a tag, also while items get the tag or lose it", () => {
    const ordered = "combine any sharp kept + Hide -> 1 Thong ordered";
    const oneWay = (text: string) => told(kitchen(`${BANK}Knife are sharp\n${text}`), "combines-one-way");
    expect(oneWay(ordered)).toEqual(["any sharp on Hide works, Hide on any sharp does nothing."]);
    expect(oneWay(`${ordered}\ncombine Hide + any sharp kept -> 2 Strap ordered`)).toEqual([]);
    // What takes the knife covers all that is sharp while nothing else is.
    const both = kitchen(`${BANK}Knife are sharp\n${ordered}\ncombine Hide + Knife kept -> 2 Strap ordered`);
    expect(told(both, "combines-one-way")).toEqual([]);
    const engine = new Engine(both);
    const sharp = both.records.item.get(item(both, "Knife").id)?.tags ?? [];
    engine.change([setField(both, "item", item(both, "Crock").id, "tags", sharp)]);
    const found = () => engine.model().findings.filter((f) => f.rule === "combines-one-way");
    expect(found().map((f) => f.message)).toEqual(["any sharp on Hide works, Hide on any sharp does nothing."]);
    engine.change([setField(engine.catalogue, "item", item(both, "Crock").id, "tags", [])]);
    expect(found()).toEqual([]);
  });

  it.each(Object.keys(MISTAKES))("%s is told once, and no more when it is fixed; followed as found anew", (rule) => {
    const [broken, message, fix] = MISTAKES[rule];
    expect(told(broken, rule)).toEqual([expect.stringMatching(message)]);
    const edits = fix(broken);
    expect(told(must(broken, edits), rule)).toEqual([]);
    const engine = new Engine(broken);
    expect(engine.change(edits).outcome.ok).toBe(true);
    expect(engine.model().findings.filter((f) => f.rule === rule)).toEqual([]);
  });
});

describe("a table that a recipe draws from", () => {
  it("gives nothing only where nothing comes at any level", () => {
    const bare = kitchen(`${BANK}Dig: 1 Clay -> 1 Slip`);
    const drawing = (from: number | null, to: number | null, chance: number): string[] => {
      const what = { is: "item" as const, item: item(bare, "Eel").id };
      const chances = [{ chance, what, min: 1, max: 1, from, to }];
      const table = withDefaults("table", { id: newId(), key: "silt", name: "Silt", chances });
      const tables = [{ table: table.id, times: 1 }];
      const stocked = must(bare, [{ op: "add", kind: "table", record: table }]);
      return told(
        must(stocked, [setField(stocked, "recipe", recipe(bare, "Dig").id, "tables", tables)]),
        "draw-never-comes",
      );
    };
    expect(drawing(null, null, 0.5)).toEqual([]);
    expect(drawing(2, 5, 0.5)).toEqual([]);
    expect(drawing(null, null, 0)).toEqual(["Dig draws from Silt, which never gives anything."]);
  });
});

describe("patterns beside each other", () => {
  const conflicts = (lines: string) => told(kitchen(`${BANK}${lines}`), "pattern-conflict");

  it("lie the same way after being shifted, mirrored or turned", () => {
    const two = (lies: string, other: string) =>
      conflicts(`A: pattern [Clay, Peat; -, -]${lies} -> 1 X\nB: pattern ${other} -> 1 Y`);
    expect(two("", "[Clay, Peat]")).toEqual(["A and B have the same pattern: [Clay, Peat]."]);
    expect(two("", "[-, -; Clay, Peat]")).toEqual([]);
    expect(two(" shifted", "[-, -; Clay, Peat]")).toEqual(["Every layout of B also fits A: [Clay, Peat]."]);
    expect(two("", "[Peat, Clay]")).toEqual([]);
    expect(two(" mirrored", "[Peat, Clay]")).toHaveLength(1);
    expect(two(" shifted", "[Clay; Peat]")).toEqual([]);
    expect(two(" shifted turned", "[Clay; Peat]")).toHaveLength(1);
  });

  it("accept the same arrangement by a tag, though neither hides the other", () => {
    const rows =
      "Clay, Peat are soil\nClay, Eel are wet\nA: pattern [any soil, Hide] -> 1 X\nB: pattern [any wet, Hide] -> 1 Y";
    expect(conflicts(rows)).toEqual(["A and B accept the same layout: [Clay, Hide]."]);
    expect(conflicts(rows.replace("Clay, Eel are wet", "Eel are wet"))).toEqual([]);
  });

  it("are told from loose recipes by the place only", () => {
    const rows = "A: pattern [Clay, Peat] -> 1 X at Kiln\nB: 1 Peat + 1 Clay -> 1 Y at Kiln";
    expect(conflicts(rows)).toEqual(["B takes the ingredients of the pattern A in any order: [Clay, Peat]."]);
    expect(conflicts(rows.replace("1 Y at Kiln", "1 Y"))).toEqual([]);
    expect(conflicts(rows.replace("1 Peat +", "2 Peat +"))).toEqual([]);
  });

  it("are followed: a tag that an item gets, and a recipe that comes", () => {
    const before = kitchen(`${BANK}Clay are soil\nA: pattern [any soil, Hide] -> 1 X\nB: pattern [Peat, Hide] -> 1 Y`);
    const engine = new Engine(before);
    const found = () => engine.model().findings.filter((f) => f.rule === "pattern-conflict").length;
    expect(found()).toBe(0);
    const { id, tags } = item(before, "Clay");
    engine.change([setField(before, "item", item(before, "Peat").id, "tags", tags)]);
    expect(found()).toBe(1);
    engine.change([setField(engine.catalogue, "item", id, "tags", [])]);
    engine.change([setField(engine.catalogue, "item", item(engine.catalogue, "Peat").id, "tags", [])]);
    expect(found()).toBe(0);
  });
});
