/**
 * Thirty situations in plain words, entered as a designer types them, each with its number computed by hand beside it.
 * Ten ticks a second; Mara is of level 5 and holds 100 vigour, 50 of it when she begins, and 40 breath.
 */
import { describe, expect, it } from "vitest";
import { readingsOf } from "../analysis/readings";
import { fewestRuns } from "../analysis/chances";
import type { Catalogue } from "../catalogue/catalogue";
import { around } from "../catalogue/surroundings";
import { findingsOf } from "../checks";
import { formatUse, parseUse } from "../notation/use-line";
import { parseSteps } from "../notation/trial-line";
import { line } from "../notation/line";
import type { Trial } from "../kinds/index";
import { idOf, kept, tried, withMore, withUses } from "../testing/tryout";
import { distributionOf } from "./chance-box";
import { Play, type Setting } from "./play";
import { runTrial } from "./run";

const only = (name: string, min = 1, max = min) => ({
  what: { is: "item" as const, item: idOf(name) },
  min,
  max,
  from: null,
  to: null,
});

const base = tried({
  stat: { Grip: {}, Haul: {}, "Stroke time": { better: "lower", min: 0.5 }, Dose: {}, "Deep lungs": {} },
  resource: {
    Vigour: { most: "100", start: "50" },
    Breath: { most: `40 + "stat:${idOf("Deep lungs")}" * 5` },
    Skin: { most: "30", start: "0" },
  },
  cooldown: { Tonics: { ticks: 300 } },
  situation: { Ashore: {}, Aboard: {}, Night: {} },
  slot: { Hands: {}, Back: {} },
  exclusion: { Wetness: {} },
  signal: { "Ring the bell": { parameters: [{ called: "strokes", form: "whole" }] } },
  currency: { shells: {} },
  item: {
    Pie: { stats: { [idOf("Dose")]: 42 } },
    Tonic: { cooldown: idOf("Tonics") },
    Draught: { cooldown: idOf("Tonics") },
    Rope: {},
    Crock: {},
    Key: {},
    Bait: {},
    Lamp: {},
    "Spent lamp": {},
    Crate: {},
    Pole: { slot: idOf("Hands"), blocks: [idOf("Back")], stats: { [idOf("Haul")]: 7 } },
    Pack: { slot: idOf("Back"), room: 4 },
  },
  table: {
    Catch: {
      draws: [
        {
          times: 1,
          back: true,
          entries: [
            { weight: 1, ...only("Rope") },
            { weight: 3, ...only("Crock") },
          ],
        },
      ],
    },
    Hoard: { chances: [{ chance: 0.1, ...only("Key") }] },
  },
  recipe: { "Splice a net": { lines: [line("ingredient", idOf("Rope"), 2), line("output", idOf("Crock"))] } },
  condition: {
    Warm: { ticks: 300, nature: "good", pulses: [{ resource: idOf("Vigour"), amount: "1", every: 20 }] },
    Poisoned: {
      ticks: 80,
      nature: "bad",
      twice: "add up",
      layers: 5,
      pulses: [{ resource: idOf("Vigour"), amount: "-2", every: 20 }],
    },
    Steady: { ticks: 100, nature: "good", changes: [{ stat: idOf("Grip"), how: "multiply", by: "1.5" }] },
    Swift: { ticks: 100, nature: "good", changes: [{ stat: idOf("Stroke time"), how: "multiply", by: "0.8" }] },
    Bound: { ticks: 100, nature: "bad", changes: [{ stat: idOf("Grip"), how: "set", by: "0" }] },
    Soaked: { nature: "bad", exclusion: idOf("Wetness"), strength: 1, bars: [idOf("Ashore")] },
    Drenched: { ticks: 100, nature: "bad", exclusion: idOf("Wetness"), strength: 2 },
    Tired: { ticks: 100, nature: "bad" },
  },
  subject: {
    Mara: {
      level: 5,
      resources: ["Vigour", "Breath", "Skin"].map(idOf),
      slots: [idOf("Hands"), idOf("Back")],
      stats: { [idOf("Grip")]: "10", [idOf("Haul")]: "5 + level * 2", [idOf("Stroke time")]: "3" },
      bagSlots: 6,
      kit: { [idOf("Bait")]: 2, [idOf("Pie")]: 3 },
      money: { [idOf("shells")]: 4 },
    },
  },
});

/** A game in which the pie (or another item) does what a line says. */
function entered(
  text: string,
  item = "Pie",
  more: Parameters<typeof withMore>[1] = {},
  setting: Partial<Setting> = {},
) {
  const catalogue: Catalogue = withUses(withMore(base, more), { [item]: [text] });
  // What was typed reads back as it was meant.
  const { use } = parseUse(text, around(catalogue), () => null);
  expect(use && formatUse(use, around(catalogue))).toBe(text);
  const subject = catalogue.records.subject.get(idOf("Mara"));
  if (!subject) throw new Error("Mara");
  const play = new Play(catalogue, { subject, situation: idOf("Aboard"), ...setting });
  const id = idOf(item);
  return {
    catalogue,
    play,
    use: () => play.use(id),
    message: () => {
      const outcome = play.use(id);
      return outcome.ok ? "" : outcome.message;
    },
    at: (seconds: number) => play.advance(seconds * 10),
    vigour: () => play.user.resource(idOf("Vigour")),
    has: (name: string) => play.bag.count(idOf(name)),
    stat: (name: string) => play.user.stat(idOf(name)),
    on: (name: string) => play.user.has(idOf(name)),
    found: (rule: string) =>
      findingsOf(catalogue, readingsOf(catalogue)).flatMap((f) => (f.rule === rule ? [f.message] : [])),
  };
}

describe("thirty situations, sayable and with the number of the hand calculation", () => {
  it("1. a pie restores what it says it is worth: 50 + 42", () => {
    const game = entered("Eat: restores Vigour by item Dose, used up");
    game.use();
    expect(game.vigour()).toBe(92);
  });
  it("2. a quarter of what one can hold: 50 + 25", () => {
    const game = entered("Sip: restores 25% of Vigour");
    game.use();
    expect(game.vigour()).toBe(75);
  });
  it("3. a third of what is missing: 50 + 50/3", () => {
    const game = entered("Rest: restores Vigour by (user most Vigour - user Vigour) / 3");
    game.use();
    expect(game.vigour()).toBeCloseTo(50 + 50 / 3, 9);
  });
  it("4. 3 vigour every 2 s for 10 s: five times 3", () => {
    const game = entered("Chew: restores 3 Vigour every 2s for 10s");
    game.use();
    game.at(9);
    expect(game.vigour()).toBe(62);
    game.at(60);
    expect(game.vigour()).toBe(65);
  });
  it("5. warms for 30 s, and being warm gives 1 every 2 s: fifteen", () => {
    const game = entered("Eat: Warm");
    game.use();
    game.at(100);
    expect(game.vigour()).toBe(65);
  });
  it("6. the same for 10 s only: five", () => {
    const game = entered("Eat: Warm 10s");
    game.use();
    game.at(100);
    expect(game.vigour()).toBe(55);
  });
  it("7. poison of two layers takes 2 · 2 every 2 s for 8 s: sixteen; five layers at most", () => {
    const game = entered("Lick: Poisoned x2");
    game.use();
    game.at(20);
    expect(game.vigour()).toBe(34);
    for (let n = 0; n < 4; n++) game.use();
    expect(game.play.user.active(idOf("Poisoned"))?.layers).toBe(5);
  });
  it("8. an antidote ends poison, and whatever else is bad", () => {
    const game = entered("Swallow: clears all bad, clears Soaked");
    for (const name of ["Poisoned", "Tired", "Warm"]) {
      const condition = game.catalogue.records.condition.get(idOf(name));
      if (condition) game.play.user.apply(condition, 1000, 1);
    }
    game.use();
    expect(game.play.user.conditions.map((c) => c.of.name)).toEqual(["Warm"]);
  });
  it("9. half more grip for 10 s: 15, and 10 again", () => {
    const game = entered("Drink: Steady");
    game.use();
    expect(game.stat("Grip")).toBe(15);
    game.at(10);
    expect(game.stat("Grip")).toBe(10);
  });
  it("10. a fifth faster where less is better: 3 s become 2.4", () => {
    const game = entered("Drink: Swift");
    game.use();
    expect(game.stat("Stroke time")).toBeCloseTo(2.4, 12);
    expect(game.found("against-better")).toEqual([]);
  });
  it("11. bound hands have no grip at all, whatever else adds to it", () => {
    const game = entered("Tangle: Steady, Bound");
    game.use();
    expect(game.stat("Grip")).toBe(0);
  });
  it("12. a drenching takes the place of being soaked, and not the other way round", () => {
    const game = entered("Fall in: Soaked, Drenched, Soaked");
    game.use();
    expect(game.play.user.conditions.map((c) => c.of.name)).toEqual(["Drenched"]);
  });
  it("13. a tonic and a draught wait with each other, 30 s", () => {
    const game = entered("Drink: restores 1 Vigour", "Tonic");
    game.use();
    expect(game.message()).toBe("The cooldown takes 30s more.");
    const both = withUses(game.catalogue, { Draught: ["Drink: restores 1 Vigour"] });
    const play = new Play(both, { subject: both.records.subject.get(idOf("Mara")) as never });
    play.use(idOf("Tonic"));
    expect(play.use(idOf("Draught"))).toEqual({ ok: false, message: "The cooldown takes 30s more." });
  });
  it("14. one that is ready in 10 s all the same is told: 10 against 30", () => {
    const game = entered("Drink: restores 1 Vigour, cooldown 10s", "Tonic");
    expect(game.found("cooldown-overridden")).toEqual([
      "Drink of Tonic has a cooldown of 10s, but its group Tonics has 30s.",
    ]);
  });
  it("15. taking two seconds to cook, it is ready 5 s after that", () => {
    const game = entered("Cook: restores 10 Vigour, use time 2s, cooldown 5s");
    game.use();
    game.at(1.9);
    expect(game.vigour()).toBe(50);
    game.at(2);
    expect(game.vigour()).toBe(60);
    game.at(6.9);
    expect(game.message()).toBe("The cooldown takes 1t more.");
    game.at(7);
    expect(game.message()).toBe("");
  });
  it("16. a lamp of three uses leaves a spent one with the third", () => {
    const game = entered("Light: Warm 1s, lasts 3 uses, leaves Spent lamp", "Lamp", {}, { supplied: true });
    game.play.bag.put(idOf("Lamp"), 1);
    game.use();
    game.use();
    expect([game.has("Lamp"), game.has("Spent lamp")]).toEqual([1, 0]);
    game.use();
    expect([game.has("Lamp"), game.has("Spent lamp")]).toEqual([0, 1]);
  });
  it("17. two pies at a time, of three: once, and then there are too few", () => {
    const game = entered("Feast: restores 5 Vigour, 2 used up", "Pie", {}, { supplied: true });
    expect(game.message()).toBe("");
    expect([game.has("Pie"), game.message()]).toEqual([1, "There is no Pie left."]);
  });
  it("18. a chest needs a key, which stays in the lock", () => {
    const game = entered("Unlock: takes Key, gives 3 Rope", "Crate", {}, { supplied: true });
    game.play.bag.put(idOf("Crate"), 1);
    expect(game.message()).toBe("It needs 1 Key.");
    game.play.bag.put(idOf("Key"), 1);
    expect(game.message()).toBe("");
    expect([game.has("Key"), game.has("Rope"), game.has("Crate")]).toEqual([0, 3, 0]);
  });
  it("19. a line is cast with bait and kept: one rope in four casts", () => {
    const game = entered("Cast: takes Bait, draws from Catch, kept", "Pole", {}, { supplied: true });
    game.play.bag.put(idOf("Pole"), 1);
    const catches = game.catalogue.records.table.get(idOf("Catch"));
    const rope = catches && distributionOf(catches, `item:${idOf("Rope")}`, game.catalogue.records.table, 5);
    expect(rope && [...rope.p]).toEqual([0.75, 0.25]);
    game.use();
    game.use();
    expect([game.has("Rope") + game.has("Crock"), game.has("Pole"), game.message()]).toEqual([
      2,
      1,
      "It needs 1 Bait.",
    ]);
  });
  it("20. a key in one of ten hoards: 7, 22 and 44 for half, nine tenths and almost surely", () => {
    const hoard = base.records.table.get(idOf("Hoard"));
    const key = hoard && distributionOf(hoard, `item:${idOf("Key")}`, base.records.table, 5);
    expect(key && [0.5, 0.9, 0.99].map((sure) => fewestRuns(key, 1, sure))).toEqual([7, 22, 44]);
  });
  it("21. a purse pays 2 shells, a toll costs 5 of the 4 there are", () => {
    const purse = entered("Open: pays 2 shells");
    purse.use();
    expect(purse.play.bag.money.get(idOf("shells"))).toBe(6);
    expect(entered("Pay: charges 5 shells", "Pie", {}, { supplied: true }).message()).toBe("It costs 5 shells.");
  });
  it("22. a lesson teaches a recipe, which can't be made before", () => {
    const game = entered(
      "Read: teaches Splice a net, kept, refused when it would do nothing",
      "Pie",
      {},
      { supplied: true },
    );
    const steps = (text: string) => {
      const { steps } = parseSteps(text, around(game.catalogue));
      const trial = { subject: idOf("Mara"), seed: 1, steps: (steps ?? []) as Trial["steps"] };
      return runTrial(game.catalogue, trial).message;
    };
    expect(steps("get 2 Rope\nmake Splice a net")).toBe("Mara has not learned it.");
    expect(steps("get 2 Rope\nuse Pie\nmake Splice a net\nexpect to have Crock\nrefused: use Pie")).toBe("");
  });
  it("23. training adds 2 to grip for good, up to 5 in all: 12, 14, 15, 15", () => {
    const game = entered("Train: raises Grip by 2 up to 5");
    const seen = Array.from({ length: 4 }, () => {
      game.use();
      return game.stat("Grip");
    });
    expect(seen).toEqual([12, 14, 15, 15]);
  });
  it("24. deep lungs hold more: three of them, 40 + 3 · 5", () => {
    const game = entered("Dive: raises Deep lungs by 3");
    expect(game.play.user.most(idOf("Breath"))).toBe(40);
    game.use();
    expect(game.play.user.most(idOf("Breath"))).toBe(55);
  });
  it("25. only aboard or by night; nowhere ticked is told", () => {
    const game = entered("Sing: Warm, only Aboard + Night");
    expect(game.message()).toBe("");
    game.play.situation = idOf("Ashore");
    expect(game.message()).toBe("Only Aboard, Night.");
    expect(entered("Sing: Warm, nowhere").found("use-nowhere")).toHaveLength(1);
  });
  it("26. needs level 6, grip 12, being warm, not being tired", () => {
    expect(entered("Lift: restores 1 Vigour, needs level 6").message()).toBe("It needs level 6.");
    expect(entered("Lift: restores 1 Vigour, needs Grip 12").message()).toBe("It needs Grip 12, but there is 10.");
    expect(entered("Lift: restores 1 Vigour, needs Warm").message()).toBe("It needs the condition Warm.");
    const game = entered("Lift: Tired, not while Tired");
    expect([game.message(), game.message()]).toEqual(["", "Not while Tired."]);
  });
  it("27. no one eats in vain, and is told why", () => {
    const game = entered('Eat: restores 60 Vigour, refused when it would do nothing message "You are full."');
    expect([game.message(), game.vigour(), game.message()]).toEqual(["", 100, "You are full."]);
  });
  it("28. a bell is rung three times by the game itself", () => {
    const game = entered("Ring: signals Ring the bell (strokes: 3), kept");
    game.use();
    expect(game.play.signals).toEqual([
      { tick: 0, signal: idOf("Ring the bell"), told: [{ called: "strokes", value: "3" }] },
    ]);
  });
  it("29. a tonic of 40 s every 30 is always on; one of 15 s half of the time", () => {
    expect(entered("Drink: Warm 40s", "Tonic").found("always-on")[0]).toMatch(
      /^Drink of Tonic keeps Warm active 100% of the time: it lasts 40s and repeats every 30s with Tonics\.$/,
    );
    expect(entered("Drink: Warm 15s", "Tonic").found("always-on")).toEqual([]);
    const { play } = entered("Drink: Warm 15s", "Tonic");
    play.plan({ item: idOf("Tonic"), use: null, rule: { is: "ready" } });
    play.advance(2999);
    play.finish();
    expect(play.user.bars.reduce((t, b) => t + b.to - b.from, 0)).toBe(10 * 150);
  });
  it("30. a pole in both hands: 5 + 2 · 5 + 7 haul, and no pack beside it", () => {
    const game = entered("Push: drains 1 Vigour, kept", "Pole");
    expect(game.stat("Haul")).toBe(15);
    expect(game.play.wear(idOf("Pole"))).toEqual({ ok: true });
    expect(game.stat("Haul")).toBe(22);
    expect(game.play.wear(idOf("Pack"))).toEqual({ ok: false, message: "Pole blocks Back." });
    game.play.takeOff(idOf("Pole"));
    game.play.wear(idOf("Pack"));
    expect([game.stat("Haul"), game.play.bag.limits.slots]).toEqual([15, 10]);
  });
  it("and harm that eats a shield first is a use that waits for a formula", () => {
    const game = entered("Raise: restores 30 Skin, cooldown 20s");
    game.play.harm(idOf("Skin"), 2);
    const holds = kept(game.catalogue, "bearer", "Skin < 1");
    game.play.plan({ item: idOf("Pie"), use: null, rule: { is: "whenever", holds } });
    game.at(59);
    // 30 of it are gone after 15 s, but the shield is ready after 20 only.
    expect(game.play.moments.map((m) => m.tick)).toEqual([0, 200, 400]);
  });
});
