import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { apply } from "../catalogue/apply";
import { around } from "../catalogue/surroundings";
import { formatRecipe } from "../notation/format";
import type { Catalogue } from "../catalogue/catalogue";
import { expected } from "../network/expected";
import { item, kitchen, recipe } from "../testing/kitchen";
import { type SalvageRule, suggestSalvage, writeSuggested } from "./suggested-salvage";

const RULE: SalvageRule = { share: 0.4, rounding: "down", least: 0, tool: null, into: null, replace: false };
const suggested = (catalogue: Catalogue, name: string, rule: Partial<SalvageRule> = {}) =>
  suggestSalvage(
    catalogue,
    [item(catalogue, name)],
    { ...RULE, ...rule },
    () => null,
    () => null,
  )[0];
const written = (catalogue: Catalogue, name: string, rule: Partial<SalvageRule> = {}): string => {
  const suggestion = suggested(catalogue, name, rule);
  const outcome = apply(catalogue, writeSuggested(catalogue, [suggestion], { tool: rule.tool ?? null }));
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.issues));
  const salvage = [...outcome.catalogue.records.recipe.values()].filter((r) => r.kind === "salvage");
  return salvage.map((r) => formatRecipe(around(outcome.catalogue), r)).join("; ");
};
const RAFT = kitchen(
  "buy Adze for 9\nRaft: 9 Log + 5 Rope + 1 Crock -> 1 Raft + 1 Crock + 2 Chip using Adze lasting 20 at Yard in 90s",
);

describe("suggested salvage", () => {
  it("gives back a share of what went in, not of what was handed back, worn or stood there", () => {
    expect(written(RAFT, "Raft")).toBe("salvage 1 Raft -> 3 Log + 2 Rope");
    expect(written(RAFT, "Raft", { share: 0.5, rounding: "nearest" })).toBe("salvage 1 Raft -> 5 Log + 3 Rope");
    expect(written(RAFT, "Raft", { rounding: "by chance" })).toBe("salvage 1 Raft -> 3 Log + 1 Log 60% + 2 Rope");
    expect(written(RAFT, "Raft", { share: 0.01, least: 1, tool: item(RAFT, "Adze").id })).toBe(
      "salvage 1 Raft -> 1 Log + 1 Rope using Adze",
    );
  });

  it("is by worth for what no recipe makes, where the rule says of what", () => {
    const found = kitchen("gather Shell\ngather Glass float\nRaft: 9 Log -> 1 Raft");
    const costs: { readonly [name: string]: number } = { "Glass float": 9, Shell: 0.5, Log: 2 };
    const worth = (id: string) => costs[[...found.records.item.values()].find((i) => i.id === id)?.name ?? ""] ?? null;
    const into = item(found, "Shell").id;
    const of = (name: string, rule: Partial<SalvageRule> = {}) =>
      suggestSalvage(found, [item(found, name)], { ...RULE, into, ...rule }, () => null, worth);
    // 40% of 9 is 3.6: seven shells of 0.5 are 3.5.
    const [glass] = of("Glass float");
    expect([glass.made, glass.gives.map((l) => [l.item, l.max, l.chance])]).toEqual([null, [[into, 7, 1]]]);
    expect(of("Glass float", { rounding: "by chance" })[0].gives.map((l) => [l.max, l.chance])).toEqual([
      [7, 1],
      [1, 0.2],
    ]);
    // Not of itself, nor of what can't be had, nor where the rule does not say of what; made things as ever.
    expect([of("Shell"), of("Raft", { into: null }).length, of("Glass float", { into: null })]).toEqual([[], 1, []]);
    expect(
      suggestSalvage(
        found,
        [item(found, "Glass float")],
        { ...RULE, into },
        () => null,
        () => null,
      ),
    ).toEqual([]);
    expect(of("Raft")[0].gives.map((l) => [l.item, l.max])).toEqual([[item(found, "Log").id, 3]]);
  });

  it("counts by what a batch yields", () => {
    const batch = kitchen("Saw: 1 Log -> 4 Plank\nBraid: 6 Yarn -> 2 Rope");
    expect(suggested(batch, "Plank").skipped).toBe("Less than one item would be returned.");
    expect(written(batch, "Plank", { rounding: "by chance" })).toBe("salvage 1 Plank -> 1 Log 10%");
    expect(written(batch, "Rope")).toBe("salvage 1 Rope -> 1 Yarn");
  });

  it("leaves a salvage that is there, or writes it again where it is asked to, and says what it skips", () => {
    const there = kitchen("Raft: 9 Log -> 1 Raft\nBreak: salvage Raft -> 9 Log\nPot: 2 any fish -> 1 Paste");
    expect(suggested(there, "Raft").skipped).toBe("It already has a salvage recipe.");
    expect(written(there, "Raft", { replace: true })).toBe("Break: salvage 1 Raft -> 3 Log");
    expect(suggested(there, "Raft", { replace: true, share: 1 }).skipped).toBe("Its salvage already matches.");
    expect(suggested(there, "Paste").skipped).toBe("It is made of any items with a tag, so its ingredients vary.");
    expect(
      suggestSalvage(
        there,
        [item(there, "Log")],
        RULE,
        () => null,
        () => null,
      ),
    ).toEqual([]);
  });

  it("keeps a station, what else goes in and how long a tool lasts, and is of what goes in first", () => {
    const there = kitchen(
      "Raft: 9 Log -> 1 Raft\nBreak: salvage 1 Raft + 1 Tar -> 9 Log using Adze lasting 20 at Yard\nStrip: salvage 1 Hull + 1 Raft -> 1 Nail",
    );
    expect(written(there, "Raft", { replace: true })).toBe(
      "Break: salvage 1 Raft + 1 Tar -> 3 Log at Yard using Adze lasting 20; Strip: salvage 1 Hull + 1 Raft -> 1 Nail",
    );
    const once = kitchen("Raft: 9 Log -> 1 Raft\nBreak: salvage 1 Raft + 1 Tar -> 3 Log using Adze lasting 20 at Yard");
    expect(suggested(once, "Raft", { replace: true }).skipped).toBe("Its salvage already matches.");
    const other = kitchen("gather Saw\nRaft: 9 Log -> 1 Raft\nBreak: salvage Raft -> 3 Log using Adze lasting 20");
    expect(written(other, "Raft", { replace: true, tool: item(other, "Saw").id })).toBe(
      "Break: salvage 1 Raft -> 3 Log using Saw",
    );
    // One in which it is only a second thing is no salvage of it.
    const aside = kitchen("Raft: 9 Log -> 1 Raft\nStrip: salvage 1 Hull + 1 Raft -> 1 Nail");
    expect([suggested(aside, "Raft").there, suggested(aside, "Raft").skipped]).toEqual([null, null]);
  });

  it("follows the recipe that is cheapest", () => {
    const two = kitchen("Dear: 9 Log -> 1 Raft\nCheap: 4 Cork -> 1 Raft");
    const cheap = recipe(two, "Cheap").id;
    const [found] = suggestSalvage(
      two,
      [item(two, "Raft")],
      { ...RULE, share: 0.5 },
      () => cheap,
      () => null,
    );
    expect(found.gives.map((l) => [l.item, l.min])).toEqual([[item(two, "Cork").id, 2]]);
  });

  it("never gives back more than the share on average, but for rounding to the nearest and the least", () => {
    const entry = fc.tuple(fc.integer({ min: 1, max: 40 }), fc.constantFrom("Log", "Rope", "Cork"));
    fc.assert(
      fc.property(
        fc.uniqueArray(entry, { minLength: 1, selector: ([, name]) => name }),
        fc.integer({ min: 1, max: 7 }),
        fc.integer({ min: 1, max: 100 }),
        fc.constantFrom("down" as const, "by chance" as const),
        (ins, yields, percent, rounding) => {
          const world = kitchen(`Make: ${ins.map(([n, name]) => `${n} ${name}`).join(" + ")} -> ${yields} Raft`);
          const { gives } = suggested(world, "Raft", { share: percent / 100, rounding });
          for (const [n, name] of ins) {
            const back = gives.filter((l) => l.item === item(world, name).id).reduce((sum, l) => sum + expected(l), 0);
            const wanted = (n / yields) * (percent / 100);
            expect(back).toBeLessThanOrEqual(wanted + 1e-9);
            if (rounding === "by chance") expect(back).toBeGreaterThan(wanted - 1.1e-6);
          }
        },
      ),
      { numRuns: 200 },
    );
  });
});
