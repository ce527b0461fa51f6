"use client";
/** Copying, cutting and pasting blocks of cells, as text between tabs and line ends. */
import type { ClipboardEvent } from "react";
import { formatBlock, parseBlock, placed } from "./clipboard";
import type { Column } from "./columns";
import type { Block } from "./use-cursor";
import type { Entries } from "./use-entries";

interface ClipboardOptions<R> {
  readonly rows: readonly R[];
  readonly columns: readonly Column<R>[];
  readonly block: Block;
  readonly entries: Entries<R>;
  /** A cell is typed into: its text is what is copied. */
  readonly typing: boolean;
  readonly writable: boolean;
  readonly clear: () => void;
}

export function useClipboard<R>({ rows, columns, block, entries, typing, writable, clear }: ClipboardOptions<R>) {
  const { write, textOf, setRefusal } = entries;
  const onCopy = (e: ClipboardEvent) => {
    if (typing) return;
    const text = formatBlock(
      rows
        .slice(block.top, block.bottom + 1)
        .map((r) => columns.slice(block.left, block.right + 1).map((c) => textOf(r, c))),
    );
    e.clipboardData.setData("text/plain", text);
    e.preventDefault();
  };
  const onCut = (e: ClipboardEvent) => {
    onCopy(e);
    if (!typing) clear();
  };
  const onPaste = (e: ClipboardEvent) => {
    if (typing || !writable) return;
    e.preventDefault();
    const pasted = parseBlock(e.clipboardData.getData("text/plain"));
    const single = pasted.length === 1 && pasted[0].length === 1;
    const cells = [...placed(pasted, block)];
    const found = cells.flatMap(({ row, column, text }) =>
      rows[row] !== undefined && columns[column]
        ? [{ row: rows[row], column: columns[column].id, text: text.trim() }]
        : [],
    );
    const beyond = cells.filter(({ row }) => row >= rows.length).length;
    const fixed = single ? 0 : found.filter((x) => !columns.find((c) => c.id === x.column)?.edit).length;
    void write(found).then(() => {
      const left = [
        fixed &&
          `${fixed} pasted ${fixed === 1 ? "cell was" : "cells were"} skipped, because the column can't be edited.`,
        beyond &&
          `${beyond} pasted ${beyond === 1 ? "cell is" : "cells are"} below the last row. Use “Import” to create records from pasted cells.`,
      ].filter(Boolean);
      if (left.length) setRefusal(left.join(" "));
    });
  };
  return { onCopy, onCut, onPaste };
}
