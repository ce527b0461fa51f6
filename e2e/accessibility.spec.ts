/** Nothing the accessibility check finds in any view or dialog, by day and by night. */
import AxeBuilder from "@axe-core/playwright";
import { expect, type Page, test } from "@playwright/test";
import { DIALOGS, show, VIEWS } from "./every-view";
import { Program } from "./program";

test.describe.configure({ mode: "parallel" });

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

for (const [theme, rules] of [
  ["day", BY_DAY],
  ["night", BY_NIGHT],
] as const)
  test.describe(`by ${theme}`, () => {
    let program: Program;
    test.beforeAll(async () => {
      program = await Program.on(`salty_${theme}`);
    });
    test.afterAll(() => program?.end());

    test(`the accessibility check finds nothing in any view or dialog, by ${theme}`, async ({ page }) => {
      await page.addInitScript((named) => localStorage.setItem("salty-theme", named), theme);
      const all: string[] = [];
      for (const path of VIEWS) {
        await show(program, page, path);
        all.push(...(await found(page, path, rules)));
      }
      for (const { path, called, open } of DIALOGS) {
        await show(program, page, path);
        await open(page);
        all.push(...(await found(page, called, rules)));
      }
      expect(all).toEqual([]);
    });
  });
