import { idOf, tried, withUses } from "../testing/tryout";
import { usesInWords } from "./use-words";
import { describe, expect, it } from "vitest";
import type { Catalogue } from "../catalogue/catalogue";
import { setField } from "../catalogue/edit";
import { readingsOf } from "../analysis/readings";
import { findingsOf } from "../checks/index";
import { type Kind, withDefaults } from "../kinds/index";
import { newId } from "../schema/id";
import { item, kitchen, must } from "../testing/kitchen";
import { cardLines, compareCards } from "./card";
import { everyPart, type Part, readDescription } from "./description";
import { colourNamed, faultsOf, placeholders, valueNamed } from "./values";

const made = <K extends Kind>(kind: K, name: string, given: object = {}) =>
  withDefaults(kind, { id: newId(), key: name.toLowerCase(), name, ...given } as never);
const vigour = made("stat", "Vigour");
const weight = made("stat", "Heft", { better: "lower", unit: "kg" });
const smell = made("field", "Smell", { form: "text", order: 2 });
const secret = made("field", "Secret", { form: "text", shown: false });
const prized = made("rarity", "Prized", { colour: "#b9892a" });
const base = must(kitchen("gather Eel\ngather Crab"), [
  ...[vigour, weight].map((record) => ({ op: "add" as const, kind: "stat" as const, record })),
  ...[smell, secret].map((record) => ({ op: "add" as const, kind: "field" as const, record })),
  { op: "add", kind: "rarity", record: prized },
]);
const say = (catalogue: Catalogue, name: string, values: { [path: string]: unknown }) =>
  must(
    catalogue,
    Object.entries(values).map(([path, to]) =>
      setField(catalogue, "item", item(catalogue, name).id, path, to as never),
    ),
  );
const catalogue = say(
  say(base, "Eel", {
    [`stats.${vigour.id}`]: 6,
    [`stats.${weight.id}`]: 0.7,
    [`own.${smell.id}`]: "rank",
    [`own.${secret.id}`]: "x",
    sell: 2.5,
  }),
  "Crab",
  { [`stats.${vigour.id}`]: 9, [`stats.${weight.id}`]: 0.9 },
);
const eel = item(catalogue, "Eel");
const flat = (parts: readonly Part[]): string =>
  parts
    .map((p) => (p.is === "text" ? p.text : p.is === "value" ? `<${p.name}>` : `${p.is}(${flat(p.parts)})`))
    .join("");

describe("a description", () => {
  it("has strong and stressed words, lists, colours and values, one in the other", () => {
    const blocks = readDescription(
      "Hung **over *peat*** for a night.\nRestores {vigour}.\n\n- one\n- [two](Prized)\n\nEnd.",
    );
    expect(blocks.map((b) => (b.is === "list" ? b.items.map(flat) : flat(b.parts)))).toEqual([
      "Hung strong(over emphasis(peat)) for a night.\nRestores <vigour>.",
      ["one", "coloured(two)"],
      "End.",
    ]);
  });

  it("keeps as text what is no mark, and says where its values stand", () => {
    for (const text of ["2 * 3 * 4", "** bold **", "a*", "[x]", "{}", "{a\nb}", "<b>salt</b>", "](", "*".repeat(300)])
      expect(
        readDescription(text)
          .map((b) => (b.is === "paragraph" ? flat(b.parts) : ""))
          .join(""),
      ).toBe(text);
    const text = "- Restores **{vigour}**";
    const [value] = [...everyPart(text)].filter((p) => p.is === "value");
    expect(value.is === "value" && text.slice(value.from, value.to)).toBe("{vigour}");
    expect(readDescription("")).toEqual([]);
  });

  it("reads values by key or name, as players read them", () => {
    for (const [name, text] of [
      ["vigour", "6"],
      ["Vigour", "6"],
      ["heft", "0.7"],
      ["smell", "rank"],
      ["sell", "2.5"],
    ])
      expect(valueNamed(catalogue, eel, name), name).toEqual({ text });
    expect(valueNamed(catalogue, eel, "vigur")).toEqual({
      message: "There is no value called “vigur”. Did you mean vigour?",
    });
    expect(valueNamed(catalogue, eel, "buy")).toEqual({ message: "Eel has no value for buy." });
    expect(valueNamed(catalogue, eel, "__proto__")).toHaveProperty("message");
    expect(colourNamed(catalogue, "prized")).toBe("#b9892a");
    expect(placeholders(catalogue, eel).map((p) => p.name)).toEqual(
      expect.arrayContaining(["vigour", "smell", "sell"]),
    );
  });

  it("is a finding where a value or a colour that it names is gone", () => {
    const told = (text: string) => {
      const next = say(catalogue, "Eel", { description: text });
      return findingsOf(next, readingsOf(next))
        .filter((f) => f.rule === "placeholder-gone")
        .map((f) => f.message);
    };
    expect(told("Restores {vigour}, [fine](prized).")).toEqual([]);
    expect(told("Restores {warmth} for {buy}.")).toEqual(
      [
        "Eel's description uses {warmth}: There is no value called “warmth”.",
        "Eel's description uses {buy}: Eel has no value for buy.",
      ].sort(),
    );
    expect(faultsOf(catalogue, eel, "[x](odd)")[0].message).toMatch(
      /^There is no rarity or type called “odd” whose colour could be used\.$/,
    );
  });
});

describe("a player's card", () => {
  it("says stats and the fields that players see, in their order, with units", () => {
    expect(cardLines(catalogue, eel).map((l) => `${l.label} ${l.text}`)).toEqual([
      "Heft 0.7 kg",
      "Vigour 6",
      "Smell rank",
    ]);
  });

  it("knows better from worse by the direction of each stat", () => {
    const compared = compareCards(catalogue, eel, item(catalogue, "Crab"));
    expect(compared.map((c) => [c.label, c.here, c.beside, c.delta, c.verdict])).toEqual([
      ["Heft", "0.7 kg", "0.9 kg", 0.2, "worse"],
      ["Vigour", "6", "9", 3, "better"],
    ]);
    expect(compareCards(catalogue, eel, eel).every((c) => c.verdict === "same")).toBe(true);
    const bare = say(catalogue, "Crab", { [`stats.${vigour.id}`]: null });
    expect(compareCards(bare, eel, item(bare, "Crab"))[1]).toMatchObject({
      beside: "–",
      delta: null,
      verdict: "worse",
    });
  });
});

describe("uses in words", () => {
  it("are made from the data in the order of effects, for the items of a type from their own numbers", () => {
    const catalogue = withUses(
      tried({
        type: { Fare: { cooldown: idOf("Meal") } },
        stat: { Heartiness: {} },
        cooldown: { Meal: { ticks: 200 } },
        resource: { Vigour: {} },
        condition: { Warm: { ticks: 300 } },
        item: { Pie: { type: idOf("Fare"), stats: { [idOf("Heartiness")]: 42 } }, Crock: {} },
      }),
      {
        Fare: [
          "Eat: restores Vigour by item Heartiness, Warm, 10% restores 5% of Vigour every 2s for 10s, used up, leaves Crock, needs level 3",
        ],
      },
      "type",
    );
    const pie = catalogue.records.item.get(idOf("Pie"));
    expect(pie && usesInWords(catalogue, pie)).toEqual([
      {
        name: "Eat",
        sentences: [
          "Restores 42 Vigour.",
          "Warm for 30 s.",
          "10% chance: restores 5% of Vigour every 2 s for 10 s.",
          "Cooldown 20 s.",
          "Leaves Crock.",
          "Needs level 3.",
        ],
      },
    ]);
  });
});
