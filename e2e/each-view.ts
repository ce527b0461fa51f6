/**
 * What holds in each view: no word that is none of ours, nothing cut off at the sizes we promise, nothing stopped by the
 * page's policy, nothing that the accessibility check finds by day or by night. One test for each view and dialog, which
 * opens it once: opening is most of the time.
 */
import AxeBuilder from "@axe-core/playwright";
import { expect, type Page, test } from "@playwright/test";
import { DIALOGS, show, stoppedIn, VIEWS } from "./every-view";
import { Program } from "./program";

const BY_DAY = {
  runOnly: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"],
  rules: { region: { enabled: false } },
};
/** The same elements in other colours: what does not look at colours is found by day. */
const BY_NIGHT = { runOnly: ["color-contrast", "link-in-text-block"] };

/**
 * What the check finds. It describes only what it finds, and runs in the page itself: to describe every element that
 * passes takes six times as long. Our pages have no frames, which is all that the page itself would not show it.
 */
async function foundIn(page: Page, theme: "day" | "night"): Promise<string[]> {
  const rules = theme === "day" ? BY_DAY : BY_NIGHT;
  const axe = new AxeBuilder({ page }).setLegacyMode(true).options({ ...rules, resultTypes: ["violations"] });
  const { violations } = await axe.analyze();
  return violations.map(
    ({ id, nodes }) =>
      `by ${theme}: ${id}: ${nodes
        .slice(0, 3)
        .map((n) => `${n.target.join(" ")} ${n.any[0]?.message ?? ""}`)
        .join(" | ")}`,
  );
}

/** What it finds by day, and then, in the same page, by night. */
async function found(page: Page): Promise<string[]> {
  const byDay = await foundIn(page, "day");
  await page.evaluate(async () => {
    document.documentElement.dataset.theme = "night";
    await Promise.all(document.getAnimations().map((going) => going.finished.catch(() => undefined)));
  });
  return [...byDay, ...(await foundIn(page, "night"))];
}

const SIZES = [
  { width: 1920, height: 1080 },
  { width: 1024, height: 768 },
  { width: 1280, height: 800 },
];

/** Words on the page that come from a value that is missing or is no number; null: none. */
async function strayWord(page: Page): Promise<string | null> {
  const typed = await page.locator("input").evaluateAll((all) => all.map((i) => (i as HTMLInputElement).value));
  const said = `${await page.locator("body").innerText()} ${typed.join(" ")}`;
  expect(said.length).toBeGreaterThan(100);
  return /.{0,40}(undefined|NaN|\[object|Infinity|\(gone).{0,20}/.exec(said)?.[0] ?? null;
}

/** Pixels by which the page as a whole is larger than the window, at each size. */
async function overhanging(page: Page): Promise<readonly string[]> {
  const over: string[] = [];
  for (const size of SIZES) {
    await page.setViewportSize(size);
    const { x, y, main } = await page.evaluate(async () => {
      await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));
      return {
        x: document.documentElement.scrollWidth - window.innerWidth,
        y: document.documentElement.scrollHeight - window.innerHeight,
        main: Math.round((document.querySelector("main")?.getBoundingClientRect().right ?? 0) - window.innerWidth),
      };
    });
    if (x || y || main > 0) over.push(`${size.width}x${size.height}: ${x}, ${y}, main ${main}`);
  }
  return over;
}

/** Tests of every view and dialog at the addresses that are chosen. */
export function eachViewStands(database: string, chosen: (path: string) => boolean): void {
  let program: Program;
  test.beforeAll(async () => {
    program = await Program.on(database);
  });
  test.afterAll(() => program?.end());

  test("the accessibility check finds what is put there to be found", async ({ page }) => {
    await show(program, page, "/log");
    await page.evaluate(() => {
      const pale = document.createElement("p");
      pale.style.cssText = "color: #777; background: #888; position: fixed; top: 0; left: 0; z-index: 99";
      pale.append("pale words", document.createElement("button"));
      document.body.append(pale);
    });
    const faults = (await found(page)).join("\n");
    for (const fault of ["by day: color-contrast", "by day: button-name", "by night: color-contrast"])
      expect(faults).toContain(fault);
  });
  for (const path of VIEWS.filter(chosen))
    test(`${path} says our words, fits the window, runs under its policy, and the accessibility check finds nothing`, async ({
      page,
    }) => {
      const stopped = stoppedIn(page);
      await show(program, page, path);
      expect.soft(await strayWord(page)).toBeNull();
      expect.soft(await overhanging(page)).toEqual([]);
      expect.soft(await found(page)).toEqual([]);
      expect(stopped).toEqual([]);
    });
  for (const { path, called, open } of DIALOGS.filter((dialog) => chosen(dialog.path)))
    test(`the accessibility check finds nothing in the ${called}`, async ({ page }) => {
      await show(program, page, path);
      await open(page);
      expect(await found(page)).toEqual([]);
    });
}
