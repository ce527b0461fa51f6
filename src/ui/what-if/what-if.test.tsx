import { screen, waitFor, within } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { setField } from "@/core/catalogue/edit";
import { item, kitchen, must } from "@/core/testing/kitchen";
import { type FromWorker, type ToWorker, whatIfServer } from "@/core/what-if/serve";
import { newScenario } from "@/core/what-if/scenario";
import { useStore, useView } from "../pantry/provider";
import type { PantryStore } from "../pantry/store";
import { inPantry } from "../testing/in-pantry";
import { OpenScenarioBar } from "./bar";
import { WhatIfView } from "./view";

/** The worker, in this process: it answers a moment later. */
class WorkerHere {
  onmessage: ((m: { data: FromWorker }) => void) | null = null;
  private ended = false;
  private readonly answer = whatIfServer();
  postMessage(message: ToWorker): void {
    const copy = structuredClone(message);
    setTimeout(() => !this.ended && this.onmessage?.({ data: structuredClone(this.answer(copy)) }));
  }
  terminate(): void {
    this.ended = true;
  }
}

const world = kitchen("buy Salt for 1\nbuy Clay for 2\nbuild: 2 Salt + 1 Clay -> 1 Brick fee 1 shells");
const salt = [...world.records.source.values()].find((s) => s.lines.some((l) => l.item === item(world, "Salt").id));
const price = (to: number) => setField(world, "source", salt?.id as never, "price", to);
let store: PantryStore;
function Whole() {
  store = useStore();
  const scenario = useView((v) => v.scenario);
  return (
    <>
      {scenario && <OpenScenarioBar scenario={scenario} />}
      <WhatIfView />
    </>
  );
}
const open = (of = world) => inPantry(of, <Whole />);
const effects = () => screen.findByRole("table", { name: "Costs and margins" });
const rows = async () =>
  within(await effects())
    .getAllByRole("row")
    .slice(1)
    .map((r) => [...r.querySelectorAll("td")].slice(0, 4).map((c) => c.textContent));
const changesSent = (server: { requests: { path: string }[] }) =>
  server.requests.filter((r) => r.path.endsWith("/changes"));

beforeEach(() => {
  sessionStorage.clear();
  vi.stubGlobal("Worker", WorkerHere);
  window.history.replaceState(null, "", "/test/costs?view=what-if");
});

describe("What-if", () => {
  it("says what belongs there while there is nothing, and begins a scenario", async () => {
    const { user } = await open();
    expect(screen.getByText("No scenarios yet")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "New scenario" }));
    expect(await screen.findByText("Nothing is tried yet")).toBeTruthy();
    expect(screen.getByText(/Changes you make now are only tried/)).toBeTruthy();
  });

  it("tries what is changed, shows what it moves, and writes nothing", async () => {
    const { server } = await open();
    store.enterScenario();
    expect((await store.submit([price(4)])).ok).toBe(true);
    await screen.findByRole("table");
    expect(await rows()).toEqual([
      ["Salt", "1.00", "4.00", "+300%"],
      ["Brick", "5.00", "11.00", "+120%"],
    ]);
    expect(changesSent(server)).toEqual([]);
    expect(server.catalogue.revision).toBe(world.revision);
    await store.undo();
    expect(await screen.findByText("Nothing is tried yet")).toBeTruthy();
    await store.redo();
    expect((await rows()).length).toBe(2);
    store.leaveScenario();
    expect(await screen.findByRole("button", { name: /Continue the last one/ })).toBeTruthy();
    expect(store.snapshot().state?.catalogue).toBe(store.snapshot().base?.catalogue);
  });

  it("keeps what another scenario takes the place of, and shows numbers as they are typed here", async () => {
    await open();
    store.enterScenario();
    await store.submit([price(4)]);
    store.enterScenario({ id: null, name: "Other", edits: [] });
    expect(store.left?.edits).toEqual([price(4)]);
    store.setNumbers("comma");
    expect(store.snapshot().state?.catalogue.numbers).toBe("comma");
    store.setNumbers("point");
  });

  it("refuses what the rules refuse, with the reason", async () => {
    await open();
    store.enterScenario();
    const answer = await store.submit([price(-4)]);
    expect(answer).toMatchObject({ ok: false, message: expect.stringMatching(/-4 is outside the range/) });
    expect(store.snapshot().notice?.title).toBe("This can't be tried");
  });

  it("moves a number by slider and by field", async () => {
    const { user } = await open();
    store.enterScenario();
    await user.selectOptions(await screen.findByRole("combobox", { name: "Kind of record" }), "source");
    await user.type(screen.getByRole("combobox", { name: "Record whose number is tried" }), `${salt?.name}{Enter}`);
    await user.click(await screen.findByRole("button", { name: /^Price 1/ }));
    const title = `Price of ${salt?.name}`;
    const field = await screen.findByRole("textbox", { name: `${title}: value to try` });
    await user.clear(field);
    await user.type(field, "3{Enter}");
    expect((await rows())[1]).toEqual(["Brick", "5.00", "9.00", "+80.0%"].map((t) => t.replace("+80.0%", "+80%")));
    screen.getByRole("slider", { name: title }).focus();
    await user.keyboard("{End}");
    await waitFor(async () => expect((await rows())[1][2]).toBe("23.00"));
    await user.click(screen.getByRole("button", { name: `Drop: ${title}` }));
    expect(await screen.findByText("Nothing is tried yet")).toBeTruthy();
  });

  it("is kept by name, seen by everyone, changed, applied as one change and deleted", async () => {
    const { user, server } = await open();
    store.enterScenario();
    await store.submit([price(4)]);
    await user.click(await screen.findByRole("button", { name: "Save as…" }));
    await user.type(await screen.findByRole("textbox", { name: "Name of the scenario" }), "Dearer salt{Enter}");
    expect(await screen.findByRole("button", { name: "Saved" })).toBeTruthy();
    expect([...server.catalogue.records.scenario.values()].map((s) => s.name)).toEqual(["Dearer salt"]);
    await store.submit([setField(store.snapshot().state?.catalogue as never, "source", salt?.id as never, "price", 6)]);
    await user.click(await screen.findByRole("button", { name: "Save changes" }));
    expect(await screen.findByRole("button", { name: "Saved" })).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Apply" }));
    await waitFor(() => expect(store.snapshot().scenario).toBeNull());
    expect(server.catalogue.records.source.get(salt?.id as never)?.price).toBe(6);
    await user.click(await screen.findByRole("button", { name: "Delete Dearer salt" }));
    await waitFor(() => expect(server.catalogue.records.scenario.size).toBe(0));
  });

  it("says where the pantry has moved on, and keeps or drops the edit", async () => {
    const { user, server } = await open();
    store.enterScenario();
    await store.submit([price(4)]);
    await effects();
    server.commit([price(2)]);
    expect(await screen.findByText(/Someone else changed price/)).toBeTruthy();
    expect((screen.getByRole("button", { name: "Apply" }) as HTMLButtonElement).disabled).toBe(true);
    await user.click(screen.getByRole("button", { name: "Keep the scenario's value" }));
    await waitFor(async () => expect((await rows())[1]).toEqual(["Brick", "7.00", "11.00", "+57%"]));
    expect(screen.queryByText(/Someone else changed price/)).toBeNull();
  });

  it("is still there after a reload, and can be compared with others", async () => {
    const dearer = newScenario(world, "Dearer salt", [price(4)]);
    const kept = must(world, dearer.edits);
    const both = must(kept, newScenario(kept, "Dear salt", [price(2)]).edits);
    const { user, unmount } = await open(both);
    await user.click(screen.getByRole("checkbox", { name: "Compare Dearer salt" }));
    await user.click(screen.getByRole("checkbox", { name: "Compare Dear salt" }));
    const table = await within(await screen.findByRole("region", { name: "Comparison" })).findByRole("table");
    const cells = within(table)
      .getAllByRole("row")
      .map((r) => r.textContent);
    expect(cells).toEqual(["ItemNowDear saltDearer salt", "Salt1.002.004.00", "Brick5.007.0011.00"]);
    await user.click(screen.getByRole("button", { name: "Dear salt" }));
    await effects();
    unmount();
    await open(both);
    expect(await screen.findByRole("region", { name: "Scenario" })).toBeTruthy();
    expect((await rows())[1]).toEqual(["Brick", "5.00", "7.00", "+40%"]);
  });
});
