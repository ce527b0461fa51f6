import { describe, expect, it } from "vitest";
import type { Catalogue } from "../catalogue/catalogue";
import { idOf, kept, tried, withMore, withUses } from "../testing/tryout";
import { Play, type Setting } from "./play";

/** Ten ticks a second. Mara has 100 vigour at most, begins with 40 and gets 1 a second. */
const base = tried({
  stat: { Grip: { min: 0, max: 50 }, Chill: { better: "lower" }, Dose: {} },
  resource: { Vigour: { most: "100", start: "40", recovery: "1" }, Breath: { most: "50" } },
  situation: { Aboard: {}, Ashore: {} },
  exclusion: { Weather: {} },
  cooldown: { Tonics: { ticks: 100 } },
  item: {
    Eel: {},
    Tonic: { cooldown: idOf("Tonics") },
    Brew: { cooldown: idOf("Tonics") },
    Crock: {},
    Blade: {},
    Rope: {},
  },
  currency: { shells: {} },
  table: {
    Finds: { always: [{ what: { is: "item", item: idOf("Rope") }, min: 2, max: 2, from: null, to: null }] },
  },
  condition: {
    Warm: { ticks: 300, nature: "good", pulses: [{ resource: idOf("Vigour"), amount: "2", every: 50 }] },
    Steady: { ticks: 100, nature: "good", changes: [{ stat: idOf("Grip"), how: "add", by: "5" }] },
    Firm: { ticks: 100, changes: [{ stat: idOf("Grip"), how: "multiply", by: "2" }] },
    Numb: { ticks: 100, nature: "bad", changes: [{ stat: idOf("Grip"), how: "set", by: "3" }] },
    Tipsy: { ticks: 100, twice: "add up", layers: 3, changes: [{ stat: idOf("Grip"), how: "add", by: "-1" }] },
    Longer: { ticks: 100, twice: "extend" },
    Kept: { ticks: 100, twice: "keep the longer" },
    Ignored: { ticks: 100, twice: "ignore" },
    Soaked: { exclusion: idOf("Weather"), strength: 2, bars: [idOf("Aboard")] },
    Damp: { exclusion: idOf("Weather"), strength: 1 },
  },
  subject: {
    Mara: {
      level: 5,
      resources: [idOf("Vigour"), idOf("Breath")],
      stats: { [idOf("Grip")]: "10" },
      kit: { [idOf("Eel")]: 3 },
      bagSlots: 10,
    },
  },
});
const withLines = (lines: { readonly [item: string]: readonly string[] }) => withUses(base, lines);
const mara = (catalogue: Catalogue) => {
  const subject = catalogue.records.subject.get(idOf("Mara"));
  if (!subject) throw new Error("Mara");
  return subject;
};
const play = (catalogue: Catalogue, setting: Partial<Setting> = {}) =>
  new Play(catalogue, { subject: mara(catalogue), ...setting });
const vigour = (p: Play) => p.user.resource(idOf("Vigour"));
const grip = (p: Play) => p.user.stat(idOf("Grip"));
const messageOf = (outcome: ReturnType<Play["use"]>) => (outcome.ok ? "" : outcome.message);

describe("resources over time", () => {
  it("come back by themselves up to their most, and what is restored beyond is wasted", () => {
    const p = play(withLines({ Eel: ["Eat: restores 42 Vigour"] }));
    p.advance(100);
    expect(vigour(p)).toBeCloseTo(50, 9);
    expect(p.use(idOf("Eel")).ok).toBe(true);
    expect(vigour(p)).toBeCloseTo(92, 9);
    p.use(idOf("Eel"));
    expect(vigour(p)).toBe(100);
    expect(p.user.pool(idOf("Vigour"))).toMatchObject({ restored: 50, wasted: 34 });
    p.advance(10_000);
    p.finish();
    expect(p.user.pool(idOf("Vigour"))?.values.at(-1)).toBe(100);
  });

  it("move by steady harm beside what comes back, down to the least", () => {
    const p = play(withLines({}));
    p.harm(idOf("Vigour"), 3);
    p.advance(100);
    // 40 + 10 · (1 - 3) = 20; ten seconds later nothing is left.
    expect(vigour(p)).toBeCloseTo(20, 9);
    p.advance(400);
    expect(vigour(p)).toBe(0);
    p.finish();
    const { ticks, values } = p.user.pool(idOf("Vigour")) as { ticks: number[]; values: number[] };
    expect(ticks[values.indexOf(0)]).toBe(200);
  });

  it("restores over time by so much so often, and a share of the most", () => {
    const p = play(
      withLines({ Eel: ["Sip: restores 5 Vigour every 2s for 10s, restores 10% of Breath", "Drop: drains 20 Vigour"] }),
    );
    p.harm(idOf("Vigour"), 1);
    p.advance(0);
    p.use(idOf("Eel"));
    p.advance(99);
    expect(vigour(p)).toBe(60);
    p.advance(1000);
    expect(vigour(p)).toBe(65);
    expect(p.user.resource(idOf("Breath"))).toBe(50);
    p.use(idOf("Eel"), idOf("Drop Eel"));
    expect(vigour(p)).toBe(45);
  });
});

describe("conditions", () => {
  const lines = {
    Eel: [
      "Warm up: Warm",
      "Steady: Steady",
      "Firm: Firm",
      "Numb: Numb",
      "Drink: Tipsy x2",
      "Rain: Soaked",
      "Drizzle: Damp",
      "Dry: clears all bad, clears Soaked",
      "Long: Longer",
      'Keep: "Kept"',
      'Keep less: "Kept" 2s',
      "Shrug: Ignored",
    ],
  };
  const use = (p: Play, name: string) => p.use(idOf("Eel"), idOf(`${name} Eel`));

  it("pulse while they stand, the last at their very end", () => {
    const p = play(withLines(lines));
    p.harm(idOf("Vigour"), 1);
    p.advance(0);
    use(p, "Warm up");
    // 30 s with 2 vigour every 5 s: six pulses.
    p.advance(1000);
    expect(vigour(p)).toBe(52);
  });

  it("change stats: added, then multiplied, then set; and all is as before when they end", () => {
    const p = play(withLines(lines));
    use(p, "Firm");
    use(p, "Steady");
    expect(grip(p)).toBe(30);
    expect(p.user.total(idOf("Grip")).shares.map((s) => [s.kind, s.value])).toEqual([
      ["base", 10],
      ["condition", 2],
      ["condition", 5],
    ]);
    p.advance(50);
    use(p, "Numb");
    expect(grip(p)).toBe(3);
    p.advance(149);
    expect(grip(p)).toBe(3);
    p.advance(150);
    expect(grip(p)).toBe(10);
  });

  it("applied twice refresh, extend, add up, keep the longer or are ignored", () => {
    const p = play(withLines(lines));
    const until = (name: string) => p.user.conditions.find((c) => c.of.id === idOf(name))?.until;
    for (const name of ["Drink", "Long", "Keep", "Shrug", "Steady"]) use(p, name);
    expect(grip(p)).toBe(13);
    p.advance(50);
    for (const name of ["Drink", "Long", "Keep less", "Shrug", "Steady"]) use(p, name);
    expect([until("Longer"), until("Kept"), until("Ignored"), until("Steady"), until("Tipsy")]).toEqual([
      200, 100, 100, 150, 150,
    ]);
    // Three layers at most.
    expect(grip(p)).toBe(12);
    p.advance(100);
    expect(p.user.has(idOf("Ignored"))).toBe(false);
    p.finish();
    expect(p.user.bars.filter((b) => b.condition === idOf("Tipsy")).map((b) => [b.from, b.to, b.layers])).toEqual([
      [0, 50, 2],
      [50, 100, 3],
    ]);
  });

  it("displace weaker ones of their group, and prevent uses where they say so", () => {
    const p = play(withLines(lines), { situation: idOf("Aboard") });
    use(p, "Drizzle");
    use(p, "Rain");
    expect(p.user.conditions.map((c) => c.of.name)).toEqual(["Soaked"]);
    expect(messageOf(use(p, "Dry"))).toBe("Soaked blocks uses here.");
    p.situation = idOf("Ashore");
    use(p, "Drizzle");
    expect(p.user.has(idOf("Damp"))).toBe(false);
    expect(use(p, "Dry").ok).toBe(true);
    expect(p.user.conditions).toEqual([]);
  });
});

describe("a use", () => {
  it("waits with its group; its own time stands before that of the group", () => {
    const p = play(withLines({ Tonic: ["Drink: restores 1 Vigour"], Brew: ["Drink: restores 1 Vigour, ready in 3s"] }));
    p.use(idOf("Tonic"));
    expect(messageOf(p.use(idOf("Tonic")))).toBe("The cooldown takes 10s more.");
    expect(messageOf(p.use(idOf("Brew")))).toBe("The cooldown takes 3s more.");
    p.advance(30);
    expect(p.use(idOf("Brew")).ok).toBe(true);
    p.advance(100);
    expect(messageOf(p.use(idOf("Tonic")))).toBe("The cooldown takes 3s more.");
  });

  it("of a type waits for each item by itself, where they share no group", () => {
    const typed = withUses(
      withMore(base, { type: { Fare: {} }, item: { Stew: { type: idOf("Fare") }, Pie: { type: idOf("Fare") } } }),
      { Fare: ["Eat: restores 1 Vigour, ready in 20s"] },
      "type",
    );
    const p = play(typed);
    expect(p.use(idOf("Stew")).ok).toBe(true);
    expect(messageOf(p.use(idOf("Stew")))).toBe("The cooldown takes 20s more.");
    expect(p.use(idOf("Pie")).ok).toBe(true);
  });

  it("winds up, and counts its wait from when it took effect", () => {
    const p = play(withLines({ Eel: ["Cook: restores 10 Vigour, after 2s, ready in 5s"] }));
    p.harm(idOf("Vigour"), 1);
    p.advance(0);
    p.use(idOf("Eel"));
    expect(messageOf(p.use(idOf("Eel")))).toBe("Another use takes 2s more.");
    p.advance(20);
    expect(vigour(p)).toBe(50);
    expect(messageOf(p.use(idOf("Eel")))).toBe("The cooldown takes 5s more.");
  });

  it("is refused with the reason, and takes nothing then", () => {
    const p = play(
      withLines({
        Eel: [
          "Wise: needs level 6",
          "Strong: needs Grip 12",
          "Cosy: needs Warm",
          "Here: only Ashore",
          "Never: nowhere",
          'Full: restores 5 Vigour, not in vain saying "You could not eat a thing."',
          "Friend: restores 5 Vigour, on one ally",
          "Pay: charges 5 shells",
          "Swap: takes 2 Rope",
        ],
      }),
      { supplied: true },
    );
    const use = (name: string) => messageOf(p.use(idOf("Eel"), idOf(`${name} Eel`)));
    expect(use("Wise")).toBe("It needs level 6.");
    expect(use("Strong")).toBe("It needs Grip 12, but there is 10.");
    expect(use("Cosy")).toBe("It needs the condition Warm.");
    expect(use("Here")).toBe("Only Ashore.");
    expect(use("Never")).toBe("It is never allowed: it has no context.");
    expect(use("Friend")).toBe("There is no ally here.");
    expect(use("Pay")).toBe("It costs 5 shells.");
    expect(use("Swap")).toBe("It needs 2 Rope.");
    p.advance(10_000);
    expect(use("Full")).toBe("You could not eat a thing.");
    expect(p.bag.count(idOf("Eel"))).toBe(3);
    expect(p.moments.every((m) => m.refused !== null)).toBe(true);
  });

  it("uses the item up, wears it, leaves another, gives, draws, pays and teaches", () => {
    const catalogue = withLines({
      Eel: ["Eat: pays 2 shells, draws 2 from Finds, used up, leaves Crock"],
      Blade: ["Cut: gives 3 Rope, lasts 2 uses, leaves Crock"],
    });
    const p = play(catalogue, { supplied: true });
    p.use(idOf("Eel"));
    expect([p.bag.count(idOf("Eel")), p.bag.count(idOf("Crock")), p.bag.count(idOf("Rope"))]).toEqual([2, 1, 4]);
    expect(p.bag.money.get(idOf("shells"))).toBe(2);
    p.bag.put(idOf("Blade"), 1);
    p.use(idOf("Blade"));
    expect(p.bag.count(idOf("Blade"))).toBe(1);
    p.use(idOf("Blade"));
    expect([p.bag.count(idOf("Blade")), p.bag.count(idOf("Crock")), p.bag.count(idOf("Rope"))]).toEqual([0, 2, 10]);
    expect(messageOf(p.use(idOf("Blade")))).toBe("There is no Blade left.");
  });

  it("changes a stat for good up to a limit, by formulas over user and item", () => {
    const catalogue = withMore(base, {});
    const by = kept(catalogue, "use", "item Dose + user level");
    const p = play(
      withMore(base, {
        use: {
          Train: {
            item: idOf("Eel"),
            effects: [{ does: { is: "change", stat: idOf("Grip"), limit: 8 }, amount: by, chance: 1 }],
          },
        },
      }),
    );
    p.use(idOf("Eel"));
    expect(grip(p)).toBe(15);
    p.use(idOf("Eel"));
    expect(grip(p)).toBe(18);
  });

  it("acts on someone else where it says so", () => {
    const catalogue = withLines({
      Eel: ["Feed: restores 5 Vigour, on one ally", "Throw: drains 7 Vigour, on one foe"],
    });
    const ally = play(catalogue, { other: { subject: mara(catalogue), is: "ally" } });
    ally.use(idOf("Eel"));
    expect([vigour(ally), ally.other?.resource(idOf("Vigour"))]).toEqual([40, 45]);
    const foe = play(catalogue, { other: { subject: mara(catalogue), is: "foe" } });
    expect(messageOf(foe.use(idOf("Eel")))).toBe("There is no ally here.");
    foe.use(idOf("Eel"), idOf("Throw Eel"));
    expect(foe.other?.resource(idOf("Vigour"))).toBe(33);
  });

  it("by chance comes out the same for the same seed, and in the mean as its chance says", () => {
    const catalogue = withLines({ Eel: ["Eat: 30% restores 1 Breath, drains 1 Breath, ready in 1s"] });
    const run = (seed: number) => {
      const p = play(catalogue, { seed });
      p.plan({ item: idOf("Eel"), use: null, rule: { is: "ready" } });
      p.advance(10_000);
      return p.user.pool(idOf("Breath"))?.restored ?? 0;
    };
    expect(run(5)).toBe(run(5));
    const mean = Array.from({ length: 40 }, (_, seed) => run(seed)).reduce((a, b) => a + b, 0) / 40;
    // 50 breath lie within reach of the first uses; then each restores with 0.3 what the one before drained.
    expect(mean / 1001).toBeGreaterThan(0.27);
    expect(mean / 1001).toBeLessThan(0.33);
  });
});

describe("what is planned", () => {
  it("happens at its times, as soon as it is ready, and whenever a formula holds", () => {
    const catalogue = withLines({ Eel: ["Eat: restores 30 Vigour, ready in 20s"] });
    const times = (rule: Parameters<Play["plan"]>[0]["rule"]) => {
      const p = play(catalogue);
      p.harm(idOf("Vigour"), 2);
      p.plan({ item: idOf("Eel"), use: null, rule });
      p.advance(1000);
      return p.moments.filter((m) => m.refused === null).map((m) => m.tick);
    };
    expect(times({ is: "at", ticks: [10, 300, 350] })).toEqual([10, 300]);
    expect(times({ is: "every", ticks: 250, from: 0 })).toEqual([0, 250, 500, 750, 1000]);
    expect(times({ is: "ready" })).toEqual([0, 200, 400, 600, 800, 1000]);
    // 40 falls by a tenth a tick: below 25 after 151 ticks, to 54.9; below 25 again 300 ticks later.
    expect(times({ is: "whenever", holds: kept(catalogue, "bearer", "Vigour < 25") })).toEqual([151, 451, 751]);
  });

  it("tells the first tick at which something did not hold", () => {
    const catalogue = withLines({});
    const p = play(catalogue);
    const watch = p.watch(kept(catalogue, "bearer", "Vigour >= 10"));
    p.harm(idOf("Vigour"), 2);
    p.advance(1000);
    expect(watch.broken).toBe(301);
  });

  it("agrees with going tick by tick", () => {
    const catalogue = withLines({
      Eel: ["Eat: restores 7 Vigour every 3s for 10s, Warm, ready in 13s"],
      Tonic: ["Drink: Steady, drains 3 Vigour"],
    });
    const whole = play(catalogue);
    const steps = play(catalogue);
    for (const p of [whole, steps]) {
      p.harm(idOf("Vigour"), 1.7);
      p.plan({ item: idOf("Eel"), use: null, rule: { is: "ready" } });
      p.plan({ item: idOf("Tonic"), use: null, rule: { is: "every", ticks: 110, from: 5 } });
    }
    whole.advance(3000);
    for (let tick = 0; tick <= 3000; tick++) steps.advance(tick);
    expect(vigour(steps)).toBeCloseTo(vigour(whole), 9);
    expect(steps.moments).toEqual(whole.moments);
    expect(steps.user.bars).toEqual(whole.user.bars);
  });
});
