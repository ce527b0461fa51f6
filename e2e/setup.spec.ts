/** Setting a pantry up: types that are inherited, sources, settings, the bundle, and the way back for each. */
import { expect, type Page, test } from "@playwright/test";
import { Program } from "./program";

let program: Program;
test.beforeAll(async () => {
  program = await Program.on("salty_setup");
});
test.afterAll(() => program?.end());

const show = async (page: Page, path: string) => {
  await page.goto(`${program.base}/brackwater_reach${path}`);
  await expect(page.locator("footer")).toContainText("errors");
};
const lastMove = (page: Page) => page.getByTestId("last-move");
const cell = (page: Page, grid: string, row: string, column: number) =>
  page
    .getByRole("grid", { name: grid })
    .locator("[role=row]", { hasText: row })
    .locator(`[role=gridcell][aria-colindex="${column}"]`)
    .first();

test("what a type says, its items inherit, until they say otherwise and are put back", async ({ page }) => {
  await show(page, "/setup?kind=type&as=grid");
  const stack = cell(page, "Types", "Kept fare", 5);
  await expect(page.getByRole("columnheader", { name: /Stack/ })).toHaveAttribute("aria-colindex", "5");
  await stack.click();
  await page.keyboard.type("12");
  await page.keyboard.press("Enter");
  await expect(lastMove(page)).toContainText("Stack limit of Kept fare nothing → 12");
  await show(page, "/shelves?item=smoked_eel");
  const sheet = page.getByRole("complementary", { name: "Item Smoked eel" });
  await expect(sheet.getByRole("button", { name: "Stack limit: 12, inherited from Kept fare. Edit" })).toBeVisible();
  await sheet.getByRole("button", { name: /^Stack limit: 12/ }).click();
  await sheet.getByRole("textbox", { name: "Stack limit" }).fill("5");
  await page.keyboard.press("Enter");
  await expect(sheet.getByRole("button", { name: "Stack limit: 5. Edit" })).toBeVisible();
  await sheet.getByRole("button", { name: "Stack limit: reset to inherited" }).click();
  await expect(sheet.getByRole("button", { name: /^Stack limit: 12, inherited/ })).toBeVisible();
});

test("types stand as a tree: by keyboard, with what each takes, says otherwise and adds", async ({ page }) => {
  await show(page, "/setup?kind=type");
  const tree = page.getByRole("tree", { name: "Types" });
  const chosen = tree.locator('[role=treeitem][aria-selected="true"]');
  const sheet = page.getByRole("region", { name: "Type Kept fare" });
  await expect(tree.getByRole("treeitem", { name: /Goods/ })).toHaveAttribute("aria-level", "1");
  await tree.focus();
  await page.keyboard.press("Home");
  await page.keyboard.press("k");
  await expect(chosen).toContainText("Kept fare");
  await expect(chosen).toHaveAttribute("aria-level", "3");
  await expect(page).toHaveURL(/record=kept_fare/);
  await expect(sheet.getByRole("button", { name: "Cooldown group: Meal, inherited from Fare. Edit" })).toBeVisible();
  await expect(sheet).toContainText("instead of 1 from Fare");
  // An item beside it follows while the type is edited.
  await sheet.getByRole("button", { name: /Smoked mullet/ }).click();
  const item = page.getByRole("complementary", { name: "Item Smoked mullet" });
  // It takes the focus when it is there.
  await expect(item).toBeVisible();
  await sheet.getByRole("button", { name: /^Show \d+ empty fields/ }).click();
  await sheet.getByRole("button", { name: /^Maximum owned/ }).click();
  await sheet.getByRole("textbox", { name: "Maximum owned" }).fill("7");
  await page.keyboard.press("Enter");
  await expect(item.getByRole("button", { name: "Maximum owned: 7, inherited from Kept fare. Edit" })).toBeVisible();
  await expect(sheet).toContainText("added here");
  // Closed and opened again, and a new one made under the chosen.
  await tree.focus();
  await page.keyboard.press("ArrowLeft");
  await expect(chosen).toContainText("Fare");
  await page.keyboard.press("ArrowLeft");
  await expect(chosen).toHaveAttribute("aria-expanded", "false");
  await expect(tree.getByRole("treeitem", { name: /Kept fare/ })).toHaveCount(0);
  await page.getByRole("button", { name: "New subtype" }).click();
  await expect(chosen).toContainText("New type");
  await expect(chosen).toHaveAttribute("aria-level", "3");
  await expect(page.getByRole("region", { name: "Type New type" })).toContainText("from Fare");
});

test("a source is written as a line, and what it costs follows", async ({ page }) => {
  await show(page, "/setup?kind=source&record=kelp_bar");
  await expect(cell(page, "Sources", "Kelp bar", 3)).toHaveText("3..5 Kelp + 2 Shell grit 60%");
  await cell(page, "Sources", "Kelp bar", 3).dblclick();
  await page.keyboard.press("Control+a");
  await page.keyboard.type("8 Kelp + 1 Sea glass 5%");
  await page.keyboard.press("Enter");
  await expect(lastMove(page)).toContainText("Sea glass added");
  await expect(lastMove(page)).toContainText("cost");
  await cell(page, "Sources", "Kelp bar", 4).click();
  await page.keyboard.type("soon");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert").filter({ hasText: "“soon” isn't a duration" })).toBeVisible();
});

test("a record in use is removed with another in its place, or stays, and its users are named", async ({ page }) => {
  await show(page, "/setup?kind=rarity&record=sound");
  const remove = page.getByRole("button", { name: "Remove Sound" });
  const dialog = page.getByRole("alertdialog", { name: "Remove Sound" });
  await remove.click();
  await expect(dialog).toContainText(/Sound is still used by \d+ records/);
  await expect(dialog.getByRole("list", { name: "Used by" })).toContainText("item Smoked eel");
  await dialog.getByRole("button", { name: "Cancel" }).click();
  await expect(remove).toBeVisible();
  await remove.click();
  const other = dialog.getByRole("combobox", { name: "Replacement for Sound" });
  await other.fill("Nobody");
  await page.keyboard.press("Enter");
  await expect(dialog.getByRole("alert")).toContainText("There is no other rarity called “Nobody”.");
  await other.fill("priz");
  await page.keyboard.press("Enter");
  await dialog.getByRole("button", { name: "Replace with Prized and remove" }).click();
  await expect(lastMove(page)).toContainText("1 rarity removed");
  await expect(page.getByRole("grid", { name: "Rarities" })).not.toContainText("Sound");
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("grid", { name: "Rarities" })).toContainText("Sound");
  // An item that recipes name may stay as a stub.
  await show(page, "/shelves?item=whetstone_blank");
  await page.getByRole("button", { name: "Remove Whetstone blank" }).click();
  await page.getByRole("button", { name: "Keep as a stub" }).click();
  await expect(lastMove(page)).toContainText("Status of Whetstone blank ready → stub");
  await page.keyboard.press("Control+z");
  await show(page, "/setup?kind=rarity");
  await page.getByRole("button", { name: "New rarity" }).click();
  await expect(lastMove(page)).toContainText("New rarity added");
  await page.getByRole("button", { name: "Remove New rarity" }).click();
  await expect(lastMove(page)).toContainText("New rarity removed");
});

test("the worth of an hour moves every gathered cost, and undo from the log moves them back", async ({ page }) => {
  await show(page, "/setup?kind=pantry");
  await page.getByRole("button", { name: /^Value of an hour of play: 60/ }).click();
  await page.getByRole("textbox", { name: "Value of an hour of play" }).fill("120");
  await page.keyboard.press("Enter");
  await expect(lastMove(page)).toContainText("costs changed");
  await page.getByRole("link", { name: "Log" }).click();
  const row = page.getByRole("row", { name: /Value of an hour of Brackwater Reach 60 → 120/ });
  await row.getByRole("button", { name: /^Undo revision/ }).click();
  await expect(page.getByRole("row", { name: /undone/ }).first()).toContainText("60 → 120");
  await expect(lastMove(page)).toContainText("Undo");
});

test("a bundle shows what it would change before it is written, and says where it is wrong", async ({ page }) => {
  await show(page, "/setup?kind=pantry");
  const bundle = {
    format: "salty-pantry-bundle",
    version: 1,
    items: [
      { key: "net_float", sell: 9 },
      { key: "bait_tin", name: "Bait tin" },
    ],
  };
  const pick = (name: string, text: string) =>
    page.getByLabel("Bundle file").setInputFiles({ name, mimeType: "application/json", buffer: Buffer.from(text) });
  await pick("wrong.json", JSON.stringify({ ...bundle, items: [{ key: "bait_tin", stack: "many" }] }));
  await expect(page.getByRole("region", { name: "Bundle" }).getByRole("alert")).toContainText(
    "items[0].stack: “many” isn't a number.",
  );
  await pick("right.json", JSON.stringify(bundle));
  await expect(page.getByText("1 record new, 1 changed, 0 removed")).toBeVisible();
  await page.getByRole("button", { name: "Import", exact: true }).click();
  await expect(page.getByText("right.json was imported")).toBeVisible();
  await expect(lastMove(page)).toContainText("Sell price of Net float 3 → 9; Bait tin added");
});

test("a large import shows how far it is, and leaves nothing when it is called off", async ({ page }) => {
  await show(page, "/setup?kind=pantry");
  const revision = () => page.getByText(/^Revision \d/).textContent();
  const before = await revision();
  const items = Array.from({ length: 30_000 }, (_, k) => ({ name: `Float ${k}` }));
  const text = JSON.stringify({ format: "salty-pantry-bundle", version: 1, items });
  await page
    .getByLabel("Bundle file")
    .setInputFiles({ name: "floats.json", mimeType: "application/json", buffer: Buffer.from(text) });
  const bundle = page.getByRole("region", { name: "Bundle" });
  await expect(bundle.getByText("30,000 records new")).toBeVisible({ timeout: 60_000 });
  await page.getByRole("button", { name: "Import", exact: true }).click();
  await expect(page.getByRole("progressbar", { name: "Import of floats.json" })).toBeVisible();
  await page.getByRole("button", { name: "Cancel import" }).click();
  await expect(bundle).toContainText("Cancelled. Nothing was saved.");
  // The server is done with it before the next change, which is the next revision.
  await page.getByRole("tab", { name: /^Checks/ }).click();
  await page.getByRole("button", { name: /^Lowest sell price/ }).click();
  await page.getByRole("textbox", { name: /lowest sell price/i }).fill("0.9");
  await page.keyboard.press("Enter");
  await expect(lastMove(page)).toContainText("Lowest sell price");
  await expect.poll(revision).toBe(`Revision ${Number(before?.replace(/\D/g, "")) + 1}`);
});

test("the author's name stands in the log", async ({ page }) => {
  await show(page, "/shelves?item=rope");
  await page.getByRole("button", { name: "Enter your name" }).click();
  await page.getByRole("textbox", { name: "Your name, shown in the Log" }).fill("Tomas Örn");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  const sheet = page.getByRole("complementary", { name: "Item Rope" });
  await sheet.getByRole("button", { name: /^Level: 3/ }).click();
  await sheet.getByRole("textbox", { name: "Level" }).fill("4");
  await page.keyboard.press("Enter");
  await expect(sheet.getByRole("region", { name: "History" })).toContainText("Tomas Örn");
});

test("an own picture is brought, seen on the shelves, and one that is none is refused", async ({ page }) => {
  await show(page, "/shelves?item=river_eel");
  const sheet = page.getByRole("complementary", { name: "Item River eel" });
  await sheet.getByRole("button", { name: /^Icon:/ }).click();
  const file = (text: string) => ({ name: "eel.svg", mimeType: "image/svg+xml", buffer: Buffer.from(text) });
  await page.getByLabel("Picture file").setInputFiles(file("<html></html>"));
  await expect(page.getByText("This isn't a PNG, WebP or SVG file.")).toBeVisible();
  await page
    .getByLabel("Picture file")
    .setInputFiles(
      file(
        '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 8 8"><rect width="8" height="8" fill="#0a6650"/></svg>',
      ),
    );
  await expect(lastMove(page)).toContainText("con of River eel");
  const picture = page.getByRole("grid", { name: "Items" }).locator("img").first();
  await expect(picture).toBeVisible();
  await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(0);
});

test("an icon is found by a plain word and given to an item", async ({ page }) => {
  await show(page, "/shelves?item=lead_sinker");
  await page.getByRole("button", { name: /^Icon: fishing-lure/ }).click();
  await page.getByRole("textbox", { name: "Search icons" }).fill("anchor");
  await page.getByRole("button", { name: "anchor", exact: true }).click();
  await expect(page.getByRole("button", { name: /^Icon: anchor/ })).toBeVisible();
});
