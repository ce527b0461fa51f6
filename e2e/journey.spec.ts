/** A designer's first hour, on the production build: from an open demo to a fixed loop, across a restart. */
import { expect, type Page, test } from "@playwright/test";
import { Program } from "./program";

let program: Program;
const errors: string[] = [];
const open = async (page: Page, path: string) => {
  page.on("pageerror", (e) => errors.push(e.message));
  page.on(
    "console",
    (m) => m.type() === "error" && !/net::ERR|Failed to load resource/.test(m.text()) && errors.push(m.text()),
  );
  await page.goto(`${program.base}/brackwater_reach${path}`);
  await expect(page.getByRole("contentinfo", { name: "Tideline" })).toContainText("errors");
};
const revision = async () =>
  ((await (await fetch(`${program.base}/api/health`)).json()) as { revision: number }).revision;
const tideline = (page: Page) => page.getByRole("contentinfo", { name: "Tideline" });
const lastMove = (page: Page) => page.getByTestId("last-move");

test.beforeAll(async () => {
  program = await Program.on("salty_journey");
});
test.afterAll(async () => {
  await program.end();
  expect(errors).toEqual([]);
});

const newItem = async (page: Page, name: string) => {
  await page.getByRole("button", { name: "New item", exact: true }).click();
  await expect(page.getByRole("textbox", { name: /^Item, row/ })).toBeFocused();
  // Each change is waited for: those that come while others are computed are told together.
  await expect(lastMove(page)).toContainText("New item added");
  await page.keyboard.type(name);
  await page.keyboard.press("Enter");
  await expect(lastMove(page)).toContainText(`renamed to ${name}`);
  await expect(page.getByRole("complementary", { name: `Item ${name}` })).toBeVisible();
};

test("the whole journey", async ({ page, context }) => {
  await open(page, "/shelves");
  const rows = () => page.getByRole("grid", { name: "Items" }).getAttribute("aria-rowcount").then(Number);
  await expect.poll(rows).toBeGreaterThan(150);
  const before = await rows();
  const second = await context.newPage();
  await open(second, "/recipes");

  await test.step("add two items", async () => {
    await newItem(page, "Heron feather");
    await newItem(page, "Feather duster");
    await expect.poll(rows).toBe(before + 2);
  });

  await test.step("write a recipe by line with a name that doesn't exist, and see the stub reported", async () => {
    await page.getByRole("link", { name: "Recipes" }).click();
    await page.getByRole("button", { name: "New recipe" }).click();
    const line = page.getByRole("textbox", { name: "New recipe line" });
    await line.pressSequentially("Bind duster: 4 Heron fea");
    await expect(page.getByRole("listbox", { name: "Names" })).toContainText("Heron feather");
    await page.keyboard.press("Tab");
    await line.pressSequentially("+ 1 Ash handle -> 1 Feather duster in 30s");
    await expect(page.getByText("“Ash handle” is new and becomes a stub.")).toBeVisible();
    await page.keyboard.press("Enter");
    await expect(lastMove(page)).toContainText("Ash handle added");
    await expect(lastMove(page)).toContainText("new finding");
    await page.getByRole("link", { name: /^Checks/ }).click();
    await page.getByRole("option", { name: /Ash handle is used by 1 recipe/ }).click();
    await expect(page.getByRole("region", { name: "Finding" })).toContainText("only a stub");
  });

  await test.step("the second window saw it without a reload", async () => {
    await second.getByRole("searchbox", { name: "Search the book" }).fill("duster");
    await expect(second.getByRole("option", { name: /Bind duster/ })).toBeVisible();
  });

  await test.step("define the stub and give things a source, and see cost and breakdown", async () => {
    await page.getByRole("button", { name: "Open: Define Ash handle" }).click();
    const sheet = page.getByRole("complementary", { name: "Item Ash handle" });
    await sheet.getByLabel("Status").selectOption("ready");
    // The sheet moves when the effects arrive: a button pressed at that moment is missed.
    await expect(lastMove(page)).toContainText("Status of Ash handle stub → ready");
    await sheet.getByRole("button", { name: "Add source" }).click();
    await expect(sheet.getByRole("region", { name: "Found at" })).toContainText("Gather Ash handle");
    await page.goto(`${program.base}/brackwater_reach/shelves?item=heron_feather`);
    const feather = page.getByRole("complementary", { name: "Item Heron feather" });
    await feather.getByRole("button", { name: "Add source" }).click();
    await expect(feather.getByRole("region", { name: "Found at" })).toContainText("Gather Heron feather");
    await page.goto(`${program.base}/brackwater_reach/shelves?item=feather_duster`);
    const duster = page.getByRole("complementary", { name: "Item Feather duster" });
    // Four feathers and a handle at half a minute each, and half a minute of binding: three shells.
    await expect(duster.getByRole("region", { name: "Cost of one" })).toContainText("3.00");
    await expect(duster.getByRole("region", { name: "Cost of one" })).toContainText("4 from Gather Heron feather");
  });

  await test.step("add a salvage that gives back more than it took, and see the loop with its numbers, also in the other window", async () => {
    const duster = page.getByRole("complementary", { name: "Item Feather duster" });
    await duster.getByRole("button", { name: "Add salvage" }).click();
    const line = duster.getByRole("textbox", { name: "New recipe line" });
    await line.fill("Pluck duster: salvage Feather duster -> 5 Heron feather + 1 Ash handle");
    const began = Date.now();
    await page.keyboard.press("Enter");
    await expect(lastMove(page)).toContainText("1 loop opened");
    test.info().annotations.push({ type: "enter to tideline, ms", description: String(Date.now() - began) });
    await expect(tideline(second)).toContainText("2 loops gain");
    await tideline(page)
      .getByRole("button", { name: /loops gain/ })
      .click();
    await page.getByRole("option", { name: /1 Heron feather from nothing/ }).click();
    const finding = page.getByRole("region", { name: "Finding" });
    await expect(finding.getByRole("figure", { name: /Bind duster 1 times/ })).toContainText("+1 Heron feather");
    await expect(finding).toContainText("It gains even with the worst rolls");
  });

  await test.step("undo, and see it gone", async () => {
    const before = await revision();
    await tideline(page).getByRole("button", { name: "Undo" }).click();
    await expect(lastMove(page)).toContainText("1 loop closed");
    await expect(page.getByRole("option", { name: /Heron feather from nothing/ })).toHaveCount(0);
    await expect(tideline(second)).toContainText("1 loop gains");
    await expect.poll(revision).toBe(before + 1);
  });

  await test.step("edit a cell by keyboard, and see the consequence", async () => {
    await page.goto(`${program.base}/brackwater_reach/shelves?text=net float`);
    const grid = page.getByRole("grid", { name: "Items" });
    await expect(grid).toHaveAttribute("aria-rowcount", "2");
    await grid.focus();
    await page.keyboard.press("End");
    await page.keyboard.press("ArrowLeft");
    await page.keyboard.type("4.5");
    await page.keyboard.press("Enter");
    await expect(lastMove(page)).toContainText("Sell price of Net float 3 → 4.5");
    await expect(lastMove(page)).toContainText("1 finding resolved");
  });

  await test.step("a conflict shows both values, and either can be kept", async () => {
    // A third window that hears nothing of the others edits an old value.
    const deaf = await context.newPage();
    await deaf.route("**/events", (r) => r.abort());
    await deaf.goto(`${program.base}/brackwater_reach/shelves?item=net_float`);
    const sheet = deaf.getByRole("complementary", { name: "Item Net float" });
    await expect(sheet).toBeVisible();
    await page.goto(`${program.base}/brackwater_reach/shelves?item=net_float`);
    const level = async (on: Page, from: number, to: string) => {
      await on
        .getByRole("complementary", { name: "Item Net float" })
        .getByRole("button", { name: `Level: ${from}. Edit` })
        .click();
      await on.getByRole("textbox", { name: "Level" }).fill(to);
      await on.keyboard.press("Enter");
    };
    await level(page, 6, "7");
    await expect(lastMove(page)).toContainText("Level of Net float 6 → 7");
    await level(deaf, 6, "9");
    const notice = deaf.getByRole("alertdialog");
    await expect(notice).toContainText("Someone else changed level of Net float");
    await expect(notice.getByRole("definition")).toHaveText(["7", "9"]);
    await notice.getByRole("button", { name: "Use mine" }).click();
    await expect(lastMove(page)).toContainText("Level of Net float 7 → 9");
    await deaf.close();
  });

  await test.step("reload and restart: everything is as it was", async () => {
    const before = await (await fetch(`${program.base}/api/pantries/brackwater_reach/bundle`)).text();
    const at = await revision();
    await page.reload();
    await expect(tideline(page)).toContainText("1 loop gains");
    expect(await program.end()).toBeLessThan(10_000);
    await expect(page.getByText("Offline, reconnecting")).toBeVisible();
    await program.start();
    await expect(page.getByText("Live", { exact: true })).toBeVisible();
    await expect.poll(revision).toBe(at);
    expect(await (await fetch(`${program.base}/api/pantries/brackwater_reach/bundle`)).text()).toBe(before);
  });
});
