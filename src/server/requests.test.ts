import { describe, expect, it } from "vitest";
import { actingFrom } from "./acting";
import { problem } from "./problem";
import { amountIn, BundleAsked, ChainAsked, IconsAsked, LogAsked, NothingAsked, PlanAsked } from "./queries";
import { asked, checked, checkedChange, PantryBody } from "./requests";

const places = (value: unknown) => {
  const result = checkedChange(value);
  return result.ok ? [] : result.issues.map((c) => c.path);
};
const set = { op: "set", kind: "item", id: "abcdefghijkl", field: "level", from: null, to: 3 };

describe("what comes in", () => {
  it("is taken where its shape is right", () => {
    expect(places({ edits: [set], note: "tuned" })).toEqual([]);
    expect(places({ edits: [{ op: "add", kind: "tag", record: { id: "abcdefghijkl" } }] })).toEqual([]);
    expect(places({ edits: [{ ...set, kind: "pantry" }] })).toEqual([]);
  });

  it.each([
    ["a list", [], ["body"]],
    ["nothing", null, ["body"]],
    ["no edits", {}, ["edits"]],
    ["an unknown operation", { edits: [{ ...set, op: "merge" }] }, ["edits[0].op"]],
    ["an unknown kind", { edits: [set, { ...set, kind: "spell" }] }, ["edits[1].kind"]],
    ["an id that is none", { edits: [{ ...set, id: "../../etc" }] }, ["edits[0].id"]],
    ["no field", { edits: [{ ...set, field: undefined }] }, ["edits[0].field"]],
    ["an add without its record", { edits: [{ op: "add", kind: "item" }] }, ["edits[0].record"]],
    ["a field nobody asked for", { edits: [{ ...set, admin: true }] }, ["edits[0].admin"]],
    ["a note too long", { edits: [set], note: "x".repeat(501) }, ["note"]],
  ])("is refused with its place: %s", (_, value, expected) => {
    expect([...new Set(places(value))]).toEqual(expected);
  });

  it("needs a name for a pantry", () => {
    expect(checked(PantryBody, { name: "" }).ok).toBe(false);
    expect(checked(PantryBody, { name: "Brackwater" }).ok).toBe(true);
  });
});

describe("what is asked for behind the question mark", () => {
  const read = (shape: new () => object, text: string) => asked(shape, new URLSearchParams(text));
  const wrong = (shape: new () => object, text: string) => {
    const result = read(shape, text);
    return result.ok ? [] : result.issues.map((i) => i.message);
  };
  const ID = "abcdefghijkl";

  it("is taken as its class says", () => {
    expect(read(NothingAsked, "")).toMatchObject({ ok: true });
    expect(read(LogAsked, `before=7&most=200&of=${ID}`)).toMatchObject({ ok: true, of: { before: "7", most: "200" } });
    expect(read(BundleAsked, "dry=1&replace=0&name=Low%20tide.json")).toMatchObject({ of: { dry: "1", replace: "0" } });
    expect(read(ChainAsked, "way=a&way=b&onward=0")).toMatchObject({ of: { way: ["a", "b"], onward: "0" } });
    expect(read(ChainAsked, "")).toMatchObject({ of: { way: [] } });
    expect(read(PlanAsked, `make=${ID}:2.5&stock=${ID}:1&confidence=0.95&by=time`)).toMatchObject({ ok: true });
    expect(amountIn(`${ID}:2.5`)).toEqual([ID, 2.5]);
  });

  it.each<[string, new () => object, string, string]>([
    ["a name nobody knows", BundleAsked, "Dry=1", "“Dry” isn't a known parameter. Use: dry, replace, progress, name."],
    ["a name where there are none", NothingAsked, "dry=1", "“dry” isn't a known parameter: this address takes none."],
    [
      "a name of every object",
      LogAsked,
      "constructor=1",
      "“constructor” isn't a known parameter. Use: revision, of, before, most.",
    ],
    ["a switch that is a word", BundleAsked, "dry=true", "dry must be 1 or 0 (the default)."],
    ["a switch without a value", BundleAsked, "dry", "dry must be 1 or 0 (the default)."],
    ["one value given twice", BundleAsked, "dry=0&dry=1", "dry appears 2 times."],
    ["a number in another notation", LogAsked, "before=0x1", "before must be a whole number from 1 to 2147483647."],
    ["a number with an exponent", LogAsked, "most=1e2", "most must be a whole number from 1 to 200."],
    ["a number beyond what there is", LogAsked, "most=201", "most must be a whole number from 1 to 200."],
    ["an id that is none", LogAsked, "of=../etc", "of must be the id of a record: twelve characters of 0-9 and a-z."],
    ["too many ways", ChainAsked, "way=a&".repeat(101), "The maximum is 100 alternatives per request."],
    [
      "an amount without its item",
      PlanAsked,
      "make=12",
      "make must be the id of an item and an amount, as in make=000000000000:20, at most 100 times and 1000000 of one.",
    ],
    [
      "more of an item than there can be",
      PlanAsked,
      `make=${ID}:9999999`,
      "make must be the id of an item and an amount, as in make=000000000000:20, at most 100 times and 1000000 of one.",
    ],
    [
      "a chance that is certain",
      PlanAsked,
      "confidence=1",
      "confidence must be a number between 0 and 1, such as 0.9.",
    ],
    ["a chance of nothing", PlanAsked, "confidence=0.000", "confidence must be a number between 0 and 1, such as 0.9."],
    ["characters that can't be seen", IconsAsked, "q=eel%00", "q: "],
  ])("is refused with what would work: %s", (_, shape, text, message) => {
    expect(wrong(shape, text).join(" ")).toContain(message);
  });
});

describe("who is acting", () => {
  it("is the name in the header, decoded and shortened, or someone", () => {
    const read = (name?: string) => actingFrom(new Headers(name === undefined ? {} : { "x-salty-author": name }));
    const actor = (name?: string) => (read(name) as { name: string }).name;
    for (const odd of ["%00", "I%0Ada", "%E2%80%AEadI", "%ED%A0%80".replace("%ED%A0%80", "a%E2%80%8Bb")])
      expect(read(odd)).toMatchObject({ message: expect.stringContaining("author's name") });
    expect(actor(encodeURIComponent("Tomas Örn"))).toBe("Tomas Örn");
    expect(actor()).toBe("Anonymous");
    expect(actor("%20")).toBe("Anonymous");
    expect(actor("x".repeat(200))).toHaveLength(80);
  });
});

describe("a refusal", () => {
  it("is a problem document with where, why and what would work", async () => {
    const response = problem(409, "Someone else changed this first", "Look again.", { conflicts: [] });
    expect(response.status).toBe(409);
    expect(response.headers.get("content-type")).toBe("application/problem+json");
    expect(await response.json()).toEqual({
      type: "about:blank",
      title: "Someone else changed this first",
      status: 409,
      detail: "Look again.",
      conflicts: [],
    });
  });
});
