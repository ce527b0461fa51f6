/** Addresses of every view in its states, and how one is opened. */
import { expect, type Page } from "@playwright/test";
import type { Program } from "./program";

export const VIEWS = [
  "/shelves",
  "/shelves?item=smoked_eel",
  "/shelves?text=nosuchitem",
  "/recipes?recipe=smoke_eel",
  "/recipes?recipe=break_crate",
  "/recipes?new=1",
  "/recipes?paste=1",
  "/checks",
  "/checks?rule=unobtainable",
  "/checks?loop=0",
  "/costs",
  "/log",
  "/setup?kind=type&record=kept_fare",
  "/setup?kind=type&as=grid",
  "/setup?kind=source",
  "/setup?kind=pantry",
];

/** Opens a view and waits until it stands: everything is there, fonts too, and was painted. */
export async function show(program: Program, page: Page, path: string): Promise<void> {
  await page.goto(`${program.base}/brackwater_reach${path}`);
  await expect(page.locator("footer")).toContainText("faults");
  await expect(page.getByText("live with everybody")).toBeVisible();
  await page.evaluate(async () => {
    await document.fonts.ready;
    await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));
  });
}

/** What is opened over a view, and how. */
export const DIALOGS: readonly { readonly path: string; readonly called: string; open(page: Page): Promise<void> }[] = [
  {
    path: "/shelves",
    called: "command field",
    async open(page) {
      await page.keyboard.press("Control+k");
      await page.keyboard.type("eel");
      await expect(page.getByRole("option", { name: /River eel/ }).first()).toBeVisible();
    },
  },
  {
    path: "/shelves?rarity=storied",
    called: "change all",
    async open(page) {
      await page.getByRole("button", { name: "Change all" }).click();
      await page.getByLabel("By what, or to what").fill("12");
      await expect(page.getByRole("region", { name: "Before and after" })).toContainText("Bell buoy");
    },
  },
  {
    path: "/setup?kind=rarity&record=sound",
    called: "removal",
    async open(page) {
      await page.getByRole("button", { name: "Remove Sound" }).click();
      await expect(page.getByRole("list", { name: "Used by" })).toContainText("Smoked eel");
    },
  },
];
