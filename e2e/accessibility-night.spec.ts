/** Nothing the accessibility check finds in any view, by night. */
import AxeBuilder from "@axe-core/playwright";
import { expect, test } from "@playwright/test";
import { show, VIEWS } from "./every-view";
import { Program } from "./program";

let program: Program;
test.beforeAll(async () => {
  program = await Program.on("salty_night");
});
test.afterAll(() => program?.end());

test("the accessibility check finds nothing in any view, by night", async ({ page }) => {
  const found: string[] = [];
  await page.addInitScript(() => localStorage.setItem("salty-theme", "night"));
  for (const path of VIEWS) {
    await show(program, page, path);
    const { violations } = await new AxeBuilder({ page })
      .withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"])
      .disableRules(["region"])
      .analyze();
    found.push(
      ...violations.map(
        (v) =>
          `${path}: ${v.id}: ${v.nodes
            .map((n) => `${n.target.join(" ")} ${n.any[0]?.message ?? ""}`)
            .slice(0, 3)
            .join(" | ")}`,
      ),
    );
  }
  expect(found).toEqual([]);
});
