import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { setField } from "../catalogue/changes";
import { line } from "../catalogue/records";
import { show } from "../numbers/fraction";
import { item, kitchen, must, recipe } from "../testing/kitchen";
import { components, rounds } from "./components";
import { compile, expected, expectedExactly, type Network, netYield, type Rows, transpose } from "./network";

const at = (n: Network, name: string) => n.index.get(item(n.catalogue, name).id) as number;
const row = (n: Network, rows: Rows, p: number) => {
  const names = [...n.catalogue.item.values()].map((i) => i.name);
  return Object.fromEntries(Array.from({ length: rows.ptr[p + 1] - rows.ptr[p] }, (_, k) => [names[rows.to[rows.ptr[p] + k]], rows.qty[rows.ptr[p] + k]]));
};
const last = (n: Network) => n.processes.length - 1;

describe("compiling", () => {
  it("expects the middle of a range times its chance, a tool's wear, nothing of a station", () => {
    const id = item(kitchen("gather Eel"), "Eel").id;
    expect(expected(line("output", id, 1, 3, 0.5))).toBe(1);
    expect(expected(line("tool", id, 1, 1, 1, 50))).toBe(0.02);
    expect(expected(line("tool", id))).toBe(0);
    expect(expected(line("station", id))).toBe(0);
    expect(expected(line("output", id, 2, 2, 1.4))).toBe(2);
    expect(show(expectedExactly(line("output", id, 0.1, 0.2, 0.1)))).toBe("3/200");
    expect(show(expectedExactly(line("tool", id, 1, 1, 1, 3)))).toBe("1/3");
  });

  it("keeps what is used, what is made and what must be at hand apart", () => {
    const n = compile(kitchen("2 Eel + 1 Salt -> 2 Smoked eel + 1 Skin 40% at Shed using Knife lasting 50 + Board in 90s"));
    expect(row(n, n.uses, last(n))).toEqual({ Eel: 2, Salt: 1, Knife: 0.02 });
    expect(row(n, n.makes, last(n))).toEqual({ "Smoked eel": 2, Skin: 0.4 });
    expect(Object.keys(row(n, n.needs, last(n))).sort()).toEqual(["Board", "Eel", "Knife", "Salt", "Shed"]);
    expect(n.seconds[last(n)]).toBe(90);
    expect(n.consumes[last(n)]).toBe(1);
  });

  it("nets out exactly what stands on both sides", () => {
    const n = compile(kitchen("3 Fish + 1 Crock -> 1 Paste + 1 Crock"));
    expect(row(n, n.uses, last(n))).toEqual({ Fish: 3 });
    expect(row(n, n.makes, last(n))).toEqual({ Paste: 1 });
    expect(Object.keys(row(n, n.needs, last(n))).sort()).toEqual(["Crock", "Fish"]);
    // 0.1 + 0.2 against 0.3: floats would leave a crumb.
    const even = compile(kitchen("0.1 Kelp + 0.2 Kelp -> 0.3 Kelp + 1 Ash"));
    expect(row(even, even.uses, last(even))).toEqual({});
    expect(row(even, even.makes, last(even))).toEqual({ Ash: 1 });
    expect([...netYield(even.processes[last(even)]).values()].map(show)).toEqual(["1"]);
  });

  it("turns money into value units, and leaves retired recipes out", () => {
    const base = kitchen("buy Rope for 7\nLay: 1 Rope -> 1 Net fee 2 shells");
    const [shell] = [...base.currency.values()];
    const dear = must(base, [setField(base, "currency", shell.id, "worth", 3)]);
    expect([...compile(dear).money]).toEqual([21, 6]);
    const retired = must(base, [setField(base, "recipe", recipe(base, "Lay").id, "status", "retired")]);
    expect(compile(retired).processes).toHaveLength(1);
  });

  it("takes a recipe without ingredients for a source of loops' sake: it consumes nothing", () => {
    const n = compile(kitchen("nothing -> 4 Brine at Pan\nnothing -> 1 Chip using Knife"));
    expect([...n.consumes]).toEqual([0, 0]);
  });
});

describe("the other direction", () => {
  it("is the same relation, twice turned the same rows", () => {
    const rows = fc.array(fc.uniqueArray(fc.nat(6), { maxLength: 5 }), { maxLength: 8 });
    fc.assert(
      fc.property(rows, (lists) => {
        const ptr = new Int32Array(lists.length + 1);
        lists.forEach((l, i) => { ptr[i + 1] = ptr[i] + l.length; });
        const relation: Rows = { ptr, to: Int32Array.from(lists.flat()), qty: Float64Array.from(lists.flat(), (c, k) => c + k / 100) };
        const turned = transpose(relation, 7);
        for (let c = 0; c < 7; c++)
          for (let k = turned.ptr[c]; k < turned.ptr[c + 1]; k++) expect(lists[turned.to[k]]).toContain(c);
        expect(turned.to.length).toBe(relation.to.length);
        const back = transpose(turned, lists.length);
        lists.forEach((list, r) => { expect([...back.to.slice(back.ptr[r], back.ptr[r + 1])]).toEqual([...list].sort((a, b) => a - b)); });
      }),
    );
  });
});

describe("components", () => {
  it("are the circles, and only those", () => {
    const n = compile(kitchen("gather A\nP: 1 A -> 1 B\nQ: 1 B -> 1 C\nR: 1 C -> 1 B\nS: 1 C -> 1 D"));
    const groups = rounds(n, n.usedBy);
    expect(groups).toHaveLength(1);
    expect(groups[0].items.sort()).toEqual([at(n, "B"), at(n, "C")].sort());
    expect(groups[0].processes.map((p) => n.processes[p].record.name).sort()).toEqual(["Q", "R"]);
  });

  it("leave dead processes out", () => {
    const n = compile(kitchen("Q: 1 B -> 1 C\nR: 1 C -> 1 B"));
    expect(rounds(n, n.usedBy, Uint8Array.from([1, 0]))).toEqual([]);
  });

  it("do not overflow on a chain of fifty thousand", () => {
    const length = 50_000;
    const ptr = Int32Array.from({ length: length + 1 }, (_, i) => i);
    const step: Rows = { ptr, to: Int32Array.from({ length }, (_, i) => i), qty: new Float64Array(length).fill(1) };
    const made: Rows = { ptr, to: Int32Array.from({ length }, (_, i) => (i + 1) % length), qty: new Float64Array(length).fill(1) };
    const fake = { items: { length }, processes: { length }, makes: made } as unknown as Network;
    expect(components(fake, step).count).toBe(1);
  });

  it("agree with following every path on small random nets", () => {
    const net = fc.array(fc.tuple(fc.nat(5), fc.nat(5)), { minLength: 1, maxLength: 9 });
    fc.assert(
      fc.property(net, (edges) => {
        const n = compile(kitchen(edges.filter(([a, b]) => a !== b).map(([a, b], i) => `P${i}: 1 I${a} -> 1 I${b}`).join("\n") || "gather I0"));
        const { of } = components(n, n.usedBy);
        const reach = (from: number) => {
          const seen = new Set([from]);
          for (const i of seen) for (let k = n.usedBy.ptr[i]; k < n.usedBy.ptr[i + 1]; k++) for (let m = n.makes.ptr[n.usedBy.to[k]]; m < n.makes.ptr[n.usedBy.to[k] + 1]; m++) seen.add(n.makes.to[m]);
          return seen;
        };
        for (let i = 0; i < n.items.length; i++) for (let j = 0; j < n.items.length; j++) expect(of[i] === of[j]).toBe(reach(i).has(j) && reach(j).has(i));
      }),
    );
  });
});
