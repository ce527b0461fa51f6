import { describe, expect, it } from "vitest";
import { actingFrom } from "./acting";
import { problem } from "./problem";
import { checked, checkedChange, PantryBody } from "./requests";

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

describe("who is acting", () => {
  it("is the name in the header, decoded and shortened, or somebody", () => {
    const read = (name?: string) => actingFrom(new Headers(name === undefined ? {} : { "x-salty-author": name }));
    const actor = (name?: string) => (read(name) as { name: string }).name;
    for (const odd of ["%00", "I%0Ada", "%E2%80%AEadI", "%ED%A0%80".replace("%ED%A0%80", "a%E2%80%8Bb")])
      expect(read(odd)).toMatchObject({ says: expect.stringContaining("author's name") });
    expect(actor(encodeURIComponent("Tomas Örn"))).toBe("Tomas Örn");
    expect(actor()).toBe("Somebody");
    expect(actor("%20")).toBe("Somebody");
    expect(actor("x".repeat(200))).toHaveLength(80);
  });
});

describe("a refusal", () => {
  it("is a problem document with where, why and what would work", async () => {
    const response = problem(409, "Somebody else was quicker", "Look again.", { conflicts: [] });
    expect(response.status).toBe(409);
    expect(response.headers.get("content-type")).toBe("application/problem+json");
    expect(await response.json()).toEqual({
      type: "about:blank",
      title: "Somebody else was quicker",
      status: 409,
      detail: "Look again.",
      conflicts: [],
    });
  });
});
