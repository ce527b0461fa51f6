"use client";
/** Which rows of a grid are rendered, and scrolling to rows and columns. */
import { defaultRangeExtractor, useVirtualizer, type VirtualItem } from "@tanstack/react-virtual";
import { type RefObject, useLayoutEffect, useState } from "react";
import { ROW_HEIGHT } from "./row";

/** The width of an element [px]; 0 before it is drawn. */
export function useRoom(of: RefObject<HTMLElement | null>): number {
  const [room, setRoom] = useState(0);
  useLayoutEffect(() => {
    const { current } = of;
    if (!current) return;
    const measure = () => setRoom(current.clientWidth);
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(current);
    return () => observer.disconnect();
  }, [of]);
  return room;
}

/**
 * Rows that are drawn.
 * @param kept  the row being edited, always rendered and rendered first, so that moving other rows does not take its
 *   focus; −1: none
 */
export function useRows(count: number, scroller: RefObject<HTMLElement | null>, kept: number) {
  const virtual = useVirtualizer({
    count,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 12,
    scrollPaddingEnd: 44,
    rangeExtractor: (range) => {
      const seen = defaultRangeExtractor(range);
      return kept >= 0 && !seen.includes(kept) ? [...seen, kept] : seen;
    },
  });
  const items: readonly VirtualItem[] = virtual.getVirtualItems();
  return {
    height: virtual.getTotalSize(),
    items: kept >= 0 ? [...items].sort((a, b) => Number(b.index === kept) - Number(a.index === kept)) : items,
    toRow: (index: number, align: "auto" | "center" = "auto") => virtual.scrollToIndex(index, { align }),
  };
}

/** Scrolls sideways until a column is in sight beside the pinned ones. */
export function intoSight(
  box: HTMLElement,
  lefts: readonly number[],
  widths: readonly number[],
  pinned: number,
  column: number,
) {
  if (column === 0) return;
  const [left, right] = [lefts[column], lefts[column] + widths[column]];
  const kept = widths.slice(0, pinned).reduce((sum, w) => sum + w, 0);
  if (column >= pinned && left - kept < box.scrollLeft) box.scrollLeft = left - kept;
  else if (right > box.scrollLeft + box.clientWidth) box.scrollLeft = right - box.clientWidth;
}
