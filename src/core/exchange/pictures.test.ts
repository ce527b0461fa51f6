import { createHash } from "node:crypto";
import { describe, expect, it } from "vitest";
import { emptyCatalogue } from "../catalogue/catalogue";
import { iconsIn, noIcons, ownPicturesOf } from "../catalogue/icons";
import { must, pantry } from "../testing/kitchen";
import { exportBundle } from "./bundle";
import { withPictures } from "./pictures";
import { planImport } from "./read";
import { setupOf } from "./setup";

const SVG = '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0h9"></path></svg>';
const named = (text: string) => ({
  name: `own-${createHash("sha256").update(text).digest("hex").slice(0, 24)}`,
  base64: btoa(text),
});
const eel = named(SVG);
const bundle = (part: object) => JSON.stringify({ format: "salty-pantry-bundle", version: 1, ...part });
const planned = (part: object) => planImport(emptyCatalogue(pantry()), bundle(part));
const whole = async (text: string, pictures: Iterable<{ name: string; base64: string }>) => {
  let out = "";
  for await (const part of withPictures(text, pictures)) out += part;
  return out;
};

describe("pictures in a bundle", () => {
  it("come back as they went out, and a bundle without any stays as it is", async () => {
    const plan = planned({
      items: [{ key: "eel", icon: eel.name }],
      types: [{ key: "fish", icon: "yarn" }],
      pictures: [eel],
    });
    expect(plan.issues).toEqual([]);
    expect(plan.pictures).toEqual([{ ...eel, type: "image/svg+xml", place: "pictures[0]" }]);
    const catalogue = must(emptyCatalogue(pantry()), plan.edits);
    expect(ownPicturesOf(catalogue)).toEqual([eel.name]);
    const text = exportBundle(catalogue);
    expect(await whole(text, [])).toBe(text);
    const out = await whole(text, [eel, named(SVG.replace("9", "8"))]);
    expect(JSON.parse(out)).toMatchObject({ items: [{ key: "eel" }], pictures: [eel, {}] });
    const again = planImport(catalogue, out);
    expect(again).toMatchObject({ issues: [], edits: [], pictures: [{ name: eel.name }, {}] });
  });

  it("are refused with their place where they are none", () => {
    const bad: [unknown, string, string][] = [
      ["none", "pictures", "Expected a list"],
      [["eel"], "pictures[0]", "Expected an object"],
      [[{ ...eel, type: "image/png" }], "pictures[0].type", "Unknown field"],
      [[{ ...eel, name: "eel.png" }], "pictures[0].name", "Expected the name of a picture"],
      [[{ ...eel, name: "__proto__" }], "pictures[0].name", "Expected the name of a picture"],
      [[eel, eel], "pictures[1].name", "“own-9ccf3bf198376f2e8dd2522c” appears twice."],
      [[{ name: eel.name }], "pictures[0].base64", "as base64"],
      [[{ ...eel, base64: "PHN2Zw" }], "pictures[0].base64", "as base64"],
      [[{ ...eel, base64: `${eel.base64}\n` }], "pictures[0].base64", "as base64"],
      [
        [{ ...eel, base64: "A".repeat(400_000) }],
        "pictures[0].base64",
        "The picture is too large; the maximum is 256 kB.",
      ],
      [[{ ...eel, base64: btoa("<html>") }], "pictures[0].base64", "This isn't a PNG, WebP or SVG file."],
    ];
    for (const [pictures, path, message] of bad)
      expect(planned({ pictures }).issues, JSON.stringify(pictures).slice(0, 80)).toEqual([
        expect.objectContaining({ path, message: expect.stringContaining(message) }),
      ]);
  });

  it("that do not come along are asked about once each, where the record did not name them before", () => {
    const items = [
      { key: "eel", icon: eel.name },
      { key: "cod", icon: "no-fish" },
      { key: "ling", icon: "no-fish" },
      { key: "bare" },
    ];
    const plan = planned({ items });
    expect(plan.icons).toEqual([
      { icon: eel.name, place: "items[0].icon", times: 1 },
      { icon: "no-fish", place: "items[1].icon", times: 2 },
    ]);
    expect(iconsIn(plan.edits)).toEqual([eel.name, "no-fish"]);
    const there = must(emptyCatalogue(pantry()), plan.edits);
    expect(planImport(there, bundle({ items: [{ ...items[0], level: 4 }, items[1]] })).icons).toEqual([]);
    expect(noIcons([eel.name])).toContain("There is no picture called “own-");
    expect(noIcons(["no-fish"], 2)).toContain(
      "There is no icon called “no-fish”. 2 records use it. No icon is shown until you choose another.",
    );
    expect(noIcons(["a", eel.name])).toMatch(/^There are no icons called “a” and “own-/);
  });

  it("go along with a setup where its types and conditions show them, and not otherwise", () => {
    const cod = named(SVG.replace("9", "7"));
    const text = bundle({
      items: [{ key: "cod", icon: cod.name }],
      types: [{ key: "fish", icon: eel.name }],
      pictures: [cod, eel],
    });
    expect(JSON.parse(setupOf(text)).pictures).toEqual([eel]);
    expect(JSON.parse(setupOf(bundle({ pictures: [cod] }))).pictures).toBeUndefined();
  });
});
