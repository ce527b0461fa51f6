import { expect, it } from "vitest";
import type { Id } from "@/core/schema/id";
import { type Kept, UndoStack } from "./undo-stack";

const PANTRY = "pantry000001" as Id;
function storage(): Kept & { text: string | null } {
  return {
    text: null,
    getItem() {
      return this.text;
    },
    setItem(_, text) {
      this.text = text;
    },
  };
}
const opened = (kept: Kept, revision = 1000, pantry = PANTRY): UndoStack => {
  const stack = new UndoStack("undo", kept);
  stack.open(pantry, revision);
  return stack;
};

it("takes up what this window did before it was loaded again", () => {
  const kept = storage();
  const before = opened(kept);
  before.did(4);
  before.did(6);
  before.tookBack(6, 7);
  const after = opened(kept);
  expect([after.last, after.canUndo, after.canRedo]).toEqual([4, true, true]);
  expect(after.nextRedo).toBe(7);
  // It stays until it is brought back: the server may be away.
  expect(opened(kept).nextRedo).toBe(7);
  after.broughtBack(7, 8);
  expect([opened(kept).last, opened(kept).canRedo]).toEqual([8, false]);
});

it("forgets what was taken back once something else is done", () => {
  const stack = opened(storage());
  stack.did(4);
  stack.tookBack(4, 5);
  stack.did(6);
  expect([stack.last, stack.canRedo]).toEqual([6, false]);
});

it("takes nothing up that is not of this pantry, not of its revisions, or not what it wrote", () => {
  const kept = storage();
  opened(kept).did(40);
  expect(opened(kept, 39).canUndo).toBe(false);
  expect(opened(kept, 1000, "another00001" as Id).canUndo).toBe(false);
  for (const text of [
    "{",
    "null",
    "[]",
    '{"pantry":"pantry000001","undo":[1]}',
    '{"pantry":"pantry000001","undo":["1"],"redo":[]}',
  ])
    expect(opened({ ...storage(), text, getItem: () => text } as Kept).canUndo).toBe(false);
  const broken: Kept = {
    getItem() {
      throw new Error("no storage");
    },
    setItem() {
      throw new Error("no storage");
    },
  };
  const stack = opened(broken);
  stack.did(3);
  expect(stack.last).toBe(3);
  expect(new UndoStack("undo", null).canUndo).toBe(false);
});

it("keeps the last hundred", () => {
  const kept = storage();
  const stack = opened(kept);
  for (let revision = 1; revision <= 250; revision++) stack.did(revision);
  const again = opened(kept);
  let n = 0;
  for (let by = 251; again.last !== undefined && n < 500; n++) again.tookBack(again.last, by++);
  expect(n).toBe(100);
});
