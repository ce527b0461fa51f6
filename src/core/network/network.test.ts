import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { setField } from "../catalogue/edit";
import { line } from "../notation/line";
import { show } from "../numbers/fraction";
import { item, kitchen, must, recipe } from "../testing/kitchen";
import { type Compiled, compile, processAt } from "./compile";
import { components, rounds } from "./components";
import { expected, expectedExactly, netYield } from "./expected";
import {
  FREE,
  GAINS,
  type CsrRows,
  type Network,
  NetworkBuilder,
  type ProcessOf,
  renumbered,
  SALVAGE,
} from "./network";

const at = (c: Compiled, name: string) => c.numberOf(item(c.catalogue, name).id) as number;
const numberOf = (c: Compiled, name: string) => c.processesOf("recipe", recipe(c.catalogue, name).id)[0];
const row = (c: Compiled, lists: CsrRows, r: number) =>
  Object.fromEntries(
    Array.from({ length: lists.end[r] - lists.start[r] }, (_, k) => [
      c.catalogue.records.item.get(c.idOf(lists.to[lists.start[r] + k]) as never)?.name,
      (lists.qty as Float64Array)[lists.start[r] + k],
    ]),
  );

describe("compiling", () => {
  it("expects the middle of a range times its chance, a draw by its weight, a tool's wear, nothing of a station", () => {
    const id = item(kitchen("gather Eel"), "Eel").id;
    expect(expected(line("output", id, 1, 3, 0.5))).toBe(1);
    expect(expected(line("tool", id, 1, 1, 1, 50))).toBe(0.02);
    expect(expected(line("tool", id))).toBe(0);
    expect(expected(line("station", id))).toBe(0);
    expect(expected(line("output", id, 2, 2, 1.4))).toBe(2);
    expect(expected({ ...line("output", id, 2), draw: { group: 1, times: 3, weight: 5, of: 10 } })).toBe(3);
    expect(show(expectedExactly(line("output", id, 0.1, 0.2, 0.1)))).toBe("3/200");
    expect(show(expectedExactly(line("tool", id, 1, 1, 1, 3)))).toBe("1/3");
    expect(show(expectedExactly({ ...line("output", id, 1, 2), draw: { group: 1, times: 2, weight: 1, of: 7 } }))).toBe(
      "3/7",
    );
  });

  it("keeps what is used, what is made and what must only be at hand apart", () => {
    const c = compile(
      kitchen(
        "Smoke: 2 Eel + 1 Salt -> 2 Smoked eel + 1 Skin 40% at Shed using Knife lasting 50 + ReadModel in 90s level 7 taught by Old chart",
      ),
    );
    const p = numberOf(c, "Smoke");
    expect(row(c, c.network.ins, p)).toEqual({ Eel: 2, Salt: 1, Knife: 0.02, Shed: 0, ReadModel: 0, "Old chart": 0 });
    expect(row(c, c.network.outs, p)).toEqual({ "Smoked eel": 2, Skin: 0.4 });
    expect([c.network.seconds[p], c.network.level[p], c.network.flags[p] & (FREE | GAINS | SALVAGE)]).toEqual([
      90, 7, 0,
    ]);
  });

  it("nets out exactly what stands on both sides", () => {
    const c = compile(
      kitchen("Paste: 3 Fish + 1 Crock -> 1 Paste + 1 Crock\nEven: 0.1 Kelp + 0.2 Kelp -> 0.3 Kelp + 1 Ash"),
    );
    expect(row(c, c.network.ins, numberOf(c, "Paste"))).toEqual({ Fish: 3, Crock: 0 });
    // 0.1 + 0.2 against 0.3: floats would leave a crumb. What takes something and loses nothing gains by itself.
    const even = numberOf(c, "Even");
    expect(row(c, c.network.ins, even)).toEqual({ Kelp: 0 });
    expect(row(c, c.network.outs, even)).toEqual({ Ash: 1 });
    expect(c.network.flags[even] & GAINS).toBe(GAINS);
    expect([...netYield(processAt(c, even).spec.lines).values()].map(show)).toEqual(["1"]);
  });

  it("turns money into value units, leaves retired recipes out, and knows what comes from outside", () => {
    const base = kitchen(
      "buy Rope for 7\nLay: 1 Rope -> 1 Net fee 2 shells\nDraw: nothing -> 4 Brine at Pan\nsalvage Net -> 1 Rope",
    );
    const [shell] = [...base.records.currency.values()];
    const dear = compile(must(base, [setField(base, "currency", shell.id, "worth", 3)]));
    expect([...dear.network.money].sort((a, b) => a - b)).toEqual([0, 0, 6, 21]);
    expect(dear.network.flags[numberOf(dear, "Draw")] & FREE).toBe(FREE);
    expect(dear.network.flags[numberOf(dear, "Salvage net")] & SALVAGE).toBe(SALVAGE);
    expect(
      compile(must(base, [setField(base, "recipe", recipe(base, "Lay").id, "status", "retired")])).network.processes,
    ).toBe(3);
  });

  it("numbers things in the order in which they come within reach", () => {
    const c = compile(kitchen("Last: 1 B -> 1 C\nMiddle: 1 A -> 1 B\ngather A\n1 Ghost -> 1 D"));
    expect(["A", "B", "C"].map((n) => at(c, n))).toEqual([0, 1, 2]);
    expect(numberOf(c, "Middle")).toBeLessThan(numberOf(c, "Last"));
  });
});

const small: fc.Arbitrary<ProcessOf> = fc
  .record({ ins: fc.uniqueArray(fc.nat(5), { maxLength: 3 }), outs: fc.uniqueArray(fc.nat(5), { maxLength: 3 }) })
  .map(({ ins, outs }) => ({
    ins: { to: ins, qty: ins.map((_, k) => k + 1) },
    outs: { to: outs, qty: outs.map((_, k) => k + 0.5) },
    money: ins.length,
    seconds: outs.length,
    level: 0,
    flags: 0,
  }));

/** Rows of both directions, without regard to order and place. */
function content(n: Network) {
  const rows = (lists: CsrRows, count: number) =>
    Array.from({ length: count }, (_, r) =>
      [...lists.to.slice(lists.start[r], lists.end[r])]
        .map((to, k) => [to, lists.qty ? lists.qty[lists.start[r] + k] : 0].join())
        .sort(),
    );
  return {
    ins: rows(n.ins, n.processes),
    outs: rows(n.outs, n.processes),
    consumers: rows(n.consumers, n.items),
    producers: rows(n.producers, n.items),
    money: [...n.money.slice(0, n.processes)],
  };
}
const built = (items: number, processes: readonly (ProcessOf | null)[]): Network => {
  const builder = new NetworkBuilder(items);
  for (const p of processes)
    builder.add(p ?? { ins: { to: [], qty: [] }, outs: { to: [], qty: [] }, money: 0, seconds: 0, level: 0, flags: 0 });
  return builder.build();
};

describe("rewriting", () => {
  it("leaves the same rows as building again, after any changes", () => {
    fc.assert(
      fc.property(
        fc.array(small, { maxLength: 6 }),
        fc.array(fc.tuple(fc.nat(7), fc.option(small)), { maxLength: 40 }),
        (first, changes) => {
          const n = built(6, first);
          const now: (ProcessOf | null)[] = [...first];
          for (const [p, of] of changes) {
            while (now.length <= p) now[n.addProcess()] = null;
            n.rewrite(p, of);
            now[p] = of;
          }
          expect(content(n)).toEqual(content(built(6, now)));
        },
      ),
    );
  });

  it("is the same network under other numbers", () => {
    fc.assert(
      fc.property(fc.array(small, { minLength: 1, maxLength: 6 }), fc.infiniteStream(fc.nat(1000)), (first, noise) => {
        const shuffled = (n: number) =>
          Int32Array.from(
            Array.from({ length: n }, (_, i) => [noise.next().value as number, i])
              .sort((a, b) => a[0] - b[0] || a[1] - b[1])
              .map((e) => e[1]),
          );
        const n = built(6, first);
        const [items, processes] = [shuffled(6), shuffled(first.length)];
        const a = content(n);
        const b = content(renumbered(n, items, processes));
        processes.forEach((old, now) => {
          expect(b.outs[now].map((e) => [items[Number(e.split(",")[0])], e.split(",")[1]].join()).sort()).toEqual(
            a.outs[old],
          );
        });
        items.forEach((old, now) => {
          expect(b.consumers[now].length).toBe(a.consumers[old].length);
        });
      }),
    );
  });
});

describe("components", () => {
  it("are the circles, and only those", () => {
    const c = compile(kitchen("gather A\nP: 1 A -> 1 B\nQ: 1 B -> 1 C\nR: 1 C -> 1 B\nS: 1 C -> 1 D"));
    const groups = rounds(c.network, { links: "uses" });
    expect(groups).toHaveLength(1);
    expect(groups[0].items.sort()).toEqual([at(c, "B"), at(c, "C")].sort());
    expect(groups[0].processes.map((p) => processAt(c, p).record.name).sort()).toEqual(["Q", "R"]);
  });

  it("leave dead processes and items out, and tell needing from using up", () => {
    const c = compile(kitchen("Q: 1 B -> 1 C\nR: 1 D -> 1 B using C\ngather D"));
    expect(rounds(c.network, { links: "uses" })).toEqual([]);
    expect(rounds(c.network, { links: "needs" })).toHaveLength(1);
    const all = new Uint8Array(c.network.processes).fill(1);
    all[numberOf(c, "R")] = 0;
    expect(rounds(c.network, { links: "needs", alive: all })).toEqual([]);
    const inside = new Uint8Array(c.network.items).fill(1);
    inside[at(c, "C")] = 0;
    expect(rounds(c.network, { links: "needs", inside })).toEqual([]);
  });

  it("do not overflow on a chain of fifty thousand", () => {
    const length = 50_000;
    const builder = new NetworkBuilder(length);
    for (let i = 0; i < length; i++)
      builder.add({
        ins: { to: [i], qty: [1] },
        outs: { to: [(i + 1) % length], qty: [1] },
        money: 0,
        seconds: 0,
        level: 0,
        flags: 0,
      });
    expect(components(builder.build(), { links: "uses" }).count).toBe(1);
  });

  it("agree with following every path on small random nets, whatever is only needed, dead or outside", () => {
    const kept = fc
      .tuple(small, fc.array(fc.boolean(), { minLength: 3, maxLength: 3 }))
      .map(
        ([p, zero]): ProcessOf => ({ ...p, ins: { to: p.ins.to, qty: p.ins.qty.map((q, k) => (zero[k] ? 0 : q)) } }),
      );
    const mask = (n: number) =>
      fc.array(fc.nat(4), { minLength: n, maxLength: n }).map((list) => Uint8Array.from(list, (x) => (x ? 1 : 0)));
    fc.assert(
      fc.property(
        fc.array(kept, { minLength: 1, maxLength: 8 }),
        fc.constantFrom<"uses" | "needs">("uses", "needs"),
        mask(8),
        mask(6),
        (processes, links, alive, inside) => {
          const n = built(6, processes);
          const { of, count } = components(n, { links, alive, inside });
          const after = (node: number): number[] => {
            if (node >= 6) return alive[node - 6] ? processes[node - 6].outs.to.filter((o) => inside[o]) : [];
            if (!inside[node]) return [];
            return processes.flatMap(({ ins }, p) =>
              alive[p] && ins.to.some((i, k) => i === node && (links === "needs" || ins.qty[k] > 0)) ? [6 + p] : [],
            );
          };
          const reach = (from: number) => {
            const seen = new Set([from]);
            for (const node of seen) for (const next of after(node)) seen.add(next);
            return seen;
          };
          const nodes = Array.from({ length: 6 + processes.length }, (_, v) => v);
          const from = nodes.map(reach);
          for (const a of nodes) for (const b of nodes) expect(of[a] === of[b]).toBe(from[a].has(b) && from[b].has(a));
          expect(new Set(of).size).toBe(count);
          expect(Math.min(...of)).toBe(0);
        },
      ),
      { numRuns: 1000 },
    );
  });
});
