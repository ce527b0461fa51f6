"use client";
/** The input inside a grid cell. Names complete as they are typed. */
import { type KeyboardEvent, useEffect, useId, useRef, useState } from "react";
import { cx } from "../kit/kit";
import { fitting, NameList } from "../kit/name-list";

/** How a cell is left that was typed into. */
export type Leave = "down" | "up" | "right" | "left" | "stay";

interface Props {
  readonly label: string;
  readonly start: string;
  /** Editing what is there (cursor at the end, all selected) rather than replacing it. */
  readonly keep: boolean;
  readonly numeric: boolean;
  readonly names?: readonly string[];
  /** A colour is picked as well as typed. */
  readonly colour?: boolean;
  /** Tells what is in the cell while it is typed. */
  readonly onText: (text: string) => void;
  readonly onDone: (text: string, way: Leave) => void;
  readonly onCancel: () => void;
}

export function CellEditor({ label, start, keep, numeric, names, colour, onText, onDone, onCancel }: Props) {
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
  useEffect(() => onText(text), [text, onText]);
  const offers = names ? fitting(touched ? text : "", names) : [];
  const done = (way: Leave) => {
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
      {/** biome-ignore lint/a11y/useAriaPropsSupportedByRole: named where it has a role, which is told at run time */}
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
        onBlur={(e) => (e.relatedTarget as HTMLElement | null)?.dataset.picks !== "colour" && done("stay")}
        className={cx(
          "absolute inset-0 z-10 h-full w-full border-2 border-ink bg-salt px-1.5 outline-none",
          numeric && "text-right",
        )}
      />
      {colour && (
        <input
          type="color"
          data-picks="colour"
          aria-label={`${label}: choose`}
          className="absolute top-0.5 right-0.5 z-20 size-6 cursor-pointer bg-transparent p-0"
          value={/^#[0-9a-f]{6}$/i.test(text) ? text : "#7b8785"}
          onChange={(e) => {
            setText(e.target.value);
            setTouched(true);
          }}
          onKeyDown={press}
          onBlur={() => done("stay")}
        />
      )}
      {names && (
        <NameList
          id={listId}
          label={`${label}: suggestions`}
          names={offers}
          picked={touched ? picked : -1}
          className="top-full"
          onTake={(name) => {
            ended.current = true;
            onDone(name, "stay");
          }}
        />
      )}
    </>
  );
}
