/** What views do together: the command field, the grid, recipes as lines and forms, fixes, an empty pantry. */
import { expect, type Page, test } from "@playwright/test";
import { show as showIn } from "./every-view";
import { Program } from "./program";

let program: Program;
test.beforeAll(async () => {
  program = await Program.on("salty_views");
});
test.afterAll(() => program?.end());

const show = (page: Page, path: string) => showIn(program, page, path);
const lastMove = (page: Page) => page.getByTestId("last-move");

test("the command field finds records, views and actions by keyboard alone", async ({ page }) => {
  await show(page, "/shelves");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("smoke e");
  await expect(page.getByRole("option", { name: /Smoke eel/ }).first()).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("region", { name: "Recipe Smoke eel" })).toBeVisible();
  await page.keyboard.press("Control+k");
  await page.keyboard.type("go to log");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/log$/);
});

test("a record is found by a misspelt name, offered first the next time, and acted on from where it was found", async ({
  page,
}) => {
  await show(page, "/shelves");
  const option = (name: RegExp) => page.getByRole("option", { name });
  await page.keyboard.press("Control+k");
  await page.keyboard.type("tarerd kge");
  await expect(option(/Tarred keg.*Vessel.*use.*\d\.\d\d/)).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("complementary", { name: "Item Tarred keg" })).toBeVisible();
  await page.keyboard.press("Control+k");
  await expect(option(/./).first()).toContainText("Tarred keg");
  await page.keyboard.press("Tab");
  await expect(option(/New recipe for it/)).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(option(/Tarred keg/)).toBeVisible();
  await page.keyboard.type("rope");
  await expect(option(/^Rope/).first()).toBeVisible();
  await page.keyboard.press("Tab");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("textbox", { name: "New recipe line" })).toHaveValue(" -> 1 Rope");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("type cordage");
  await expect(page.getByText("Nothing found for")).toBeVisible();
  await page.keyboard.press("Control+a");
  await page.keyboard.type("cordage");
  await expect(option(/Cordage type, 13 items/)).toBeVisible();
  await page.keyboard.press("Control+a");
  await page.keyboard.type("mud crab");
  await page.keyboard.press("Tab");
  await page.keyboard.press("End");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("complementary", { name: "Item Mud crab 2" })).toBeVisible();
});

test("what is typed stands in full, in the field and in the address, however quick the keys and slow the machine", async ({
  page,
}) => {
  const client = await page.context().newCDPSession(page);
  const slower = (rate: number) => client.send("Emulation.setCPUThrottlingRate", { rate });
  // The address catches up now before the next key, now after it, now just with it.
  for (const [path, field, text, paces] of [
    ["/shelves", "Search the shelves", "smoked eel", [30, 60, 100, 160]],
    ["/costs", "Search costs", "coarse salt", [60]],
    ["/recipes", "Search the book", "smoke eel", [100]],
    ["/tasting?tab=use&who=ferry_hand", "Damage per second, or a pasted curve", "0.125", [30]],
  ] as const) {
    await show(page, path);
    const box = page.getByLabel(field);
    for (const delay of paces) {
      await box.fill("");
      await slower(6);
      await box.focus();
      await page.keyboard.type(text, { delay });
      await slower(1);
      await expect.poll(() => [...new URL(page.url()).searchParams.values()]).toContain(text);
      await expect(box).toHaveValue(text);
    }
  }
  // What the address says is shown.
  await show(page, "/shelves?text=rope");
  await expect(page.getByLabel("Search the shelves")).toHaveValue("rope");
});

test("the grid moves, selects, fills, copies and pastes as a spreadsheet does", async ({ page, context }) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  // A slow server must not change what the keys do.
  await page.route("**/changes", async (route) => {
    await new Promise((done) => setTimeout(done, 600));
    await route.continue();
  });
  await show(page, "/shelves?type=tool");
  const grid = page.getByRole("grid", { name: "Items" });
  const cell = (row: number, column: number) =>
    grid.locator(`[role=row][aria-rowindex="${row}"] [role=gridcell][aria-colindex="${column}"]`);
  await grid.focus();
  await page.keyboard.press("Control+Home");
  for (let i = 0; i < 3; i++) await page.keyboard.press("ArrowRight");
  await page.keyboard.type("11");
  await page.keyboard.press("Enter");
  await expect(cell(2, 4)).toHaveText("11");
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("Shift+ArrowDown");
  await page.keyboard.press("Shift+ArrowDown");
  await page.keyboard.press("Control+d");
  await expect(cell(4, 4)).toHaveText("11");
  await page.keyboard.press("Control+c");
  const copied = () => page.evaluate(() => navigator.clipboard.readText());
  await expect.poll(copied).toBe("11\n11\n11");
  await page.evaluate(() => navigator.clipboard.writeText("21\t1\n22\t2"));
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+Home");
  for (let i = 0; i < 3; i++) await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Control+v");
  await expect(cell(3, 4)).toHaveText("22");
  await expect(cell(3, 5)).toHaveText("2");
  // Cut here, put back there: one value into every selected cell.
  await page.keyboard.press("Control+x");
  await expect(cell(2, 4)).toHaveText("–");
  await expect.poll(copied).toBe("21");
  await page.keyboard.press("Shift+ArrowDown");
  await page.keyboard.press("Control+v");
  await expect(cell(2, 4)).toHaveText("21");
  await expect(cell(3, 4)).toHaveText("21");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+Home");
  for (let i = 0; i < 3; i++) await page.keyboard.press("ArrowRight");
  // A stack limit of its own is put back to the inherited one.
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Delete");
  await expect(cell(3, 5).locator(".ink-inherited")).toHaveText("1");
  // What can't be read is refused with a reason, and nothing is written.
  await page.keyboard.type("many");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert").filter({ hasText: "“many” isn't a number" })).toBeVisible();
  // A name completes.
  await page.keyboard.press("Control+Home");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.type("boat");
  await page.keyboard.press("Enter");
  // What another type changes is shown before; Enter goes on.
  await expect(page.getByRole("dialog").getByRole("region", { name: "What changes" })).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("last-move")).toContainText("→ Boat part");
  await page.keyboard.press("Control+z");
  await expect(page.getByTestId("last-move")).toContainText("Undo");
});

test("prices of one rarity are raised together, seen before and after, written as one change and taken back", async ({
  page,
}) => {
  await show(page, "/shelves?rarity=storied");
  await page.getByRole("button", { name: "Edit all" }).click();
  const dialog = page.getByRole("dialog", { name: "Edit 7 items" });
  const rows = dialog.getByRole("region", { name: "Before and after" });
  await expect(rows).toContainText("Enter a value to preview every change");
  await dialog.getByLabel("Value").fill("lots");
  await expect(dialog.getByRole("alert")).toContainText("“lots” isn't a number");
  await dialog.getByLabel("Value").fill("12");
  await dialog.getByLabel("Round to multiples of").fill("5");
  await expect(rows.getByRole("row", { name: /Bell buoy 150 170/ })).toBeVisible();
  await expect(dialog.getByRole("status")).toContainText("1 item would not change");
  await dialog.getByRole("button", { name: "Preview impact" }).click();
  await expect(dialog.getByRole("status")).toContainText("nothing else would change");
  await dialog.getByRole("button", { name: "Save 6 values" }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByRole("row", { name: /Bell buoy/ })).toContainText("170.00");
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("row", { name: /Bell buoy/ })).toContainText("150.00");
});

test("many pasted lines get a verdict each before anything is written", async ({ page }) => {
  await show(page, "/recipes?paste=1");
  await page
    .getByRole("textbox", { name: "Recipe lines" })
    .fill("Twist cord: 2 Hemp yarn -> 1 Cord in 10s\n3 Rope -> \nsalvage Cord -> 1 Hemp yarn");
  const verdicts = page.getByRole("list", { name: "Results" });
  await expect(verdicts).toContainText("Expected what it makes");
  await page.getByRole("button", { name: "Save 2 recipes and 1 stub" }).click();
  await expect(page.getByText("2 recipes written.")).toBeVisible();
  await expect(page.getByRole("textbox", { name: "Recipe lines" })).toHaveValue("3 Rope -> ");
});

test("fifty pasted lines are fixed by single keys and go in as one change", async ({ page }) => {
  await show(page, "/recipes?paste=1");
  const good = Array.from({ length: 46 }, (_, k) => `Bundle ${k + 2}: ${k + 2}x Rope => 1 Oakum .5% in ${k + 1} sec`);
  const lines = [...good, "~1500 Rope -> Oakum", "Rope 5 -> Oakum", "Rope -> Oakum .5", "2 Rope -> Oakum x5 40%, Tar"];
  const box = page.getByRole("textbox", { name: "Recipe lines" });
  await box.fill(lines.join("\n"));
  const verdict = (line: number) => page.getByRole("listitem", { name: `Line ${line}`, exact: true });
  await expect(verdict(1)).toContainText("saved as Bundle 2: 2 Rope -> 1 Oakum 0.5% in 1s");
  await expect(verdict(50)).toContainText("saved as 2 Rope -> 5 Oakum 40% + 1 Tar");
  await expect(page.getByText("3 lines have errors and stay here.")).toBeVisible();
  await verdict(47).focus();
  await page.keyboard.press("1");
  await expect(verdict(47)).toContainText("1500 Rope -> Oakum");
  await page.keyboard.press("ArrowDown");
  await expect(verdict(48)).toBeFocused();
  await page.keyboard.press("1");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("1");
  await expect(page.getByText("have errors")).toBeHidden();
  await page.getByRole("button", { name: "Save 50 recipes" }).click();
  await expect(page.getByTestId("last-move")).toContainText("50 recipes added");
});

test("salvage is suggested for all items of a type, looked at, and written and taken back as one change", async ({
  page,
}) => {
  await show(page, "/recipes");
  await page.getByRole("button", { name: "Suggest salvage" }).click();
  const dialog = page.getByRole("dialog", { name: "Suggest salvage" });
  await dialog.getByLabel("Items of the type").selectOption("Fixture");
  const row = (name: string) => dialog.getByRole("row", { name: new RegExp(name) });
  await expect(row("Salt pan")).toContainText("4 Clay + 1 Peat brick");
  await dialog.getByLabel("Give back, %").fill("140");
  await expect(dialog.getByRole("alert")).toHaveText("Enter a share above 0 and up to 100%.");
  await dialog.getByLabel("Give back, %").fill("50");
  await dialog.getByLabel("Rounding").selectOption("by chance");
  await expect(row("Salt pan")).toContainText("6 Clay + 2 Peat brick");
  await dialog.getByRole("button", { name: /^Save \d+ salvages$/ }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByTestId("last-move")).toContainText("12 recipes added");
  await page.keyboard.press("Control+z");
  await expect(page.getByTestId("last-move")).toContainText("Undo: 12 recipes removed");
});

test("the form and the line are two views of one recipe", async ({ page }) => {
  await show(page, "/recipes?recipe=lay_rope");
  const line = page.getByRole("textbox", { name: "Line of Lay rope" });
  await page.getByRole("textbox", { name: "From" }).first().fill("4");
  await page.keyboard.press("Enter");
  await expect(line).toHaveValue("Lay rope: 4 Hemp yarn -> 1 Rope at Ropewalk in 40s");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByTestId("last-move")).toContainText("Lay rope: Hemp yarn 3 → 4");
});

test("what comes by chance stands under a recipe and follows the line while it is typed", async ({ page }) => {
  await show(page, "/recipes?recipe=break_crate");
  const chances = page.getByRole("region", { name: "Random results" });
  const row = (name: string) => chances.getByRole("row", { name: new RegExp(`^${name}`) });
  await expect(row("Glass float")).toContainText("95.0625%");
  await expect(row("Glass float")).toContainText("14, 46, 91");
  await chances.getByLabel("Runs", { exact: true }).fill("20");
  await expect(row("Alder plank")).toContainText("30");
  await expect(row("Glass float")).toContainText("36.3232%");
  await chances.getByLabel("Runs", { exact: true }).fill("0");
  await expect(chances).toContainText("A whole number from 1 to 10,000.");
  await chances.getByLabel("Runs", { exact: true }).fill("1");
  const line = page.getByRole("textbox", { name: "Line of Break crate" });
  await line.fill("Break crate: salvage 1 Wreck crate -> 1 Alder plank + 1 Rope 25%");
  await expect(row("Rope")).toContainText("75%");
  await expect(row("Glass float")).toHaveCount(0);
  await line.fill("Break crate: salvage 1 Wreck crate -> 1 Alder plank");
  await expect(chances).toHaveCount(0);
  await page.getByRole("button", { name: "Discard" }).click();
  await expect(row("Glass float")).toContainText("95.0625%");
});

test("a ready-made fix fixes a finding and can be undone", async ({ page }) => {
  await show(page, "/checks?rule=gaining-loop");
  await page.getByRole("button", { name: "Apply: Unravel sailcloth: give 5 Hemp yarn instead of 7" }).click();
  await expect(page.getByTestId("last-move")).toContainText("1 loop closed");
  await expect(page.getByText("No matching findings")).toBeVisible();
  await page.getByRole("contentinfo", { name: "Tideline" }).getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("figure", { name: /Weave sailcloth/ })).toBeVisible();
});

test("an empty pantry says in every view what belongs there", async ({ page }) => {
  await page.goto(`${program.base}/?all`);
  await page.getByRole("textbox", { name: "Name of the new pantry" }).fill("Fresh start");
  await page.getByRole("button", { name: "New pantry" }).click();
  await expect(page.getByText("No items yet")).toBeVisible();
  for (const [view, message] of [
    ["recipes", "No recipes yet"],
    ["checks", "No findings"],
    ["costs", "No items yet"],
    ["log", "No changes yet"],
    ["setup", "No types yet"],
  ]) {
    await page.goto(`${program.base}/fresh_start/${view}`);
    await expect(page.getByText(message)).toBeVisible();
  }
  await page.goto(`${program.base}/nowhere/shelves`);
  await expect(page.getByRole("heading", { name: "No such page" })).toBeVisible();
});

test("findings are accepted, turned off and fixed together, and what is new since a point is told", async ({
  page,
}) => {
  await show(page, "/log");
  await page.getByRole("button", { name: "Save point" }).click();
  const name = page.getByRole("textbox", { name: "Name of the point" });
  await expect(name).toBeFocused();
  await name.fill("First playtest");
  await name.press("Enter");
  await expect(lastMove(page)).toContainText("First playtest added");

  // One is accepted by keyboard, and is no longer counted.
  await show(page, "/checks?rule=dead-end");
  await page.getByRole("button", { name: "Accept…" }).press("Enter");
  const dialog = page.getByRole("dialog", { name: "Accept 1 finding" });
  await dialog.getByRole("textbox", { name: "Reason" }).fill("The stone is a keepsake.");
  await dialog.getByRole("button", { name: "Accept" }).press("Enter");
  await expect(page.getByText("No matching findings")).toBeVisible();
  await page.getByRole("radio", { name: /^Accepted 11$/ }).click();
  await expect(page.getByRole("region", { name: "Finding" })).toContainText("The stone is a keepsake.");

  // A check is turned off in Setup, which says what it would find.
  await show(page, "/setup?kind=severity");
  const row = page.getByRole("row", { name: /^Nearly identical names/ });
  const found = await row.getByRole("button").innerText();
  await row.getByRole("combobox").selectOption("off");
  await expect(row).toContainText(`would be ${found}`);

  // Two fixes of a group are one change.
  await show(page, "/checks?group=rule&text=sea+ginger");
  await page.getByRole("treeitem", { name: /^Salvage that differs from its rule/ }).click();
  await expect(page.getByRole("region", { name: "Finding" })).toContainText("1 finding");
  await show(page, "/checks?group=type");
  await page.getByRole("treeitem", { name: /^Recipes:/ }).click();
  await page.getByRole("button", { name: /^Fix \d+…$/ }).click();
  const fixes = page.getByRole("dialog", { name: /^Fix \d+ findings$/ });
  await fixes.getByRole("button", { name: "Preview impact" }).click();
  await expect(fixes.getByRole("status")).toContainText("1 loop closed");
  await fixes.getByRole("button", { name: /^Apply \d+ fixes$/ }).click();
  await expect(fixes).toHaveCount(0);
  await expect(lastMove(page)).toContainText("1 loop closed");

  // Since the point all of it is gone, except what was accepted: that is no news.
  await show(page, "/checks?show=changes&since=first_playtest");
  const list = page.getByRole("listbox", { name: "Findings" });
  await expect(list.getByRole("option", { name: /Gaining loop/ })).toBeVisible();
  await expect(list).toContainText("Nearly identical names");
  await expect(list).not.toContainText("Dead end");
  await list.getByRole("option", { name: /Gaining loop/ }).click();
  await expect(page.getByRole("region", { name: "Finding" })).toContainText(/is gone since revision \d+/);
  await expect(page.getByRole("img", { name: /^Open findings since revision/ })).toBeVisible();
});

test("a scenario is tried in every view, kept, and applied as one change; no one else sees it before", async ({
  page,
  context,
}) => {
  await show(page, "/shelves?text=net float");
  const bar = page.getByRole("region", { name: "Scenario", exact: true });
  const revision = page.getByText(/^Revision \d/);
  const before = await revision.innerText();
  // A value is typed into a cell and tried.
  const grid = page.getByRole("grid", { name: "Items" });
  await grid.focus();
  await page.keyboard.press("End");
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.type("7.5");
  await page.keyboard.press("Alt+Enter");
  await expect(bar).toContainText("1 edit");
  await expect(grid).toContainText("7.50");
  await expect(lastMove(page)).toContainText("What if: Sell price of Net float");
  await expect(revision).toHaveText(before);
  const other = await context.newPage();
  await show(other, "/shelves?text=net float");
  await expect(other.getByRole("grid", { name: "Items" })).not.toContainText("7.50");

  // A number is moved by keys, and its effects follow.
  await bar.getByRole("button", { name: "Details" }).click();
  const edits = page.getByRole("region", { name: "Edits" });
  await edits.getByRole("combobox", { name: "Kind of record" }).selectOption("source");
  await edits.getByRole("combobox", { name: "Record whose number is tried" }).fill("Peat cutting");
  await page.keyboard.press("Enter");
  await edits.getByRole("button", { name: /^Time 50s/ }).click();
  await edits.getByRole("slider", { name: "Time of Peat cutting" }).focus();
  await page.keyboard.press("End");
  await expect(edits.getByRole("textbox", { name: "Time of Peat cutting: value to try" })).toHaveValue("8m20s");
  const effects = page.getByRole("table", { name: "Costs and margins" });
  await expect(effects.getByRole("row", { name: /^Peat brick .*\+900%/ })).toBeVisible();
  await expect(page.getByRole("region", { name: "New findings" })).toContainText("Sold below cost");

  // Kept by name, it is opened elsewhere by its address.
  await bar.getByRole("button", { name: "Save as…" }).click();
  await page.getByRole("textbox", { name: "Name of the scenario" }).fill("Peat by the hour");
  await page.keyboard.press("Enter");
  await expect(bar).toContainText("Peat by the hour");
  await expect(page).toHaveURL(/scenario=peat_by_the_hour/);
  await page.getByRole("link", { name: "Chains" }).click();
  await expect(bar).toContainText("2 edits");
  await other.goto(`${program.base}/brackwater_reach/costs?view=what-if&scenario=peat_by_the_hour`);
  await expect(other.getByRole("table", { name: "Costs and margins" })).toContainText("Peat brick");
  await other.keyboard.press("F8");
  await expect(other.getByRole("button", { name: "Peat by the hour", exact: true })).toBeVisible();

  // One key leaves it, and another goes back; then it is made.
  await page.keyboard.press("F8");
  await expect(bar).toHaveCount(0);
  await page.keyboard.press("F8");
  await expect(bar).toContainText("2 edits");
  await bar.getByRole("button", { name: "Apply" }).click();
  await expect(bar).toHaveCount(0);
  await expect(lastMove(page)).toContainText("costs changed");
  await other.goto(`${program.base}/brackwater_reach/shelves?text=net float`);
  await expect(other.getByRole("grid", { name: "Items" })).toContainText("7.50");
  await other.close();
});
