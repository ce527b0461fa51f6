/** Every view: no word that is none of ours, nothing cut off at the reference sizes. */
import { expect, test } from "@playwright/test";
import { show, VIEWS } from "./every-view";
import { Program } from "./program";

let program: Program;
test.beforeAll(async () => {
  program = await Program.on("salty_sizes");
});
test.afterAll(() => program?.end());

test("no view says what is no word of ours: a value that is missing, or an object instead of its name", async ({
  page,
}) => {
  for (const path of VIEWS) {
    await show(program, page, path);
    const said = `${await page.locator("body").innerText()} ${(await page.locator("input").evaluateAll((all) => all.map((i) => (i as HTMLInputElement).value))).join(" ")}`;
    expect(said.length, path).toBeGreaterThan(100);
    expect({ path, said: /.{0,40}(undefined|NaN|\[object|Infinity|\(gone).{0,20}/.exec(said)?.[0] ?? null }).toEqual({
      path,
      said: null,
    });
  }
});

for (const [width, height] of [
  [1280, 800],
  [1920, 1080],
  [1024, 768],
])
  test(`no view scrolls as a whole at ${width}x${height}`, async ({ page }) => {
    await page.setViewportSize({ width, height });
    for (const path of VIEWS) {
      await show(program, page, path);
      const over = await page.evaluate(() => ({
        x: document.documentElement.scrollWidth - window.innerWidth,
        y: document.documentElement.scrollHeight - window.innerHeight,
        main: Math.round((document.querySelector("main")?.getBoundingClientRect().right ?? 0) - window.innerWidth),
      }));
      expect({ path, ...over, main: Math.max(0, over.main) }).toEqual({ path, x: 0, y: 0, main: 0 });
    }
  });
