"use client";
/** The width of the sheet is the person's: dragged, or moved by keyboard, and kept in this browser. */
import type { KeyboardEvent, PointerEvent } from "react";
import { useKept } from "../pantry/provider";

const [LEAST, USUAL, MOST] = [340, 384, 680];
const STEP = 16;

export const within = (width: unknown): number =>
  typeof width === "number" && Number.isFinite(width) ? Math.min(MOST, Math.max(LEAST, Math.round(width))) : USUAL;

export function useSheetWidth(): [number, (width: number) => void] {
  const [kept, keep] = useKept<unknown>("salty-sheet-width", USUAL);
  return [within(kept), (width) => keep(within(width))];
}

/** The edge between the sheet and what is left of it. */
export function SheetEdge({ width, onWidth }: { readonly width: number; readonly onWidth: (width: number) => void }) {
  const press = (e: KeyboardEvent) => {
    const to: Record<string, number> = {
      ArrowLeft: width + STEP,
      ArrowRight: width - STEP,
      Home: LEAST,
      End: MOST,
      Enter: USUAL,
    };
    if (to[e.key] === undefined) return;
    e.preventDefault();
    onWidth(to[e.key]);
  };
  const drag = (e: PointerEvent<HTMLDivElement>) => {
    if (!e.currentTarget.hasPointerCapture(e.pointerId)) return;
    const { right } = (e.currentTarget.parentElement as HTMLElement).getBoundingClientRect();
    onWidth(right - e.clientX);
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element
    <div
      role="separator"
      aria-orientation="vertical"
      aria-label="Width of the sheet"
      aria-valuenow={width}
      aria-valuemin={LEAST}
      aria-valuemax={MOST}
      tabIndex={0}
      title="Drag, or press the arrows, to make the sheet wider or narrower"
      onKeyDown={press}
      onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
      onPointerMove={drag}
      onDoubleClick={() => onWidth(USUAL)}
      className="absolute inset-y-0 left-0 z-30 w-1.5 cursor-col-resize hover:bg-pick focus-visible:bg-brass"
    />
  );
}
