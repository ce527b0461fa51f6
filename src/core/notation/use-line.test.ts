import { describe, expect, it } from "vitest";
import { around } from "../catalogue/surroundings";
import { definition } from "../kinds/index";
import { seeded } from "../numbers/seeded";
import { checkRecord } from "../schema/record";
import { idOf, kept, tried } from "../testing/tryout";
import { formatUse, parseUse, type UseParts } from "./use-line";

const catalogue = tried({
  stat: { Vigour: { unit: "vigour" }, Grip: {}, "Stroke time": { unit: "s" } },
  resource: { Vigour: { unit: "vigour" }, Breath: {} },
  condition: { Warm: {}, "Kept dry": {}, "Salt by night": {}, "Grade 2": {}, Soaked: {} },
  situation: { Aboard: {}, "At rest": {} },
  signal: { "Tide bell": { parameters: [{ called: "tone", form: "text" }] } },
  item: { Rope: {}, "Stone crock": {}, "Tar, black": {} },
  currency: { shells: {} },
  table: { "Wreck finds": {} },
  recipe: { "Rope ladder": {} },
  constant: { Healing: { value: 2 } },
});
const here = around(catalogue);
const read = (text: string) => {
  const { use, issues } = parseUse(text, here, () => null);
  if (!use) throw new Error(issues.map((i) => i.message).join(" "));
  return use;
};
const fault = (text: string) => {
  const { use, issues } = parseUse(text, here, () => null);
  const [first] = issues.filter((i) => i.severity === "error");
  return use ? null : { message: first.message, at: text.slice(first.from, first.to), offers: first.suggestions };
};

describe("the line of a use", () => {
  it("reads as a sentence, effects in their order", () => {
    const use = read("Eat: restores 42 Vigour, warm 30s, ready in 20s, used up, leaves stone crock");
    expect(use).toMatchObject({ name: "Eat", wait: 200, fate: "used up", leaves: idOf("Stone crock") });
    expect(use.effects).toEqual([
      {
        does: { is: "restore", resource: idOf("Vigour"), share: false, every: null, lasting: null },
        amount: "42",
        chance: 1,
      },
      { does: { is: "apply", condition: idOf("Warm"), ticks: 300 }, amount: null, chance: 1 },
    ]);
  });

  it("says everything that a use can say, and is written back as it was read", () => {
    const lines = [
      "Eat: restores 42 Vigour, Warm 30s, cooldown 20s, used up",
      "Sip: restores Vigour by item Vigour * Healing, 2 used up, leaves Stone crock",
      "Brew: restores 25% of Vigour every 2s for 30s, drains 5 Breath, needs level 3, needs Grip 12, not while Soaked",
      "Rub: 50% Warm x3 90s, clears Soaked, clears all bad, on one ally, use time 2s, lasts 20 uses",
      "Ring: signals Tide bell (tone: low; times: 3), anywhere, kept",
      "Open: draws 3 from Wreck finds, pays 2 shells, 10% gives Rope, only Aboard + At rest, used up",
      'Study: teaches Rope ladder, raises Grip by 1 up to 20, used up, refused when it would do nothing message "You know that."',
      'Odd: Kept dry 20s, "Salt by night", "Grade 2" x2, takes 2 "Tar, black", charges 5 shells, nowhere',
      "Idle: does nothing",
      "Cold: lowers Stroke time by 2 down to 1, drains Breath by max(1, user Grip / 2), needs Warm, allowed when it would do nothing",
      "Gulp: restores Vigour by user Grip / 100 of the maximum for 10s",
      "Gorge: restores all of Vigour",
    ];
    for (const line of lines) expect(formatUse(read(line), here)).toBe(line);
  });

  it("takes what people type and writes it in one form", () => {
    const cases: [string, string][] = [
      ["eat:restores 42 vigour,used up", "eat: restores 42 Vigour, used up"],
      ["Eat: applies WARM 30s", "Eat: Warm 30s"],
      ["Eat: changes grip by 2", "Eat: raises Grip by 2"],
      ["Eat: draws Wreck finds", "Eat: draws from Wreck finds"],
      ["Eat: 12.5% clears soaked, worn", "Eat: 12.5% clears Soaked, loses durability"],
      ["Eat: restores 1,5 Vigour", "Eat: restores 1.5 Vigour"],
    ];
    for (const [typed, canonical] of cases) expect(formatUse(read(typed), here), typed).toBe(canonical);
    // Elsewhere a comma ends a clause.
    expect(fault("Eat: restores 1, 5 Vigour")?.message).toMatch(/no condition called “5 Vigour”|no resource called/);
  });

  it("refuses what it can't place, says where, and what would fit", () => {
    expect(fault("restores 42 Vigour")?.message).toMatch(/begins with its name and a colon/);
    expect(fault("Eat: restores 42 Vigor")).toEqual({
      message: "There is no resource called “Vigor”. Did you mean Vigour?",
      at: "Vigor",
      offers: ["Vigour"],
    });
    expect(fault("Eat: sokaed 20s")).toMatchObject({ at: "sokaed", offers: ["Soaked"] });
    expect(fault("Eat: ready in soon")).toMatchObject({ at: "soon" });
    expect(fault("Eat: kept, used up")?.message).toMatch(/repeats an earlier clause/);
    expect(fault("Eat: 130% Warm")).toMatchObject({ at: "130" });
    expect(fault("Eat: restores Vigour by 2 +")?.message).toMatch(/missing at the end/);
    expect(fault("Eat: restores Vigour by item stroke time")?.message).toMatch(
      /^This comes to “s”; “vigour” is needed here\.$/,
    );
    expect(fault("Eat: gives 2 Ropes")).toMatchObject({ offers: ["Rope"] });
    expect(fault("Eat: Warm,, used up")?.message).toMatch(/nothing between these commas/);
    expect(fault("Eat: only Aboard + Ashore")).toMatchObject({ at: "Ashore" });
    expect(fault(`Eat: ${"a".repeat(800)}`)?.message).toMatch(/at most 700/);
    expect(fault(": used up")?.message).toMatch(/^A name is missing before the colon, such as Eat or Light\.$/);
  });

  it("is read back from what it is written as, whatever a use is", () => {
    const random = seeded(12);
    const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)];
    const perhaps = <T>(make: () => T): T | null => (random() < 0.4 ? make() : null);
    const ids = (names: readonly string[]) => [...new Set(names.filter(() => random() < 0.3))].map(idOf);
    const amounts = [
      null,
      "1",
      "42",
      "0.1",
      "0.07",
      "1e-7",
      "-3",
      kept(catalogue, "use", "item Grip * 2 - user level"),
    ];
    const conditions = ["Warm", "Kept dry", "Salt by night", "Grade 2", "Soaked"];
    const effect = () =>
      pick([
        () => {
          const over = { every: perhaps(() => 20), lasting: perhaps(() => 305) };
          const is = pick(["restore", "drain"]);
          return {
            does: { is, resource: idOf(pick(["Vigour", "Breath"])), share: random() < 0.5, ...over },
            amount: pick(amounts),
          };
        },
        () => ({
          does: { is: "apply", condition: idOf(pick(conditions)), ticks: perhaps(() => 37) },
          amount: pick([null, "1", "3"]),
        }),
        () => ({ does: { is: "clear", condition: idOf(pick(conditions)) }, amount: null }),
        () => ({ does: { is: "clear all", nature: pick(["good", "bad", "neither"]) }, amount: null }),
        () => ({
          does: { is: "change", stat: idOf("Grip"), limit: perhaps(() => -4) },
          amount: pick(amounts.slice(0, 6)),
        }),
        () => ({ does: { is: "draw", table: idOf("Wreck finds") }, amount: pick([null, "3", ...amounts.slice(7)]) }),
        () => ({
          does: { is: pick(["give", "take"]), item: idOf(pick(["Rope", "Tar, black"])) },
          amount: pick([null, "2", ...amounts.slice(6)]),
        }),
        () => ({ does: { is: pick(["pay", "charge"]), currency: idOf("shells") }, amount: pick([null, "2.5"]) }),
        () => ({
          does: {
            is: "send",
            signal: idOf("Tide bell"),
            told: [{ called: "tone", value: pick(["low", "a; b", "(x)", ""]) }],
          },
          amount: null,
        }),
      ])();
    for (let n = 0; n < 500; n++) {
      const everywhere = pick([null, true, false]);
      const use = {
        name: pick(["Eat", "Sip, slowly", 'Say "ho": loud', "Rub (twice)"]),
        everywhere,
        situations: everywhere === true ? [] : ids(["Aboard", "At rest"]),
        on: perhaps(() => pick(["oneself", "all foes", "a place"])),
        windup: perhaps(() => 20),
        wait: perhaps(() => 0),
        fate: pick([null, "used up", "worn", "kept"]),
        count: perhaps(() => 3),
        leaves: perhaps(() => idOf("Tar, black")),
        level: perhaps(() => 4),
        least: random() < 0.4 ? { [idOf("Grip")]: pick([3, -2.5]) } : {},
        having: ids(conditions),
        without: ids(conditions),
        guarded: pick([null, true, false]),
        told: perhaps(() => pick(["No.", 'He said "no", twice\\'])),
        effects: Array.from({ length: Math.floor(random() * 4) }, () => ({
          ...effect(),
          chance: pick([1, 0.5, 0.125]),
        })),
      } as UseParts;
      const line = formatUse(use, here);
      const parsed = parseUse(line, here, () => null);
      expect(parsed.use, `${line} ${parsed.issues.map((i) => i.message).join(" ")}`).toEqual(use);
      const wrong: string[] = [];
      const record = { ...definition("use").defaults, ...parsed.use, key: "x", id: "use000000001" };
      checkRecord(definition("use"), record, undefined, {
        has: (kind, id) => here.has(kind, id as never),
        fault: (path, message) => wrong.push(`${path} ${message}`),
      });
      expect(wrong, line).toEqual([]);
    }
  });
});

describe("everyday words in the line of a use", () => {
  const meant = (text: string) => {
    const { use, issues } = parseUse(text, here, () => null);
    return use ? formatUse(use, here) : `refused: ${issues.map((i) => i.message).join(" ")}`;
  };
  it.each([
    ["Eat: heals 12 Vigour", "Eat: restores 12 Vigour"],
    ["Eat: restore 12 Vigour", "Eat: restores 12 Vigour"],
    ["Eat: +12 Vigour", "Eat: restores 12 Vigour"],
    ["Eat: -3 Breath", "Eat: drains 3 Breath"],
    ["Hit: 12 damage to Vigour", "Hit: drains 12 Vigour"],
    ["Eat: restores 2 * 6 Vigour", "Eat: restores Vigour by 2 * 6"],
    ["Eat: restores 2 Vigour every 2 s for 30 s", "Eat: restores 2 Vigour every 2s for 30s"],
    ["Eat: Warm for 30 s", "Eat: Warm 30s"],
    ["Eat: cooldown 15 s", "Eat: cooldown 15s"],
    ["Eat: costs 5 Breath, used up", "Eat: costs 5 Breath, used up"],
    ["Eat: restores 42 Vigour cooldown 20s used up", "Eat: restores 42 Vigour, cooldown 20s, used up"],
    ["Eat: heals 4 Vigour on self", "Eat: restores 4 Vigour, on self"],
    ["Cure: cures Soaked, single use", "Cure: clears Soaked, used up"],
    ["Light: 20 uses, only in Aboard", "Light: only Aboard, lasts 20 uses"],
    ["Light: takes 2s, reusable", "Light: use time 2s, kept"],
    [
      'Eat: ready in 20s, not in vain saying "No."',
      'Eat: cooldown 20s, refused when it would do nothing message "No."',
    ],
    ["Eat: after 2s, on oneself, worn", "Eat: on self, use time 2s, loses durability"],
    ["Eat: clears all neither, said for Aboard, how many 3", "Eat: clears all neutral, contexts Aboard, amount 3"],
  ])("reads %j", (text, canonical) => {
    expect(meant(text)).toBe(canonical);
    expect(meant(canonical)).toBe(canonical);
  });

  it("notes what it read otherwise", () => {
    const { issues } = parseUse("Eat: heals 12 Vigour", here, () => null);
    expect(issues.map((i) => [i.severity, i.message])).toEqual([
      ["note", "“heals 12 Vigour” is read as “restores 12 Vigour”."],
    ]);
  });

  it("offers what a bare amount may mean, and never takes it for a condition", () => {
    expect(fault("Eat: 12 Vigour")?.offers).toEqual(["restores 12 Vigour", "drains 12 Vigour", "costs 12 Vigour"]);
    expect(fault("Hit: 12 damage")?.offers).toEqual(["drains 12 Vigour", "drains 12 Breath"]);
    expect(fault("Eat: 3 Rope")?.offers).toEqual(["gives 3 Rope", "takes 3 Rope"]);
    expect(fault("Eat: 12 Vigour")?.message).toMatch(/isn't an effect/);
  });

  it("leaves a name as it is where it begins like a clause", () => {
    expect(meant("Keep: Kept dry 5s")).toBe("Keep: Kept dry 5s");
    expect(meant("Keep: applies Kept dry 5s")).toBe("Keep: Kept dry 5s");
  });
});
