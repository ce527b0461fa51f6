import { act, renderHook } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { type Task, useWork, type WorkerAnswer } from "./work";

/** Workers that the hook created, and what they were sent. */
class FakeWorker {
  static all: FakeWorker[] = [];
  onmessage: ((event: { data: WorkerAnswer }) => void) | null = null;
  onerror: (() => void) | null = null;
  ended = false;
  readonly sent: Task[] = [];
  constructor() {
    FakeWorker.all.push(this);
  }
  postMessage(task: Task) {
    this.sent.push(task);
  }
  terminate() {
    this.ended = true;
  }
}
const odds: Task = { is: "odds", box: { always: [], chances: [], draws: [] }, tables: [], level: 1, wanted: 1 };
const answer = (worker: FakeWorker, data: WorkerAnswer) => act(() => worker.onmessage?.({ data }));

beforeEach(() => {
  FakeWorker.all = [];
  vi.stubGlobal("Worker", FakeWorker);
});

describe("work in a worker", () => {
  it("reuses an idle worker, and replaces a busy one", () => {
    const { result } = renderHook(() => useWork());
    act(() => result.current.start(odds));
    expect(result.current.busy).toBe(true);
    answer(FakeWorker.all[0], { is: "failed", message: "No." });
    expect(result.current).toMatchObject({ busy: false, told: { is: "failed", message: "No." } });
    act(() => result.current.start(odds));
    expect([FakeWorker.all.length, FakeWorker.all[0].sent.length]).toEqual([1, 2]);
    act(() => result.current.start(odds));
    expect(FakeWorker.all.map((w) => w.ended)).toEqual([true, false]);
  });

  it("reports progress without ending, and is stopped", () => {
    const { result } = renderHook(() => useWork());
    act(() => result.current.start(odds));
    answer(FakeWorker.all[0], { is: "progress", done: 5, of: 10 });
    expect(result.current.busy).toBe(true);
    act(() => result.current.stop());
    expect([result.current.busy, FakeWorker.all[0].ended]).toEqual([false, true]);
  });

  it("says that a worker failed, and asks another one next time", () => {
    const { result } = renderHook(() => useWork());
    act(() => result.current.start(odds));
    act(() => FakeWorker.all[0].onerror?.());
    expect(result.current.told).toEqual({ is: "failed", message: "It could not be computed." });
    act(() => result.current.start(odds));
    expect(FakeWorker.all.map((w) => w.sent.length)).toEqual([1, 1]);
  });

  it("does not take the error of a worker that was replaced while it loaded for the next one's", () => {
    const { result } = renderHook(() => useWork());
    act(() => result.current.start(odds));
    const replaced = FakeWorker.all[0];
    act(() => result.current.start(odds));
    act(() => replaced.onerror?.());
    expect(result.current).toMatchObject({ busy: true, told: null });
    answer(FakeWorker.all[1], { is: "progress", done: 1, of: 2 });
    expect(FakeWorker.all.map((w) => w.ended)).toEqual([true, false]);
  });

  it("ends its worker with the component", () => {
    const { result, unmount } = renderHook(() => useWork());
    act(() => result.current.start(odds));
    unmount();
    expect(FakeWorker.all[0].ended).toBe(true);
  });
});
