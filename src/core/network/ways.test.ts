/** Each way in which things become other things, with the calculation by hand beside it. */
import { describe, expect, it } from "vitest";
import { Readings, readingsOf } from "../analysis/readings";
import { apply } from "../catalogue/apply";
import type { Catalogue } from "../catalogue/catalogue";
import { type Edit, setField } from "../catalogue/edit";
import { type Source, withDefaults } from "../kinds/index";
import { seeded } from "../numbers/seeded";
import { newId } from "../schema/id";
import { item, kitchen, line, must, newItem, recipe, shells } from "../testing/kitchen";
import { at, label, processesIn, read } from "../testing/told";
import { steadyCost } from "../analysis/steady";
import { nodeOfHeat } from "../process/node";

const plain = (r: Readings, name: string) => r.value.cost[at(r, name)];
const reused = (r: Readings, name: string) => steadyCost(r, "value", at(r, name))?.cost;
const labels = (r: Readings) => processesIn(r).map((p) => label(r, p));

describe("variants", () => {
  const HIDE = "buy Hide for 30\n";
  const CUT = "Cut: 1 Hide -> 5 Strap using Skinning knife | -> 6 Strap using Fine knife in 20s";

  it("are processes of their own: what is not said is as in the recipe", () => {
    // 30 for 5; with the finer knife 30 for 6, though it takes a third of a minute.
    expect(plain(read(`${HIDE}gather Skinning knife\n${CUT}`), "Strap")).toBe(6);
    expect(plain(read(`${HIDE}gather Fine knife\n${CUT}`), "Strap")).toBe(5);
    expect(plain(read(`${HIDE}${CUT}`), "Strap")).toBe(Number.POSITIVE_INFINITY);
    expect(labels(read(`${HIDE}gather Fine knife\n${CUT}`))).toContain("Cut, using Fine knife");
  });

  it("differ in place, time, fee, level and teacher; a name is theirs", () => {
    const r = read(
      "buy Clay for 2\ngather Kiln\ngather Great kiln\nFire: 1 Clay -> 1 Brick at Kiln in 60s fee 1 shells level 3 | Grand: at Great kiln in 0s fee 0 level 9",
    );
    // Clay and nothing else; by the other way 2 + 1.
    expect(plain(r, "Brick")).toBe(2);
    expect(labels(r)).toContain("Fire, Grand");
    expect(r.levels.value[at(r, "Brick")]).toBeGreaterThan(0);
  });
});

describe("what comes back", () => {
  const POT = "buy Eel for 6\nbuy Crock for 4\nPot: 1 Eel + 1 Crock -> 1 Potted eel\nset Potted eel vessel = Crock\n";

  it("is given back wherever the item goes in, and is netted out of the cost", () => {
    const r = read(`${POT}Serve: 2 Potted eel -> 1 Supper`);
    // 2 × (6 + 4), and two crocks of 4 come back.
    expect(plain(r, "Supper")).toBe(20);
    expect(reused(r, "Supper")).toBe(12);
  });

  it("is left of a tool when it is worn out, in costs and in what comes", () => {
    const LAMP = "buy Flask for 6\nbuy Full lamp for 10\nset Full lamp vessel = Flask\nbuy Clay for 1\n";
    const r = read(`${LAMP}Bake: 1 Clay -> 1 Brick using Full lamp lasting 4`);
    // 1 + 10 ÷ 4: no one uses the flasks that are left, until a recipe fills them for 2.
    expect(plain(r, "Brick")).toBe(3.5);
    expect(reused(r, "Brick")).toBe(3.5);
    const filled = read(
      `${LAMP}buy Oil for 2\nFill: 1 Flask + 1 Oil -> 1 Full lamp\nBake: 1 Clay -> 1 Brick using Full lamp lasting 4`,
    );
    expect(reused(filled, "Brick")).toBeCloseTo(1 + 2 / 4, 9);
    expect(reused(read(`${LAMP}Bake: 1 Clay -> 1 Brick using Full lamp`), "Brick")).toBe(1);
  });

  it("does not where the item is taken whole", () => {
    expect(reused(read(`${POT}Serve: 2 Potted eel whole -> 1 Parcel`), "Parcel")).toBe(20);
  });

  it("comes of any item with a tag too", () => {
    const r = read(`${POT}Potted eel are food\nServe: 1 any food -> 1 Supper`);
    expect(r.reach.items[at(r, "Supper")]).toBe(1);
    expect(plain(r, "Supper")).toBe(10);
  });
});

describe("burning", () => {
  const BAKE =
    "buy Clay for 2\nbuy Peat for 1\nbuy Wrackwood for 0.5\ngather Kiln\nset Peat burns = 40s\nset Wrackwood burns = 30s\nBake: 1 Clay -> 1 Brick at Kiln burning 60s\n";

  it("takes the cheapest heat, and counts what is left over of a fuel", () => {
    // Two pieces of wrackwood give 60 s: 2 + 2 × 0.5. With peat it would be 2 + 60 ÷ 40.
    expect(plain(read(BAKE), "Brick")).toBe(3);
    // Half a minute takes half as much, though no one burns half a peat.
    expect(plain(read(`${BAKE}Dry: 1 Clay -> 1 Tile burning 10s`), "Tile")).toBeCloseTo(2 + 10 / 60, 12);
  });

  it("takes only what may burn at its station", () => {
    const r = read(`${BAKE}Peat are turf\nset Kiln fuel = turf`);
    expect(plain(r, "Brick")).toBe(3.5);
    // Nothing burns just for what is left of it.
    expect(r.compiled.numberOf(nodeOfHeat(null))).toBeUndefined();
    const ash = (line: string) =>
      read(
        `${BAKE}Peat are turf\nset Kiln fuel = turf\ngather Log\nset Log burns = 30s\n1 Clinker -> 1 Grit\nset Log ash = Clinker${line}`,
      );
    const had = (of: ReturnType<typeof read>) => of.reach.items[at(of, "Clinker")];
    expect([had(ash("")), had(ash("\nLog are turf")), had(ash("\nDry: 1 Peat -> 1 Dry peat burning 5s"))]).toEqual([
      0, 1, 1,
    ]);
  });

  it("leaves what is left", () => {
    const r = read(`${BAKE}set Peat ash = Ash`);
    expect(plain(r, "Ash")).toBe(1);
    expect(labels(r)).toContain("Burn Peat");
  });

  it("can't be done without anything that burns", () => {
    const r = read("buy Clay for 2\nBake: 1 Clay -> 1 Brick burning 60s");
    expect(r.reach.items[at(r, "Brick")]).toBe(0);
  });
});

describe("stations", () => {
  const FIRE = "buy Clay for 2\ngather Kiln\nFire: 1 Clay -> 2 Brick at any oven in 60s";

  it("say how long it takes there, and how often more comes", () => {
    const money = { labourPerHour: 60 };
    // A minute is worth 1: (2 + 1) ÷ 2.
    expect(plain(readingsOf(kitchen(`${FIRE}\nKiln are oven`, money)), "Brick")).toBe(1.5);
    // Half of the time: (2 + 0.5) ÷ 2; and with one in four twice as much: ÷ 2.5.
    const quick = readingsOf(kitchen(`${FIRE}\nKiln are oven\nset Kiln pace = 50%`, money));
    expect(plain(quick, "Brick")).toBe(1.25);
    const more = readingsOf(kitchen(`${FIRE}\nKiln are oven\nset Kiln pace = 50%\nset Kiln extra = 25%`, money));
    expect(plain(more, "Brick")).toBe(1);
    expect(labels(more)).toContain("Fire, at Kiln");
  });

  it("count each for itself where a recipe says any with a tag", () => {
    const two = `${FIRE}\ngather Great kiln\nKiln, Great kiln are oven\nset Great kiln extra = 100%`;
    expect(plain(read(two), "Brick")).toBe(0.5);
    expect(labels(read(two)).filter((l) => l.startsWith("Fire"))).toEqual(
      expect.arrayContaining(["Fire", "Fire, at Great kiln"]),
    );
  });
});

describe("a stat of the maker", () => {
  const SHELL = "buy Shell for 2\nstat Deftness = 0\nOpen: 1 Shell -> 1 Meat 50% + 1 Pearl 5% plus 2% per Deftness";

  it("makes what comes by chance surer, or less sure", () => {
    // 2 ÷ 0.05; with ten points 2 ÷ 0.25.
    expect(plain(read(SHELL), "Pearl")).toBe(40);
    expect(plain(read(`${SHELL}\nstat Deftness = 10`), "Pearl")).toBe(8);
    expect(plain(read(`${SHELL.replace("plus", "minus")}\nstat Deftness = 2`), "Pearl")).toBe(200);
  });

  it("goes no further than never and always", () => {
    expect(plain(read(`${SHELL}\nstat Deftness = 90`), "Pearl")).toBe(2);
    const none = read(`${SHELL}\nstat Deftness = -3`);
    expect(none.reach.items[at(none, "Pearl")]).toBe(0);
    expect(none.reach.items[at(none, "Meat")]).toBe(1);
  });

  it("counts in sources and variants too, and follows what the maker has", () => {
    const catalogue = kitchen(
      "stat Deftness = 4\ngather 1 Cork 0% plus 10% per Deftness in 40s\nbuy Hide for 6\n" +
        "Cut: 1 Hide -> 1 Strap | Deft: -> 1 Strap + 2 Lace 20% plus 5% per Deftness",
      { labourPerHour: 3600 },
    );
    const r = new Readings(catalogue);
    // 40 s for 0.4 of it; 6 for 2 × 0.4.
    expect(plain(r, "Cork")).toBe(100);
    expect(plain(r, "Lace")).toBeCloseTo(7.5, 12);
    const [stat] = [...catalogue.records.stat.keys()];
    const outcome = apply(catalogue, [setField(catalogue, "stat", stat, "maker", 8)]);
    if (!outcome.ok) throw new Error("refused");
    r.advance(outcome.catalogue, outcome.edits);
    expect(plain(r, "Cork")).toBe(50);
    expect(plain(r, "Lace")).toBe(5);
  });
});

describe("batches", () => {
  const BAKE =
    "buy Dough for 1\nbuy Peat for 4\ngather Oven\nset Peat burns = 40s\nBake: 1 Dough -> 1 Loaf at Oven in 60s burning 40s batch 8";

  it("share time and heat", () => {
    // 1 + 60 ÷ 8 + 4 ÷ 8; one by one 1 + 60 + 4.
    expect(plain(read(BAKE, { labourPerHour: 3600 }), "Loaf")).toBe(9);
    expect(plain(read(BAKE.replace(" batch 8", ""), { labourPerHour: 3600 }), "Loaf")).toBe(65);
  });

  it("may be larger in a variant", () => {
    const r = read(`${BAKE} | Great: at Great oven batch 20\ngather Great oven`, { labourPerHour: 3600 });
    expect(plain(r, "Loaf")).toBeCloseTo(1 + 3 + 0.2, 12);
  });
});

describe("sources", () => {
  const empty = must(kitchen("Smoke: 1 Eel -> 1 Smoked eel"), [{ op: "add", kind: "item", record: newItem("Float") }]);
  const source = (of: Partial<Source>): Edit => ({
    op: "add",
    kind: "source",
    record: withDefaults("source", { id: newId(), key: `source_${newId()}`, name: "Quay", ...of }),
  });
  const ware = (name: string, price: number, more: object = {}) => ({
    item: item(empty, name).id,
    amount: 1,
    price,
    currency: null,
    stock: null,
    restock: null,
    level: null,
    ...more,
  });

  it("are shops with many wares, each with its price and level", () => {
    const wares = [ware("Eel", 6, { amount: 2 }), ware("Float", 3, { level: 5 })];
    const r = readingsOf(must(empty, [source({ kind: "shop", currency: shells.id, wares, level: 2 })]));
    expect(plain(r, "Smoked eel")).toBe(3);
    expect(plain(r, "Float")).toBe(3);
    expect(Math.floor(r.levels.value[at(r, "Float")] / r.levels.value[at(r, "Eel")])).toBe(2);
  });

  it("buy wares back for a share of their price, where that is more than the item's own", () => {
    const shop = source({ kind: "shop", currency: shells.id, wares: [ware("Eel", 6, { amount: 2 })], share: 0.5 });
    const r = new Readings(must(empty, [shop]));
    const sold = () => r.compiled.sells[at(r, "Eel")];
    expect(sold()).toBe(1.5);
    const follow = (edits: Edit[]) => {
      const outcome = apply(r.compiled.catalogue, edits);
      if (!outcome.ok) throw new Error("refused");
      r.advance(outcome.catalogue, outcome.edits);
    };
    follow([setField(r.compiled.catalogue, "item", item(empty, "Eel").id, "sell", 2)]);
    expect(sold()).toBe(2);
    const [{ id }] = [...r.compiled.catalogue.records.source.values()];
    follow([setField(r.compiled.catalogue, "source", id, "share", 1)]);
    expect(sold()).toBe(3);
    // Bought for 3 and sold for 3 is even; at more than its price it would be a gain.
    follow([setField(r.compiled.catalogue, "source", id, "share", 1.5)]);
    expect(r.gain.gains).toHaveLength(1);
    follow([setField(r.compiled.catalogue, "source", id, "share", null)]);
    expect(sold()).toBe(2);
    expect(r.gain.gains).toHaveLength(0);
  });

  it("draw from tables, which may give other things from some level on", () => {
    const entry = (name: string, from: number | null) => ({
      what: { is: "item" as const, item: item(empty, name).id },
      min: 1,
      max: 3,
      from,
      to: null,
    });
    const table = withDefaults("table", {
      id: newId(),
      key: "surf",
      name: "Surf",
      always: [entry("Eel", null)],
      chances: [{ chance: 0.25, ...entry("Float", 4) }],
    });
    const drop = source({ kind: "drop", price: 8, tables: [{ table: table.id, times: 2 }] });
    const r = readingsOf(must(empty, [{ op: "add", kind: "table", record: table }, drop]));
    // Two draws of 1 to 3: four eels for 8. A float comes from level 4, once in four.
    expect(plain(r, "Eel")).toBe(2);
    expect(plain(r, "Float")).toBe(8);
    expect(r.levels.value[at(r, "Float")]).toBeGreaterThan(r.levels.value[at(r, "Eel")]);
  });
});

describe("gifts", () => {
  const give = (catalogue: Catalogue, name: string, amount: number): Edit => ({
    op: "add",
    kind: "source",
    record: withDefaults("source", {
      id: newId(),
      key: `gift_${newId()}`,
      name: `Gift of ${name}`,
      kind: "gift",
      lines: [line("output", item(catalogue, name).id, amount)],
    }),
  });

  it("make nothing cheaper that can be had without, and cost nothing where nothing else gives it", () => {
    const kept = kitchen("buy Hide for 9\nSew: 1 Old sail + 1 Hide -> 1 Banner\nCut: 1 Banner -> 4 Rag");
    const r = new Readings(must(kept, [give(kept, "Hide", 3), give(kept, "Old sail", 2)]));
    expect(plain(r, "Hide")).toBe(9);
    expect(plain(r, "Banner")).toBe(9);
    // Two sails make two banners, and these eight rags; of hides there is no end.
    expect(["Old sail", "Banner", "Rag", "Hide"].map((name) => r.supply.most(at(r, name)))).toEqual([
      2,
      2,
      8,
      Number.POSITIVE_INFINITY,
    ]);
  });

  it("break a circle that has no other way in, and count as the only price until there is another", () => {
    const circle = kitchen("buy Wood for 2\nTemper: 1 Wood -> 1 Adze at Shed\nRaise: 3 Wood -> 1 Shed using Adze");
    expect(readingsOf(circle).reach.items[at(readingsOf(circle), "Adze")]).toBe(0);
    const r = new Readings(must(circle, [give(circle, "Adze", 1)]));
    expect(plain(r, "Shed")).toBe(6);
    // Everything rests on the one adze that was given: without it there is none.
    expect(plain(r, "Adze")).toBe(0);
    const shop = withDefaults("source", {
      id: newId(),
      key: "smith",
      name: "Smith",
      kind: "shop",
      price: 7,
      lines: [line("output", item(circle, "Adze").id)],
    });
    const outcome = apply(r.compiled.catalogue, [{ op: "add", kind: "source", record: shop }]);
    if (!outcome.ok) throw new Error("refused");
    r.advance(outcome.catalogue, outcome.edits);
    const anew = new Readings(outcome.catalogue);
    for (const name of ["Adze", "Shed"]) {
      expect(plain(r, name), name).toBe(plain(anew, name));
      expect(reused(r, name), name).toBe(reused(anew, name));
    }
    expect(plain(r, "Adze")).toBe(2);
  });
});

describe("all of it", () => {
  it("is to the bit what compiling from scratch gives, whatever is edited", () => {
    const random = seeded(41);
    const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)];
    let catalogue: Catalogue = kitchen(
      "stat Skill = 3\nbuy A for 3\nbuy B for 5\nbuy C for 7\nbuy K for 2\nA, B are fish\nC, K are wood\nset A burns = 30s\n" +
        "R: 2 any fish + 1 B -> 1 D + 1 K 10% plus 3% per Skill at any wood in 60s burning 20s | using C -> 2 D\nS: 1 D -> 2 E at K | at C in 5s\nT: 1 E whole + 1 D -> 1 C fee 1 shells\npattern [A, E; -, A] mirrored -> 1 F\ncombine F + A kept -> 1 B",
    );
    const r = new Readings(catalogue);
    for (let n = 0; n < 150; n++) {
      const items = [...catalogue.records.item.values()];
      const tags = [...catalogue.records.tag.keys()];
      const one = pick(items).id;
      const set = (field: string, value: unknown) => [setField(catalogue, "item", one, field, value as never)];
      const edits: readonly (() => Edit[])[] = [
        () => set("vessel", random() < 0.5 ? null : pick(items).id),
        () => set("ash", random() < 0.5 ? null : pick(items).id),
        () => set("burns", random() < 0.5 ? null : Math.ceil(random() * 900)),
        () => set("fuel", random() < 0.6 ? null : pick(tags)),
        () => set("pace", pick([null, 0.5, 2])),
        () => set("extra", pick([null, null, 0.25])),
        () => set("tags", random() < 0.4 ? [] : [pick(tags)]),
        () => set("status", pick(["ready", "ready", "ready", "retired"])),
        () => {
          const [stat] = [...catalogue.records.stat.keys()];
          return [setField(catalogue, "stat", stat, "maker", Math.ceil(random() * 30))];
        },
        () => {
          const gift = [...catalogue.records.source.values()].find((s) => s.kind === "gift");
          if (gift) return [{ op: "remove", kind: "source", record: gift } as const];
          const record = withDefaults("source", {
            id: newId(),
            key: `gift_${n}`,
            name: "Gift",
            kind: "gift",
            lines: [line("output", one)],
          });
          return [{ op: "add", kind: "source", record } as const];
        },
        () => {
          const { id, variants, heat, batch } = pick([...catalogue.records.recipe.values()]);
          if (random() < 0.2) return [setField(catalogue, "recipe", id, "batch", batch ? null : 6)];
          if (random() < 0.4) return [setField(catalogue, "recipe", id, "heat", heat ? 0 : 600)];
          const next = variants.length ? variants.slice(1) : [{ ...BLANK, level: 3, ticks: Math.ceil(random() * 100) }];
          return [setField(catalogue, "recipe", id, "variants", next as never)];
        },
      ];
      const outcome = apply(catalogue, pick(edits)());
      if (!outcome.ok) throw new Error(JSON.stringify(outcome.issues));
      catalogue = outcome.catalogue;
      r.advance(catalogue, outcome.edits);
      const anew = new Readings(catalogue);
      for (const { id, name } of catalogue.records.item.values()) {
        const [a, b] = [r.compiled.numberOf(id) as number, anew.compiled.numberOf(id) as number];
        expect(Object.is(r.value.cost[a], anew.value.cost[b]), `${n}: ${name}`).toBe(true);
        expect(r.reach.items[a], `${n}: ${name}`).toBe(anew.reach.items[b]);
        expect(r.levels.value[a], `${n}: ${name}`).toBe(anew.levels.value[b]);
      }
    }
    expect(recipe(catalogue, "F").kind).toBe("pattern");
  });
});
const BLANK = {
  name: "",
  lines: [],
  ticks: null,
  heat: null,
  batch: null,
  fee: null,
  feeCurrency: null,
  level: null,
  taughtBy: null,
};
