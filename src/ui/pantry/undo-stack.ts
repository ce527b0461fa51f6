/** This window's own changes that can be taken back, and those that were; kept by the browser across reloads. */
import type { Id } from "@/core/schema/id";

/** So many of the last ones are kept. */
const MOST = 100;

export interface Kept {
  getItem(name: string): string | null;
  setItem(name: string, text: string): void;
}

/** What was kept, as far as it is of this pantry and its revisions exist. */
function read(text: string | null, pantry: Id, revision: number): { undo: number[]; redo: number[] } {
  const none = { undo: [], redo: [] };
  if (text === null) return none;
  try {
    const kept = JSON.parse(text) as { pantry?: unknown; undo?: unknown; redo?: unknown } | null;
    const revisions = (list: unknown): number[] | null =>
      Array.isArray(list) && list.every((r) => Number.isInteger(r) && r > 0 && r <= revision)
        ? list.slice(-MOST)
        : null;
    const [undo, redo] = [revisions(kept?.undo), revisions(kept?.redo)];
    // Of another pantry of that key, or of one that was set back: none of it is ours.
    return kept?.pantry === pantry && undo && redo ? { undo, redo } : none;
  } catch {
    return none;
  }
}

export class UndoStack {
  private undoable: number[] = [];
  private redoable: number[] = [];
  private pantry: Id | null = null;

  /** @param kept  where it is kept; null: nowhere */
  constructor(
    private readonly name: string,
    private readonly kept: Kept | null,
  ) {}

  /** Takes up what was kept, once it is known which pantry stands under the key and how far it is. */
  open(pantry: Id, revision: number): void {
    if (this.pantry === pantry) return;
    this.pantry = pantry;
    const { undo, redo } = read(this.text(), pantry, revision);
    [this.undoable, this.redoable] = [undo, redo];
  }

  get canUndo(): boolean {
    return this.undoable.length > 0;
  }
  get canRedo(): boolean {
    return this.redoable.length > 0;
  }
  /** The revision that is taken back next. */
  get last(): number | undefined {
    return this.undoable[this.undoable.length - 1];
  }

  /** A new change: what was taken back before can't be brought back any more. */
  did(revision: number): void {
    this.redoable = [];
    this.undoable.push(revision);
    this.keep();
  }
  /** A change was taken back by another. */
  tookBack(revision: number, by: number): void {
    this.undoable = this.undoable.filter((r) => r !== revision);
    this.redoable.push(by);
    this.keep();
  }
  /** The last one that took something back, to be taken back itself. */
  get nextRedo(): number | undefined {
    return this.redoable[this.redoable.length - 1];
  }
  /** What a change took back was brought back by another. */
  broughtBack(revision: number, by: number): void {
    this.redoable = this.redoable.filter((r) => r !== revision);
    this.undoable.push(by);
    this.keep();
  }

  private text(): string | null {
    try {
      return this.kept?.getItem(this.name) ?? null;
    } catch {
      return null;
    }
  }
  private keep(): void {
    this.undoable = this.undoable.slice(-MOST);
    this.redoable = this.redoable.slice(-MOST);
    const { pantry, undoable: undo, redoable: redo } = this;
    try {
      this.kept?.setItem(this.name, JSON.stringify({ pantry, undo, redo }));
    } catch {
      // A browser without storage forgets them when the window is closed.
    }
  }
}
