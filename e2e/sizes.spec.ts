/** Every view: no word that is none of ours, nothing cut off at the reference sizes. */
import { expect, test } from "@playwright/test";
import { show, VIEWS } from "./every-view";
import { Program } from "./program";

let program: Program;
test.beforeAll(async () => {
  program = await Program.on("salty_sizes");
});
test.afterAll(() => program?.end());

const SIZES = [
  { width: 1920, height: 1080 },
  { width: 1024, height: 768 },
  { width: 1280, height: 800 },
];

test("no view says what is no word of ours, nor scrolls as a whole at 1280x800, 1920x1080 and 1024x768", async ({
  page,
}) => {
  test.setTimeout(180_000);
  // Each is opened once: opening is most of the time.
  for (const path of VIEWS) {
    await show(program, page, path);
    const said = `${await page.locator("body").innerText()} ${(await page.locator("input").evaluateAll((all) => all.map((i) => (i as HTMLInputElement).value))).join(" ")}`;
    expect(said.length, path).toBeGreaterThan(100);
    expect({ path, said: /.{0,40}(undefined|NaN|\[object|Infinity|\(gone).{0,20}/.exec(said)?.[0] ?? null }).toEqual({
      path,
      said: null,
    });
    for (const size of SIZES) {
      await page.setViewportSize(size);
      const over = await page.evaluate(async () => {
        await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));
        return {
          x: document.documentElement.scrollWidth - window.innerWidth,
          y: document.documentElement.scrollHeight - window.innerHeight,
          main: Math.round((document.querySelector("main")?.getBoundingClientRect().right ?? 0) - window.innerWidth),
        };
      });
      expect({ path, size, ...over, main: Math.max(0, over.main) }).toEqual({ path, size, x: 0, y: 0, main: 0 });
    }
  }
});
