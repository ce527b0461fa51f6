/** The scenario that is open, kept by the browser, so that it is still there after a reload. */
import { shapedEdits } from "@/core/catalogue/shape";
import { isId } from "@/core/schema/id";
import { isPlain } from "@/core/schema/json";
import type { Kept } from "../pantry/undo-stack";
import type { Draft } from "./session";

/** Characters that are kept at most; what is larger is there until the window closes. */
const MOST = 1_000_000;

export class DraftKeeper {
  /** @param where  null: nothing is kept */
  constructor(
    private readonly name: string,
    private readonly where: Kept | null,
  ) {}

  keep(draft: Draft): void {
    const text = JSON.stringify(draft);
    this.put(text.length > MOST ? "" : text);
  }
  drop(): void {
    this.put("");
  }
  private put(text: string): void {
    try {
      this.where?.setItem(this.name, text);
    } catch {
      // Without room it is there as long as the window.
    }
  }

  /** null: none was open, or what was kept is not one. */
  kept(): Draft | null {
    try {
      const draft = JSON.parse(this.where?.getItem(this.name) || "null") as unknown;
      if (!isPlain(draft) || !Array.isArray(draft.edits) || typeof draft.name !== "string") return null;
      const edits = draft.edits.length ? shapedEdits(draft.edits) : { edits: [] };
      return "edits" in edits ? { id: isId(draft.id) ? draft.id : null, name: draft.name, edits: edits.edits } : null;
    } catch {
      return null;
    }
  }
}
