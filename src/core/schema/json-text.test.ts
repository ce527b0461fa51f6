import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { placeIn, repeatedName, saidTwice } from "./json-text";

describe("a name that stands twice", () => {
  it.each([
    ['{"a":1,"a":2}', "a", 7],
    ['{"a":1,"\\u0061":2}', "a", 7],
    ['{"a":{"b":1},"b":[{"c":1,"c":1}]}', "c", 25],
    ['[{"a":1},{"a":{"a":1},"b":"\\"a\\":","a":0}]', "a", 35],
    ['{"__proto__":1,"__proto__":2}', "__proto__", 15],
    [`{${Array.from({ length: 40 }, (_, n) => `"n${n}":0`).join()},"n3":1}`, "n3", 311],
    ['{"":1,"":2}', "", 6],
  ])("is found with its place: %s", (text, name, at) => {
    expect(repeatedName(text)).toEqual({ name, at });
    expect(text[at]).toBe('"');
  });

  it.each([
    '{"a":"a","b":["a","a"],"c":{"a":1}}',
    '[{"a":1},{"a":1}]',
    '{"a":"{\\"x\\":1,\\"x\\":2}"}',
    '{"a\\\\":1,"a":2}',
    '"a"',
    "[]",
  ])("is not seen where there is none: %s", (text) => {
    expect(repeatedName(text)).toBeNull();
  });

  it("is told by line and column", () => {
    const text = '{\n  "items": [],\n  "items": []\n}';
    expect(saidTwice(text)).toEqual({
      place: "line 3, column 3",
      message: "“items” appears twice in the same object. Remove one of them.",
    });
    expect(placeIn("abc", 0)).toBe("line 1, column 1");
  });

  it("is in no text that was written from a value, and in every text in which one was put", () => {
    let put = 0;
    fc.assert(
      fc.property(fc.json({ maxDepth: 5 }), fc.nat(), (text, pick) => {
        expect(repeatedName(text)).toBeNull();
        // Every place behind a brace with a name: the name is put there once more.
        const places = [...text.matchAll(/\{(?="((?:[^"\\]|\\.)*)":)/g)].filter(({ index }) => !inText(text, index));
        if (!places.length) return;
        const { index, 1: name } = places[pick % places.length];
        const twice = `${text.slice(0, index + 1)}"${name}":null,${text.slice(index + 1)}`;
        expect(repeatedName(twice)).toEqual({
          name: JSON.parse(`"${name}"`),
          at: index + 1 + `"${name}":null,`.length,
        });
        put++;
      }),
      { numRuns: 2_000 },
    );
    expect(put).toBeGreaterThan(300);
  });

  it("is looked for as deep as JSON can be nested", () => {
    const deep = `${'{"a":'.repeat(100_000)}1${"}".repeat(100_000)}`;
    expect(repeatedName(deep)).toBeNull();
    expect(repeatedName(deep.replace("1", '{"b":1,"b":1}'))).toMatchObject({ name: "b" });
  });
});

/** Whether a place lies within a text of the JSON. */
function inText(json: string, at: number): boolean {
  let inside = false;
  for (let k = 0; k < at; k++) {
    if (json[k] === "\\" && inside) k++;
    else if (json[k] === '"') inside = !inside;
  }
  return inside;
}
