/** From base materials to an item and on to what it is used for. */
import { readFileSync } from "node:fs";
import { expect, type Page, test } from "@playwright/test";
import { show as showIn } from "./every-view";
import { Program } from "./program";

let program: Program;
test.beforeAll(async () => {
  program = await Program.on("salty_chains");
});
test.afterAll(() => program?.end());
const show = (page: Page, path: string) => showIn(program, page, path);
const node = (page: Page, name: string) =>
  page.getByRole("region", { name: "The chain" }).getByRole("button", { name: new RegExp(`^${name}`) });

test("a chain is walked by keyboard, folded and followed, and another way is gone with what it costs", async ({
  page,
}) => {
  await show(page, "/chains?of=potash");
  const about = page.getByRole("complementary", { name: "Details" });
  await expect(about).toContainText("One costs 1.07.");
  await expect(node(page, "Bladder wrack")).toContainText("2 ×");
  await node(page, "Potash").focus();
  await page.keyboard.press("ArrowLeft");
  await expect(node(page, "Bladder wrack")).toBeFocused();
  await page.keyboard.press("ArrowUp");
  await expect(node(page, "Reed bundle")).toBeFocused();
  await page.keyboard.press("Home");
  await page.keyboard.press("1");
  await expect(about).toContainText("With the recipes shown");
  await expect(node(page, "any weed")).toContainText("4.5 ×");
  await expect(node(page, "any fuel")).toBeVisible();
  await node(page, "any weed").click();
  await expect(about).toContainText("as any weed");
  await page.keyboard.press("f");
  await expect(page.getByText("collapsed", { exact: false }).first()).toBeVisible();
  await page.getByRole("button", { name: "Expand all" }).click();
  await page.getByRole("button", { name: "Use the cheapest recipes" }).click();
  await expect(node(page, "any weed")).toBeHidden();
  await node(page, "Soap").focus();
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/of=soap/);
  await expect(about).toContainText("One costs 2.60.");
});

test("what can't be had shows what is missing, and an address that names nothing says so", async ({ page }) => {
  await show(page, "/chains?of=skiff");
  const about = page.getByRole("complementary", { name: "Details" });
  await expect(about).toContainText("Missing: Boatshed.");
  await expect(node(page, "Boatshed")).toContainText("unobtainable");
  await show(page, "/chains?of=nosuchthing");
  await expect(page.getByText("There is no item with the key “nosuchthing”")).toBeVisible();
  await page.getByRole("combobox", { name: "Item" }).fill("Smoked eel");
  await page.keyboard.press("Enter");
  await expect(about).toContainText("One costs 2.13.");
  await show(page, "/chains?of=smoked_eel&item=smoked_eel");
  await expect(page.getByRole("button", { name: "Chain", exact: true })).toBeVisible();
});

test("a chain is taken out as a picture and as a graph", async ({ page }) => {
  await show(page, "/chains?of=potash");
  await expect(node(page, "Potash")).toBeVisible();
  const take = async (format: string) => {
    const download = page.waitForEvent("download");
    await page.getByLabel("Export the chain").selectOption(format);
    return readFileSync(await (await download).path());
  };
  expect((await take("SVG")).toString()).toContain("Bladder wrack");
  expect((await take("PNG")).subarray(1, 4).toString()).toBe("PNG");
  expect((await take("GraphML")).toString()).toContain('<data key="name">Potash</data>');
  expect((await take("DOT")).toString()).toContain('[label="Soap"]');
});
