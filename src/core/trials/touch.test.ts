import { describe, expect, it } from "vitest";
import { readFileSync } from "node:fs";
import { apply } from "../catalogue/apply";
import { emptyCatalogue, recordsOf } from "../catalogue/catalogue";
import { type Edit, setField } from "../catalogue/edit";
import { byKey } from "../catalogue/keys";
import { planImport } from "../exchange/read";
import type { KINDS, Trial } from "../kinds/index";
import { seeded } from "../numbers/seeded";
import { must, pantry } from "../testing/kitchen";
import { runTrial } from "./run";
import { canTouch, hangsOn } from "./touch";

const empty = emptyCatalogue(pantry());
const catalogue = must(empty, planImport(empty, readFileSync("src/demo/brackwater-reach.json", "utf8")).edits);
const trial = (key: string) => byKey(catalogue, "trial", key) as Trial;
const told = (of: typeof catalogue, t: Trial) => {
  const { ok, message, steps } = runTrial(of, t);
  return JSON.stringify([ok, message, steps]);
};

describe("what a trial hangs on", () => {
  it("is what it uses and names, through types, uses, conditions and tables, and nothing else", () => {
    const on = hangsOn(catalogue, trial("pies_keep_the_pilot_going"));
    const id = (kind: (typeof KINDS)[number], key: string) => byKey(catalogue, kind, key)?.id as never;
    for (const [kind, key] of [
      ["item", "eel_pie"],
      ["type", "fare"],
      ["use", "eat_fare"],
      ["condition", "glowing"],
      ["resource", "vigour"],
      ["cooldown", "meal"],
      ["item", "pilot_cap"],
    ] as const)
      expect(on.has(id(kind, key)), key).toBe(true);
    for (const [kind, key] of [
      ["item", "rope"],
      ["table", "wreck_finds"],
      ["condition", "seasick"],
    ] as const)
      expect(on.has(id(kind, key)), key).toBe(false);
    expect(canTouch(setField(catalogue, "item", id("item", "rope"), "sell", 3), on)).toBe(false);
    expect(canTouch(setField(catalogue, "item", id("item", "eel_pie"), "description", "Hot."), on)).toBe(false);
    expect(canTouch(setField(catalogue, "condition", id("condition", "glowing"), "ticks", 10), on)).toBe(true);
  });

  it("is all that can change what happens: whatever else is edited, it goes as before", () => {
    const random = seeded(4);
    const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)];
    const trials = [...catalogue.records.trial.values()];
    const before = new Map(trials.map((t) => [t.id, [told(catalogue, t), hangsOn(catalogue, t)] as const]));
    const fields: readonly (readonly [(typeof KINDS)[number], string, readonly unknown[]])[] = [
      ["item", "mass", [0, 40]],
      ["item", "level", [0, 99]],
      ["item", "stack", [1, 99]],
      ["item", "limit", [1, null]],
      ["type", "stack", [1, 50]],
      ["condition", "ticks", [5, 4000]],
      ["cooldown", "ticks", [0, 9000]],
      ["recipe", "ticks", [0, 9000]],
      ["item", "pace", [0.5, 3]],
      ["item", "status", ["retired", "ready"]],
      ["source", "price", [0, 50]],
      ["source", "share", [0.1, 2]],
      ["recipe", "level", [0, 99]],
      ["source", "ticks", [0, 9000]],
      ["use", "wait", [0, 9000]],
      ["use", "level", [0, 99]],
      ["use", "effects", [[]]],
      ["resource", "min", [0, 30]],
      ["subject", "level", [1, 30]],
    ];
    let untouched = 0;
    for (let n = 0; n < 120; n++) {
      const [kind, field, values] = pick(fields);
      const record = pick([...recordsOf(catalogue, kind).values()]);
      const edit: Edit = setField(catalogue, kind, record.id, field, pick(values) as never);
      const outcome = apply(catalogue, [edit]);
      if (!outcome.ok) continue;
      for (const t of trials) {
        const [was, on] = before.get(t.id) ?? ["", new Set()];
        if (canTouch(edit, on as never)) continue;
        untouched++;
        expect(told(outcome.catalogue, t), `${kind} ${field} ${JSON.stringify(edit)} ${t.name}`).toBe(was);
      }
    }
    expect(untouched).toBeGreaterThan(300);
  });
});
