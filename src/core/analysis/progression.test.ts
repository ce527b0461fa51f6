import { withRecords } from "../catalogue/catalogue";
import { describe, expect, it } from "vitest";
import { seeded } from "../numbers/seeded";
import { randomPantry } from "../testing/random";
import { Engine } from "../engine/engine";
import { item, kitchen, recipe } from "../testing/kitchen";
import { at, read } from "../testing/told";
import { forcedBy, levelOf } from "./progression";
import { type Readings, readingsOf } from "./readings";

/** A pantry in which items have levels of their own. */
function levelled(text: string, levels: { readonly [name: string]: number }): Readings {
  const catalogue = kitchen(text);
  return readingsOf(
    withRecords(catalogue, {
      item: catalogue.records.item.with(
        new Map(
          Object.entries(levels).map(([name, level]) => [
            item(catalogue, name).id,
            { ...item(catalogue, name), level },
          ]),
        ),
      ),
    }),
  );
}
const level = (r: Readings, name: string) => levelOf(r, at(r, name));

describe("the lowest level", () => {
  it("is the greatest of everything on the lowest way", () => {
    const r = levelled(
      "gather Eel\ngather Hook\nSmoke: 1 Eel -> 1 Smoked eel at Smokehouse level 3\nRaise: 2 Hook -> 1 Smokehouse\nBarter: 9 Hook -> 1 Smoked eel",
      { Smokehouse: 6, Hook: 2 },
    );
    expect([level(r, "Smokehouse"), level(r, "Hook"), level(r, "Eel")]).toEqual([6, 2, 0]);
    // By barter it comes at level 2, though the smokehouse would take 6.
    expect(level(r, "Smoked eel")).toBe(2);
  });

  it("names what forces it, with the way there", () => {
    const r = levelled(
      "gather Eel\ngather Hook\nSmoke: 1 Eel -> 1 Smoked eel at Smokehouse\nRaise: 2 Hook -> 1 Smokehouse\nPie: 1 Smoked eel -> 1 Eel pie",
      { Hook: 4, "Eel pie": 1 },
    );
    const { forced, path } = forcedBy(r, at(r, "Eel pie"));
    expect(forced).toEqual({ item: at(r, "Hook") });
    expect(path).toEqual(["Eel pie", "Smoked eel", "Smokehouse", "Hook"].map((name) => at(r, name)));
  });

  it("may be forced by a recipe", () => {
    const r = read("gather Eel\nSmoke: 1 Eel -> 1 Smoked eel level 7");
    expect(level(r, "Smoked eel")).toBe(7);
    expect(forcedBy(r, at(r, "Smoked eel")).forced).toEqual({
      process: r.compiled.processesOf("recipe", recipe(r.catalogue, "Smoke").id)[0],
    });
  });

  it("leads through any item with a tag, and through heat", () => {
    const tagged = levelled("gather Eel\nEel are fish\nBake: 1 any fish -> 1 Pie", { Eel: 6, Pie: 2 });
    expect(forcedBy(tagged, at(tagged, "Pie"))).toMatchObject({
      forced: { item: at(tagged, "Eel") },
      path: { length: 3 },
    });
    const heated = levelled("gather Log\ngather Dough\nset Log burns = 60s\nBake: 1 Dough -> 1 Loaf burning 30s", {
      Log: 5,
      Loaf: 1,
    });
    expect(forcedBy(heated, at(heated, "Loaf"))).toMatchObject({
      forced: { item: at(heated, "Log") },
      path: { length: 3 },
    });
    for (const [r, message] of [
      [tagged, "Pie is level 2, but unobtainable before level 6: it needs any fish, and Eel is level 6."],
      [heated, "Loaf is level 1, but unobtainable before level 5: it needs seconds of heat, and Log is level 5."],
    ] as const) {
      const found = [...new Engine(r.catalogue).model().findings].filter((f) => f.rule === "gated-above");
      expect(found.map((f) => f.message)).toEqual([message]);
    }
  });

  it("counts what teaches the recipe, and is nothing for what can't be had", () => {
    const r = levelled(
      "gather Eel\ngather Old book\nSmoke: 1 Eel -> 1 Smoked eel taught by Old book\n1 Ghost -> 1 Lens",
      { "Old book": 5 },
    );
    expect(level(r, "Smoked eel")).toBe(5);
    expect(level(r, "Lens")).toBeNull();
  });

  it("is the least fixed point of sweeping, and forced by something of just that level, on random pantries", () => {
    for (let seed = 1; seed <= 150; seed++) {
      const r = readingsOf(randomPantry(seeded(seed), 4 + (seed % 12)));
      const { ins, outs, processes, level: own, items } = r.network;
      const lowest = new Array<number>(items).fill(Number.POSITIVE_INFINITY);
      for (let moved = true; moved; ) {
        moved = false;
        for (let p = 0; p < processes; p++) {
          if (!r.reach.fires(p)) continue;
          let most = own[p];
          for (let k = ins.start[p]; k < ins.end[p]; k++) most = Math.max(most, lowest[ins.to[k]]);
          for (let k = outs.start[p]; k < outs.end[p]; k++) {
            const l = Math.max(most, r.compiled.levels[outs.to[k]]);
            if (l >= lowest[outs.to[k]]) continue;
            lowest[outs.to[k]] = l;
            moved = true;
          }
        }
      }
      for (let i = 0; i < items; i++) {
        expect(levelOf(r, i)).toBe(Number.isFinite(lowest[i]) ? lowest[i] : null);
        if (!Number.isFinite(lowest[i]) || lowest[i] === 0) continue;
        const { forced } = forcedBy(r, i);
        expect("item" in forced ? r.compiled.levels[forced.item] : own[forced.process]).toBe(lowest[i]);
      }
    }
  });
});
