/** Every way in which things become other things: patterns, variants, combinations, plans, and ways compared. */
import { expect, test } from "@playwright/test";
import { show as showIn } from "./every-view";
import { Program } from "./program";

let program: Program;
test.beforeAll(async () => {
  program = await Program.on("salty_ways");
});
test.afterAll(() => program?.end());

test("a pattern is changed by keyboard and by dragging, and its list of what goes in follows", async ({ page }) => {
  await showIn(program, page, "/recipes?recipe=plait_mat");
  const line = page.getByLabel("Line of Plait mat", { exact: true });
  const place = (row: number, column: number) => page.getByRole("gridcell", { name: `Row ${row}, column ${column}:` });
  await place(1, 1).click();
  await page.keyboard.press("ArrowRight");
  await expect(place(1, 2)).toBeFocused();
  await page.keyboard.type("osier withy");
  await page.keyboard.press("Enter");
  await expect(line).toHaveValue(/\[Reed bundle, Osier withy; Reed bundle, Reed bundle\] shifted/);
  await expect(page.getByText("Takes 3 Reed bundle and 1 Osier withy.")).toBeVisible();
  await place(2, 1).focus();
  await page.keyboard.press("Delete");
  await expect(line).toHaveValue(/\[Reed bundle, Osier withy; -, Reed bundle\]/);
  await place(1, 2).dragTo(place(2, 1));
  await expect(line).toHaveValue(/\[Reed bundle, -; Osier withy, Reed bundle\]/);
  await page.getByRole("checkbox", { name: "mirrored" }).check();
  await page.getByRole("combobox", { name: "wide" }).selectOption("3");
  await expect(line).toHaveValue(/\[Reed bundle, -, -; Osier withy, Reed bundle, -\] shifted mirrored/);
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("Revision 2", { exact: true })).toBeVisible();
  await page.reload();
  await expect(line).toHaveValue(/\[Reed bundle, -, -; Osier withy, Reed bundle, -\] shifted mirrored/);
});

test("two patterns that can't be told apart are found as soon as one is saved", async ({ page }) => {
  await showIn(program, page, "/recipes?new=1");
  const line = page.getByLabel("New recipe line", { exact: true });
  await line.fill("Second cage: pattern [Brass scrap, Brass scrap; Lamp glass, -] -> 1 Lantern cage at Knotting board");
  await expect(page.getByText("pattern", { exact: true }).first()).toBeVisible();
  await page.getByRole("button", { name: "Add recipe" }).click();
  // Left at once: what was sent is written all the same.
  await page.goto(`${program.base}/brackwater_reach/recipes?new=1`);
  await line.fill(
    "Third cage: pattern [Brass scrap, Brass scrap; -, Lamp glass] mirrored -> 1 Storm lantern at Knotting board",
  );
  await page.getByRole("button", { name: "Add recipe" }).click();
  await expect(page).toHaveURL(/recipe=third_cage/);
  await page.goto(`${program.base}/brackwater_reach/checks?rule=pattern-conflict`);
  await expect(page.getByText(/Second cage .*Third cage|Third cage .*Second cage/).first()).toBeVisible();
});

test("a variant is added in a box of its own, its fault told there, and the recipe itself stays", async ({ page }) => {
  await showIn(program, page, "/recipes?recipe=shave_oar");
  const line = page.getByLabel("Line of Shave oar", { exact: true });
  await expect(line).toHaveValue(/\| at Boatshed in 60s$/);
  const box = page.getByRole("region", { name: "Variants" });
  const fresh = box.getByRole("textbox", { name: "New variant" });
  await fresh.fill("using nothing");
  await fresh.press("Enter");
  await expect(box.getByText("A variant can't drop what its recipe needs.")).toBeVisible();
  await fresh.fill("-> 2 Ash oar using Keen knife in 3m");
  await fresh.press("Enter");
  await expect(line).toHaveValue(/in 2m \| at Boatshed in 60s \| -> 2 Ash oar using Keen knife in 3m$/);
  await box.getByRole("button", { name: "Remove variant 1" }).click();
  await expect(line).toHaveValue(/in 2m \| -> 2 Ash oar using Keen knife in 3m$/);
});

test("what two things give is typed where they meet; one-way pairs and gaps are seen", async ({ page }) => {
  await showIn(program, page, "/recipes?by=pair");
  const meet = (name: string) => page.getByRole("button", { name });
  await expect(page.getByText("1 pair in one order only")).toBeVisible();
  await expect(meet("Gutting knife on Whetstone blank: nothing")).toHaveText("other order only");
  await meet("Charcoal on Dulse: nothing").click();
  await page.keyboard.press("F2");
  await page.keyboard.type("2 Lamp black");
  await page.keyboard.press("Enter");
  await expect(meet("Charcoal on Dulse: 2 Lamp black")).toBeVisible();
  await expect(meet("Dulse on Charcoal: 2 Lamp black")).toBeVisible();
  await expect(meet("Charcoal on Dulse: 2 Lamp black")).toBeFocused();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("Delete");
  await expect(meet("Charcoal on Dulse: nothing")).toBeVisible();
  await meet("Charcoal on Fish oil: Lamp black").click();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("region", { name: "Recipe Smoke black" })).toBeVisible();
});

test("a basket is planned: steps in order, what is there is used, and it is kept in the address", async ({ page }) => {
  await showIn(program, page, "/costs?view=plan");
  await expect(page.getByText("The basket is empty")).toBeVisible();
  await page.getByRole("combobox", { name: "Add to basket" }).fill("smoked eel");
  await page.keyboard.press("Enter");
  const many = page.getByRole("textbox", { name: "Make: amount of Smoked eel" });
  await many.fill("20");
  await many.press("Enter");
  const steps = page.getByRole("region", { name: "Plan" });
  await expect(steps.getByRole("row", { name: /10 Smoke eel 20 River eel, 10 Coarse salt/ })).toBeVisible();
  await expect(steps.getByRole("row", { name: /4 Boil salt/ })).toBeVisible();
  await page.getByRole("combobox", { name: "Add to in stock" }).fill("coarse salt");
  await page.keyboard.press("Enter");
  const there = page.getByRole("textbox", { name: "Stock: amount of Coarse salt" });
  await there.fill("10");
  await there.press("Enter");
  await expect(steps.getByRole("row", { name: /Boil salt/ })).toHaveCount(0);
  await expect(page).toHaveURL(/make=smoked_eel\*20.*stock=coarse_salt\*10/);
  await page.getByRole("combobox", { name: "Confidence" }).selectOption("0.9");
  await expect(steps.getByText("Each step gives enough with 90% confidence.")).toBeVisible();
  await page.getByRole("combobox", { name: "Add to basket" }).fill("founders' bunting");
  await page.keyboard.press("Enter");
  const bunting = page.getByRole("textbox", { name: "Make: amount of Founders' bunting" });
  await bunting.fill("5");
  await bunting.press("Enter");
  await expect(steps.getByText("A world does not have that much Founders' bunting")).toBeVisible();
  // Printed it has the whole width, without the frame and the basket.
  await page.emulateMedia({ media: "print" });
  const printed = await page.getByRole("region", { name: "Plan", exact: true }).boundingBox();
  expect(printed?.width).toBeGreaterThan(1200);
  await expect(page.getByRole("navigation").first()).toBeHidden();
});

test("the ways of one item are compared, and what all of them give is changed and taken back as one", async ({
  page,
}) => {
  await showIn(program, page, "/costs?of=coarse_salt");
  const ways = page.getByRole("region", { name: "Compare alternatives" });
  await expect(ways.getByRole("row", { name: /^Boil salt .*1\.09/ })).toBeVisible();
  await expect(ways.getByRole("row", { name: /^Drain pan .*needs Charcoal/ })).toBeVisible();
  await ways.getByRole("textbox", { name: "Multiply the output of all of them" }).fill("2");
  await ways.getByRole("button", { name: /^Edit all/ }).click();
  await expect(ways.getByRole("row", { name: /^Boil salt .*0\.55/ })).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(ways.getByRole("row", { name: /^Boil salt .*1\.09/ })).toBeVisible();
});

test("the pantry at a glance leads into a chain and into the checks", async ({ page }) => {
  await showIn(program, page, "/chains");
  const glance = page.getByRole("region", { name: "Pantry overview" });
  await expect(glance.getByRole("row", { name: /^gathered/ })).toBeVisible();
  await expect(glance.getByText(/\d+ items? need it/).first()).toBeVisible();
  await glance
    .getByRole("row", { name: /^1 step/ })
    .getByRole("button")
    .first()
    .click();
  await expect(page).toHaveURL(/chains\?of=/);
  await page.goBack();
  await glance.getByRole("button", { name: /that gain/ }).click();
  await expect(page).toHaveURL(/\/checks/);
});

test("a salvage is kept as the rule of a type, and what says otherwise is found and fixed", async ({ page }) => {
  await showIn(program, page, "/shelves?item=osier_creel");
  await page.getByRole("button", { name: "Suggest salvage" }).click();
  const alone = page.getByRole("dialog", { name: "Suggest salvage" });
  await expect(alone.getByRole("row", { name: /Osier creel/ })).toContainText("It already has a salvage recipe.");
  await alone.getByRole("button", { name: "Close", exact: true }).first().click();
  await page.goto(`${program.base}/brackwater_reach/recipes`);
  await page.getByRole("button", { name: "Suggest salvage" }).click();
  const dialog = page.getByRole("dialog", { name: "Suggest salvage" });
  await dialog.getByLabel("Items of the type").selectOption("Vessel");
  await dialog.getByLabel("Give back, %").fill("50");
  await dialog.getByLabel("save as the salvage rule of the type").check();
  await dialog.getByRole("button", { name: /^Save/ }).click();
  await expect(dialog).toBeHidden();
  await page.goto(`${program.base}/brackwater_reach/checks?rule=salvage-drifted`);
  const drifted = page.getByText(
    "Split creel gives 2 Osier withy, but Salvage of Vessel returns 50% of the ingredients: 3 Osier withy.",
  );
  await drifted.first().click();
  await page.getByRole("button", { name: "Apply" }).first().click();
  await expect(drifted).toHaveCount(0);
});

test("many recipes are chosen by keyboard and mouse, changed in one step and taken back", async ({ page }) => {
  await showIn(program, page, "/shelves?item=coarse_salt");
  const uses = page.getByRole("region", { name: "Used in" });
  await uses.getByRole("button", { name: "Open in Recipes" }).click();
  await expect(page.getByLabel("Role of the item")).toHaveValue("takes");
  const book = page.getByRole("listbox", { name: "Recipes" });
  await expect(book.getByRole("option", { name: /^Smoke eel/ })).toBeVisible();
  await expect(book.getByRole("option", { name: /^Boil salt/ })).toHaveCount(0);
  await page.getByLabel("Role of the item").selectOption("Product");
  await expect(book.getByRole("option")).toHaveCount(3);
  await book.getByRole("option").first().click();
  await expect(page.getByRole("region", { name: "Recipe Boil salt" })).toBeVisible();
  await page.keyboard.press("Shift+ArrowDown");
  const chosen = page.getByRole("region", { name: "Selected recipes" });
  await expect(chosen).toContainText("2 selected");
  await page.keyboard.press("Control+a");
  await expect(chosen).toContainText("3 selected");
  await page.keyboard.press("Escape");
  await expect(chosen).toHaveCount(0);
  await book.getByRole("option", { name: /^Boil salt/ }).click();
  await book.getByRole("option", { name: /^Drain pan/ }).click({ modifiers: ["Control"] });
  await chosen.getByRole("button", { name: "Edit selected" }).click();
  const dialog = page.getByRole("dialog", { name: "Edit 2 recipes" });
  await dialog.getByLabel("Value").fill("3");
  await expect(dialog.getByRole("row", { name: /Boil salt/ })).toContainText("-> 9 Coarse salt");
  await dialog.getByLabel("Action").selectOption("exchange");
  await dialog.getByLabel("Value").fill("Brine");
  await dialog.getByLabel("Replacement").fill("Harbour brine");
  await expect(dialog.getByRole("row", { name: /Boil salt/ })).toContainText("6 Harbour brine");
  await dialog.getByRole("button", { name: "Save 2 values" }).click();
  await expect(dialog).toBeHidden();
  await expect(book.getByRole("option", { name: /^Drain pan/ })).toContainText("10 Harbour brine");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(book.getByRole("option", { name: /^Drain pan/ })).toContainText("10 Brine");
});

test("a stat of the maker and a batch are said in the form, and stand in the line", async ({ page }) => {
  await showIn(program, page, "/recipes?recipe=simmer_kelp");
  const line = page.getByLabel("Line of Simmer kelp", { exact: true });
  await page.getByLabel("Batch").fill("6");
  await page.getByLabel("Batch").press("Enter");
  await expect(line).toHaveValue(/in 45s batch 6$/);
  await page.getByRole("button", { name: "add a stat" }).click();
  await page.getByLabel("Stat of the maker").selectOption("Knack");
  await page.getByLabel("Chance in percent").last().fill("40");
  await page.getByLabel("Chance in percent").last().press("Enter");
  await page.getByLabel("Percent per point").fill("-0.5");
  await page.getByLabel("Percent per point").press("Enter");
  await expect(line).toHaveValue(/2 Kelp broth 40% minus 0.5% per Knack at Galley/);
  await page.getByRole("button", { name: "Save" }).click();
  await page.reload();
  await expect(line).toHaveValue(/minus 0.5% per Knack at Galley in 45s batch 6$/);
});
