/**
 * Situations as designers tell them, each written as lines and computed by hand: what it costs, whether it can be had,
 * from which level, how often, in which steps.
 */
import { describe, expect, it } from "vitest";
import { steadyCost } from "../analysis/steady";
import { LEVEL } from "../analysis/registry";
import { planFor } from "../analysis/plan";
import { Readings } from "../analysis/readings";
import { type Edit, setField } from "../catalogue/edit";
import { around } from "../catalogue/surroundings";
import { type Source, withDefaults } from "../kinds/index";
import { formatRecipe } from "../notation/format";
import { parseLine } from "../notation/parser";
import { wordsOf } from "../editing/recipes";
import { newId } from "../schema/id";
import { item, kitchen, line, must, recipe, shells } from "../testing/kitchen";
import { at, label, told } from "../testing/told";

interface Asked {
  /** What designers would say. */
  readonly words: string;
  readonly lines: string;
  /** Least cost of one, side outputs bearing the whole too; Infinity: can't be had. An hour is worth nothing. */
  readonly costs?: { readonly [name: string]: number };
  /** Of one more, where what comes back is used again. */
  readonly reused?: { readonly [name: string]: number };
  /** Seconds for one. */
  readonly seconds?: { readonly [name: string]: number };
  /** Level from which it can be had. */
  readonly levels?: { readonly [name: string]: number };
  /** The most a world can ever hold. */
  readonly most?: { readonly [name: string]: number };
  /** Steps of a plan for some, in any order. */
  readonly plan?: readonly [make: string, n: number, steps: readonly string[], value: number];
  readonly gains?: readonly string[];
  /** What no line of a kitchen says. */
  readonly more?: (text: string) => Readings;
}

const NEVER = Number.POSITIVE_INFINITY;
const shop = (name: string, wares: readonly Partial<Source["wares"][number]>[], more: Partial<Source> = {}): Edit => ({
  op: "add",
  kind: "source",
  record: withDefaults("source", {
    id: newId(),
    key: `shop_${newId()}`,
    name,
    kind: "shop",
    currency: shells.id,
    wares: wares.map((w) => ({
      amount: 1,
      price: 1,
      currency: null,
      stock: null,
      restock: 0,
      level: null,
      ...w,
    })) as never,
    ...more,
  }),
});
const plus = (edits: (text: ReturnType<typeof kitchen>) => readonly Edit[]) => (text: string) => {
  const bare = kitchen(text);
  return new Readings(must(bare, edits(bare)));
};
const BANK = "buy Eel for 5\nbuy Bass for 3\nbuy Crock for 1\nbuy Clay for 2\nbuy Peat for 4\nset Peat burns = 40s\n";

const SITUATIONS: readonly Asked[] = [
  {
    words: "three of any fish and a crock make a paste",
    lines: `${BANK}Eel, Bass are fish\n3 any fish + Crock -> Paste`,
    costs: { Paste: 10 },
  },
  {
    words:
      "whoever has any knife guts an eel; a bone knife is good for ten, an iron one for forty at four times the price",
    lines: `${BANK}buy Bone knife for 2\nbuy Iron knife for 8\nBone knife, Iron knife are knife\nEel -> Fillet using any knife lasting 10 | using Iron knife lasting 40`,
    // 5 + 2 ÷ 10, and 5 + 8 ÷ 40.
    costs: { Fillet: 5.2 },
  },
  {
    words: "five straps of a hide, six with the finer knife, and a tanner of level 9 gets seven with either",
    lines: `buy Hide for 42\ngather Knife\ngather Fine knife\nsalvage Hide -> 5 Strap using Knife | -> 6 Strap using Fine knife | -> 7 Strap level 9`,
    costs: { Strap: 6 },
    levels: { Strap: 0 },
  },
  {
    words: "bricks are fired at any kiln; the great kiln takes half as long and now and then gives one more",
    lines: `${BANK}gather Kiln\ngather Great kiln\nKiln, Great kiln are kiln\nset Great kiln pace = 50%\nset Great kiln extra = 25%\n2 Clay -> 4 Brick at any kiln in 60s`,
    costs: { Brick: 0.8 },
    seconds: { Brick: 6 },
  },
  {
    words: "a stew comes in a crock, which container returned when the stew goes into something else",
    lines: `${BANK}Eel + Crock -> Stew\nset Stew vessel = Crock\nStew + 2 Clay -> Glaze`,
    costs: { Glaze: 10 },
    reused: { Glaze: 9 },
  },
  {
    words: "a parcel takes the stew with its crock",
    lines: `${BANK}Eel + Crock -> Stew\nset Stew vessel = Crock\nStew whole -> Parcel`,
    reused: { Parcel: 6 },
  },
  {
    words: "a brick needs a minute of heat; peat burns forty seconds, wrackwood ten for nothing but its gathering",
    lines: `${BANK}buy Wrackwood for 0.5\nset Wrackwood burns = 10s\nClay -> Brick burning 60s`,
    costs: { Brick: 5 },
    plan: ["Brick", 1, ["1 Clay", "6 Wrackwood", "6 Burn Wrackwood", "1 Brick"], 5],
  },
  {
    words: "the spirit lamp burns spirits only",
    lines: `${BANK}buy Rum for 9\nset Rum burns = 30s\nRum are spirit\ngather Spirit lamp\nset Spirit lamp fuel = spirit\nClay -> Bead at Spirit lamp burning 10s`,
    costs: { Bead: 5 },
  },
  {
    words: "what is left of burnt peat is ash, and ash makes soap",
    lines: `${BANK}set Peat ash = Ash\nClay -> Brick burning 40s\n4 Ash -> Soap`,
    costs: { Ash: 4, Soap: 16 },
  },
  {
    words: "a lantern runs down over eight nights and leaves an empty one",
    lines: `buy Full lantern for 12\nbuy Empty lantern for 4\nbuy Bait for 1\nset Full lantern vessel = Empty lantern\nBait -> Catch using Full lantern lasting 8`,
    costs: { Catch: 2.5 },
    reused: { Catch: 2.5 },
  },
  {
    words: "flint struck on a brass file gives a spark; the file stays",
    lines: "buy Flint for 3\nbuy Brass file for 50\ncombine Flint + Brass file kept -> 1 Spark",
    costs: { Spark: 3 },
  },
  {
    words: "the file wears out after a hundred strikes",
    lines: "buy Flint for 3\nbuy Brass file for 50\ncombine Flint + Brass file kept lasting 100 -> 1 Spark",
    costs: { Spark: 3.5 },
  },
  {
    words: "a rope ladder lies as two ropes over a tar and may be mirrored",
    lines: "buy Rope for 2\nbuy Tar for 1\npattern [Rope, Rope; Tar, -] mirrored -> 1 Rope ladder",
    costs: { "Rope ladder": 5 },
  },
  {
    words: "a raft is nine of any timber in a square",
    lines:
      "buy Alder for 2\nbuy Willow for 3\nAlder, Willow are timber\npattern [any timber, any timber, any timber; any timber, any timber, any timber; any timber, any timber, any timber] -> 1 Raft",
    costs: { Raft: 18 },
  },
  {
    words: "the chandler sells ten nails for 5 shells, and one rope for 2 tide marks",
    lines: "3 Nail -> Bundle\nRope + Nail -> Swing",
    more: plus((c) => [
      {
        op: "add",
        kind: "currency",
        record: withDefaults("currency", { id: newId(), key: "tm", name: "tide marks", worth: 12 }),
      },
      shop("Chandler", [{ item: item(c, "Nail").id, amount: 10, price: 5 }]),
      shop("Pilot", [{ item: item(c, "Rope").id, price: 24 }]),
    ]),
    costs: { Nail: 0.5, Bundle: 1.5, Swing: 24.5 },
  },
  {
    words: "there are three brass bells in the whole world, and a harbour takes two",
    lines: "2 Bell -> Harbour",
    more: plus((c) => [shop("Wreck sale", [{ item: item(c, "Bell").id, price: 90, stock: 3 }])]),
    costs: { Harbour: 180 },
    most: { Bell: 3, Harbour: 1.5 },
  },
  {
    words: "the chart is sold from level 10 on, one an hour, which is no limit",
    lines: "Chart -> Course",
    more: plus((c) => [shop("Pilot", [{ item: item(c, "Chart").id, price: 7, stock: 1, restock: 72_000, level: 10 }])]),
    costs: { Course: 7 },
    levels: { Course: 10 },
    most: { Chart: NEVER },
  },
  {
    words: "everybody begins with one old knife; that makes knives no cheaper",
    lines: "buy Old knife for 4\ngive 1 Old knife\nbuy Eel for 5\nEel + Old knife -> Trophy",
    costs: { Trophy: 9 },
    most: { "Old knife": NEVER },
  },
  {
    words: "founders get two sails that are had no other way; a banner takes one",
    lines: "give 2 Founders' sail\nbuy Pole for 3\n1 Founders' sail + 1 Pole -> Banner",
    costs: { Banner: 3 },
    most: { Banner: 2 },
  },
  {
    words: "the first adze is given, every other is made with one at hand",
    lines: "give 1 Adze\nbuy Iron for 6\nbuy Wood for 1\nSecond: 2 Iron + Wood -> 1 Adze using Adze",
    most: { Adze: NEVER },
  },
  {
    words: "an eel is skinned, and in three of ten the oil can be saved",
    lines: `${BANK}Eel -> Skin + 1 Oil 30%`,
    costs: { Skin: 5, Oil: 5 / 0.3 },
  },
  {
    words: "one to three pearls, but only in one oyster of twenty",
    lines: "buy Oyster for 2\nOyster -> 1-3 Pearl 5%",
    costs: { Pearl: 20 },
  },
  {
    words: "the deft find more: two in a hundred for each point, and the town reckons with ten",
    lines: "stat Deftness = 10\nbuy Oyster for 2\nOyster -> Pearl 5% plus 2% per Deftness",
    costs: { Pearl: 8 },
  },
  {
    words: "a cook of skill burns fewer: four in ten go wrong, three in a hundred less for each point",
    lines: "stat Cooking = 10\nbuy Dough for 3\nDough -> Bread + 1 Cinders 40% minus 3% per Cooking",
    costs: { Bread: 3, Cinders: 30 },
  },
  {
    words: "a crate gives one of rope, cleat or nothing, five to three to two, twice",
    lines: "buy Crate for 6\nsalvage Crate -> 2 draws { 5: 2 Rope | 3: Cleat | 2: nothing }",
    // 2 × 5 ÷ 10 × 2 ropes, 2 × 3 ÷ 10 cleats.
    costs: { Rope: 3, Cleat: 10 },
  },
  {
    words: "twelve loaves go into the oven at once, and take a minute and its peat together",
    lines: `${BANK}buy Dough for 1\ngather Oven\nDough -> Loaf at Oven in 60s burning 40s batch 8`,
    costs: { Loaf: 1.5 },
    seconds: { Loaf: 7.5 },
    plan: ["Loaf", 9, ["9 Dough", "2 Peat", "2 Burn Peat", "9 Loaf"], 17],
  },
  {
    words: "sails are sewn in the loft or, slower, by hand",
    lines: "buy Cloth for 4\ngather Loft in 600s\n3 Cloth -> Sail at Loft in 60s | By hand: in 5m",
    costs: { Sail: 12 },
  },
  {
    words: "smoking is known from the start, kippers from level 6, and potting is read in a book for 30",
    lines: `${BANK}buy Book for 30\nEel -> Smoked eel\nBass -> Kipper level 6\nBass + Crock -> Potted bass taught by Book`,
    costs: { "Smoked eel": 5, Kipper: 3, "Potted bass": 4 },
    levels: { "Smoked eel": 0, Kipper: 6 },
  },
  {
    words: "the dye house charges two shells for every bolt",
    lines: "buy Bolt for 5\nBolt -> Red bolt fee 2 shells",
    costs: { "Red bolt": 7 },
  },
  {
    words: "a finder's way out: half a whetstone is used up in honing",
    lines: "buy Whetstone for 6\nbuy Blade for 4\nBlade + 0.5 Whetstone -> Keen blade",
    costs: { "Keen blade": 7 },
  },
  {
    words: "the mordant is spoilt in one bath of four",
    lines: "buy Alum for 8\nbuy Wool for 2\nWool + Alum 25% -> Dyed wool",
    costs: { "Dyed wool": 4 },
  },
  {
    words: "salt can be boiled or raked; raking is free but slow, boiling is for who has peat",
    lines: `${BANK}gather Brine\ngather Raked salt in 300s\nboil: 6 Brine + Peat -> 4 Salt in 40s\nrake: Raked salt -> Salt`,
    costs: { Salt: 0 },
    seconds: { Salt: 10 },
  },
  {
    words: "nine bits are a bar, a bar is nine bits, and nobody gains by it",
    lines: "buy Bar for 18\nbits: Bar -> 9 Bit\nbar: 9 Bit -> Bar",
    costs: { Bit: 2, Bar: 18 },
    gains: [],
  },
  {
    words: "a careless salvage gives six planks of a crate that takes five",
    lines: "buy Plank for 2\nbox: 5 Plank -> Crate\nbreak: salvage Crate -> 6 Plank",
    gains: ["1 box + 1 break => 1 Plank"],
  },
  {
    words: "any fish can be ground to meal, and meal feeds two eels: fish out of nothing",
    lines: `${BANK}Eel, Bass are fish\ngrind: any fish -> Meal\nbreed: Meal -> 2 Eel`,
    gains: ["1 breed + 1 Eel as any fish + 1 grind => 1 Eel"],
  },
  {
    words: "the retired eel is no fish any more",
    lines: `${BANK}Eel, Bass are fish\nset Bass status = retired\n3 any fish + Crock -> Paste`,
    costs: { Paste: 16 },
  },
  {
    words: "ale needs barm and barm is skimmed of ale: nobody can begin",
    lines: "buy Malt for 2\nMalt + Barm -> Ale\nskim: Ale -> 2 Barm",
    costs: { Ale: NEVER, Barm: NEVER },
  },
  {
    words: "a jar of barm is given to whoever asks the brewer, once",
    lines: "buy Malt for 2\ngive 1 Barm\nMalt + Barm -> Ale\nskim: Ale -> 2 Barm",
    most: { Ale: NEVER },
  },
  {
    words: "six smoked eels for the feast: there are two eels and one knife in the house",
    lines: `${BANK}buy Knife for 8\nsmoke: 2 Eel -> 2 Smoked eel using Knife lasting 40`,
    plan: ["Smoked eel", 6, ["6 Eel", "1 Knife", "3 smoke"], 38],
  },
  {
    words:
      "the great brick works everything: heat from turf, a batch of four, a kept mould, and what container returned",
    lines: `${BANK}Peat are turf\ngather Works\nset Works fuel = turf\nbuy Mould for 100\nbuy Slip for 3\nset Slip vessel = Crock\n2 Slip -> 3 Brick at Works using Mould in 60s burning 20s batch 4`,
    // 2 × 3 + 20 ÷ 40 × 4 ÷ 4 over three; two crocks come back, and no one fills them.
    costs: { Brick: 6.5 / 3 },
    reused: { Brick: 6.5 / 3 },
  },
];

describe("situations", () => {
  it("are forty", () => expect(SITUATIONS.length).toBe(40));

  for (const asked of SITUATIONS)
    it(`is written: ${asked.words}`, () => {
      const { lines, costs = {}, reused = {}, seconds = {}, levels = {}, most = {}, plan, gains } = asked;
      const r = asked.more?.(lines) ?? new Readings(kitchen(lines));
      for (const [name, n] of Object.entries(costs)) expect(r.value.cost[at(r, name)], name).toBeCloseTo(n, 9);
      for (const [name, n] of Object.entries(reused))
        expect(steadyCost(r, "value", at(r, name))?.cost, name).toBeCloseTo(n, 9);
      for (const [name, n] of Object.entries(seconds)) expect(r.time.cost[at(r, name)], name).toBeCloseTo(n, 9);
      for (const [name, n] of Object.entries(levels))
        expect(Math.floor(r.levels.value[at(r, name)] / LEVEL), name).toBe(n);
      for (const [name, n] of Object.entries(most)) expect(r.supply.most(at(r, name)), name).toBe(n);
      if (gains) expect(told(r)).toEqual(gains);
      if (plan) {
        const [make, n, steps, value] = plan;
        const found = planFor(r, { make: new Map([[at(r, make), n]]) });
        if ("no" in found) throw new Error(found.no);
        expect(found.steps.map((s) => `${s.runs} ${label(r, s.process)}`).sort()).toEqual([...steps].sort());
        expect(found.value).toBeCloseTo(value, 9);
      }
      // Someone else reads it a day later: what stands there is what was meant.
      for (const of of r.compiled.catalogue.records.recipe.values()) {
        const written = formatRecipe(around(r.compiled.catalogue), of);
        const again = parseLine(written, wordsOf(r.compiled.catalogue));
        expect(
          again.issues.filter((i) => i.severity !== "note"),
          written,
        ).toEqual([]);
        expect(again.kind, written).toBe(of.kind);
      }
    });

  it("stays what it is when a price moves", () => {
    const r = new Readings(kitchen(SITUATIONS[0].lines));
    const { catalogue } = r.compiled;
    const bass = [...catalogue.records.source.values()].find((s) => s.name === "Bass");
    const edits = [setField(catalogue, "source", bass?.id as never, "price", 8)];
    r.advance(must(catalogue, edits), edits);
    expect(r.value.cost[at(r, "Paste")]).toBe(16);
    expect(recipe(catalogue, "Paste").lines).toContainEqual(line("ingredient", item(catalogue, "Crock").id));
  });
});
