import { describe, expect, it } from "vitest";
import { around } from "../catalogue/surroundings";
import type { Catalogue } from "../catalogue/catalogue";
import { setField } from "../catalogue/edit";
import { must } from "../testing/kitchen";
import { formatSteps, parseSteps } from "../notation/trial-line";
import { line } from "../notation/line";
import { idOf, tried, withMore, withUses } from "../testing/tryout";
import type { Trial } from "../kinds/index";
import { runTrial } from "./run";

const catalogue = withUses(
  tried({
    stat: { Grip: {} },
    slot: { Hands: {} },
    resource: { Vigour: { most: "100" } },
    situation: { Aboard: {} },
    condition: { Warm: { ticks: 300, changes: [{ stat: idOf("Grip"), how: "add", by: "2" }] } },
    currency: { shells: {} },
    item: {
      Pie: {},
      Log: { mass: 4, stack: 5 },
      Rope: { mass: 1, stack: 10, limit: 12 },
      Raft: { mass: 20 },
      Adze: {},
      Mitts: { slot: idOf("Hands"), room: 2, stats: { [idOf("Grip")]: 3 } },
      Primer: {},
    },
    recipe: {
      "Lash a raft": {
        ticks: 600,
        taughtBy: idOf("Primer"),
        lines: [
          line("ingredient", idOf("Log"), 6),
          line("ingredient", idOf("Rope"), 4),
          line("tool", idOf("Adze"), 1, 1, 1, 3),
          line("output", idOf("Raft")),
        ],
      },
    },
    source: {
      "Wrack line": { ticks: 300, lines: [line("output", idOf("Log"), 3)] },
      Chandler: { kind: "shop", price: 4, currency: idOf("shells"), lines: [line("output", idOf("Rope"), 2)] },
    },
    subject: {
      Mara: {
        level: 3,
        resources: [idOf("Vigour")],
        slots: [idOf("Hands")],
        stats: { [idOf("Grip")]: "10" },
        bagSlots: 5,
        bagMass: 60,
        kit: { [idOf("Adze")]: 1, [idOf("Pie")]: 2, [idOf("Mitts")]: 1 },
        money: { [idOf("shells")]: 10 },
      },
    },
  }),
  { Pie: ["Eat: restores 30 Vigour, Warm, ready in 10s"] },
);
const trial = (text: string, of: Catalogue = catalogue): Pick<Trial, "subject" | "steps" | "seed"> => {
  const { steps, issues } = parseSteps(text, around(of));
  if (!steps) throw new Error(issues.map((i) => i.message).join(" "));
  return { subject: idOf("Mara"), steps: steps as Trial["steps"], seed: 1 };
};
const messageOf = (text: string): string => {
  const { ok, message, failed } = runTrial(catalogue, trial(text));
  return ok ? "holds" : `${failed + 1}: ${message}`;
};

describe("a trial as text", () => {
  it("is written back as it was read, whatever its steps are", () => {
    const text = [
      "use Pie",
      "use 2 Pie as Eat",
      "use Pie every 5m as Eat",
      "use Pie whenever Vigour < 50 and not (Grip > 3)",
      "use Pie as soon as ready",
      "stop Pie",
      "wait 20m",
      "context Aboard",
      "no context",
      "damage Vigour 2.5 per second",
      "refused: wear Mitts",
      "take off Mitts",
      "get 5 Log",
      "drop Log",
      "make 2 Lash a raft",
      "run Wrack line",
      "unload",
      "expect Vigour >= 10 throughout",
      "expect Vigour / most Vigour > 0.5",
      "expect to have 3 Rope",
      "expect to have Rope stored",
      "expect the condition Warm",
      "expect no condition Warm",
    ].join("\n");
    const { steps, issues } = parseSteps(`// What a day is like\n\n${text}`, around(catalogue));
    expect(issues).toEqual([]);
    expect(formatSteps(steps ?? [], around(catalogue))).toBe(text);
  });

  it("tells what can't be read, in which place of the text", () => {
    const text = "use Pie\nuse Pye\nexpect Vigour >= \nsing";
    const { steps, issues } = parseSteps(text, around(catalogue));
    expect(steps).toBe(null);
    expect(issues.map((i) => text.slice(0, i.from).split("\n").length)).toEqual([2, 3, 4]);
    expect(text.slice(issues[0].from, issues[0].to)).toBe("Pye");
    expect(issues[0].suggestions).toEqual(["Pie"]);
    expect(issues[2].message).toMatch(
      /^“sing” isn't a step\. Examples: use Tonic every 5m; use Tonic whenever Vigour < 50; use Tonic; wait 20m; context Aboard; stop Tonic; damage Vigour 2 per second; wear Oilskin coat; take off Oilskin coat; get 3 …; drop 3 …; make 3 Tonic; buy 3 Rope from Chandler; sell 3 Rope to Chandler; split 3 …; merge Rope; run 3 …; swap 1 and 3; move 1 to slot 5; unload; expect to have 3 Rope; expect the condition Warm; expect Vigour >= 10 within 5m\.$/,
    );
  });
});

describe("a trial", () => {
  it("says at which step and when something did not hold", () => {
    expect(messageOf("harm Vigour 1\nexpect Vigour >= 40 throughout\nuse Pie every 30s\nwait 60s")).toBe("holds");
    expect(messageOf("harm Vigour 1\nexpect Vigour >= 40 throughout\nwait 2m")).toBe(
      "2: Vigour >= 40 wasn't true at 601t.",
    );
    expect(messageOf("harm Vigour 1\nwait 60s\nexpect Vigour >= 50")).toBe("3: Vigour >= 50 isn't true: Vigour is 40.");
    expect(messageOf("use Pie\nuse Pie")).toBe("2: The cooldown takes 10s more.");
    expect(messageOf("use Pie\nrefused: use Pie\nwait 10s\nuse Pie\nwait 10s\nrefused: use Pie")).toBe("holds");
    expect(messageOf("refused: use Pie")).toBe("1: It should have been refused, but wasn't.");
    expect(
      messageOf(
        "use Pie\nexpect Grip = 12\nwear Mitts\nexpect Grip = 15\nwait 30s\nexpect no condition Warm\nexpect Grip = 13",
      ),
    ).toBe("holds");
  });

  it("builds a raft in one trip, takes nothing when something is missing, and says what", () => {
    const gathered = "run 2 Wrack line\nrun 2 Chandler";
    expect(messageOf(`${gathered}\nmake Lash a raft`)).toBe("3: Mara has not learned it from Primer.");
    const whole =
      "drop 2 Pie\nwear Mitts\nget Primer\nrun 2 Wrack line\nrun 2 Chandler\nmake Lash a raft\nexpect to have Raft\nexpect to have Adze";
    expect(messageOf(whole)).toBe("holds");
    const { play } = runTrial(catalogue, trial(whole));
    // Two runs of 30 s, a minute of work.
    expect(play?.tick).toBe(1200);
    expect(play?.bag.money.get(idOf("shells"))).toBe(2);
    expect(messageOf("get Primer\nget 5 Log\nmake Lash a raft")).toBe("3: Missing: 1 Log, 4 Rope.");
    expect(messageOf("get Primer\nget 5 Log\nrefused: make Lash a raft\nexpect to have 5 Log")).toBe("holds");
    expect(messageOf("run 3 Chandler")).toBe("1: It costs 4 shells, but there is 2. (3 of 3)");
  });

  it("takes any items with a tag that lie in the bag, what is named before them, and says which are missing", () => {
    const tagged = withMore(catalogue, {
      tag: { wood: {} },
      recipe: {
        "Burn a signal": {
          lines: [
            { role: "ingredient", any: idOf("wood"), min: 3, max: 3, chance: 1, uses: null },
            line("ingredient", idOf("Log")),
            line("output", idOf("Pie")),
          ],
        },
      },
    });
    const wooden = ["Log", "Raft"].map((name) => setField(tagged, "item", idOf(name), "tags", [idOf("wood")]));
    const world = must(tagged, wooden);
    const told = (text: string) => {
      const { ok, message: why } = runTrial(world, trial(text, world));
      return ok ? "holds" : why;
    };
    expect(told("get 3 Log\nget Raft\nmake Burn a signal\nexpect to have 0 Log\nexpect to have 0 Raft")).toBe("holds");
    expect(told("get 2 Log\nget Raft\nmake Burn a signal")).toBe("Missing: 1 any wood.");
  });

  it("goes the way that can be gone, burns what lies there, and gives vessels back", () => {
    const blank = {
      name: "",
      lines: [],
      ticks: null,
      heat: null,
      batch: null,
      fee: null,
      feeCurrency: null,
      level: null,
      taughtBy: null,
    };
    const world = withMore(
      must(catalogue, [
        setField(catalogue, "item", idOf("Log"), "burns", 300),
        setField(catalogue, "item", idOf("Log"), "ash", idOf("Rope")),
        setField(catalogue, "item", idOf("Pie"), "vessel", idOf("Rope")),
      ]),
      {
        recipe: {
          Boil: {
            lines: [line("ingredient", idOf("Pie"), 2), line("output", idOf("Primer")), line("tool", idOf("Mitts"))],
            heat: 400,
            variants: [{ ...blank, lines: [line("output", idOf("Primer"), 3), line("tool", idOf("Raft"))] }],
          },
          Parcel: { lines: [{ ...line("ingredient", idOf("Pie")), whole: true }, line("output", idOf("Primer"))] },
        },
      },
    );
    const told = (text: string) => {
      const { ok, message: why } = runTrial(world, trial(text, world));
      return ok ? "holds" : why;
    };
    // Mara has two pies, the mitts and an adze; two logs burn a minute and leave a rope each; boiling takes 40 s.
    expect(told("get 2 Log\nmake Boil\nexpect to have 1 Primer\nexpect to have 4 Rope")).toBe("holds");
    // Without the mitts a raft will do, and gives three.
    expect(told("drop Mitts\nget Raft\nget 2 Log\nmake Boil\nexpect to have 3 Primer\nexpect to have 4 Rope")).toBe(
      "holds",
    );
    // What is left of the second log is not lost, but not enough for another time.
    expect(told("get 2 Log\nmake Boil\nget 2 Pie\nmake Boil")).toBe("Missing: fuel for another 20s.");
    expect(told("drop Adze\nget 3 Log\nmake Boil\nget 2 Pie\nmake Boil\nexpect to have 7 Rope")).toBe("holds");
    // Two at once take the time and the heat of one; a third begins another batch.
    const boil = (field: string, value: number) => setField(world, "recipe", idOf("Boil"), field, value);
    const batches = must(world, [boil("batch", 2), boil("ticks", 200)]);
    const boiled = (n: number, logs: number) => {
      const { ok, play } = runTrial(batches, trial(`drop Adze\nget 4 Pie\nget ${logs} Log\nmake ${n} Boil`, batches));
      return ok ? (play?.tick ?? 0) / batches.pantry.ticksPerSecond : null;
    };
    expect(boiled(2, 2)).toBe(20);
    expect(boiled(3, 2)).toBe(null);
    expect(boiled(3, 3)).toBe(40);
    expect(told("make Parcel\nexpect to have Primer\nexpect to have 0 Rope")).toBe("holds");
  });

  it("gives surer, or less surely, what depends on a stat of the maker", () => {
    // Mara has a grip of 10: 0% and ten times 10%, and 100% less ten times 10%.
    const per = (chance: number, share: number) => ({ chance, bonus: { share, stat: idOf("Grip") } });
    const world = withMore(catalogue, {
      recipe: {
        Splice: {
          lines: [
            { ...line("output", idOf("Rope")), ...per(0, 0.1) },
            { ...line("output", idOf("Log")), ...per(1, -0.1) },
          ],
        },
      },
    });
    expect(runTrial(world, trial("make 3 Splice\nexpect to have 3 Rope\nexpect to have 0 Log", world)).message).toBe(
      "",
    );
  });

  it("keeps within slots, stacks, mass and what one may own", () => {
    // Adze, pies and mitts fill three of five slots; logs go five to a stack, four kilograms each.
    expect(messageOf("get 10 Log\nexpect to have 10 Log")).toBe("holds");
    expect(messageOf("get 16 Log\nexpect to have 10 Log\nexpect to have 6 Log stored")).toBe("holds");
    expect(messageOf("wear Mitts\nget 16 Log\nexpect to have 15 Log")).toBe("holds");
    expect(messageOf("get 13 Rope")).toBe("1: A player can own at most 12.");
    const strict = { ...catalogue, pantry: { ...catalogue.pantry, overflow: "refused" as const } };
    const { message: why } = runTrial(strict, trial("get 11 Log"));
    expect(why).toBe("The bag's 5 slots are full. It was refused.");
  });

  it("has no meaning without someone who tries it", () => {
    expect(runTrial(catalogue, { ...trial("wait 1s"), subject: null })).toMatchObject({ ok: false, failed: -1 });
  });
});
