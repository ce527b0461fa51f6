/** Addresses of every view in its states, and how one is opened. */
import { expect, type Page } from "@playwright/test";
import type { Program } from "./program";

export const VIEWS = [
  "/shelves",
  "/shelves?item=smoked_eel",
  "/shelves?text=nosuchitem",
  "/shelves?where=description+missing&view=undescribed",
  "/recipes?recipe=smoke_eel",
  "/recipes?recipe=break_crate",
  "/recipes?recipe=weave_crab_pot",
  "/recipes?by=pair",
  "/recipes?new=1",
  "/recipes?paste=1",
  "/chains",
  "/chains?of=harbour_supper",
  "/checks",
  "/checks?rule=unobtainable",
  "/checks?group=cause",
  "/checks?show=accepted",
  "/checks?show=changes&since=1",
  "/checks?loop=0",
  "/costs",
  "/costs?view=plan&make=smoked_eel*20%7Cship_biscuit*12&stock=coarse_salt*4",
  "/costs?view=what-if",
  "/costs?view=what-if&scenario=slower_peat",
  "/log",
  "/setup?kind=type&record=kept_fare",
  "/setup?kind=type&as=grid",
  "/setup?kind=field&record=smell",
  "/setup?kind=source",
  "/setup?kind=condition&record=warm",
  "/setup?kind=table&record=wreck_finds",
  "/setup?kind=subject&record=ferry_hand",
  "/setup?kind=severity",
  "/tasting?tab=use&who=ferry_hand&plan=kelp_broth~~0~%7Ceel_pie~~2~0s%25201m&harm=0.4",
  "/tasting?tab=wear&who=harbour_pilot&try=down_waistcoat",
  "/tasting?tab=open&open=wreck_crate",
  "/tasting?tab=lay&laid=sailcloth,sailcloth;net_twine,osier_withy",
  "/tasting?tab=bag&who=smokehouse_keeper",
  "/tasting?tab=trials&trial=smoke_six_eels_in_one_go",
  "/setup?kind=pantry",
];

/** About half of the addresses: tests of all of them run side by side in two files. */
export const ITEMS_AND_RECIPES = /^\/(shelves|recipes)/;

/** Collects what a page's policy stops, and errors of its scripts, from now on. */
export function stoppedIn(page: Page): readonly string[] {
  const stopped: string[] = [];
  page.on("console", (m) => {
    if (m.type() === "error" || /Content Security Policy|Refused/.test(m.text())) stopped.push(m.text());
  });
  page.on("pageerror", (e) => stopped.push(e.message));
  return stopped;
}

/** Opens a view and waits until it stands: everything is there, fonts too, and was painted. */
export async function show(program: Program, page: Page, path: string): Promise<void> {
  await page.goto(`${program.base}/brackwater_reach${path}`);
  await expect(page.locator("footer")).toContainText("errors");
  await expect(page.getByText("Live", { exact: true })).toBeVisible();
  // Behind a dialog it has no role.
  await expect(page.locator("main h1").first()).toBeVisible();
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
    path: "/recipes",
    called: "suggested salvage",
    async open(page) {
      await page.getByRole("button", { name: "Suggest salvage" }).click();
      await expect(page.getByRole("dialog", { name: "Suggest salvage" })).toContainText("Value, share of cost");
    },
  },
  {
    path: "/checks?rule=dead-end",
    called: "accept a finding",
    async open(page) {
      await page.getByRole("button", { name: "Accept…" }).click();
      await expect(page.getByRole("dialog", { name: "Accept 1 finding" })).toContainText("Slack-water stone");
    },
  },
  {
    path: "/checks?group=type",
    called: "fix many",
    async open(page) {
      await page.getByRole("treeitem", { name: /^Recipes:/ }).click();
      await page.getByRole("button", { name: /^Fix \d+…$/ }).click();
      await expect(page.getByRole("dialog")).toContainText("must be fixed by hand");
    },
  },
  {
    path: "/shelves?rarity=storied",
    called: "change all",
    async open(page) {
      await page.getByRole("button", { name: "Edit all" }).click();
      await page.getByLabel("Value").fill("12");
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
  {
    path: "/shelves",
    called: "column menu",
    async open(page) {
      await page.getByRole("grid", { name: "Items" }).focus();
      await page.keyboard.press("Alt+ArrowDown");
      await expect(page.getByRole("dialog", { name: "Column Item" })).toBeVisible();
    },
  },
  {
    path: "/shelves",
    called: "table brought in",
    async open(page) {
      await page.getByRole("button", { name: "Import" }).click();
      await page.getByLabel("Pasted table").fill("Name,Type,Sell\nEel loaf,Feast,4\nRope,Cordage,many");
      await expect(page.getByRole("dialog").getByRole("tab", { name: /Rejected 2/ })).toBeVisible();
    },
  },
  {
    path: "/shelves?item=gutting_knife",
    called: "series",
    async open(page) {
      await page.getByRole("button", { name: "Make a series" }).click();
      await expect(page.getByRole("row", { name: /Gutting knife V/ })).toBeVisible();
    },
  },
  {
    path: "/shelves?item=smoked_eel",
    called: "player's card",
    async open(page) {
      await page.getByRole("button", { name: "Player's card" }).click();
      await expect(page.getByRole("article", { name: "Smoked eel, by night" })).toBeVisible();
    },
  },
  {
    path: "/setup?kind=field&record=smell",
    called: "another form",
    async open(page) {
      await page.getByRole("button", { name: "Change form" }).click();
      await page.getByRole("alertdialog").getByRole("combobox", { name: /^Form/ }).selectOption("decimal");
      await expect(page.getByRole("region", { name: "Values before and after" })).toContainText("isn't a number");
    },
  },
];
