import anyAscii from "any-ascii";
import { beforeAll, describe, expect, it } from "vitest";
import { emptyCatalogue } from "../catalogue/catalogue";
import { transliterateBy } from "../schema/names";
import { kitchen, must, pantry } from "../testing/kitchen";
import { exportBundle } from "./bundle";
import { bundlePantry, planImport } from "./read";
import { parseBundle } from "./parse";

const head = { format: "salty-pantry-bundle", version: 1 };
const plan = (body: object | string, into = emptyCatalogue(pantry())) =>
  planImport(into, typeof body === "string" ? body : JSON.stringify({ ...head, ...body }));
const told = (body: object | string) =>
  plan(body)
    .issues.map((p) => `${p.path}: ${p.message}`)
    .join(" | ");
beforeAll(() => transliterateBy(anyAscii));

describe("a bundle refuses", () => {
  it.each([
    [
      "a key that is no text beside a good name",
      { items: [{ key: 5, name: "Eel" }] },
      "items[0].key: Expected text, not “5”.",
    ],
    [
      "a name that is no text",
      { items: [{ key: "eel", name: { toString: 1 } }] },
      "items[0].name: Expected text, not an object.",
    ],
    [
      "a stat that stands there twice by other names",
      { stats: [{ key: "vigour" }], items: [{ key: "eel", stats: { vigour: 1, VIGOUR: 2 } }] },
      "This stat appears twice.",
    ],
    ["settings out of range", { pantry: { ticksPerSecond: "abc" } }, "pantry.ticksPerSecond: “abc” isn't a number."],
    [
      "a pantry's key that leads elsewhere",
      { pantry: { key: "../../etc" } },
      "pantry.key: “../../etc” isn't a key. Use lower-case letters, digits and single “_” between them, such as coarse_salt.",
    ],
    ["a pantry that is no object", { pantry: [1] }, "pantry: Expected an object"],
    [
      "a setting nobody knows",
      { pantry: { name: "Reach", tickPerSecond: 20 } },
      "pantry.tickPerSecond: Unknown field. Did you mean ticksPerSecond?",
    ],
    ["invisible characters", { items: [{ key: "eel", name: "E\u200bel" }] }, "invisible character"],
  ])("%s", (_, body, expected) => {
    expect(told(body)).toContain(expected);
  });

  it("members of names that the language has", () => {
    expect(told(`{"format":"salty-pantry-bundle","version":1,"__proto__":{"items":[]}}`)).toContain(
      "__proto__: Unknown field.",
    );
    expect(
      told(
        `{"format":"salty-pantry-bundle","version":1,"items":[{"key":"eel","__proto__":{"level":3},"constructor":1}]}`,
      ),
    ).toContain("items[0].constructor: Unknown field.");
  });

  it("what is nested without end, with a place", () => {
    const deep = parseBundle(`{"format":${"[".repeat(100_000)}`);
    expect("issues" in deep && deep.issues[0].message).toMatch(/not JSON/);
    const odd = parseBundle(`{"format":${"[".repeat(50_000)}${"]".repeat(50_000)}}`);
    expect("issues" in odd && odd.issues[0].message).toContain("found a list");
  });

  it("very much at once, and tells a bounded part of it", () => {
    const { issues } = plan({
      items: Array.from({ length: 3_000 }, (_, k) => ({ key: `i${k}`, type: "none" })),
    });
    expect(issues.length).toBe(501);
    expect(issues[500].message).toContain("There are more errors than shown. Fix these first.");
  });
});

describe("records without keys", () => {
  it("get keys from names of any script, each number once", () => {
    const c = must(emptyCatalogue(pantry()), []);
    const into = must(
      c,
      plan({ items: [{ name: "海盐" }, { name: "Соль" }, { name: "🦀" }, { name: "…" }, { name: "海盐" }] }, c).edits,
    );
    expect([...into.records.item.values()].map((i) => i.key)).toEqual(["haiyan", "sol", "crab", "item", "haiyan_2"]);
  });

  it("are the pantry's records of the same name, never others whose key happens to be the same", () => {
    const c = emptyCatalogue(pantry());
    const once = must(
      c,
      plan({ items: [{ name: "盐" }, { name: "言" }], recipes: ["1 盐 -> 1 言", "2 盐 -> 1 言"] }, c).edits,
    );
    expect([...once.records.item.values()].map((i) => [i.name, i.key])).toEqual([
      ["盐", "yan"],
      ["言", "yan_2"],
    ]);
    expect(
      plan({ items: [{ name: "言" }, { name: "盐" }], recipes: ["1 盐 -> 1 言", "2 盐 -> 1 言"] }, once),
    ).toMatchObject({ issues: [], edits: [] });
    const other = must(once, plan({ items: [{ name: "烟" }] }, once).edits);
    expect([...other.records.item.values()].map((i) => i.key)).toEqual(["yan", "yan_2", "yan_3"]);
  });

  it("are numbered in one go, however many share a key", () => {
    const { edits, issues } = plan({
      items: Array.from({ length: 4_000 }, (_, k) => ({
        name: `Crab${"!".repeat(k % 16)}${"?".repeat(Math.floor(k / 16) % 16)}${".".repeat(Math.floor(k / 256))}`,
      })),
    });
    expect(issues).toEqual([]);
    expect(edits.length).toBe(4_000);
  });
});

describe("what an import changes of the pantry itself", () => {
  it("is told, name first, and counted", () => {
    const into = emptyCatalogue(pantry({ name: "Reach", ticksPerSecond: 20 }));
    const found = plan({ pantry: { key: "other", name: "Far Reach", ticksPerSecond: 30 } }, into);
    expect(found).toMatchObject({ settings: 2, issues: [] });
    expect(found.notes.map((n) => n.message)).toEqual([
      "The bundle's pantry has the key “other”; this one keeps its key, “test”.",
      "The pantry's name changes from “Reach” to “Far Reach”.",
      "The setting “ticks per second” changes from “20” to “30”.",
    ]);
  });

  it("is checked where a new pantry is made of it, too", () => {
    expect(bundlePantry({ ...head, pantry: { name: "Reach", labourPerHour: -1 } } as never).issues).toEqual([
      {
        path: "pantry.labourPerHour",
        message: "-1 is outside the range 0 to 1000000000.",
        severity: "error",
        suggestions: [],
      },
    ]);
    expect(bundlePantry({ ...head, pantry: { name: "海盐" } } as never)).toMatchObject({
      issues: [],
      settings: { key: "haiyan", name: "海盐" },
    });
  });
});

describe("a pantry's own bundle", () => {
  it("changes nothing, in whatever order its lines stand", () => {
    const c = kitchen("Smoke: 1 Eel -> 1 Smoked eel + 2 draws { 1: 1 Bone | 1: nothing } + 1 Skin at Shed using Knife");
    const [recipe] = [...c.records.recipe.values()];
    const shuffled = must(c, [
      {
        op: "set",
        kind: "recipe",
        id: recipe.id,
        field: "lines",
        from: recipe.lines as never,
        to: [...recipe.lines].reverse() as never,
      },
    ]);
    expect(plan(exportBundle(shuffled), shuffled)).toMatchObject({ issues: [], edits: [] });
  });
});
