import { describe, expect, it } from "vitest";
import { OWN_PICTURE } from "./own-picture";
import { MOST_PICTURE_BYTES, readPicture } from "./picture";
import { sanitisedSvg } from "./svg";

const svg = (inner: string, more = "") =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"${more}>${inner}</svg>`;
const clean = (text: string) => {
  const made = sanitisedSvg(text);
  return "message" in made ? made.message : made.svg;
};

describe("an SVG", () => {
  it("keeps its shapes, gradients and what they point to in itself", () => {
    const inner =
      '<defs><linearGradient id="a"><stop offset="0" stop-color="#fff"></stop></linearGradient></defs><path d="M0 0h9" fill="url(#a)"></path>';
    expect(clean(svg(inner))).toBe(svg(inner));
  });

  it("loses what could run, load or link, with everything in it", () => {
    const bad: [string, string][] = [
      ["<script>alert(1)</script><path d='M0 0'/>", '<path d="M0 0"></path>'],
      ["<foreignObject><div onclick='x()'>a</div></foreignObject>", ""],
      ["<image href='http://evil.example/a.png'/>", ""],
      ["<use href='#a'/>", ""],
      ["<style>@import url(http://evil.example)</style>", ""],
      ["<a href='javascript:x()'><path d='M1'/></a>", ""],
      ["<path d='M0' onload='x()' style='fill:url(http://evil.example)'/>", '<path d="M0"></path>'],
      ["<path fill='url(http://evil.example#a)'/>", "<path></path>"],
      ["<path fill='url(data:text/html,x)'/>", "<path></path>"],
      ["<svg:script xmlns:svg='http://www.w3.org/2000/svg'>x</svg:script>", ""],
      ["<!-- c --><![CDATA[<script>]]><title>a &amp; b</title>", "<title>a &amp; b</title>"],
      ["<animate attributeName='href' to='javascript:x()'/><set/>", ""],
    ];
    for (const [inner, left] of bad) expect(clean(svg(inner)), inner).toBe(svg(left));
    const told = sanitisedSvg(svg("<script/><path onload='x' d='M0'/>"));
    expect("leftOut" in told && told.leftOut).toEqual(["<script>", "onload"]);
  });

  it("has no clip paths within clip paths, and few of them", () => {
    const nested = Array.from(
      { length: 20 },
      (_, n) =>
        `<clipPath id="c${n}"><rect width="9" height="9" clip-path="url(#c${n + 1})"/><rect width="8" clip-path="url(#c${n + 1})"/></clipPath>`,
    ).join("");
    const made = clean(svg(`<defs>${nested}</defs><path d="M0 0h9" clip-path="url(#c0)"/>`));
    expect(made.match(/clip-path=/g)).toHaveLength(1);
    const often = clean(svg('<path d="M0 0h9" clip-path="url(#c)"/>'.repeat(400)));
    expect(often.match(/clip-path=/g)).toHaveLength(40);
  });

  it("is drawn with whole lines where its dashes would be too many", () => {
    const circles = (dash: string, n: number) =>
      svg(`<circle cx="4" cy="4" r="3" stroke="#000" stroke-dasharray="${dash}"/>`.repeat(n));
    expect(clean(circles("1 .5", 20))).toContain("stroke-dasharray");
    for (const bad of [circles("0.00001", 400), circles("0", 1), circles("1e-7 3", 1)]) {
      const told = sanitisedSvg(bad);
      expect("svg" in told && !told.svg.includes("dash") && told.leftOut).toEqual(["stroke-dasharray"]);
    }
    expect(clean(svg('<path d="M0 0L1e9 0" stroke-dasharray="3"/>'))).not.toContain("dash");
  });

  it("has values of the known forms only", () => {
    for (const bad of [
      "<path d='M0 0;x'/>",
      "<g transform='perspective(1)'/>",
      "<path fill='&lt;x'/>",
      "<path fill='url(#a) url(#b)'/>",
    ])
      expect(clean(svg(bad)), bad).not.toMatch(/d=|transform=|fill=/);
    const good =
      '<g transform="translate(1 2) rotate(-45, 3, 3)"><path d="M0 0h-9.5e-1Z" fill="rgb(1, 2, 3)"></path></g>';
    expect(clean(svg(good))).toBe(svg(good));
  });

  it("is refused where it is none, or asks for too much", () => {
    expect(clean("<html/>")).toMatch(/outermost element/);
    expect(clean("<svg><path></svg>")).toMatch(/well-formed/);
    expect(clean('<!DOCTYPE svg [<!ENTITY a "b">]><svg/>')).toMatch(/DOCTYPE/);
    expect(clean(svg("<g>".repeat(60) + "</g>".repeat(60)))).toMatch(/deep/);
    expect(clean(svg("<g></g>".repeat(6000)))).toMatch(/5000 elements/);
    expect(clean("")).toMatch(/well-formed|no picture/);
  });
});

describe("a picture", () => {
  const png = (width: number, height: number) => {
    const bytes = new Uint8Array(60);
    bytes.set([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0, 0, 13, 0x49, 0x48, 0x44, 0x52]);
    new DataView(bytes.buffer).setUint32(16, width);
    new DataView(bytes.buffer).setUint32(20, height);
    return bytes;
  };
  it("is known by its bytes, whatever it is called", () => {
    expect(readPicture(png(64, 64))).toMatchObject({ type: "image/png" });
    expect(readPicture(new TextEncoder().encode(svg("")))).toMatchObject({ type: "image/svg+xml" });
    const webp = new Uint8Array(40);
    webp.set(new TextEncoder().encode("RIFF"), 0);
    webp.set(new TextEncoder().encode("WEBPVP8X"), 8);
    webp.set([63, 0, 0, 31, 0, 0], 24);
    expect(readPicture(webp)).toMatchObject({ type: "image/webp" });
    for (const text of ["GIF89a", "<html><script>", "", "hello"])
      expect(readPicture(new TextEncoder().encode(text))).toMatchObject({
        message: expect.stringMatching(/^This isn't a PNG, WebP or SVG file\.$/),
      });
    expect(readPicture(new Uint8Array([0xff, 0xd8, 0xff, 0xe0]))).toHaveProperty("message");
  });

  it("is bounded in bytes and pixels", () => {
    expect(readPicture(png(4096, 64))).toMatchObject({
      message: "The picture is 4096 by 64; the maximum is 1024 by 1024.",
    });
    expect(readPicture(new Uint8Array(MOST_PICTURE_BYTES + 1))).toMatchObject({
      message: expect.stringMatching(/257 kB/),
    });
    expect(OWN_PICTURE.test(`own-${"a1".repeat(12)}`)).toBe(true);
    expect(OWN_PICTURE.test("own-../../x")).toBe(false);
  });
});
