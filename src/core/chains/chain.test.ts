import { describe, expect, it } from "vitest";
import { around } from "../catalogue/surroundings";
import { type Node, sayNode } from "../process/node";
import type { Readings } from "../analysis/readings";
import { at, read } from "../testing/told";
import { ASKED, type Ask, type Chain, chainOf, type ChainNode } from "./chain";
import { foldedAway, stepFrom } from "./folding";
import { HEIGHT, layoutOf, WIDTH } from "./layout";
import { chainDot, chainGraphml, chainSvg, type NodeWords } from "./written";

const chain = (r: Readings, name: string, ask: Partial<Ask> = {}): Chain => {
  const found = chainOf(r, r.compiled.nodeOf(at(r, name)) as Node, { ...ASKED, ...ask });
  if (!found) throw new Error(`no chain of ${name}`);
  return found;
};
const named = (r: Readings): NodeWords => ({
  name: (node) => sayNode(around(r.catalogue), node),
  cost: (t) => String(t.cost),
  amount: (t) => String(t.amount),
});
const things = (r: Readings, c: Chain) => new Map(c.things.map((t) => [named(r).name(t.node), t] as const));
const links = (r: Readings, c: Chain) =>
  c.links.map((l) => `${named(r).name(l.from)} ${l.amount}${l.back ? " back" : ""} ${named(r).name(l.to)}`).sort();

const CRATE =
  "buy Log for 4\nbuy Nail for 0.5\nSaw: 1 Log -> 4 Plank\nBox: 6 Plank + 8 Nail -> 1 Crate fee 2 shells at Bench\nBench: 3 Plank -> 1 Bench\nStack: 2 Crate -> 1 Pile";

describe("the chain of an item", () => {
  it("has a column for each step, and of everything how much goes into one", () => {
    const r = read(CRATE);
    const c = chain(r, "Crate");
    const all = things(r, c);
    const of = (name: string) => all.get(name) as ChainNode;
    expect(c.cost).toBe(12);
    expect(["Log", "Nail", "Plank", "Crate", "Pile"].map((n) => of(n).column)).toEqual([0, 0, 1, 2, 3]);
    expect(["Log", "Nail", "Plank", "Crate"].map((n) => of(n).amount)).toEqual([1.5, 8, 6, 1]);
    expect(of("Plank").share).toBe(6);
    expect(of("Pile").onward).toBe(true);
    expect(of("Bench").kept).toBe(true);
    expect(links(r, c)).toEqual(["Bench 0 Crate", "Crate 2 Pile", "Log 1.5 Plank", "Nail 8 Crate", "Plank 6 Crate"]);
  });

  it("tells the other ways with their cost, and goes them when it is asked to", () => {
    const r = read(`${CRATE}\nbuy Plank for 3\nCarve: 1 Log -> 1 Plank`);
    const plank = things(r, chain(r, "Crate")).get("Plank") as ChainNode;
    expect(plank.way).toMatchObject({ name: "Saw", cost: 1 });
    expect(plank.others.map((w) => [w.name, w.cost])).toEqual([
      ["Plank", 3],
      ["Carve", 4],
    ]);
    const c = chain(r, "Crate", { ways: [plank.others[0].key] });
    expect(c.cost).toBe(2 + 6 * 3 + 8 * 0.5);
    expect(things(r, c).has("Log")).toBe(false);
    expect(c.refused).toEqual([]);
    // Ways of records that are gone, and what is none, leave the rest as it is.
    expect(chain(r, "Crate", { ways: ["recipe.gone00000000.0", "x", "item.a.b", ""] }).cost).toBe(12);
  });

  it("does not go a way that would go round forever", () => {
    const r = read("buy Salt for 3\nDissolve: 1 Salt -> 1 Brine\nDraw: 1 Brine -> 1 Salt");
    const salt = things(r, chain(r, "Brine")).get("Salt") as ChainNode;
    const c = chain(r, "Brine", { ways: [salt.others[0].key] });
    expect(c.refused).toEqual([salt.others[0].key]);
    expect(c.cost).toBe(3);
  });

  it("draws a loop as one", () => {
    const r = read("buy Salt for 1000\nbuy Sack for 2\nA: 1 Salt + 1 Sack -> 1 Brine\nB: 1 Brine -> 1.2 Salt");
    const c = chain(r, "Brine");
    expect(c.links.some((l) => l.back)).toBe(true);
    expect(c.cost).toBeCloseTo(12, 9);
    const { ribbons } = layoutOf(c, "cost");
    expect(ribbons.filter((x) => x.back)).toHaveLength(c.links.filter((l) => l.back).length);
  });

  it("shows what can't be had, with what is missing behind it", () => {
    const r = read("gather Eel\n1 Ship's glass + 1 Eel -> 1 Lens\n1 Lens -> 1 Spyglass");
    const c = chain(r, "Spyglass");
    expect(c.cost).toBeNull();
    const all = things(r, c);
    expect([...all.keys()].sort()).toEqual(["Eel", "Lens", "Ship's glass", "Spyglass"]);
    expect(all.get("Spyglass")?.causes.map(named(r).name)).toEqual(["Ship's glass"]);
    expect(all.get("Spyglass")?.amount).toBe(1);
  });

  it("names any item with a tag and the member that is taken", () => {
    const r = read("buy Eel for 5\nbuy Bass for 3\nEel, Bass are fish\nPot: 3 any fish -> 1 Paste");
    const c = chain(r, "Paste");
    expect(links(r, c)).toEqual(["Bass 3 any fish", "any fish 3 Paste"]);
    expect(
      things(r, c)
        .get("any fish")
        ?.others.map((w) => w.name),
    ).toEqual(["Eel as any fish"]);
  });

  it("folds the thinnest where there are more than are asked for", () => {
    const rows = Array.from({ length: 40 }, (_, k) => `buy B${k} for ${k + 1}`);
    const r = read(`${rows.join("\n")}\nAll: ${rows.map((_, k) => `1 B${k}`).join(" + ")} -> 1 Heap`);
    const c = chain(r, "Heap", { most: 11 });
    expect(c.things).toHaveLength(11);
    expect(c.folded).toBe(30);
    expect(things(r, c).has("B39")).toBe(true);
    expect(things(r, c).has("B0")).toBe(false);
  });
});

describe("a chain that is drawn", () => {
  const deep = () => {
    const rows = ["buy A0 for 1", "buy B0 for 2"];
    for (let k = 1; k <= 12; k++) {
      rows.push(
        `X${k}: 1 A${k - 1} + 1 B${k - 1} -> 1 A${k}`,
        `Y${k}: 2 B${k - 1} + 1 A${Math.max(0, k - 3)} -> 1 B${k}`,
      );
    }
    return read(rows.join("\n"));
  };

  it("stands in its columns, and nothing stands on anything", () => {
    const c = chain(deep(), "A12");
    const { boxes, ribbons, width, height } = layoutOf(c, "amount");
    expect(boxes).toHaveLength(c.things.length);
    for (const [k, a] of boxes.entries()) {
      expect(a.x + WIDTH <= width && a.y >= 0 && a.y + HEIGHT <= height).toBe(true);
      for (const b of boxes.slice(k + 1)) {
        if (a.column !== b.column) expect(a.x === b.x).toBe(false);
        else expect(Math.abs(a.y - b.y)).toBeGreaterThanOrEqual(HEIGHT);
      }
    }
    const widest = ribbons.reduce((x, y) => (x.width > y.width ? x : y));
    const heaviest = c.links.reduce((x, y) => ((x.amount ?? 0) > (y.amount ?? 0) ? x : y));
    expect([widest.from, widest.to]).toEqual([heaviest.from, heaviest.to]);
    expect(new Set(layoutOf(c, "even").ribbons.map((x) => x.width)).size).toBe(1);
  });

  it("puts in order what would cross", () => {
    const r = read(
      "buy A1 for 1\nbuy A2 for 1\nbuy A3 for 1\n1 A1 -> 1 M3\n1 A2 -> 1 M2\n1 A3 -> 1 M1\nZ: 1 M1 + 1 M2 + 1 M3 -> 1 Whole",
    );
    const c = chain(r, "Whole");
    const y = new Map(layoutOf(c, "cost").boxes.map((b) => [named(r).name(b.node), b.y]));
    const order = (names: string[]) => [...names].sort((a, b) => (y.get(a) as number) - (y.get(b) as number));
    const behind = { M1: "A3", M2: "A2", M3: "A1" } as const;
    const middle = order(["M1", "M2", "M3"]) as (keyof typeof behind)[];
    expect(order(["A1", "A2", "A3"])).toEqual(middle.map((m) => behind[m]));
    // Ribbons that need not bend do not.
    for (const m of middle) expect(y.get(m)).toBe(y.get(behind[m]));
    expect(y.get("Whole")).toBe(y.get(middle[1]));
  });

  it("is folded and walked", () => {
    const r = read(CRATE);
    const c = chain(r, "Crate");
    const node = (name: string) => things(r, c).get(name)?.node as Node;
    const less = foldedAway(c, new Set([node("Plank")]));
    expect([...things(r, less).keys()].sort()).toEqual(["Bench", "Crate", "Nail", "Pile", "Plank"]);
    expect(less.folded).toBe(c.folded + 1);
    const order = [...layoutOf(c, "cost").boxes].sort((a, b) => a.y - b.y).map((b) => b.node);
    expect(stepFrom(c, order, node("Crate"), "left")).toBe(node("Plank"));
    expect(stepFrom(c, order, node("Crate"), "right")).toBe(node("Pile"));
    expect(stepFrom(c, order, node("Pile"), "right")).toBeNull();
    const column = order.filter((n) => [node("Log"), node("Nail")].includes(n));
    expect(stepFrom(c, order, column[0], "down")).toBe(column[1]);
    expect(stepFrom(c, order, column[1], "up")).toBe(column[0]);
  });

  it("is written as a picture and as graphs, whatever the names hold", () => {
    const r = read('buy Log for 4\nSaw: 1 Log -> 1 "A & <B> \\"C\\""');
    const c = chain(r, 'A & <B> "C"');
    const svg = chainSvg(c, layoutOf(c, "cost"), named(r));
    expect(svg).toContain("A &#38; &#60;B&#62; &#34;C&#34;");
    expect(svg).not.toMatch(/<B>|href|url\(/);
    expect(chainDot(c, named(r))).toContain('label="A & <B> \\"C\\""');
    const graphml = chainGraphml(c, named(r));
    expect(graphml.match(/<node /g)).toHaveLength(2);
    expect(graphml).toContain('<data key="units">1</data>');
  });
});
