/** The world of a trial: shops with stock, sources that come so often, fuels, stations, and what is worn. */
import { describe, expect, it } from "vitest";
import { setField } from "../catalogue/edit";
import type { Catalogue } from "../catalogue/catalogue";
import { around } from "../catalogue/surroundings";
import type { Pantry, Trial } from "../kinds/index";
import { line } from "../notation/line";
import { parseSteps } from "../notation/trial-line";
import { must } from "../testing/kitchen";
import { idOf, tried, withUses } from "../testing/tryout";
import { changesBetween, sayChange, stateOf } from "./changes";
import { Play } from "./play";
import { does, runTrial } from "./run";

const [oven, wood, shells] = ["oven", "wood", "shells"].map(idOf);
const world = (settings: Partial<Pantry> = {}): Catalogue =>
  withUses(
    tried(
      {
        tag: { oven: {}, wood: {} },
        slot: { Back: {}, Hands: {} },
        resource: { Vigour: { most: "100", recovery: "1" } },
        condition: { Warm: { ticks: 300 } },
        currency: { shells: {} },
        item: {
          Rope: { stack: 4 },
          Log: { tags: [wood], burns: 100, stack: 5 },
          Plank: { tags: [wood], stack: 5 },
          Pie: { stack: 1 },
          Broth: {},
          Pack: { slot: idOf("Back"), room: 2 },
          Creel: { slot: idOf("Back"), room: 1 },
          Whistle: { slot: idOf("Hands") },
          Hearth: { tags: [oven] },
          Kiln: { tags: [oven], pace: 0.5, fuel: wood },
        },
        recipe: {
          Bake: {
            ticks: 200,
            heat: 100,
            lines: [line("ingredient", idOf("Log")), anyOf("station", oven), line("output", idOf("Pie"))],
          },
          Stew: { lines: [line("ingredient", idOf("Rope"), 0.5, 1), line("output", idOf("Broth"))] },
          Simmer: { lines: [line("ingredient", idOf("Plank")), line("output", idOf("Broth"))] },
          Carve: { lines: [anyOf("ingredient", wood), line("tool", idOf("Plank")), line("output", idOf("Whistle"))] },
        },
        source: {
          Chandler: {
            kind: "shop",
            currency: shells,
            share: 0.5,
            wares: [
              { item: idOf("Rope"), amount: 2, price: 3, currency: null, stock: 2, restock: 600, level: null },
              { item: idOf("Pie"), amount: 1, price: 9, currency: null, stock: null, restock: null, level: 4 },
            ],
          },
          Quay: {
            kind: "shop",
            currency: shells,
            wares: [{ item: idOf("Rope"), amount: 1, price: 5, currency: null, stock: 1, restock: null, level: null }],
          },
          Welcome: { kind: "gift", lines: [line("output", idOf("Plank"))] },
          Reef: { level: 9, lines: [line("output", idOf("Log"))] },
        },
        subject: {
          Mara: {
            level: 3,
            resources: [idOf("Vigour")],
            slots: [idOf("Back"), idOf("Hands")],
            bagSlots: 4,
            money: { [shells]: 20 },
          },
        },
      } as Parameters<typeof tried>[0],
      settings,
    ),
    { Pie: ["Eat: restores 30 Vigour, Warm, used up"], Whistle: ["Blow: restores 1 Vigour, lasts 3 uses"] },
  );
function anyOf(role: "station" | "ingredient", tag: typeof oven) {
  const { item: _, ...rest } = line(role, tag);
  return { ...rest, any: tag };
}
const messageOf = (text: string, catalogue = world()): string => {
  const { steps, issues } = parseSteps(text, around(catalogue));
  if (!steps) throw new Error(issues.map((i) => i.message).join(" "));
  const { ok, message, failed } = runTrial(catalogue, {
    subject: idOf("Mara"),
    steps: steps as Trial["steps"],
    seed: 1,
  });
  return ok ? "holds" : `${failed + 1}: ${message}`;
};

describe("shops of a trial", () => {
  it("sell for money while there is stock, the cheapest first, and are full again in time", () => {
    expect(messageOf("buy 4 Rope\nexpect to have 4 Rope\nbuy Rope\nexpect to have 5 Rope")).toBe("holds");
    expect(messageOf("buy 4 Rope from Chandler\nbuy Rope from Chandler")).toBe(
      "2: Chandler has no Rope left. It restocks in 60s.",
    );
    expect(
      messageOf("buy 4 Rope\nwait 59s\nrefused: buy 2 Rope from Chandler\nwait 1s\nbuy 2 Rope from Chandler"),
    ).toBe("holds");
    expect(messageOf("buy Rope from Quay\nwait 10h\nbuy Rope from Quay")).toBe("3: Quay has no Rope left.");
    expect(messageOf("buy 5 Rope from Quay")).toBe("1: Quay has only 1 Rope left.");
    expect(messageOf("buy Pie")).toBe("1: Chandler sells Pie from level 4; Mara has 3.");
    expect(messageOf("buy Log")).toBe("1: No shop sells Log.");
    expect(messageOf("buy Log from Quay")).toBe("1: Quay does not sell Log.");
    // What is sold by two is bought by two.
    expect(messageOf("buy Rope\nexpect to have 2 Rope")).toBe("holds");
    const poor = setField(world(), "subject", idOf("Mara"), `money.${shells}`, 2);
    expect(messageOf("buy Rope from Chandler", must(world(), [poor]))).toBe(
      "1: Chandler charges 3 shells, but there is 2.",
    );
  });

  it("buy their wares back for a share of the price", () => {
    const catalogue = world();
    const { steps } = parseSteps("buy 4 Rope\nsell 3 Rope", around(catalogue));
    const { play } = runTrial(catalogue, { subject: idOf("Mara"), steps: steps as Trial["steps"], seed: 1 });
    expect(play?.bag.money.get(shells)).toBeCloseTo(20 - 6 + 3 * 0.75, 12);
    expect(messageOf("get Rope\nsell Rope to Quay")).toBe("2: Quay does not buy Rope.");
    expect(messageOf("sell Rope")).toBe("1: There are 0 Rope in the bag.");
    expect(messageOf("get Log\nsell Log")).toBe("2: No shop buys Log.");
  });

  it("come, as other sources do, as often as they come in a world and from their level on", () => {
    expect(messageOf("run Welcome\nrun Welcome")).toBe("2: Welcome can happen only once in a world.");
    expect(messageOf("run Reef")).toBe("1: Reef needs level 9; Mara has 3.");
  });
});

describe("making in a trial", () => {
  it("takes one thing once: as an ingredient, as a tool or as fuel", () => {
    expect(messageOf("get Log\nmake Bake")).toBe("2: Missing: fuel for another 10s.");
    expect(messageOf("get 2 Log\nmake Bake\nexpect to have 0 Log\nexpect to have Pie")).toBe("holds");
    expect(messageOf("get Plank\nmake Carve")).toBe("2: Missing: 1 any wood.");
    expect(messageOf("get Plank\nget Log\nmake Carve\nexpect to have Plank\nexpect to have 0 Log")).toBe("holds");
  });

  it("is as quick as at the station in the bag, and burns what may burn there", () => {
    const ticks = (text: string) => {
      const catalogue = world();
      const { steps } = parseSteps(text, around(catalogue));
      return runTrial(catalogue, { subject: idOf("Mara"), steps: steps as Trial["steps"], seed: 1 }).play?.tick;
    };
    expect(ticks("get 2 Log\nmake Bake")).toBe(200);
    expect(ticks("get Kiln\nget 2 Log\nmake Bake")).toBe(100);
  });

  it("takes no more than the most of a range", () => {
    const { catalogue, play } = tryout();
    for (let n = 0; n < 200; n++) {
      const before = play.bag.count(idOf("Rope"));
      expect(does(play, step(catalogue, "make Stew"), () => undefined).ok).toBe(true);
      const taken = before - play.bag.count(idOf("Rope"));
      expect(taken).toBeGreaterThan(0.5 - 1e-9);
      expect(taken).toBeLessThan(1 + 1e-9);
    }
  });

  it("takes an item where one recipe makes it, and says which there are where several do", () => {
    expect(messageOf("get 4 Log\nmake 2 Pie\nexpect to have 2 Pie")).toBe("holds");
    expect(messageOf("get 2 Log\nmake 2 Pie")).toBe("2: Missing: 1 Log, fuel for another 10s. (1 of 2)");
    expect(messageOf("make Broth")).toBe("1: Stew and Simmer make Broth. Enter the recipe, such as make Stew.");
    expect(messageOf("make Rope")).toBe("1: No recipe makes Rope.");
  });
});

describe("what is worn in a trial", () => {
  it("gives its place up to what is put on, and comes into the bag", () => {
    expect(messageOf("get Pack\nget Creel\nwear Pack\nwear Creel\nexpect to have Pack\nexpect to have 0 Creel")).toBe(
      "holds",
    );
  });

  it("is not taken off where the bag would be too full, unless what overflows is stored", () => {
    const full = "get Pack\nwear Pack\nget 6 Pie\n";
    const refused = world({ overflow: "refused" });
    expect(messageOf(`${full}take off Pack`, refused)).toBe(
      "4: Pack doesn't fit in the bag. The bag's 4 slots are full. It was refused.",
    );
    expect(messageOf(`${full}refused: take off Pack\nexpect to have 6 Pie`, refused)).toBe("holds");
    expect(messageOf(`get Pack\nwear Pack\nget 5 Pie\ndrop Pie\ntake off Pack`, refused)).toMatch(/^5: /);
    const stored = world({ overflow: "stored" });
    expect(
      messageOf(
        `${full}take off Pack\nexpect to have 4 Pie\nexpect to have 2 Pie stored\nexpect to have Pack stored`,
        stored,
      ),
    ).toBe("holds");
  });

  it("wears out by its uses", () => {
    expect(messageOf("get Whistle\nwear Whistle\nuse 3 Whistle\ntake off Whistle")).toBe("4: Whistle isn't worn.");
    expect(messageOf("get Whistle\nwear Whistle\nuse 2 Whistle\ntake off Whistle\nexpect to have Whistle")).toBe(
      "holds",
    );
  });
});

describe("stacks of a trial", () => {
  it("are split and merged by steps, which are part of it", () => {
    const { catalogue, play } = tryout();
    const stacks = () => play.bag.stacks.filter((s) => s.item === idOf("Log")).map((s) => s.count);
    play.bag.limits = { slots: null, mass: null };
    for (const [text, counts] of [
      ["get 5 Log", [5]],
      ["split 2 Log", [3, 2]],
      ["merge Log", [5]],
    ] as const) {
      expect(does(play, step(catalogue, text), () => undefined).ok).toBe(true);
      expect(stacks()).toEqual(counts);
    }
    expect(messageOf("get Log\nsplit 1 Log")).toBe("2: From a stack of 1 you can split off 1 to 0.");
    expect(messageOf("split Log")).toBe("1: There is no Log in the bag.");
  });
});

describe("what a step changed", () => {
  const told = (text: string): string[] => {
    const { catalogue, play } = tryout();
    const lines = text.split("\n");
    let said: string[] = [];
    for (const each of lines) {
      const before = stateOf(play);
      does(play, step(catalogue, each), () => undefined);
      said = changesBetween(before, stateOf(play)).map((c) => sayChange(catalogue, c));
    }
    return said;
  };

  it("is told in words: what went first, then what came", () => {
    expect(told("buy 2 Rope from Chandler")).toEqual(["−3 shells", "+2 Rope"]);
    expect(told("harm Vigour 11\nwait 4s\nuse Pie")).toEqual(["−1 Pie", "+30 Vigour", "Warm for 30s"]);
    expect(told("use Pie\nwait 10s")).toEqual([]);
    expect(told("use Pie\nwait 31s")).toEqual(["Warm ended"]);
    expect(told("get Pack\nwear Pack")).toEqual(["−1 Pack", "Pack put on"]);
  });
});

function tryout(): { catalogue: Catalogue; play: Play } {
  const catalogue = world();
  const mara = catalogue.records.subject.get(idOf("Mara"));
  if (!mara) throw new Error("Mara");
  const kit = { [idOf("Rope")]: 400, [idOf("Pie")]: 2 };
  const subject = { ...mara, kit, bagSlots: null };
  const play = new Play(catalogue, { subject, supplied: true });
  play.advance(0);
  return { catalogue, play };
}
function step(catalogue: Catalogue, text: string): Trial["steps"][number] {
  const { steps, issues } = parseSteps(text, around(catalogue));
  if (!steps) throw new Error(issues.map((i) => i.message).join(" "));
  return steps[0] as Trial["steps"][number];
}
