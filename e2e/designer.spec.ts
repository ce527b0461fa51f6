/** A designer's day: fields of their own, a block with faults, a series, a table, each by keyboard as far as it goes. */
import { readFileSync, writeFileSync } from "node:fs";
import { expect, type Page, test } from "@playwright/test";
import { writeWorkbook } from "../src/core/exchange/table/workbook";
import { Program } from "./program";

let program: Program;
test.beforeAll(async () => {
  program = await Program.on("salty_designer");
});
test.afterAll(() => program?.end());

const show = async (page: Page, path: string) => {
  await page.goto(`${program.base}/brackwater_reach${path}`);
  await expect(page.locator("footer")).toContainText("errors");
};
const lastMove = (page: Page) => page.getByTestId("last-move");
const grid = (page: Page) => page.getByRole("grid", { name: "Items" });
/** Text as a spreadsheet would put it into the clipboard. */
const paste = (page: Page, text: string) =>
  page.evaluate((t) => {
    const data = new DataTransfer();
    data.setData("text/plain", t);
    document.activeElement?.dispatchEvent(
      new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }),
    );
  }, text);

test("a field is made, taken by a type, filled by a rule, and given another form with what is lost", async ({
  page,
}) => {
  await show(page, "/setup?kind=field");
  await page.getByRole("button", { name: "New field" }).click();
  const fields = page.getByRole("grid", { name: "Fields" });
  await expect(fields.getByRole("textbox")).toBeFocused();
  await expect(lastMove(page)).toContainText("New field added");
  await page.keyboard.type("Salted for");
  await page.keyboard.press("Enter");
  await expect(lastMove(page)).toContainText("renamed to Salted for");
  await fields.locator("[role=row]", { hasText: "Salted for" }).locator('[aria-colindex="3"]').click();
  await page.keyboard.type("decimal");
  await page.keyboard.press("Enter");
  await expect(lastMove(page)).toContainText("orm of Salted for text → decimal");

  await show(page, "/setup?kind=type&record=kept_fare");
  const sheet = page.getByRole("region", { name: "Type Kept fare" });
  await sheet.getByRole("button", { name: /^Salted for: nothing/ }).click();
  await sheet.getByRole("textbox", { name: "Salted for" }).fill("1.5");
  await page.keyboard.press("Enter");
  await sheet.getByLabel("Salted for: required").selectOption("yes");
  await expect(lastMove(page)).toContainText("required yes");
  await sheet.getByRole("button", { name: /^Maximum of Salted for/ }).click();
  await sheet.getByRole("textbox", { name: "Maximum of Salted for" }).fill("20");
  await page.keyboard.press("Enter");
  await expect(sheet.getByRole("button", { name: /^Maximum of Salted for.*20/ })).toBeVisible();
  await expect(lastMove(page)).toContainText("required yes, max 20");
  await expect(lastMove(page)).toContainText("Salted for of Kept fare");

  await show(page, "/shelves?type=kept_fare&item=smoked_eel");
  const item = page.getByRole("complementary", { name: "Item Smoked eel" });
  await expect(item.getByRole("button", { name: "Salted for: 1.5, inherited from Kept fare. Edit" })).toBeVisible();
  await page.getByRole("button", { name: "Edit all" }).click();
  await page.getByLabel("Field", { exact: true }).selectOption({ label: "Salted for" });
  await page.getByLabel("Action").selectOption("reckon as");
  await page.getByLabel("Value").fill("vigor / 2");
  await expect(page.getByRole("alert")).toContainText("Did you mean Vigour");
  await page.getByLabel("Value").fill("if(Vigour > 40, 30, Vigour / 2)");
  const preview = page.getByRole("region", { name: "Before and after" });
  await expect(preview.getByRole("row", { name: /Smoked eel/ })).toContainText("30");
  await page.getByRole("button", { name: /^Save \d+ values$/ }).click();
  await expect(item.getByRole("button", { name: "Salted for: 30. Edit" })).toBeVisible();
  await expect(item).toContainText("items of type Kept fare must have at most 20");

  await show(page, "/setup?kind=field&record=salted_for");
  await page.getByRole("button", { name: "Change form" }).click();
  await page.getByRole("alertdialog").getByRole("combobox", { name: /^Form/ }).selectOption("yes or no");
  await expect(page.getByRole("region", { name: "Values before and after" })).toContainText("isn't yes or no");
  await expect(page.getByRole("button", { name: /^Change and lose/ })).toBeVisible();
  await page.getByRole("alertdialog").getByRole("combobox", { name: /^Form/ }).selectOption("text");
  await page.getByRole("button", { name: "Change", exact: true }).click();
  await expect(lastMove(page)).toContainText("1 edit in fields");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(
    page.getByRole("grid", { name: "Fields" }).locator("[role=row]", { hasText: "Salted for" }),
  ).toContainText("decimal");
});

test("of a block of 500 cells the faults stay marked, the rest waits until it is told, and is undone as one", async ({
  page,
}) => {
  await show(page, "/shelves");
  await grid(page).focus();
  await page.keyboard.press("Control+Home");
  for (let k = 0; k < 3; k++) await page.keyboard.press("ArrowRight");
  await expect(page.getByRole("columnheader", { name: /Level/ })).toHaveAttribute("aria-colindex", "4");
  const block = Array.from({ length: 125 }, (_, r) =>
    [
      String((r % 20) + 1),
      r === 7 ? "none" : String(r + 1),
      r === 30 ? "0.5x" : "3",
      r % 50 === 9 ? "hot" : String(r % 30),
    ].join("\t"),
  ).join("\n");
  await paste(page, block);
  const told = page.getByRole("alert").filter({ hasText: "can't be read" });
  await expect(told).toContainText("5 cells can't be read and stay marked");
  await expect(grid(page).locator('[aria-invalid="true"]').first()).toHaveText("none");
  await expect(page.locator("footer"))
    .toContainText("Revision 1", { timeout: 1000 })
    .catch(() => undefined);
  await told.getByRole("button", { name: "Next" }).click();
  await expect(told).toContainText("Here:");
  await page.keyboard.type("4");
  await page.keyboard.press("Enter");
  await expect(told).toContainText("4 cells can't be read");
  await told.getByRole("button", { name: /^Save the other 495$/ }).click();
  await expect(lastMove(page)).toContainText(/\d{3} edits in items/);
  await expect(told).toContainText("4 cells can't be read");
  await told.getByRole("button", { name: "Discard" }).click();
  await expect(told).toHaveCount(0);
  await page.reload();
  await expect(page.locator("footer")).toContainText("errors");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(lastMove(page)).toContainText(/\d{3} edits in items/);
});

test("yes and no are toggled with Space, and a head is dragged to where another stands", async ({ page }) => {
  await show(page, "/shelves");
  await page.getByRole("button", { name: "Columns" }).click();
  await page.getByLabel("Can be dropped").check();
  await page.keyboard.press("Escape");
  const head = (name: string) => page.getByRole("columnheader", { name: new RegExp(name) });
  const dropped = Number(await head("Can be dropped").getAttribute("aria-colindex"));
  await grid(page).locator("[role=row]", { hasText: "Ash oar" }).locator(`[aria-colindex="${dropped}"]`).click();
  await page.keyboard.press(" ");
  await expect(lastMove(page)).toContainText("an be dropped of Ash oar nothing → yes");
  await page.keyboard.press(" ");
  await expect(lastMove(page)).toContainText("an be dropped of Ash oar yes → no");
  await head("Can be dropped")
    .getByRole("button", { name: "Can be dropped", exact: true })
    .dragTo(head("Level").getByRole("button").first());
  await expect(head("Can be dropped")).toHaveAttribute("aria-colindex", "4");
});

test("columns are filtered, moved and kept under a name that an address opens", async ({ page }) => {
  await show(page, "/shelves");
  await grid(page).focus();
  await page.keyboard.press("Control+Home");
  for (let k = 0; k < 3; k++) await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Alt+ArrowDown");
  const menu = page.getByRole("dialog", { name: "Column Level" });
  await menu.getByLabel("Value to compare with").fill("12..40");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/where=level\+between\+12\.\.40/);
  await expect(page.getByText(/^\d+ of \d+$/)).toBeVisible();
  const kept = await page.getByText(/^\d+ of \d+$/).innerText();
  await page.keyboard.press("Alt+ArrowDown");
  await menu.getByRole("button", { name: "Move right" }).click();
  await expect(page.getByRole("columnheader", { name: /Level/ })).toHaveAttribute("aria-colindex", "5");
  await page.getByRole("button", { name: "Views" }).click();
  await page.getByLabel("Name of the view").fill("From twelve on");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/view=from_twelve_on/);
  const other = await page.context().newPage();
  await show(other, "/shelves?view=from_twelve_on");
  await expect(other.getByText(/^\d+ of \d+$/)).toHaveText(kept);
  await expect(other.getByRole("button", { name: /^Remove filter: Level/ })).toBeVisible();
  await other.getByRole("button", { name: /^Remove filter: Level/ }).click();
  await expect(other.getByText(/^\d+ items$/)).toBeVisible();
});

test("a series of five with recipes, one step more, and other rules with what differs", async ({ page }) => {
  await show(page, "/shelves?item=gutting_knife");
  const item = page.getByRole("complementary", { name: "Item Gutting knife" });
  await item.getByRole("button", { name: "Make a series" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Steps after the first").fill("4");
  await dialog.getByLabel("Recipe for each step").fill("1 {before} + {n} Bog iron -> 1 {this} in 60s");
  await expect(dialog.getByRole("row", { name: /Gutting knife V/ })).toContainText(
    "1 Gutting knife IV + 5 Bog iron -> 1 Gutting knife V",
  );
  await dialog.getByRole("button", { name: "Save 4 steps" }).click();
  await expect(lastMove(page)).toContainText("4 items added, 4 recipes added, 1 series added");
  await item.getByRole("button", { name: "Series of 5" }).click();
  await dialog.getByRole("button", { name: "Add a step" }).click();
  await dialog.getByLabel("Rule 1: by").fill("2");
  await expect(dialog.getByRole("row", { name: /^2 Gutting knife II / })).toContainText("28");
  await dialog.getByLabel("Rule 1: by").fill("much");
  await expect(dialog.getByRole("alert")).toContainText("“much” isn't a number");
  await dialog.getByLabel("Rule 1: by").fill("1.4");
  await dialog.getByRole("button", { name: "Save 5 steps" }).click();
  await expect(item.getByRole("button", { name: "Series of 6" })).toBeVisible();
  // From one to the next without leaving the sheet.
  await page.keyboard.press("Alt+PageDown");
  await expect(page.getByRole("complementary", { name: "Item Gutting knife II", exact: true })).toBeVisible();
});

test("a workbook's faults are told cell by cell, the good rows go in, and what goes out comes back", async ({
  page,
}, info) => {
  const head = "Item;Category;Rarity;Price;Stack limit;Status;Smell;Watertight;Tags;Bite";
  const faults = [
    "Bread;Feast;;1;;ready;;;;",
    "Bun;;Odd;1;;ready;;;;",
    "Cake;;;many;;ready;;;;",
    "Dab;;;3-Jan;;ready;;;;",
    "Egg cup;;;1;0;ready;;;;",
    "Fig;;;1;1,5;ready;;;;",
    ";;;1;;ready;;;;",
    "Smoked eel;;;1;;ready;;;;",
    "Gum;;;1;;raedy;;;;",
    `${"x".repeat(121)};;;1;;ready;;;;`,
    "Ham;;;1;;ready;burnt;;;",
    "Ice;;;1;;ready;;perhaps;;",
    "Jam;;;1;;ready;;;;;more",
    "Lard;;;-1;;ready;;;;",
  ];
  const good = [
    "Smoked eel;Kept fare;Sound;13,5;12;ready;salty;;fish, keeps;3",
    "Salt herring;Kept fare;Sound;4,5;;ready;salty;;festival;2",
  ];
  const file = info.outputPath("stall.xlsx");
  writeFileSync(
    file,
    await writeWorkbook(
      [head, ...good, ...faults].map((line) => line.split(";")),
      "Stall",
    ),
  );
  await show(page, "/shelves");
  const before = Number.parseInt(await page.getByText(/^\d+ items$/).innerText(), 10);
  await page.getByRole("button", { name: "Import" }).click();
  await page.getByLabel("Table file").setInputFiles(file);
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Column Bite is imported as").selectOption("new stat");
  await expect(dialog.getByRole("tab", { name: /Rejected 14/ })).toBeVisible();
  await dialog.getByRole("tab", { name: /Rejected/ }).click();
  const refused = dialog.getByRole("list", { name: "Rejected rows" });
  for (const why of [
    "no type called “Feast”",
    "“many” isn't a number",
    "is a date",
    "The name is missing",
    "Row 2 is already for this item",
    "has no column heading",
  ])
    await expect(refused).toContainText(why);
  const [saved] = await Promise.all([
    page.waitForEvent("download"),
    dialog.getByRole("button", { name: "Save rejected rows" }).click(),
  ]);
  expect(readFileSync(await saved.path(), "utf8")).toContain("Problem");
  await dialog.getByText(/^Create 1 new type: Feast/).click();
  await expect(dialog.getByRole("tab", { name: /Rejected 13/ })).toBeVisible();
  await dialog.getByRole("tab", { name: /New/ }).click();
  await dialog.getByRole("button", { name: "Save 3 rows" }).click();
  await expect(lastMove(page)).toContainText("2 items added");
  await expect(page.getByText(`${before + 2} items`)).toBeVisible();
  await page.getByRole("button", { name: "Export" }).click();
  const [book] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Workbook" }).click(),
  ]);
  const path = info.outputPath("items.xlsx");
  await book.saveAs(path);
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Import" }).click();
  await page.getByLabel("Table file").setInputFiles(path);
  await expect(dialog.getByRole("tab", { name: /New 0/ })).toBeVisible();
  await expect(dialog.getByRole("tab", { name: /Changed 0/ })).toBeVisible();
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText(`${before} items`)).toBeVisible();
});

test("an item comes to another type after a look at what that changes", async ({ page }) => {
  await show(page, "/shelves?item=peat_spade");
  const item = page.getByRole("complementary", { name: "Item Peat spade" });
  await item.getByRole("button", { name: /^Type: Tool/ }).click();
  await item.getByRole("combobox", { name: "Type" }).fill("Curio");
  await page.keyboard.press("Enter");
  const dialog = page.getByRole("dialog");
  await expect(dialog.getByRole("region", { name: "What changes" })).toContainText("not available there");
  await dialog.getByRole("button", { name: "Cancel" }).click();
  await expect(item.getByRole("button", { name: /^Type: Tool/ })).toBeVisible();
  await item.getByRole("button", { name: /^Type: Tool/ }).click();
  await item.getByRole("combobox", { name: "Type" }).fill("Curio");
  await page.keyboard.press("Enter");
  await dialog.getByRole("button", { name: /^Move and remove/ }).click();
  await expect(item.getByRole("button", { name: /^Type: Curio/ })).toBeVisible();
});

test("a description names values, says which are gone, and stands on the player's card beside another", async ({
  page,
}) => {
  await show(page, "/shelves?item=fried_sprats");
  const item = page.getByRole("complementary", { name: "Item Fried sprats" });
  await item.getByRole("button", { name: /^Description:/ }).click();
  await item.getByLabel("Description text").fill("Restores **{vigour}** and {nerve}.");
  await expect(item.getByRole("alert")).toContainText("There is no value called “nerve”");
  await item.getByLabel("Description text").fill("Restores **{vigour}**.");
  await page.keyboard.press("Control+Enter");
  await expect(item.getByRole("button", { name: /^Description:/ })).toContainText("Restores 12.");
  await item.getByRole("button", { name: "Player's card" }).click();
  const dialog = page.getByRole("dialog");
  await expect(dialog.getByRole("article", { name: "Fried sprats, by night" })).toContainText("Restores 12.");
  await dialog.getByLabel("Item to compare").fill("Smoked eel");
  await page.keyboard.press("Enter");
  await expect(dialog.getByRole("row", { name: /Vigour/ })).toContainText("better");
});

test("the clock is changed with what is rounded, and a pantry begins with the setup of another", async ({ page }) => {
  await show(page, "/setup?kind=pantry");
  await page.getByRole("button", { name: "Change ticks per second" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Ticks per second").fill("0");
  await expect(dialog.getByRole("alert")).toContainText("0 is outside the range 1 to 1000");
  await dialog.getByLabel("Ticks per second").fill("3");
  await expect(dialog.getByRole("status")).toContainText("durations converted");
  await dialog.getByRole("button", { name: "Cancel" }).click();
  await page.goto(`${program.base}/?all=1`);
  await page.getByLabel("Name of the new pantry").fill("High water");
  await page.getByLabel("Setup to start from").selectOption({ label: "with the setup of Brackwater Reach" });
  await page.getByRole("button", { name: "New pantry" }).click();
  await expect(page).toHaveURL(/high_water\/setup/);
  await expect(page.getByRole("treeitem", { name: /Kept fare/ })).toBeVisible();
  await expect(page.getByRole("tab", { name: /Sources 0/ })).toBeVisible();
});
