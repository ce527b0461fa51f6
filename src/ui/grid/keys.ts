/** Maps keys to actions of a grid, following the ARIA grid pattern and spreadsheets. */
import type { Spot } from "./place";

export interface Pressed {
  readonly key: string;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
  readonly shiftKey: boolean;
  readonly altKey: boolean;
}

export type Action =
  | { readonly does: "move"; readonly to: Spot; readonly extend: boolean }
  | { readonly does: "type"; readonly text: string }
  | {
      readonly does: "menu" | "edit" | "space" | "escape" | "clear" | "find" | "fill" | "continue" | "select-all";
    };

/** Number of rows and columns, and of rows visible at once. */
export interface GridSize {
  readonly rows: number;
  readonly columns: number;
  readonly page: number;
}

/**
 * @param at  where the cursor is
 * @returns null for keys that the grid ignores, such as Tab at the last column
 */
export function actionOf(e: Pressed, at: Spot, { rows, columns, page }: GridSize): Action | null {
  const command = e.ctrlKey || e.metaKey;
  const move = (row: number, column: number, extend = e.shiftKey): Action => ({
    does: "move",
    to: { row, column },
    extend,
  });
  const key = e.key.length === 1 ? e.key.toLowerCase() : e.key;
  switch (key) {
    case "ArrowDown":
      return e.altKey ? { does: "menu" } : move(at.row + (command ? rows : 1), at.column);
    case "ArrowUp":
      return move(command ? 0 : at.row - 1, at.column);
    case "ArrowRight":
      return move(at.row, command ? columns : at.column + 1);
    case "ArrowLeft":
      return move(at.row, command ? 0 : at.column - 1);
    case "PageDown":
      return move(at.row + page, at.column);
    case "PageUp":
      return move(at.row - page, at.column);
    case "Home":
      return move(command ? 0 : at.row, 0);
    case "End":
      return move(command ? rows : at.row, columns);
    case "Tab": {
      const next = at.column + (e.shiftKey ? -1 : 1);
      return command || next < 0 || next >= columns ? null : move(at.row, next, false);
    }
    case "Enter":
    case "F2":
      return { does: "edit" };
    case "Escape":
      return { does: "escape" };
    case "Delete":
    case "Backspace":
      return { does: "clear" };
    case " ":
      return { does: "space" };
  }
  if (command && key === "f") return { does: "find" };
  if (command && key === "d") return { does: e.shiftKey ? "continue" : "fill" };
  if (command && key === "a") return { does: "select-all" };
  return !command && !e.altKey && e.key.length === 1 ? { does: "type", text: e.key } : null;
}
