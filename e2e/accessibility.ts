/** Nothing the accessibility check finds in any view or dialog: one test for each, by day and by night. */
import AxeBuilder from "@axe-core/playwright";
import { expect, type Page, test } from "@playwright/test";
import { DIALOGS, show, VIEWS } from "./every-view";
import { Program } from "./program";

const BY_DAY = (axe: AxeBuilder) =>
  axe.withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"]).disableRules(["region"]);
/** The same elements in other colours: what does not look at colours is found by day. */
const BY_NIGHT = (axe: AxeBuilder) => axe.withRules(["color-contrast", "link-in-text-block"]);

async function found(page: Page, path: string, rules: (axe: AxeBuilder) => AxeBuilder): Promise<string[]> {
  const { violations } = await rules(new AxeBuilder({ page })).analyze();
  return violations.map(
    ({ id, nodes }) =>
      `${path}: ${id}: ${nodes
        .slice(0, 3)
        .map((n) => `${n.target.join(" ")} ${n.any[0]?.message ?? ""}`)
        .join(" | ")}`,
  );
}

/** Tests of every view and dialog in a theme. */
export function everyViewIsAccessible(theme: "day" | "night"): void {
  const rules = theme === "day" ? BY_DAY : BY_NIGHT;
  let program: Program;
  test.beforeAll(async () => {
    program = await Program.on(`salty_${theme}`);
  });
  test.afterAll(() => program?.end());
  test.beforeEach(({ page }) => page.addInitScript((named) => localStorage.setItem("salty-theme", named), theme));

  for (const path of VIEWS)
    test(`the accessibility check finds nothing in ${path}, by ${theme}`, async ({ page }) => {
      await show(program, page, path);
      expect(await found(page, path, rules)).toEqual([]);
    });
  for (const { path, called, open } of DIALOGS)
    test(`the accessibility check finds nothing in the ${called}, by ${theme}`, async ({ page }) => {
      await show(program, page, path);
      await open(page);
      expect(await found(page, called, rules)).toEqual([]);
    });
}
