import { describe, expect, it } from "vitest";
import { IconBodies } from "./icon-bodies";

const settled = () => new Promise((done) => setTimeout(done, 5));

describe("the drawings of icons", () => {
  it("are fetched together, once each, and told when they are there", async () => {
    const asked: (readonly string[])[] = [];
    const icons = new IconBodies(async (names) => {
      asked.push(names);
      return { eel: "<path d='M0'/>" };
    });
    let told = 0;
    icons.subscribe(() => told++);
    expect([icons.body("eel"), icons.body("crab"), icons.body("eel")]).toEqual(["", "", ""]);
    await settled();
    expect(asked).toEqual([["eel", "crab"]]);
    expect([told, icons.body("eel"), icons.body("crab")]).toEqual([1, "<path d='M0'/>", ""]);
    icons.body("constructor");
    await settled();
    expect(icons.body("constructor")).toBe("");
    expect(asked).toHaveLength(2);
  });

  it("are asked for again after the server was away", async () => {
    let away = true;
    const icons = new IconBodies(async () => {
      if (away) throw new Error("away");
      return { eel: "<g/>" };
    });
    icons.body("eel");
    await settled();
    away = false;
    expect(icons.body("eel")).toBe("");
    await settled();
    expect(icons.body("eel")).toBe("<g/>");
  });

  it("come in parts where there are very many", async () => {
    const sizes: number[] = [];
    const icons = new IconBodies(async (names) => {
      sizes.push(names.length);
      return {};
    });
    for (let k = 0; k < 250; k++) icons.body(`icon-${k}`);
    await settled();
    expect(sizes).toEqual([100, 100, 50]);
  });
});
