/** The door of the running program: what every answer carries, who is let in, and that pages run under their policy. */
import { request as ask } from "node:http";
import { gzipSync } from "node:zlib";
import AxeBuilder from "@axe-core/playwright";
import { expect, test } from "@playwright/test";
import { stoppedIn } from "./every-view";
import { Program } from "./program";

let program: Program;
test.beforeAll(async () => {
  program = await Program.on("salty_door");
});
test.afterAll(() => program.end());

const raw = (
  method: string,
  path: string,
  headers: Record<string, string> = {},
  body = "",
): Promise<{ status: number; headers: Record<string, unknown>; text: string }> =>
  new Promise((done, fail) => {
    const sent = ask(
      {
        host: "127.0.0.1",
        port: program.port,
        method,
        path,
        headers: { host: `localhost:${program.port}`, ...headers },
      },
      (response) => {
        let text = "";
        response.on("data", (part) => {
          text += part;
        });
        response.on("end", () => done({ status: response.statusCode ?? 0, headers: response.headers, text }));
      },
    );
    sent.on("error", fail);
    sent.end(body);
  });

test("every kind of answer is sealed, and says nothing of what is inside", async () => {
  const page = await raw("GET", "/brackwater_reach/shelves");
  const script = /src="(\/_next\/static\/[^"]+\.js)/.exec(page.text)?.[1] ?? "";
  expect(script).not.toBe("");
  const paths = [
    "/",
    "/brackwater_reach/shelves",
    "/no/such/page/anywhere",
    script,
    "/icon.svg",
    "/api/health",
    "/api/pantries/brackwater_reach",
    "/api/pantries/nowhere",
    "/api/nothing",
    "/api/icons/eel.svg",
    "/api/pantries/brackwater_reach/bundle",
  ];
  for (const path of paths) {
    const { headers } = await raw("GET", path);
    const names = Object.fromEntries(Object.entries(headers).map(([k, v]) => [k, String(v)]));
    expect(names["content-security-policy"], path).toContain("frame-ancestors 'none'");
    expect(names["content-security-policy"], path).not.toMatch(/script-src[^;]*unsafe/);
    expect(
      [
        names["x-content-type-options"],
        names["referrer-policy"],
        names["cross-origin-resource-policy"],
        names["x-powered-by"],
      ],
      path,
    ).toEqual(["nosniff", "same-origin", "same-origin", undefined]);
    expect(names["permissions-policy"], path).toContain("camera=()");
  }
  const nonces = await Promise.all(
    [1, 2].map(
      async () => /nonce-([^']+)/.exec(String((await raw("GET", "/")).headers["content-security-policy"]))?.[1],
    ),
  );
  expect(nonces[0]).not.toBe(nonces[1]);
});

test("other names, other pages and odd addresses are refused everywhere", async () => {
  for (const path of ["/", "/brackwater_reach/setup", "/_next/static/x.js", "/api/health", "/api/pantries"])
    expect((await raw("GET", path, { host: "evil.example" })).status, path).toBe(421);
  const json = { "content-type": "application/json" };
  for (const headers of [
    { origin: "http://evil.example" },
    { origin: "null" },
    { "sec-fetch-site": "cross-site" },
  ] as Record<string, string>[]) {
    expect((await raw("POST", "/api/pantries", { ...json, ...headers }, '{"name":"Mine"}')).status).toBe(403);
    expect((await raw("GET", "/api/pantries/brackwater_reach/events", headers)).status).toBe(403);
  }
  expect((await raw("POST", "/api/pantries", { "content-type": "text/plain" }, '{"name":"Mine"}')).status).toBe(415);
  for (const [method, path, status] of [
    ["GET", "/api/pantries/%ff", 400],
    ["GET", "/%c0%ae", 400],
    ["GET", `/${"a".repeat(9_000)}`, 414],
    ["TRACE", "/", 405],
    ["PUT", "/api/health", 405],
    ["GET", "/api/pantries/..%2f..%2fetc", 404],
    ["HEAD", "/api/pantries/brackwater_reach/events", 200],
  ] as const)
    expect((await raw(method, path)).status, path).toBe(status);
});

test("a body that is too large is not waited for, and others are served meanwhile", async () => {
  const huge = `{"edits":[${"{},".repeat(1_000_000)}{}]}`;
  const [refused, ...others] = await Promise.all([
    raw(
      "POST",
      "/api/pantries/brackwater_reach/changes",
      { "content-type": "application/json", "content-length": String(huge.length) },
      huge,
    ),
    ...Array.from({ length: 5 }, () => raw("GET", "/api/health")),
  ]);
  expect(refused.status).toBe(422);
  expect(refused.text.length).toBeLessThan(1_000);
  expect(others.map((o) => o.status)).toEqual([200, 200, 200, 200, 200]);
  expect(
    (await raw("POST", "/api/pantries", { "content-type": "application/json", "content-length": "300000000" }, "x"))
      .status,
  ).toBe(413);
});

test("a page runs under its policy, with what is loaded later: no script, style or picture is stopped", async ({
  page,
}) => {
  const stopped = stoppedIn(page);
  await page.goto(`${program.base}/brackwater_reach/shelves?item=rope`);
  await expect(page.getByText("Live", { exact: true })).toBeVisible();
  // What is loaded late is loaded by then.
  await page.evaluate(() => new Promise((done) => requestIdleCallback(() => done(null))));
  await page.keyboard.press("Control+k");
  await page.keyboard.type("smoke e");
  await expect(page.getByRole("option", { name: /Smoke eel/ }).first()).toBeVisible();
  expect(stopped).toEqual([]);
});

test("a line that says far too much is answered in place, and the page lives on", async ({ page }) => {
  await page.goto(`${program.base}/brackwater_reach/recipes?recipe=break_crate`);
  const line = page.getByRole("textbox", { name: "Line of Break crate" });
  for (const [text, message] of [
    ["3 Coarse salt 1e400% -> 1 Brine", "A chance is at most"],
    [":".repeat(20_000), "Expected the recipe's name"],
    ["1 Peat -> 1000 draws { 1: 1..60000 Coarse salt | 3: 1..60 Brine | 1: nothing }", "≈"],
  ] as const) {
    await line.fill(text);
    await expect(page.getByText(message, { exact: false }).first()).toBeVisible();
  }
});

test("a pantry is deleted once its name is typed, and whoever has it open is told", async ({ page, context }) => {
  expect(
    (await raw("POST", "/api/pantries", { "content-type": "application/json" }, '{"name":"Low tide"}')).status,
  ).toBe(201);
  const other = await context.newPage();
  await other.goto(`${program.base}/low_tide/shelves`);
  await expect(other.getByText("Live", { exact: true })).toBeVisible();
  await page.goto(`${program.base}/low_tide/setup?kind=pantry`);
  await page.getByRole("button", { name: "Delete Low tide …" }).click();
  const end = page.getByRole("button", { name: "Delete permanently" });
  await expect(end).toBeDisabled();
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "Export Low tide" }).click();
  expect((await download).suggestedFilename()).toBe("low_tide.json");
  await page.getByLabel(/Then type its name/).fill("Low tid");
  await expect(end).toBeDisabled();
  await page.getByLabel(/Then type its name/).fill("Low tide");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/\?all/);
  await expect(page.getByText("Low tide")).toHaveCount(0);
  await expect(other.getByText("No such pantry")).toBeVisible();
  expect((await raw("GET", "/api/pantries/low_tide")).status).toBe(404);
});

test("an address that leads nowhere says so, answers 404 and runs under its policy", async ({ page }) => {
  const stopped = stoppedIn(page);
  for (const path of ["/nowhere/shelves", "/nowhere", "/no/such/page/anywhere"]) {
    const answer = await page.goto(`${program.base}${path}`);
    expect(answer?.status(), path).toBe(404);
    await expect(page.getByRole("heading", { name: "No such page" })).toBeVisible();
    await expect(page).toHaveTitle("No such page – Salty Pantry");
    const { violations } = await new AxeBuilder({ page }).setLegacyMode(true).analyze();
    expect(violations.map((v) => v.id)).toEqual([]);
  }
  expect((await raw("GET", "/%00/shelves")).status).toBe(404);
  // Of a view that there is none of, the frame around all views is sent before that is known.
  await page.goto(`${program.base}/brackwater_reach/nowhere`);
  await expect(page.getByRole("heading", { name: "No such page" })).toBeVisible();
  // Browsers say of every page that it answered 404; nothing else is said.
  expect(stopped.filter((said) => !/status of 404/.test(said))).toEqual([]);
  await page.keyboard.press("Tab");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("textbox", { name: "Name of the new pantry" })).toBeVisible();
});

test("each window says which view of which pantry it shows, before and after its scripts run", async ({ page }) => {
  const costs = "Costs – Brackwater Reach – Salty Pantry";
  expect((await raw("GET", "/brackwater_reach/costs")).text).toContain(`<title>${costs}</title>`);
  await page.goto(`${program.base}/brackwater_reach/costs`);
  await expect(page).toHaveTitle(costs);
  await page.getByRole("link", { name: /^Recipes/ }).click();
  await expect(page.getByRole("searchbox", { name: "Search the book" })).toBeVisible();
  await expect(page).toHaveTitle("Recipes – Brackwater Reach – Salty Pantry");
});

test("a view that fails says so in its place, and is tried again", async ({ page }) => {
  // Items without tags and stats: no view is made for that.
  await page.route("**/api/pantries/brackwater_reach", async (route) => {
    const answer = await route.fetch({ headers: { ...route.request().headers(), accept: "application/json" } });
    const { records, ...rest } = await answer.json();
    const item = records.item.map((one: object) => ({ ...one, tags: null, stats: null }));
    const text = JSON.stringify({ ...rest, records: { ...records, item } });
    await route.fulfill({ body: gzipSync(text), contentType: "application/gzip" });
  });
  await page.goto(`${program.base}/brackwater_reach/shelves`);
  const told = page.getByRole("alert").filter({ hasText: "This page could not be shown" });
  await expect(told).toBeVisible();
  await expect(page.getByRole("navigation", { name: "Places" })).toBeVisible();
  await page.unroute("**/api/pantries/brackwater_reach");
  await told.getByRole("button", { name: "Try again" }).click();
  await expect(page.getByRole("grid", { name: "Items" })).toBeVisible();
});
