"use client";
/** The input inside a grid cell. Names complete as they are typed. */
import { type KeyboardEvent, useEffect, useId, useRef, useState } from "react";
import { fold } from "@/core/catalogue/names";
import { cx } from "../kit/kit";

interface Props {
  readonly label: string;
  readonly start: string;
  /** Editing what is there (cursor at the end, all selected) rather than replacing it. */
  readonly keep: boolean;
  readonly numeric: boolean;
  readonly names?: readonly string[];
  readonly onDone: (text: string, way: "down" | "up" | "right" | "left" | "stay") => void;
  readonly onCancel: () => void;
}

export const fitting = (typed: string, names: readonly string[], most = 8): string[] => {
  const wanted = fold(typed);
  if (!wanted) return names.slice(0, most);
  const starts = names.filter((n) => fold(n).startsWith(wanted));
  return [...starts, ...names.filter((n) => !fold(n).startsWith(wanted) && fold(n).includes(wanted))].slice(0, most);
};

export function CellEditor({ label, start, keep, numeric, names, onDone, onCancel }: Props) {
  const [text, setText] = useState(start);
  const [touched, setTouched] = useState(!keep);
  const [picked, setPicked] = useState(0);
  const input = useRef<HTMLInputElement>(null);
  const ended = useRef(false);
  const listId = useId();
  useEffect(() => {
    input.current?.focus();
    if (keep) input.current?.select();
  }, [keep]);
  const offers = names ? (touched ? fitting(text, names) : [...names].slice(0, 8)) : [];
  const done = (way: Parameters<Props["onDone"]>[1]) => {
    if (ended.current) return;
    ended.current = true;
    const chosen = names && touched && text.trim() !== "" ? (offers[picked] ?? text) : text;
    onDone(chosen.trim(), way);
  };
  const press = (e: KeyboardEvent) => {
    e.stopPropagation();
    if (e.key === "Enter") done(e.shiftKey ? "up" : "down");
    else if (e.key === "Tab") done(e.shiftKey ? "left" : "right");
    else if (e.key === "Escape") {
      ended.current = true;
      onCancel();
      return;
    } else if (offers.length && (e.key === "ArrowDown" || e.key === "ArrowUp")) {
      setTouched(true);
      const next = (picked + (e.key === "ArrowDown" ? 1 : -1) + offers.length) % offers.length;
      setPicked(next);
      if (!touched) setText(offers[next]);
    } else return;
    e.preventDefault();
  };
  return (
    <>
      <input
        ref={input}
        aria-label={label}
        role={names ? "combobox" : undefined}
        aria-expanded={names ? offers.length > 0 : undefined}
        aria-controls={names ? listId : undefined}
        aria-activedescendant={names && offers.length ? `${listId}-${picked}` : undefined}
        value={text}
        onChange={(e) => {
          setText(e.target.value);
          setTouched(true);
          setPicked(0);
        }}
        onKeyDown={press}
        onBlur={() => done("stay")}
        className={cx("absolute inset-0 z-10 h-full w-full border-2 border-ink bg-salt px-1.5 outline-none", numeric && "text-right")}
      />
      {names && offers.length > 0 && (
        <ul id={listId} role="listbox" aria-label={`${label}: names`} className="absolute top-full left-0 z-40 min-w-full rounded-sm border border-line bg-salt py-1 shadow-lg">
          {offers.map((name, i) => (
            <li
              key={name}
              id={`${listId}-${i}`}
              role="option"
              aria-selected={i === picked}
              onMouseDown={(e) => {
                e.preventDefault();
                e.stopPropagation();
                ended.current = true;
                onDone(name, "stay");
              }}
              className={cx("px-2 py-1 text-left", touched && i === picked && "bg-pick")}
            >
              {name}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
