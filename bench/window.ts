/**
 * What a window does, in Chromium: opening a pantry, a key until the paint after it, an edit until it is shown, the same
 * tried in a scenario, and the heap it holds. SIZES=90,10000 chooses the pantries; 90 is the demo. AT=ADDRESS/KEY measures a pantry of a program that
 * runs already.
 */
import { chromium, type Page } from "@playwright/test";
import { say, summary } from "./measure";
import { withProgram } from "./program";

const SIZES = (process.env.SIZES ?? "90,10000,100000").split(",").map(Number);
const KEYS = 30;
const EDITS = 9;

declare global {
  interface Window {
    longTasks: number[];
  }
}

/** Runs in the page from its beginning: tasks that kept everything else waiting [ms]. */
const watchTasks = () => {
  window.longTasks = [];
  new PerformanceObserver((list) => {
    for (const { duration } of list.getEntries()) window.longTasks.push(duration);
  }).observe({ entryTypes: ["longtask"] });
};

/** From a key that is pressed to the paint after it; pressing is part of the page's own clock. */
async function keyToPaint(page: Page, keys: readonly string[]): Promise<number> {
  const times: number[] = [];
  for (const key of keys) {
    const took = page.evaluate(
      () =>
        new Promise<number>((done) => {
          window.addEventListener(
            "keydown",
            (e) => {
              const began = e.timeStamp;
              requestAnimationFrame(() => {
                const channel = new MessageChannel();
                channel.port1.onmessage = () => done(performance.now() - began);
                channel.port2.postMessage(null);
              });
            },
            { capture: true, once: true },
          );
        }),
    );
    // The page must listen before the key comes.
    await page.evaluate(() => 0);
    await page.keyboard.press(key);
    times.push(await took);
    await page.waitForTimeout(60);
  }
  return summary(times).median;
}

/** From Enter until the tideline tells of the change, and the longest task meanwhile. */
async function editToShown(
  page: Page,
): Promise<{ readonly shown: number; readonly slow: number; readonly task: number }> {
  const [times, tasks]: [number[], number[]] = [[], []];
  const grid = page.getByRole("grid", { name: "Items" });
  for (let k = 0; k < EDITS; k++) {
    await grid.focus();
    await page.keyboard.press("Home");
    await page.keyboard.press("End");
    await page.keyboard.press("ArrowLeft");
    // Another price than any run before left there.
    await page.keyboard.type((10 + 80 * Math.random()).toFixed(2));
    const took = page.evaluate(() => {
      window.longTasks = [];
      const before = document.querySelector('[data-testid="last-move"]')?.textContent ?? "";
      return new Promise<number>((done, fail) => {
        let began = 0;
        setTimeout(() => fail(new Error("The edit was not shown within 20 s.")), 20_000);
        window.addEventListener("keydown", (e) => (began = e.timeStamp), { capture: true, once: true });
        const look = () => {
          const now = document.querySelector('[data-testid="last-move"]')?.textContent ?? "";
          if (began && now !== before) requestAnimationFrame(() => done(performance.now() - began));
          else setTimeout(look, 2);
        };
        look();
      });
    });
    await page.evaluate(() => 0);
    await page.keyboard.press("Enter");
    times.push(await took);
    // Work that follows the paint counts as well.
    await page.waitForTimeout(400);
    tasks.push(await page.evaluate(() => Math.max(0, ...window.longTasks)));
    await page.keyboard.press("ArrowUp");
    await page.keyboard.press("ArrowDown");
  }
  // The first waits for what is loaded with it.
  const later = summary(times.slice(1));
  return { shown: summary(times).median, slow: later.p95, task: Math.max(...tasks.slice(1)) };
}

/** Bytes that the page holds once everything else is cleared away. */
async function heapOf(page: Page): Promise<number> {
  const session = await page.context().newCDPSession(page);
  await session.send("HeapProfiler.collectGarbage");
  return (await session.send("Runtime.getHeapUsage")).usedSize;
}

async function measure(page: Page, base: string, key: string, items: number): Promise<void> {
  await page.addInitScript(watchTasks);
  const opened = async () => {
    const began = performance.now();
    await page.goto(`${base}/${key}/shelves`);
    await page.locator('[role="grid"] [role="row"]').nth(5).waitFor({ timeout: 180_000 });
    return performance.now() - began;
  };
  // The server opens the pantry's engine at the first call.
  await opened();
  const opening = summary([await opened(), await opened(), await opened()]).median;
  await page.waitForTimeout(500);
  await page.getByRole("grid", { name: "Items" }).focus();
  const move = await keyToPaint(page, Array<string>(KEYS).fill("ArrowDown"));
  await page.getByRole("searchbox", { name: "Search the shelves" }).focus();
  const search = await keyToPaint(
    page,
    [..."eel net".repeat(2)].slice(0, 10).map((c) => (c === " " ? "Space" : c)),
  );
  await page.goto(`${base}/${key}/recipes?new=1`);
  await page.getByRole("textbox", { name: "New recipe line" }).focus();
  const line = await keyToPaint(
    page,
    [..."2 net + 1 rope"].map((c) => (c === " " ? "Space" : c)),
  );
  await page.goto(`${base}/${key}/shelves`);
  await page.locator('[role="grid"] [role="row"]').nth(5).waitFor({ timeout: 180_000 });
  const { shown, task } = await editToShown(page);
  const heap = await heapOf(page);
  // The same in a scenario: its effects come from a worker.
  await page.keyboard.press("F8");
  await page.getByRole("region", { name: "Scenario", exact: true }).waitFor({ timeout: 180_000 });
  const tried = await editToShown(page);
  const ms = (n: number) => n.toFixed(0).padStart(6);
  say(
    `${String(items).padStart(8)} ${ms(opening)} ms ${ms(move)} ms ${ms(search)} ms ${ms(line)} ms ${ms(shown)} ms ${ms(task)} ms ${ms(tried.slow)} ms ${ms(tried.task)} ms ${(heap / 1e6).toFixed(0).padStart(6)} MB`,
  );
}

async function measureAll(pantries: AsyncIterable<{ base: string; key: string; items: number }>): Promise<void> {
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
    args: ["--no-sandbox"],
  });
  try {
    say(
      "   items   opening     arrow    search      line      edit  longest task   tried (slow)  longest task    heap",
    );
    for await (const { base, key, items } of pantries) {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
      await measure(await context.newPage(), base, key, items);
      await context.close();
    }
  } finally {
    await browser.close();
  }
}

if (process.env.AT) {
  const { origin, pathname } = new URL(process.env.AT);
  await measureAll(
    (async function* () {
      yield { base: origin, key: pathname.slice(1), items: Number.NaN };
    })(),
  );
} else
  await withProgram((program) =>
    measureAll(
      (async function* () {
        for (const items of SIZES) {
          const key = items === 90 ? "brackwater_reach" : `of_${items}`;
          if (items !== 90) await program.import(items, key);
          yield { base: program.base, key, items };
        }
      })(),
    ),
  );
