/** Nothing the accessibility check finds in any view or dialog: one test for each, by day and then by night. */
import AxeBuilder from "@axe-core/playwright";
import { expect, type Page, test } from "@playwright/test";
import { DIALOGS, show, VIEWS } from "./every-view";
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

/** Tests of every view and dialog at the addresses that are chosen. */
export function everyViewIsAccessible(database: string, chosen: (path: string) => boolean): void {
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
    test(`the accessibility check finds nothing in ${path}`, async ({ page }) => {
      await show(program, page, path);
      expect(await found(page)).toEqual([]);
    });
  for (const { path, called, open } of DIALOGS.filter((dialog) => chosen(dialog.path)))
    test(`the accessibility check finds nothing in the ${called}`, async ({ page }) => {
      await show(program, page, path);
      await open(page);
      expect(await found(page)).toEqual([]);
    });
}
