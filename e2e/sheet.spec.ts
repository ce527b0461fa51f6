/** The item sheet and the costs: a designer's ten minutes with one item, by mouse and by keyboard. */
import { expect, type Page, test } from "@playwright/test";
import { Program } from "./program";

let program: Program;
test.beforeAll(async () => {
  program = await Program.on("salty_sheet");
});
test.afterAll(() => program?.end());

const show = async (page: Page, path: string) => {
  await page.goto(`${program.base}/brackwater_reach${path}`);
  await expect(page.locator("footer")).toContainText("errors");
};
const moved = (page: Page) => page.getByTestId("last-move");

test("an item gets a recipe, a salvage and a source from its sheet, and its cost follows each", async ({ page }) => {
  await show(page, "/shelves?new=1");
  const sheet = page.getByRole("complementary", { name: "Item New item" });
  await expect(moved(page)).toContainText("New item added");
  await sheet.getByRole("button", { name: /^Name: New item/ }).click();
  await sheet.getByRole("textbox", { name: "Name" }).fill("Kelp lamp");
  await page.keyboard.press("Enter");
  await expect(moved(page)).toContainText("renamed to Kelp lamp");
  const lamp = page.getByRole("complementary", { name: "Item Kelp lamp" });
  await expect(lamp.getByText("No recipe makes it.")).toBeVisible();
  await expect(page).toHaveURL(/item=kelp_lamp/);
  // A recipe: the line is begun, the name completes with Tab, Enter writes.
  await lamp.getByRole("button", { name: "Add a recipe that makes it" }).click();
  const line = lamp.getByRole("textbox", { name: "New recipe line" });
  await line.fill("2 Kelp + 1 Glass floa");
  await page.keyboard.press("Tab");
  await expect(line).toHaveValue("2 Kelp + 1 Glass float ");
  await line.fill("2 Kelp + 1 Glass float -> 1 Kelp lamp in 30s");
  await page.keyboard.press("Enter");
  await expect(moved(page)).toContainText("Kelp lamp added");
  await expect(lamp.getByRole("region", { name: "Made by" }).getByText("Kelp lamp").first()).toBeVisible();
  const cost = lamp.getByRole("region", { name: "Cost of one" });
  await expect(cost.getByText("in total")).toBeVisible();
  await expect(cost).toContainText("Blow float");
  // The same in time.
  await cost.getByRole("button", { name: / time$/ }).click();
  await expect(cost.locator("tr").last()).toContainText(/\d+ (s|min)/);
  // Salvage that gives back too much opens a loop; the sheet says so.
  await lamp.getByRole("button", { name: "Add salvage" }).click();
  await lamp.getByRole("textbox", { name: "New recipe line" }).fill("salvage Kelp lamp -> 3 Glass float + 2 Kelp");
  await page.keyboard.press("Enter");
  await expect(moved(page)).toContainText("1 loop opened");
  await expect(lamp.getByRole("list", { name: "Findings" })).toContainText("2 recipes give 2 Glass float");
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await expect(moved(page)).toContainText("1 loop closed");
  await expect(lamp).toContainText("No salvage recipe");
  await expect(cost.locator("tr").last()).toContainText(/\d+ (s|min)/);
  // A source of its own is cheaper, and can be made dearer where it stands.
  await lamp.getByRole("button", { name: "Add source" }).click();
  const found = lamp.getByRole("region", { name: "Found at" });
  await expect(found.getByText("Gather Kelp lamp")).toBeVisible();
  await found.getByRole("button", { name: /^Time of one run/ }).click();
  await found.getByRole("textbox", { name: "Time of one run" }).fill("2h");
  await page.keyboard.press("Enter");
  await expect(found.getByText("2h")).toBeVisible();
  // What can't be a time is refused where it was typed.
  await found.getByRole("button", { name: /^Time of one run/ }).click();
  await found.getByRole("textbox", { name: "Time of one run" }).fill("soon");
  await page.keyboard.press("Enter");
  await expect(found.getByRole("alert")).toContainText("“soon” isn't a duration");
  // Before it is removed, what uses it is shown.
  await lamp.getByRole("button", { name: "Remove Kelp lamp" }).click();
  const inUse = page.getByRole("alertdialog", { name: "Remove Kelp lamp" });
  await expect(inUse.getByRole("list", { name: "Used by" })).toContainText("recipe");
  await page.keyboard.press("Escape");
  await expect(inUse).toBeHidden();
  await lamp.getByRole("button", { name: "Close the sheet" }).click();
  await expect(lamp).toBeHidden();
});

test("costs are filtered, ordered by keyboard-reachable heads, and taken apart", async ({ page }) => {
  await show(page, "/costs");
  const grid = page.getByRole("grid", { name: "Costs" });
  const first = grid.locator('[role=row][aria-rowindex="2"] [role=gridcell]').first();
  await expect(page.getByRole("region", { name: /^Cost of / }).first()).toBeVisible();
  const dearest = await first.textContent();
  await grid.getByRole("button", { name: "Cost", exact: true }).click();
  await expect(first).not.toHaveText(dearest ?? "");
  // What can't be had has no cost and stands last, up or down.
  for (let turn = 0; turn < 2; turn++) {
    await grid.focus();
    await page.keyboard.press("Control+End");
    await expect(grid.locator("[role=row]").last().locator("[role=gridcell]").nth(1)).toHaveText("–");
    await grid.getByRole("button", { name: "Cost", exact: true }).click();
  }
  await page.getByRole("radio", { name: "Sold below cost" }).click();
  const counted = page.getByText(/^\d+ items, costs in value units$/);
  await expect.poll(async () => Number.parseInt(await counted.innerText(), 10)).toBeLessThan(20);
  const losing = Number.parseInt(await counted.innerText(), 10);
  await page.getByRole("searchbox", { name: "Search costs" }).fill("zzz");
  await expect(page.getByText("No matching items")).toBeVisible();
  await page.getByRole("searchbox", { name: "Search costs" }).fill("");
  await expect(page.getByText(`${losing} items, costs in value units`)).toBeVisible();
  // A price is edited in the grid; the margin beside it follows.
  await grid.focus();
  await page.keyboard.press("Control+Home");
  for (let i = 0; i < 4; i++) await page.keyboard.press("ArrowRight");
  await expect(grid.locator('[role=gridcell][aria-selected="true"][aria-colindex="5"]')).toBeVisible();
  await page.keyboard.type("400");
  await page.keyboard.press("Enter");
  await expect(page.getByText(`${losing - 1} items, costs in value units`)).toBeVisible();
});

test("the log pages back, opens a change with its edits, and a record tells its own history", async ({ page }) => {
  await show(page, "/shelves?item=river_eel");
  const sheet = page.getByRole("complementary", { name: "Item River eel" });
  for (const level of ["3", "4"]) {
    await sheet.getByRole("button", { name: /^Level: / }).click();
    await sheet.getByRole("textbox", { name: "Level" }).fill(level);
    await page.keyboard.press("Enter");
    await expect(moved(page)).toContainText(`→ ${level}`);
  }
  await expect(sheet.getByRole("region", { name: "History" })).toContainText("Level of River eel 3 → 4");
  await show(page, "/log");
  await page.getByRole("button", { name: "Level of River eel 3 → 4" }).click();
  await expect(page.getByRole("row").filter({ hasText: "River eel, level: 3 → 4" })).toBeVisible();
  await page.getByRole("button", { name: /^Imported brackwater-reach/ }).click();
  await expect(page.getByText(/^and \d+ more edits$/)).toBeVisible();
});

test("the sheet is as wide as the person made it, after a reload too", async ({ page }) => {
  await show(page, "/shelves?item=river_eel");
  const sheet = page.getByRole("complementary", { name: "Item River eel" });
  const edge = sheet.getByRole("separator", { name: "Width of the sheet" });
  const width = async () => Math.round((await sheet.boundingBox())?.width ?? 0);
  const before = await width();
  await edge.focus();
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("ArrowLeft");
  await expect(edge).toHaveAttribute("aria-valuenow", String(before + 32));
  await page.reload();
  await expect(edge).toHaveAttribute("aria-valuenow", String(before + 32));
  await expect.poll(width).toBe(before + 32);
  const box = await edge.boundingBox();
  await page.mouse.move((box?.x ?? 0) + 3, 300);
  await page.mouse.down();
  await page.mouse.move((box?.x ?? 0) - 97, 300, { steps: 4 });
  await page.mouse.up();
  await expect.poll(width).toBeGreaterThan(before + 100);
  await edge.focus();
  await page.keyboard.press("Enter");
  await expect.poll(width).toBe(before);
});

test("the last three changes are taken back after a reload, and brought back after another", async ({ page }) => {
  await show(page, "/shelves?item=mud_crab");
  const sheet = page.getByRole("complementary", { name: "Item Mud crab" });
  const level = (value: string) => sheet.getByRole("button", { name: new RegExp(`^Level: ${value}\\. Edit`) });
  for (const value of ["3", "4", "5"]) {
    await sheet.getByRole("button", { name: /^Level: / }).click();
    await sheet.getByRole("textbox", { name: "Level" }).fill(value);
    await page.keyboard.press("Enter");
    await expect(level(value)).toBeVisible();
  }
  await page.reload();
  await expect(level("5")).toBeVisible();
  // What can be taken back is known a moment after the page is there.
  const ready = (name: string) => expect(page.getByRole("button", { name, exact: true })).toBeEnabled();
  for (const value of ["4", "3", "2"]) {
    await ready("Undo");
    await page.keyboard.press("Control+z");
    await expect(level(value)).toBeVisible();
  }
  await page.reload();
  await expect(level("2")).toBeVisible();
  for (const value of ["3", "4", "5"]) {
    await ready("Redo");
    await page.keyboard.press("Control+Shift+z");
    await expect(level(value)).toBeVisible();
  }
  // Another window has no part in it.
  const other = await page.context().newPage();
  await show(other, "/shelves");
  await expect(other.getByRole("button", { name: "Undo", exact: true })).toBeDisabled();
});

test("a new item is of the type and tag that are shown; its copy has uses of its own", async ({ page }) => {
  await show(page, "/setup?kind=type&record=kept_fare");
  await page.getByRole("button", { name: "New item of this type" }).click();
  const sheet = page.getByRole("complementary", { name: "Item New item" });
  await expect(moved(page)).toContainText("New item added");
  await expect(page).toHaveURL(/type=kept_fare/);
  await expect(sheet.getByRole("button", { name: /^Type: Kept fare\b/ })).toBeVisible();
  await page.keyboard.press("Escape");

  await show(page, "/shelves?item=smoked_eel");
  await page.getByRole("button", { name: "Duplicate" }).click();
  const copy = page.getByRole("complementary", { name: "Item Smoked eel 2" });
  await expect(copy.getByRole("textbox", { name: "Line of Eat" })).toHaveValue(/Warm 15s/);
});
