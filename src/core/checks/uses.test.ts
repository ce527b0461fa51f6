/** The classic mistakes of uses, conditions, tables and trials, each with its number; followed as looked for again. */
import { describe, expect, it } from "vitest";
import { readingsOf } from "../analysis/readings";
import type { Catalogue } from "../catalogue/catalogue";
import { type Edit, setField } from "../catalogue/edit";
import { around } from "../catalogue/surroundings";
import { Engine } from "../engine/engine";
import type { Kind } from "../kinds/index";
import { line } from "../notation/line";
import { parseSteps } from "../notation/trial-line";
import type { Id } from "../schema/id";
import { must } from "../testing/kitchen";
import { idOf, kept, tried, withMore, withUses } from "../testing/tryout";
import { findingsOf } from "./index";
import { editsOf } from "./fixes";
import { NOT_BEGUN } from "./not-begun";

const entry = (name: string, min = 1, max = min) => ({
  what: { is: "item" as const, item: idOf(name) },
  min,
  max,
  from: null,
  to: null,
});
const SHOWN = { status: "ready" as const, icon: "crock", description: "For tests.", sell: 1 };
const bought = (name: string, price: number) => ({
  [`Buy ${name}`]: { kind: "shop" as const, price, lines: [line("output", idOf(name))] },
});

/** Mara holds 100 vigour at most; everything can be bought and sold, so that nothing else is found. */
const base = tried(
  {
    stat: { Grip: {}, "Stroke time": { better: "lower" }, Vigour: {} },
    resource: { Vigour: { most: "100" }, Breath: { most: "50" } },
    cooldown: { Tonics: { ticks: 600 } },
    slot: { Hands: {} },
    situation: { Aboard: {} },
    exclusion: { Weather: {} },
    item: {
      Pie: SHOWN,
      Tonic: { ...SHOWN, cooldown: idOf("Tonics") },
      Crate: SHOWN,
      Rope: SHOWN,
      Mitts: { ...SHOWN, slot: idOf("Hands"), stats: { [idOf("Grip")]: 2 } },
    },
    source: {
      ...bought("Pie", 2),
      ...bought("Tonic", 2),
      ...bought("Crate", 10),
      ...bought("Rope", 1),
      ...bought("Mitts", 4),
    },
    subject: { Mara: { resources: [idOf("Vigour")], slots: [idOf("Hands")], stats: { [idOf("Grip")]: "10" } } },
  },
  { priceFloor: 0 },
);
/** Stats and situations that nothing uses are another check's, and so is a pantry without recipes. */
const messages = (catalogue: Catalogue) =>
  findingsOf(catalogue, readingsOf(catalogue)).flatMap((f) =>
    ["orphan", ...NOT_BEGUN].includes(f.rule) ? [] : [`${f.rule}: ${f.message}`],
  );
const withLine = (lines: { readonly [item: string]: readonly string[] }, more: Parameters<typeof withMore>[1] = {}) =>
  withUses(withMore(base, more), lines);
const set = (catalogue: Catalogue, kind: Kind, id: Id, path: string, to: unknown) =>
  must(catalogue, [setField(catalogue, kind, id, path, to as never)]);

/** Every mistake, by rule: what makes it, what is said of it, and what fixes it. */
const MISTAKES: { readonly [rule: string]: readonly [Catalogue, RegExp, (c: Catalogue) => Edit] } = {
  "usable-for-ever": [
    withLine({ Pie: ["Sniff: restores 1 Vigour, kept"] }),
    /^Sniff of Pie keeps the item and has no cooldown, so it can be used without limit\.$/,
    (c) => setField(c, "use", idOf("Sniff Pie"), "wait", 50),
  ],
  "use-nowhere": [
    withLine({ Pie: ["Eat: restores 1 Vigour, nowhere"] }),
    /^Eat of Pie is never allowed: it has no context\.$/,
    (c) => setField(c, "use", idOf("Eat Pie"), "situations", [idOf("Aboard")]),
  ],
  "use-without-effect": [
    withLine({ Pie: ["Eat: used up"] }),
    /^Eat of Pie has no effect\.$/,
    (c) => setField(c, "use", idOf("Eat Pie"), "leaves", idOf("Rope")),
  ],
  "always-on": [
    withLine({ Tonic: ["Drink: Steady"] }, { condition: { Steady: { ticks: 750 } } }),
    /^Drink of Tonic keeps Steady active 100% of the time: it lasts 75s and repeats every 60s with Tonics\.$/,
    (c) => setField(c, "cooldown", idOf("Tonics"), "ticks", 751),
  ],
  "used-up-in-vain": [
    withLine({ Pie: ["Eat: costs 1 Vigour, restores 5 Vigour, clears all bad"] }),
    /^Eat of Pie is used up even when Vigour is full\.$/,
    (c) => setField(c, "use", idOf("Eat Pie"), "guarded", true),
  ],
  "cooldown-overridden": [
    withLine({ Tonic: ["Drink: restores 5 Vigour, ready in 5s"] }),
    /^Drink of Tonic has a cooldown of 5s, but its group Tonics has 60s\.$/,
    (c) => setField(c, "use", idOf("Drink Tonic"), "wait", null),
  ],
  "resource-nobody-has": [
    withLine({ Pie: ["Eat: restores 5 Breath"] }),
    /^Eat of Pie restores Breath, which no test character has\.$/,
    (c) => setField(c, "subject", idOf("Mara"), "resources", [idOf("Vigour"), idOf("Breath")]),
  ],
  "restores-too-much": [
    withLine({ Pie: ["Eat: restores 40 Vigour every 1s for 4s"] }),
    /^Eat of Pie restores 160 Vigour, but Mara holds at most 100: 37\.5% is wasted\.$/,
    (c) => setField(c, "resource", idOf("Vigour"), "most", "160"),
  ],
  "never-matters": [
    withLine({ Pie: ["Eat: restores 4 Vigour every 10s for 4s"] }),
    /^Effect 1 of Eat of Pie never does anything: it lasts 4s, but starts after 10s\.$/,
    (c) =>
      setField(c, "use", idOf("Eat Pie"), "effects", [
        {
          does: { is: "restore", resource: idOf("Vigour"), share: false, every: 10, lasting: 40 },
          amount: "4",
          chance: 1,
        },
      ] as never),
  ],
  "display-differs": [
    set(withLine({ Pie: ["Eat: restores 42 Vigour"] }), "item", idOf("Pie"), `stats.${idOf("Vigour")}`, 40),
    /^The stat Vigour of Pie says 40 Vigour; Eat restores 42\.$/,
    (c) => setField(c, "item", idOf("Pie"), `stats.${idOf("Vigour")}`, 42),
  ],
  "condition-never-ends": [
    withLine({ Tonic: ["Drink: Sworn"] }, { condition: { Sworn: { ticks: null } } }),
    /^Sworn lasts until it is cleared, but nothing clears it after Drink\.$/,
    (c) => setField(c, "condition", idOf("Sworn"), "ticks", 100),
  ],
  "condition-unapplied": [
    withLine({}, { condition: { Lost: { ticks: 100 } } }),
    /^Lost is never applied: no use applies it, and no item causes it while carried\.$/,
    (c) => ({ op: "remove", kind: "condition", record: c.records.condition.get(idOf("Lost")) as never }),
  ],
  "opposite-conditions": [
    withLine(
      { Tonic: ["Drink: Soaked, Dry"] },
      {
        condition: {
          Soaked: { ticks: 100, exclusion: idOf("Weather") },
          Dry: { ticks: 100, exclusion: idOf("Weather") },
        },
      },
    ),
    /^Drink of Tonic applies Soaked and Dry, but only one of them can be active\.$/,
    (c) => setField(c, "condition", idOf("Dry"), "exclusion", null),
  ],
  "against-better": [
    withLine(
      { Tonic: ["Drink: Quick"] },
      {
        condition: {
          Quick: { nature: "good", ticks: 100, changes: [{ stat: idOf("Stroke time"), how: "multiply", by: "1.2" }] },
        },
      },
    ),
    /^Quick is good, but changes Stroke time by ×1\.2, where lower is better\.$/,
    (c) =>
      setField(c, "condition", idOf("Quick"), "changes", [
        { stat: idOf("Stroke time"), how: "multiply", by: "0.8" },
      ] as never),
  ],
  "container-pays": [
    withLine(
      { Crate: ["Open: draws from Finds"] },
      { table: { Finds: { always: [], chances: [{ chance: 0.5, ...entry("Rope", 3, 5) }] } } },
    ),
    /^Open of Crate gives 2\.00 on average and costs 10\.00: 20% of its cost, so it never pays\.$/,
    (c) => setField(c, "source", idOf("Buy Crate"), "price", 2),
  ],
  "entry-never-comes": [
    withLine(
      { Crate: ["Open: draws from Finds"] },
      { table: { Finds: { always: [entry("Rope", 10)], chances: [{ chance: 0, ...entry("Pie") }] } } },
    ),
    /^Finds has an entry that never drops: Pie \(its chance is 0%\)\.$/,
    (c) => setField(c, "table", idOf("Finds"), "chances", []),
  ],
  "table-in-itself": [
    withLine(
      { Crate: ["Open: draws from Finds"] },
      {
        table: {
          Finds: {
            always: [
              entry("Rope", 10),
              { what: { is: "table", table: idOf("Finds") }, min: 1, max: 1, from: null, to: null },
            ],
          },
        },
      },
    ),
    /^Finds contains itself, through Finds, and gives nothing there\.$/,
    (c) => setField(c, "table", idOf("Finds"), "always", [entry("Rope", 10)] as never),
  ],
  "formula-faults": [
    withUses(withMore(base, {}), { Pie: ["Eat: restores Vigour by 40 / abs(user level - 12)"] }),
    /^Eat of Pie: the amount of effect 1, 40 \/ abs\(user level - 12\), divides by zero where user level 12\.$/,
    (c) => setField(c, "use", idOf("Eat Pie"), "effects", []),
  ],
  "worn-without-slot": [
    set(withLine({}), "item", idOf("Rope"), "room", 4),
    /^Rope has no slot, but it adds bag slots while it is worn\.$/,
    (c) => setField(c, "item", idOf("Rope"), "slot", idOf("Hands")),
  ],
  "slot-unfit": [
    withLine({}, { slot: { Brow: {} } }),
    /^No item is worn on Brow\.$/,
    (c) => setField(c, "item", idOf("Rope"), "slot", idOf("Brow")),
  ],
  "trial-fails": [
    withMore(withLine({ Pie: ["Eat: restores 5 Vigour"] }), {
      trial: {
        Day: {
          subject: idOf("Mara"),
          steps: parseSteps("harm Vigour 1\nwait 60s\nexpect resource Vigour >= 50", around(base)).steps as never,
        },
      },
    }),
    /^Day fails at step 3: resource Vigour >= 50 isn't true: Vigour is 40\.$/,
    (c) => setField(c, "resource", idOf("Vigour"), "most", "110"),
  ],
};

describe("the classic mistakes", () => {
  it("are none where none is made", () => {
    expect(messages(withLine({ Pie: ["Eat: restores 40 Vigour, ready in 5s, not in vain"] }))).toEqual([]);
  });

  for (const [rule, [catalogue, wanted, fix]] of Object.entries(MISTAKES))
    it(`${rule} is found with its number, and gone when it is fixed, followed as from scratch`, () => {
      const found = messages(catalogue).filter((s) => s.startsWith(`${rule}: `));
      expect(found).toHaveLength(1);
      expect(found[0].slice(rule.length + 2)).toMatch(wanted);
      const edits = [fix(catalogue)];
      const engine = new Engine(catalogue);
      const told = new Map(findingsOf(catalogue, readingsOf(catalogue)).map((f) => [f.fingerprint, f.message]));
      const { ripple } = engine.change(edits);
      for (const f of ripple?.put ?? []) told.set(f.fingerprint, f.message);
      for (const print of ripple?.drop ?? []) told.delete(print);
      const anew = findingsOf(engine.catalogue, readingsOf(engine.catalogue));
      expect([...told.values()].sort()).toEqual(anew.map((f) => f.message).sort());
      expect(anew.filter((f) => f.rule === rule)).toEqual([]);
    });

  it("follow what a subject wears: a stat of its mitts is part of what it can hold", () => {
    const worn = set(
      set(
        withLine({ Pie: ["Eat: restores 110 Vigour, not in vain"] }),
        "resource",
        idOf("Vigour"),
        "most",
        `"stat:${idOf("Grip")}" * 10`,
      ),
      "subject",
      idOf("Mara"),
      "worn",
      [idOf("Mitts")],
    );
    // Grip 10 of her own and 2 of the mitts: 120 fit, 110 are restored.
    expect(messages(worn)).toEqual([]);
    const engine = new Engine(worn);
    const { ripple } = engine.change([setField(worn, "item", idOf("Mitts"), `stats.${idOf("Grip")}`, 0)]);
    expect(ripple?.put.map((f) => f.message)).toEqual([
      "Eat of Pie restores 110 Vigour, but Mara holds at most 100: 9.09% is wasted.",
    ]);
  });

  it("say what a use without effect leaves, where it is not used up", () => {
    const kept = set(withLine({ Pie: ["Eat: kept"] }), "use", idOf("Eat Pie"), "leaves", idOf("Rope"));
    expect(messages(kept)).toContain("use-without-effect: Eat of Pie has no effect, except leaving Rope.");
  });

  it("do not accuse a use that says it may be used up in vain, or that does something else besides", () => {
    const of = (line: string) => messages(withLine({ Pie: [line] })).filter((s) => s.startsWith("used-up-in-vain"));
    for (const line of [
      "Eat: restores 5 Vigour, even in vain",
      "Eat: restores 5 Vigour, kept, ready in 5s",
      "Eat: restores 5 Vigour, raises Grip by 1",
      "Eat: restores 5 Vigour, gives Rope",
    ])
      expect(of(line), line).toEqual([]);
    expect(of("Eat: restores 5 Vigour")).toHaveLength(1);
  });

  it("read descriptions as players do: a number may come from a stat of another name", () => {
    const told = (description: string) => {
      const pie = withMore(withLine({ Pie: ["Eat: restores 42 Vigour, not in vain"] }), { stat: { Goodness: {} } });
      const here = set(pie, "item", idOf("Pie"), `stats.${idOf("Goodness")}`, 40);
      return messages(set(here, "item", idOf("Pie"), "description", description));
    };
    expect(told("Restores **{goodness}** Vigour.")).toEqual([
      "display-differs: The description of Pie says 40 Vigour; Eat restores 42.",
    ]);
    expect(told("Restores 42 Vigour, goodness {goodness}.")).toEqual([]);
  });

  it("have ways to fix them that do", () => {
    for (const rule of [
      "usable-for-ever",
      "use-nowhere",
      "always-on",
      "used-up-in-vain",
      "cooldown-overridden",
      "condition-never-ends",
      "against-better",
    ]) {
      const [catalogue] = MISTAKES[rule];
      const finding = findingsOf(catalogue, readingsOf(catalogue)).find((f) => f.rule === rule);
      const fix = finding?.fixes.find((f) => f.do === "edit");
      if (!fix) throw new Error(rule);
      expect(
        messages(must(catalogue, editsOf(catalogue, fix))).filter((s) => s.startsWith(rule)),
        rule,
      ).toEqual([]);
    }
  });

  it("say less where a pantry is content with less", () => {
    const [tonic] = MISTAKES["always-on"];
    const lenient = set(tonic, "cooldown" as Kind, idOf("Tonics"), "ticks", 1000);
    expect(messages(lenient)).toEqual([]);
    const strict = { ...lenient, pantry: { ...lenient.pantry, uptimeCeiling: 0.7 } };
    expect(messages(strict)[0]).toMatch(
      /^always-on: Drink of Tonic keeps Steady active 75% of the time: it lasts 75s and repeats every 100s with Tonics\.$/,
    );
  });

  it("name what a formula needs and nothing sets, and where it falls below zero", () => {
    const by = kept(base, "use", "item Vigour * 2");
    const effect = (amount: string) => ({
      effects: [
        {
          does: { is: "restore", resource: idOf("Vigour"), share: false, every: null, lasting: null },
          amount,
          chance: 1,
        },
      ] as never,
    });
    const unset = withMore(base, { use: { Eat: { item: idOf("Pie"), ...effect(by) } } });
    expect(messages(unset).filter((s) => s.startsWith("formula"))).toEqual([
      "formula-faults: Eat of Pie: the amount of effect 1, item Vigour * 2, names item Vigour, which has no value.",
    ]);
    const below = withMore(base, {
      use: { Eat: { item: idOf("Pie"), ...effect(kept(base, "use", "30 - user level")) } },
    });
    expect(messages(below).filter((s) => s.startsWith("formula"))[0]).toMatch(
      /falls below zero where user level \d+ \(-\d+\)\.$/,
    );
  });
});
