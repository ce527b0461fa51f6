/** The worked examples of docs/mathematics.md, computed. */
import { flows } from "../core/network/process";
import { runsFor } from "../core/testing/runs";
import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { chanceOfNone, perRun, repeated } from "../core/analysis/chances";
import { levelOf, forcedBy } from "../core/analysis/progression";
import { planFor } from "../core/analysis/plan";
import { readingsOf } from "../core/analysis/readings";
import { byKey } from "../core/catalogue/keys";
import { readyIn, usesOf } from "../core/catalogue/uses";
import { emptyCatalogue } from "../core/catalogue/catalogue";
import { planImport } from "../core/exchange/read";
import { must, pantry } from "../core/testing/kitchen";
import { label, nameAt, told } from "../core/testing/told";
import demo from "./brackwater-reach.json";

const empty = emptyCatalogue(pantry());
const catalogue = must(empty, planImport(empty, JSON.stringify(demo)).edits);
const r = readingsOf(catalogue);
const page = readFileSync("docs/mathematics.md", "utf8");
const at = (key: string) => r.compiled.numberOf(byKey(catalogue, "item", key)?.id as never) as number;

describe("the examples of docs/mathematics.md", () => {
  it("salt costs 1.0926 and 65.56 seconds", () => {
    expect(r.value.cost[at("brine")]).toBeCloseTo(0.25 / 3, 12);
    expect(r.value.cost[at("peat_brick")]).toBeCloseTo(50 / 60 / 3, 12);
    expect(r.value.cost[at("coarse_salt")]).toBeCloseTo((2.5 + 0.5 + 50 / 60 / 3) / 3, 12);
    expect(r.time.cost[at("coarse_salt")]).toBeCloseTo((150 + 30 + 50 / 3) / 3, 12);
    for (const said of ["0.0833", "0.2778", "**1.0926**", "**65.56 s**"]) expect(page).toContain(said);
    expect([
      r.value.cost[at("brine")].toFixed(4),
      r.value.cost[at("peat_brick")].toFixed(4),
      r.value.cost[at("coarse_salt")].toFixed(4),
      r.time.cost[at("coarse_salt")].toFixed(2),
    ]).toEqual(["0.0833", "0.2778", "1.0926", "65.56"]);
  });

  it("one loop gains: weave once, unravel once, two yarn more", () => {
    expect(told(r)).toEqual(["1 Weave sailcloth + 1 Unravel sailcloth => 2 Hemp yarn"]);
    expect(r.gain.gains[0].luck()).toEqual({ chance: 1, exact: true });
  });

  it("the sea-glass eye waits for Ship's glass alone", () => {
    const cause = r.causes.get(at("sea_glass_eye"));
    expect(cause?.leaves.map((i) => nameAt(r, i))).toEqual(["Ship's glass"]);
    expect(cause?.smallest).toBe(true);
  });

  it("twenty smoked eel take ten smokings, four boilings of salt and one knife", () => {
    const plan = planFor(r, { make: new Map([[at("smoked_eel"), 20]]) });
    if ("no" in plan) throw new Error(plan.no);
    const runs = Object.fromEntries(plan.steps.map((s) => [label(r, s.process), s.runs]));
    expect(runs).toMatchObject({ "Smoke eel": 10, "Boil salt": 4, "Forge knife": 1 });
    expect(plan.best).toBe(true);
  });

  it("forty-six crates for a float with 90%", () => {
    const lines = byKey(catalogue, "recipe", "break_crate")?.lines ?? [];
    const float = byKey(catalogue, "item", "glass_float")?.id as string;
    expect(chanceOfNone(repeated(perRun(flows(lines), float), 1))).toBeCloseTo(0.950625, 12);
    expect(runsFor(lines, float, 1, 0.9)).toBe(46);
  });

  it("smoked mullet can't be had before level 6, for its smokehouse", () => {
    expect(levelOf(r, at("smoked_mullet"))).toBe(6);
    expect(forcedBy(r, at("smoked_mullet")).forced).toEqual({ item: at("smokehouse") });
  });
});

describe("the examples of trying things out", () => {
  it("are those that the tests repeat", () => {
    // play.test.ts, chance-box.test.ts and uses.test.ts compute them.
    for (const said of ["she has **20**", "restores **12**", "**100%**", "= **0.3**", "**14**, **45** and **90**"])
      expect(page).toContain(said);
    const broth = byKey(catalogue, "item", "kelp_broth");
    const [use] = broth ? usesOf(catalogue, broth) : [];
    const [warm] = use.effects.flatMap(({ does }) => (does.is === "apply" ? [does] : []));
    expect(Math.min(1, (warm.ticks ?? 0) / readyIn(catalogue, use))).toBe(1);
    expect([warm.ticks, readyIn(catalogue, use)]).toEqual([400, 240]);
  });
});
