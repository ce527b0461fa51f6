/** Any item with a tag: costs what its cheapest member costs, can be had if any can, and is followed as all else is. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { apply } from "../catalogue/apply";
import type { Catalogue } from "../catalogue/catalogue";
import { type Edit, setField } from "../catalogue/edit";
import { addRecipes, wordsOf } from "../editing/recipes";
import { processAt } from "../network/compile";
import { nodeOfTag } from "../process/node";
import { parseLine } from "../notation/parser";
import { seeded } from "../numbers/seeded";
import type { Id } from "../schema/id";
import { item, kitchen, must, recipe } from "../testing/kitchen";
import { at, read, told } from "../testing/told";
import { planFor } from "./plan";
import { Readings } from "./readings";

const value = (r: Readings, name: string) => r.value.cost[at(r, name)];
const fish = (catalogue: Catalogue): Id => [...catalogue.records.tag.keys()][0];
const edit = (r: Readings, edits: readonly Edit[]): Readings => {
  const outcome = apply(r.compiled.catalogue, edits);
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.issues));
  r.advance(outcome.catalogue, outcome.edits);
  return r;
};

const SHORE = "buy Eel for 5\nbuy Bass for 3\nbuy Stone crock for 1\nEel, Bass are fish\n";
const PASTE = `${SHORE}Pot: 3 any fish + 1 Stone crock -> 1 Fish paste`;

describe("any item with a tag", () => {
  it("costs what its cheapest member costs, as an ingredient, a tool that wears and a station", () => {
    expect(value(read(PASTE), "Fish paste")).toBe(10);
    expect(value(read(`${SHORE}Gut: 1 Stone crock -> 1 Fillet using any fish lasting 3`), "Fillet")).toBe(2);
    const at = read(`${SHORE}Mill: 1 Stone crock -> 1 Grit at any quern`);
    expect(value(at, "Grit")).toBe(Number.POSITIVE_INFINITY);
    expect(value(read(`${SHORE}Eel are quern\nMill: 1 Stone crock -> 1 Grit at any quern`), "Grit")).toBe(1);
  });

  it("names the member in a plan", () => {
    const r = read(PASTE);
    const plan = planFor(r, { make: new Map([[at(r, "Fish paste"), 2]]) });
    if ("no" in plan) throw new Error(plan.no);
    const steps = plan.steps.map((s) => [processAt(r.compiled, s.process).record.name, s.runs]);
    expect(steps).toContainEqual(["Bass as any fish", 6]);
    expect(steps).toContainEqual(["Pot", 2]);
    expect(steps.some(([name]) => String(name).includes("Eel"))).toBe(false);
  });

  it("follows members that come, go, retire and get cheaper, and the first recipe that asks", () => {
    const r = new Readings(kitchen(PASTE));
    const now = () => r.compiled.catalogue;
    const tag = fish(now());
    edit(r, [setField(now(), "item", item(now(), "Bass").id, "tags", [])]);
    expect(value(r, "Fish paste")).toBe(16);
    edit(r, [setField(now(), "item", item(now(), "Stone crock").id, "tags", [tag])]);
    expect(value(r, "Fish paste")).toBe(4);
    edit(r, [setField(now(), "item", item(now(), "Stone crock").id, "status", "retired")]);
    expect(value(r, "Fish paste")).toBe(16);
    edit(r, [setField(now(), "item", item(now(), "Eel").id, "tags", [])]);
    expect(r.reach.items[at(r, "Fish paste")]).toBe(0);
    const plain = new Readings(kitchen(SHORE));
    const line = parseLine("Smoke: 2 any fish -> 1 Supper", wordsOf(plain.compiled.catalogue));
    edit(plain, addRecipes(plain.compiled.catalogue, [line]));
    expect(value(plain, "Supper")).toBe(6);
    expect(plain.compiled.numberOf(nodeOfTag(fish(plain.compiled.catalogue)))).toBeDefined();
    edit(plain, [{ op: "remove", kind: "recipe", record: recipe(plain.compiled.catalogue, "Smoke") }]);
    expect(plain.reach.items[at(plain, "Supper")]).toBe(0);
  });

  it("gives back what a member is in when a run has used it up, and not before", () => {
    const POTTED = "buy Potted eel for 9\nPotted eel are fish\nCrock are goods\nset Potted eel vessel = Crock\n";
    const crock = (lines: string) => {
      const r = read(`${POTTED}${lines}`);
      return [r.reach.items[at(r, "Crock")], r.gain.gains.length];
    };
    // No oven is anywhere; no one takes the recipe any more; a tool is kept.
    expect(crock("Bake: 1 any fish -> 1 Pie at Oven")).toEqual([0, 0]);
    expect(crock("gather Ash\nStir: 1 Ash -> 1 Soup using any fish")).toEqual([0, 0]);
    expect(crock("gather Oven\nBake: 1 any fish -> 1 Pie at Oven")).toEqual([1, 0]);
    const retired = kitchen(`${POTTED}Bake: 1 any fish -> 1 Pie`);
    const shut = new Readings(
      must(retired, [setField(retired, "recipe", recipe(retired, "Bake").id, "status", "retired")]),
    );
    expect(shut.reach.items[at(shut, "Crock")]).toBe(0);
    // Others come in nothing: each its own way, and the plan says which.
    const both = read(
      `${POTTED}buy Eel for 4\nEel are fish\nBake: 2 any fish -> 1 Pie\nFill: 1 Crock + 1 Pie -> 1 Gift`,
    );
    expect([value(both, "Pie"), value(both, "Crock"), value(both, "Gift")]).toEqual([8, 9, 17]);
  });

  it("is netted out where a run gives some of a member itself", () => {
    const cost = (line: string) => value(read(`buy Eel for 10\nEel are fish\n${line}`), "Pie");
    for (const [any, named] of [
      ["3 any fish -> 2 Eel + 1 Pie", "3 Eel -> 2 Eel + 1 Pie"],
      ["2 any fish -> 1 Eel 50% + 1 Pie", "2 Eel -> 1 Eel 50% + 1 Pie"],
      ["1 any fish + 1 Eel -> 1 Eel + 1 Pie", "2 Eel -> 1 Eel + 1 Pie"],
    ])
      expect(cost(any), any).toBe(cost(named));
    // Three bass give two eels, which are cheaper then than those that are sold.
    const SOLD = "buy Eel for 10\nbuy Bass for 3\n";
    const all = ["Pie", "Eel"].map((name) =>
      value(read(`${SOLD}Eel, Bass are fish\n3 any fish -> 2 Eel + 1 Pie`), name),
    );
    const apart = read(`${SOLD}3 Eel -> 2 Eel + 1 Pie\n3 Bass -> 2 Eel + 1 Pie`);
    expect(all).toEqual(["Pie", "Eel"].map((name) => value(apart, name)));
    expect(all).toEqual([4.5, 4.5]);
  });

  it("is gone through by loops", () => {
    expect(told(read(`${SHORE}Stir: 2 any fish -> 3 Eel`))).toEqual(["1 Stir => 1 Eel"]);
  });

  it("costs what the same recipe costs once for each member, on small random pantries", () => {
    const name = fc.nat(5).map((i) => `Item${i}`);
    const entry = fc.tuple(fc.constantFrom("1", "2", "0.5"), name, fc.boolean());
    const line = fc.tuple(fc.array(entry, { minLength: 1, maxLength: 2 }), name, fc.constantFrom("", " fee 1 shells"));
    const pantry = fc.tuple(
      fc.uniqueArray(name, { minLength: 1, maxLength: 3 }),
      fc.array(fc.tuple(name, fc.integer({ min: 1, max: 9 })), { maxLength: 3 }),
      fc.array(line, { minLength: 1, maxLength: 6 }),
    );
    fc.assert(
      fc.property(pantry, ([members, bought, lines]) => {
        const sources = bought.map(([n, price]) => `buy ${n} for ${price}`);
        const tagged = `${[...sources, `${members.join(", ")} are fish`].join("\n")}\n`;
        const asked = lines.map(([ins, out, fee]) => {
          const side = ins.map(([q, n, any]) => `${q} ${any ? "any fish" : n}`).join(" + ");
          return `${side} -> 1 ${out}${fee}`;
        });
        // Once for each choice of a member for each entry.
        const spelt = lines.flatMap(([ins, out, fee]) =>
          ins
            .reduce<string[]>(
              (sides, [q, n, any]) =>
                sides.flatMap((side) => (any ? members : [n]).map((m) => `${side}${side && " + "}${q} ${m}`)),
              [""],
            )
            .map((side) => `${side} -> 1 ${out}${fee}`),
        );
        const [a, b] = [read(tagged + asked.join("\n")), read(tagged + spelt.join("\n"))];
        for (const i of a.compiled.catalogue.records.item.values()) {
          const [x, y] = [value(a, i.name), value(b, i.name)];
          if (Number.isFinite(x)) expect(x, `${asked.join("\n")}: ${i.name}`).toBeCloseTo(y, 9);
          else expect(y).toBe(x);
        }
        expect(a.gain.gains.length > 0).toBe(b.gain.gains.length > 0);
      }),
      { numRuns: 150 },
    );
  });

  it("is to the bit what compiling from scratch gives, whatever is edited", () => {
    const random = seeded(13);
    const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)];
    let catalogue = kitchen(
      "buy A for 3\nbuy B for 5\nbuy C for 7\nA, B are fish\nC are wood\nR: 2 any fish + 1 any wood -> 1 D\nS: 1 D -> 2 E\nT: 1 E -> 1 C fee 1 shells",
    );
    const r = new Readings(catalogue);
    for (let n = 0; n < 150; n++) {
      const items = [...catalogue.records.item.values()];
      const tags = [...catalogue.records.tag.keys()];
      const recipes = [...catalogue.records.recipe.values()];
      const edits = ((): Edit[] => {
        switch (Math.floor(random() * 4)) {
          case 0:
            return [setField(catalogue, "item", pick(items).id, "tags", random() < 0.4 ? [] : [pick(tags)])];
          case 1:
            return [setField(catalogue, "item", pick(items).id, "status", pick(["ready", "ready", "retired"]))];
          case 2: {
            const { id, lines } = pick(recipes);
            const k = Math.floor(random() * lines.length);
            const named =
              random() < 0.5 ? { item: pick(items).id, any: undefined } : { item: undefined, any: pick(tags) };
            const line = lines[k].role === "output" ? lines[k] : { ...lines[k], ...named };
            const clean = Object.fromEntries(Object.entries(line).filter(([, v]) => v !== undefined));
            return [setField(catalogue, "recipe", id, "lines", lines.map((l, j) => (j === k ? clean : l)) as never)];
          }
          default:
            return [setField(catalogue, "recipe", pick(recipes).id, "status", pick(["ready", "retired"]))];
        }
      })();
      const outcome = apply(catalogue, edits);
      if (!outcome.ok) throw new Error(JSON.stringify(outcome.issues));
      catalogue = must(catalogue, edits);
      r.advance(outcome.catalogue, outcome.edits);
      catalogue = outcome.catalogue;
      const anew = new Readings(catalogue);
      for (const { id, name } of catalogue.records.item.values()) {
        const [a, b] = [r.compiled.numberOf(id) as number, anew.compiled.numberOf(id) as number];
        expect(r.value.cost[a], `${n} ${name}`).toBe(anew.value.cost[b]);
        expect(r.reach.items[a]).toBe(anew.reach.items[b]);
        expect(r.levels.value[a]).toBe(anew.levels.value[b]);
      }
    }
  });
});
