/** What can't be read stays where it was typed, with the reason, until it is fixed or dropped; numbers as each writes them. */
import { expect, type Locator, test } from "@playwright/test";
import { withDefaults } from "../src/core/kinds/index";
import { newId } from "../src/core/schema/id";
import { show as showIn } from "./every-view";
import { Program } from "./program";

let program: Program;
test.beforeAll(async () => {
  program = await Program.on("salty_typing");
});
test.afterAll(() => program?.end());

/** Types, leaves, and sees it stay with a reason; Escape puts back what was there. */
async function staysUntilDropped(field: Locator, typed: string, reason: RegExp): Promise<void> {
  const before = await field.inputValue();
  await field.fill(typed);
  await field.press("Enter");
  await field.blur();
  await expect(field).toHaveValue(typed);
  await expect(field).toHaveAttribute("aria-invalid", "true");
  await expect(field.page().getByRole("alert").filter({ hasText: reason })).toBeVisible();
  await field.press("Escape");
  await expect(field).toHaveValue(before);
  await expect(field).toHaveAttribute("aria-invalid", "false");
}

test("in the form of a recipe nothing that is typed is lost, and nothing else is written", async ({ page }) => {
  await showIn(program, page, "/recipes?recipe=shave_oar");
  const line = page.getByLabel("Line of Shave oar", { exact: true });
  const written = await line.inputValue();
  const field = (name: string) => page.getByRole("textbox", { name, exact: true });
  await staysUntilDropped(field("Time"), "soon", /“soon” isn't a duration/);
  await staysUntilDropped(field("Fee"), "two", /“two” isn't a number/);
  await staysUntilDropped(field("Level"), "12 kg", /ends in “kg”/);
  await staysUntilDropped(field("Heat"), "hot", /“hot” isn't a duration/);
  await staysUntilDropped(field("Batch"), "1.5", /isn't a whole number/);
  await staysUntilDropped(field("From").first(), "3 dozen", /Enter 36/);
  await staysUntilDropped(field("To").first(), "-1", /outside the range 0 to/);
  await expect(line).toHaveValue(written);
  await field("Level").fill("7");
  await field("Level").press("Enter");
  await expect(line).toHaveValue(/ level 7/);
  await field("Time").fill("1 min 30 sec");
  await field("Time").blur();
  await expect(line).toHaveValue(/ in 90s level 7/);
});

test("a line is read as it is meant and says so, or asks what is meant", async ({ page }) => {
  await showIn(program, page, "/recipes?new=1");
  const line = page.getByLabel("New recipe line", { exact: true });
  await line.fill("3 pcs Hemp stalk -> Oakum for 90 sec");
  await expect(page.getByText("“3 pcs Hemp stalk” is read as 3 Hemp stalk.")).toBeVisible();
  await expect(page.getByText("“Oakum for 90 sec” is read as Oakum in 90s.")).toBeVisible();
  await line.fill("3 Hemp stalk -> Oakum .5");
  await expect(page.getByText("“Oakum .5” looks like “Oakum” with a chance. Enter Oakum 50%.")).toBeVisible();
  await expect(page.getByRole("button", { name: "Add recipe" })).toBeDisabled();
  await page.getByRole("button", { name: /Oakum 50%/ }).click();
  await expect(line).toHaveValue("3 Hemp stalk -> Oakum 50%");
});

test("a value on a sheet, a basket and a place of the matrix keep what can't be taken", async ({ page }) => {
  await showIn(program, page, "/shelves?item=oakum");
  const sheet = page.getByRole("complementary", { name: "Oakum" });
  await sheet.getByRole("button", { name: /^stack limit: .*Edit$/i }).click();
  const stack = sheet.getByRole("textbox", { name: /stack limit/i });
  await stack.fill("a few");
  await stack.press("Enter");
  await expect(stack).toHaveValue("a few");
  await expect(sheet.getByText("“a few” isn't a number.")).toBeVisible();
  await stack.fill("24");
  await stack.press("Enter");
  await expect(sheet.getByRole("button", { name: /^stack limit: 24\. Edit$/i })).toBeVisible();

  await page.goto(`${program.base}/brackwater_reach/costs?view=plan`);
  const add = page.getByRole("combobox", { name: "Add to basket" });
  await add.fill("20 oakum");
  await add.press("Enter");
  await expect(page.getByRole("textbox", { name: "Make: amount of Oakum" })).toHaveValue("20");
  await add.fill("20 no such thing");
  await add.blur();
  await expect(add).toHaveValue("20 no such thing");
  await expect(page.getByText("There is no item called “no such thing”.")).toBeVisible();
});

test("numbers are typed and shown as someone writes them, and kept in this browser", async ({ page }) => {
  await showIn(program, page, "/shelves?item=oakum");
  const sheet = page.getByRole("complementary", { name: "Oakum" });
  const edit = async (text: string) => {
    await sheet.getByRole("button", { name: /^mass: .*Edit$/i }).click();
    const mass = sheet.getByRole("textbox", { name: /mass/i });
    await mass.fill(text);
    await mass.press("Enter");
  };
  await edit("1,500");
  await expect(sheet.getByRole("button", { name: /^mass: 1500\b.*Edit$/i })).toBeVisible();
  await page.getByRole("button", { name: /Enter your name|You are/ }).click();
  await page.getByRole("combobox", { name: "Number format" }).selectOption("comma");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await edit("1,500");
  await expect(sheet.getByRole("button", { name: /^mass: 1,5\b.*Edit$/i })).toBeVisible();
  await edit("250 g");
  await expect(sheet.getByRole("button", { name: /^mass: 0,25\b.*Edit$/i })).toBeVisible();
  await page.reload();
  await expect(sheet.getByRole("button", { name: /^mass: 0,25\b.*Edit$/i })).toBeVisible();
});

test("rows of a table name each other, a part of a choice is asked, and an icon that is not there is told", async ({
  page,
}) => {
  await showIn(program, page, "/shelves");
  await page.getByRole("button", { name: "Import" }).click();
  const rows = [
    "Name,Vessel,Mass,Status,Icon",
    "Quay tonic,Quay bottle,250 g,draft,no-such-icon",
    "Quay bottle,,0.4,draft,yarn",
    "Quay cask,,5 min,draf,yarn",
  ];
  await page
    .getByLabel("Table file")
    .setInputFiles({ name: "quay.csv", mimeType: "text/csv", buffer: Buffer.from(rows.join("\n")) });
  const dialog = page.getByRole("dialog");
  await expect(dialog.getByText("There is no icon called “no-such-icon”")).toBeVisible();
  await dialog.getByRole("tab", { name: /Rejected 1/ }).click();
  const refused = dialog.getByRole("list", { name: "Rejected rows" });
  await expect(refused).toContainText("use kg, g, mg or t");
  await expect(refused).toContainText("Did you mean draft?");
  await dialog.getByRole("button", { name: "Save 2 rows" }).click();
  await expect(dialog).toBeHidden();
  await page.goto(`${program.base}/brackwater_reach/shelves?item=quay_tonic`);
  const sheet = page.getByRole("complementary", { name: "Quay tonic" });
  await expect(sheet.getByRole("button", { name: /^container: Quay bottle\. Edit$/i })).toBeVisible();
  await expect(sheet.getByRole("button", { name: /^mass: 0\.25\. Edit$/i })).toBeVisible();
});

test("what is typed into a grid stays in its row while someone else moves, changes and removes rows", async ({
  page,
}) => {
  interface Tag {
    readonly id: string;
    readonly key: string;
    readonly name: string;
  }
  const api = `${program.base}/api/pantries/brackwater_reach`;
  const pantry = async () => (await (await fetch(api)).json()) as { records: { tag: Tag[] } };
  const others = async (...edits: unknown[]) => {
    const answer = await fetch(`${api}/changes`, {
      method: "POST",
      body: JSON.stringify({ edits, note: "" }),
      headers: { "content-type": "application/json" },
    });
    expect(answer.status, await answer.clone().text()).toBeLessThan(300);
  };
  const tag = (name: string) => ({
    op: "add",
    kind: "tag",
    record: withDefaults("tag", { id: newId(), key: name.toLowerCase(), name }),
  });
  const called = async (name: string) => (await pantry()).records.tag.find((t) => t.name === name) as Tag;
  const names = async () => (await pantry()).records.tag.map((t) => t.name);
  await showIn(program, page, "/setup?kind=tag");
  const grid = page.getByRole("grid", { name: "Tags" });
  const editor = grid.getByRole("textbox");

  // A new record is named at once; Enter stays with it.
  await page.getByRole("button", { name: "New tag", exact: true }).click();
  await expect(editor).toBeFocused();
  await page.keyboard.type("Moored");
  await page.keyboard.press("Enter");
  await expect.poll(names).toContain("Moored");

  // Others' rows come in above: the text, the focus and the row stay.
  await page.keyboard.type("Moored for");
  await others(tag("Aback"), tag("Abeam"));
  await expect(grid.getByRole("row", { name: /Aback/ })).toBeVisible();
  await expect(editor).toBeFocused();
  await page.keyboard.type(" good");
  await expect(editor).toHaveValue("Moored for good");
  await page.keyboard.press("Enter");
  await expect.poll(names).toContain("Moored for good");

  // Left as it was, a cell keeps what someone else wrote into it.
  const { id } = await called("Moored for good");
  await grid.getByRole("gridcell", { name: "Moored for good" }).dblclick();
  await expect(editor).toHaveValue("Moored for good");
  await others({ op: "set", kind: "tag", id, field: "name", from: "Moored for good", to: "Made fast" });
  await expect(page.locator("footer")).toContainText(/Made fast|edits? in tags/);
  await page.keyboard.press("Tab");
  await expect(grid.getByRole("row", { name: /Made fast/ })).toBeVisible();
  expect(await names()).toContain("Made fast");

  // Removed by someone else: the text is not written to the row that is there now, and not lost.
  await grid.getByRole("gridcell", { name: "Made fast" }).dblclick();
  await editor.fill("Adrift");
  const before = await names();
  await others({ op: "remove", kind: "tag", record: await called("Made fast") });
  await expect(page.getByRole("alert").filter({ hasText: "“Adrift” was not saved" })).toBeVisible();
  await expect(grid).toBeFocused();
  expect(await names()).toEqual(before.filter((name) => name !== "Made fast"));
});
