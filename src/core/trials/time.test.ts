/** Trials that speak of time, layers and pulses, uses that cost, things carried, purses, stations at hand and kits dropped. */
import { describe, expect, it } from "vitest";
import { readingsOf } from "../analysis/readings";
import { sourceProcesses } from "../network/source-processes";
import { setField } from "../catalogue/edit";
import type { Catalogue } from "../catalogue/catalogue";
import { around } from "../catalogue/surroundings";
import { findingsOf } from "../checks";
import { Engine } from "../engine/engine";
import type { Source, Trial } from "../kinds/index";
import { line } from "../notation/line";
import { formatSteps, parseSteps } from "../notation/trial-line";
import { must } from "../testing/kitchen";
import { idOf, tried, withMore, withUses } from "../testing/tryout";
import { isEmptySlot } from "./bag";
import { Play } from "./play";
import { runTrial } from "./run";
import { taste } from "./tasting";

const [vigour, breath, shells] = ["Vigour", "Breath", "shells"].map(idOf);
const base: Catalogue = withUses(
  tried({
    stat: { Grip: {} },
    resource: {
      Vigour: { most: "100", start: "40", recovery: "1" },
      Breath: { most: "20", start: "8", min: 2 },
    },
    currency: { shells: { most: 50 } },
    situation: { Ashore: { overflow: "refused" }, Aboard: { overflow: "stored" } },
    condition: {
      Warm: { ticks: 100, nature: "good" },
      Chilled: {
        ticks: 100,
        twice: "add up",
        layers: 3,
        layersEnd: "each its own",
        changes: [{ stat: idOf("Grip"), how: "add", by: "-1" }],
      },
      Soaked: { ticks: 100, twice: "add up", layers: 3 },
      Burdened: { changes: [{ stat: idOf("Grip"), how: "add", by: "-4" }] },
      Nettled: { ticks: 100, pulses: [{ resource: vigour, amount: "-3", every: 40, first: 0 }] },
      Itchy: { ticks: 100, pulses: [{ resource: vigour, amount: "-3", every: 40, first: 10 }] },
      Scolded: { ticks: 100, pulses: [{ resource: vigour, amount: "-3", every: 40 }] },
    },
    tag: { oven: {} },
    item: {
      Pie: { stack: 1 },
      Snow: {},
      Brine: {},
      Nettle: {},
      Anchor: { carrying: [idOf("Burdened")] },
      Horn: {},
      Rope: { stack: 1 },
      Eel: {},
      Hearth: { tags: [idOf("oven")] },
      Bench: {},
    },
    recipe: {
      Bake: { lines: [line("ingredient", idOf("Eel")), station("oven"), line("output", idOf("Pie"))], ticks: 30 },
      Twist: { lines: [line("ingredient", idOf("Eel")), line("station", idOf("Bench")), line("output", idOf("Rope"))] },
    },
    source: {
      Robber: { kind: "drop", kit: idOf("Footpad"), lines: [line("output", idOf("Horn"), 1, 1, 0.5)] },
      Chest: { kind: "drop", kit: idOf("Footpad") },
      Toll: { kind: "drop", kit: idOf("Miser") },
    },
    subject: {
      Mara: { resources: [vigour, breath], stats: { [idOf("Grip")]: "10" }, bagSlots: 2 },
      Footpad: { resources: [vigour], kit: { [idOf("Rope")]: 2 }, money: { [shells]: 9 } },
      Miser: { money: { [shells]: 60 } },
    },
  } as Parameters<typeof tried>[0]),
  {
    Pie: ["Eat: Warm 10s, restores 5 Vigour, ready in 20s"],
    Snow: ["Throw: Chilled, kept"],
    Brine: ["Spill: Soaked, kept"],
    Nettle: ["Sting: Nettled, kept", "Rub: Itchy, kept", "Scold: Scolded, kept"],
    Horn: ["Blow: costs 5 Breath, restores 10 Vigour, kept", "Hum: costs 25% of Breath, costs 2 Breath, Warm, kept"],
    Rope: ["Chew: restores 2 Vigour at once and every 4s for 10s, kept"],
  },
);
function station(tag: string) {
  const { item: _, ...rest } = line("station", idOf(tag));
  return { ...rest, any: idOf(tag) };
}
function run(text: string, catalogue = base, more: Partial<Trial> = {}) {
  const { steps, issues } = parseSteps(text, around(catalogue));
  if (!steps) throw new Error(issues.map((i) => i.message).join(" "));
  expect(formatSteps(steps, around(catalogue))).toBe(text);
  return runTrial(catalogue, { subject: idOf("Mara"), steps: steps as Trial["steps"], seed: 1, ...more });
}
function messageOf(text: string, catalogue = base, more: Partial<Trial> = {}): string {
  const { ok, message, failed } = run(text, catalogue, more);
  return ok ? "holds" : `${failed + 1}: ${message}`;
}

describe("a trial and time", () => {
  it("goes on until something holds, and says how long that took", () => {
    const { ok, steps } = run("expect Vigour >= 45 within 60s\nexpect Vigour >= 50 by 10s\nexpect Vigour >= 50");
    expect(ok).toBe(true);
    expect(steps.map(({ tick, took }) => [tick, took])).toEqual([
      [50, 50],
      [100, 50],
      [100, 0],
    ]);
    expect(messageOf("expect Vigour >= 60 within 10s")).toBe("1: Vigour >= 60 wasn't true within 10s: Vigour is 50.");
    expect(messageOf("expect Vigour >= 60 by 10s")).toBe("1: Vigour >= 60 wasn't true by 10s: Vigour is 50.");
    expect(messageOf("wait 20s\nexpect Vigour >= 10 by 10s")).toBe(
      "2: Vigour >= 10 had to be true by 10s, but it is already 20s: Vigour is 60.",
    );
  });

  it("stops where what happens brings it about, or what waits for something", () => {
    const { ok, steps } = run(
      "get 9 Pie\nuse Pie whenever Vigour >= 45\nexpect the condition Warm within 60s\nexpect no condition Warm within 60s",
      must(base, [setField(base, "subject", idOf("Mara"), "bagSlots", 20)]),
    );
    expect(ok).toBe(true);
    expect(steps.map((s) => s.tick)).toEqual([0, 0, 50, 150]);
    expect(messageOf("context Aboard\nget 3 Pie\nuse Pie every 20s\nexpect no condition Warm within 15s")).toBe(
      "holds",
    );
    expect(messageOf("get 2 Pie\nexpect to have 3 Pie within 10s")).toBe(
      "2: There are 2 Pie in the bag, not 3: it wasn't true within 10s.",
    );
    expect(messageOf("expect the condition Warm by 5s")).toBe(
      "1: The condition Warm isn't active: it wasn't true by 5s.",
    );
  });

  it("does not pass while it has no steps", () => {
    expect(runTrial(base, { subject: idOf("Mara"), steps: [], seed: 1 })).toMatchObject({ ok: false, stopped: false });
    const catalogue = withMore(base, { trial: { Empty: { subject: idOf("Mara") } } });
    const found = findingsOf(catalogue, readingsOf(catalogue)).filter((f) => f.rule === "trial-fails");
    expect(found.map((f) => f.message)).toEqual([
      "Empty fails: It has no steps yet. Add steps and the results you expect.",
    ]);
  });
});

describe("layers and pulses", () => {
  const layersOf = (item: string, condition: string, ticks: readonly number[]) => {
    const subject = base.records.subject.get(idOf("Mara"));
    if (!subject) throw new Error("Mara");
    const play = new Play(base, { subject });
    for (const at of [0, 30, 60, 90]) play.plan({ item: idOf(item), use: null, rule: { is: "at", ticks: [at] } });
    return ticks.map((tick) => {
      play.advance(tick);
      return [play.user.active(idOf(condition))?.layers ?? 0, play.user.stat(idOf("Grip"))];
    });
  };
  it("end each at a time of its own, those that would end first making way, or all together", () => {
    // Put on at 0, 30, 60 and 90, each for 100 ticks; three at most, so that the fourth takes the place of the first.
    expect(layersOf("Snow", "Chilled", [0, 60, 90, 129, 130, 160, 189, 190])).toEqual([
      [1, 9],
      [3, 7],
      [3, 7],
      [3, 7],
      [2, 8],
      [1, 9],
      [1, 9],
      [0, 10],
    ]);
    expect(layersOf("Brine", "Soaked", [60, 90, 189, 190]).map(([n]) => n)).toEqual([3, 3, 3, 0]);
  });

  it("come first when it is said, at once or after some time, else after one interval", () => {
    const still = must(base, [setField(base, "resource", vigour, "recovery", null)]);
    const lost = (use: string, ticks: number) => {
      const subject = still.records.subject.get(idOf("Mara"));
      if (!subject) throw new Error("Mara");
      const play = new Play(still, { subject });
      play.use(idOf("Nettle"), idOf(`${use} Nettle`));
      play.advance(ticks);
      return 40 - play.user.resource(vigour);
    };
    expect([0, 39, 40, 80, 200].map((t) => lost("Sting", t))).toEqual([3, 3, 6, 9, 9]);
    expect([0, 9, 10, 49, 50, 90].map((t) => lost("Rub", t))).toEqual([0, 0, 3, 3, 6, 9]);
    expect([0, 39, 40, 80, 200].map((t) => lost("Scold", t))).toEqual([0, 0, 3, 6, 6]);
    const subject = still.records.subject.get(idOf("Mara"));
    if (!subject) throw new Error("Mara");
    const play = new Play(still, { subject });
    play.use(idOf("Rope"));
    expect(play.user.resource(vigour)).toBe(42);
    play.advance(200);
    expect(play.user.resource(vigour)).toBe(46);
  });
});

describe("what a use costs", () => {
  it("is refused without it, several costs of one resource counting together, and is drained", () => {
    // Breath stands at 8 of 20 and can't fall below 2.
    expect(messageOf("get Horn\nuse Horn\nexpect Breath = 3\nuse Horn")).toBe("4: It costs 5 Breath, but there is 1.");
    expect(messageOf("get Horn\nuse Horn as Hum")).toBe("2: It costs 7 Breath, but there is 6.");
    const catalogue = must(base, [setField(base, "subject", idOf("Mara"), "resources", [vigour])]);
    expect(messageOf("get Horn\nuse Horn", catalogue)).toBe("2: It costs Breath, which Mara does not have.");
  });

  it("is waited for by what is to happen as soon as it holds", () => {
    // Breath comes back by one a second here: six stand above the least, and five are spent at each blow.
    const airy = must(base, [setField(base, "resource", breath, "recovery", "1")]);
    const { play } = run("get Horn\nuse Horn whenever Vigour < 1000\nwait 20s", airy);
    expect(play?.moments.filter((m) => m.refused === null).map((m) => m.tick)).toEqual([0, 40, 90, 140, 190]);
  });

  it("is no benefit that keeps a guarded use from being refused", () => {
    const guarded = withUses(base, { Bench: ["Sit: costs 1 Breath, restores 5 Vigour, kept, not in vain"] });
    const full = must(guarded, [setField(guarded, "resource", vigour, "start", null)]);
    expect(messageOf("get Bench\nuse Bench", full)).toBe("2: It would do nothing.");
    expect(messageOf("get Bench\nuse Bench", guarded)).toBe("holds");
  });
});

describe("what is carried", () => {
  it("gives a condition for as long as it is in the bag, which nothing clears", () => {
    const catalogue = withUses(base, { Eel: ["Stroke: clears Burdened, kept"] });
    expect(
      messageOf("expect Grip = 10\nget Anchor\nexpect Grip = 6\nget Eel\nuse Eel\nwait 1h\nexpect Grip = 6", catalogue),
    ).toBe("holds");
    expect(
      messageOf(
        "get Anchor\nexpect the condition Burdened\ndrop Anchor\nexpect no condition Burdened\nexpect Grip = 10",
      ),
    ).toBe("holds");
  });

  it("is a purpose of the item, and a way for the condition to come about, also after edits", () => {
    const unapplied = (of: Catalogue) =>
      findingsOf(of, readingsOf(of)).filter((f) => f.rule === "condition-unapplied" && /Burdened/.test(f.message));
    expect(unapplied(base)).toEqual([]);
    const engine = new Engine(base);
    engine.change([setField(base, "item", idOf("Anchor"), "carrying", [])]);
    expect(unapplied(engine.catalogue)).toHaveLength(1);
    expect(
      engine.model().findings.filter((f) => f.rule === "condition-unapplied" && /Burdened/.test(f.message)),
    ).toHaveLength(1);
  });
});

describe("the world", () => {
  it("has situations with a rule of their own for a full bag", () => {
    expect(messageOf("context Ashore\nget 2 Pie\nget Pie")).toBe("3: The bag's 2 slots are full. It was refused.");
    expect(messageOf("context Aboard\nget 3 Pie\nexpect to have Pie stored\ncontext Ashore\nget Pie")).toMatch(/^5: /);
  });

  it("asks for stations only where a trial says which are at hand", () => {
    const make = "get Eel\nmake Bake\nget Eel\nmake Twist";
    expect(messageOf(make)).toBe("holds");
    const named = (...names: string[]) => ({ atHand: "those named" as const, stations: names.map(idOf) });
    expect(messageOf(make, base, named())).toBe("2: any oven is not available.");
    expect(messageOf(make, base, named("Hearth"))).toBe("4: Bench is not available.");
    expect(messageOf(make, base, named("Hearth", "Bench"))).toBe("holds");
    expect(messageOf("get Hearth\nget Eel\nmake Bake", base, named())).toMatch(/holds|fit/);
  });

  it("has purses that hold so much: what is beyond it does not come", () => {
    expect(messageOf("run Chest")).toBe("holds");
    expect(messageOf("run Toll")).toBe("1: A character can carry at most 50 shells and has 0.");
    const play = run("run Chest").play;
    expect(play?.bag.money.get(shells)).toBe(9);
    expect(play?.bag.earn(shells, 100)).toBe(59);
    expect(play?.bag.money.get(shells)).toBe(50);
  });

  it("has sources that drop the kit of a character, in costs as in trials, also after it was edited", () => {
    expect(messageOf("run Chest\nexpect to have 2 Rope")).toBe("holds");
    const lines = (of: Catalogue) =>
      sourceProcesses(of.records.source.get(idOf("Robber")) as Source, of).map((p) =>
        p.lines.map((l) => [l.item, l.min, l.chance]),
      );
    expect(lines(base)).toEqual([
      [
        [idOf("Horn"), 1, 0.5],
        [idOf("Rope"), 2, 1],
      ],
    ]);
    const engine = new Engine(base);
    const obtainable = ({ readings: { compiled, reach } }: Engine) =>
      reach.items[compiled.numberOf(idOf("Rope")) ?? -1] === 1;
    expect(obtainable(engine)).toBe(true);
    engine.change([setField(base, "subject", idOf("Footpad"), `kit.${idOf("Rope")}`, null)]);
    expect(lines(engine.catalogue)).toEqual([[[idOf("Horn"), 1, 0.5]]]);
    expect(obtainable(engine)).toBe(false);
  });

  it("has gifts that come once, whatever they give at which level", () => {
    const gives = (item: string, from: number | null) => ({
      what: { is: "item" as const, item: idOf(item) },
      min: 1,
      max: 1,
      from,
      to: null,
    });
    const gift = withMore(base, {
      item: { Sail: {}, Coin: {}, Banner: {} },
      table: { Welcome: { always: [gives("Sail", null), gives("Coin", 5)] } },
      source: { Welcome: { kind: "gift", tables: [{ table: idOf("Welcome"), times: 1 }] } },
      recipe: { Sew: { lines: [line("ingredient", idOf("Sail"), 2), line("output", idOf("Banner"))] } },
    } as Parameters<typeof tried>[0]);
    const short = findingsOf(gift, readingsOf(gift)).filter((f) => f.rule === "supply-short");
    expect(short.map((f) => f.message)).toEqual(["Only 1 Sail can exist in a world, but Sew needs 2."]);
    expect(messageOf("run Welcome\nexpect to have Sail\nrun Welcome", gift)).toBe(
      "3: Welcome can happen only once in a world.",
    );
  });

  it("has bags in which stacks change places", () => {
    const { play, ok } = run("get Pie\nget Eel\nswap 1 and 2");
    expect(ok).toBe(true);
    expect(play?.bag.stacks.map((s) => s.item)).toEqual([idOf("Eel"), idOf("Pie")]);
    expect(messageOf("get Pie\nswap 1 and 2")).toBe("2: There is no stack 2: there are 1.");
  });

  it("has bags of which each slot has its place: a stack that goes leaves it empty, and what comes fills it first", () => {
    const wide = must(base, [setField(base, "subject", idOf("Mara"), "bagSlots", 5)]);
    const lies = (text: string) =>
      run(text, wide).play?.bag.places.map((s) => (isEmptySlot(s) ? s.slots : wide.records.item.get(s.item)?.name));
    expect(lies("get Eel\nget Pie\nget Snow\ndrop Pie")).toEqual(["Eel", 1, "Snow"]);
    expect(lies("get Eel\nget Pie\nget Snow\ndrop Pie\nget Horn\nget Brine")).toEqual(["Eel", "Horn", "Snow", "Brine"]);
    expect(lies("get Eel\nget Pie\nmove 1 to slot 5")).toEqual([1, "Pie", 2, "Eel"]);
    expect(lies("get Eel\nget Pie\nmove 1 to slot 5\nmove 1 to slot 1\nswap 1 and 2")).toEqual(["Eel", 3, "Pie"]);
    expect(lies("get Eel\nget Pie\ndrop Pie")).toEqual(["Eel"]);
    // Three of the four pies lie before the eel.
    expect(lies("get Eel\nmove 1 to slot 4\nget 4 Pie")).toEqual(["Pie", "Eel", "Pie"]);
    expect(lies("get Eel\nget Pie\nmove 2 to slot 5\nunload")).toEqual([]);
    for (const [text, wrong] of [
      ["get Eel\nget Pie\nmove 1 to slot 2", "3: Slot 2 isn't empty."],
      ["get Eel\nmove 1 to slot 6", "2: There is no slot 6: there are 5."],
      ["get Eel\nmove 3 to slot 2", "2: There is no stack 3: there are 1."],
      ["get 2 Pie\nmove 1 to slot 4", "2: Several full stacks share this place. Split one off first."],
    ])
      expect(messageOf(text, wide)).toBe(wrong);
  });

  it("tells how someone else there fares, too", () => {
    const catalogue = withUses(base, { Bench: ["Throw: drains 10 Vigour, on one foe, kept"] });
    const report = taste(catalogue, {
      subject: idOf("Mara"),
      level: null,
      other: { subject: idOf("Footpad"), is: "foe" },
      situation: null,
      worn: null,
      plans: [{ item: idOf("Bench"), use: null, rule: { is: "at", ticks: [0] } }],
      harm: [],
      ticks: 100,
      seed: 1,
      runs: 1,
    });
    expect(report?.resources.map((r) => [r.resource, r.drained])).toEqual([
      [vigour, 0],
      [breath, 0],
    ]);
    expect(report?.others.map((r) => [r.resource, r.drained])).toEqual([[vigour, 10]]);
  });
});
