"use client";
/** A text that is completed while it is typed: Tab takes what is offered, arrows choose, Enter writes, Escape puts back. */
import { type KeyboardEvent, type ReactNode, useEffect, useId, useLayoutEffect, useRef, useState } from "react";
import { cx } from "./kit";
import { NameList } from "./name-list";

export interface Offer {
  readonly from: number;
  readonly to: number;
  readonly names: readonly string[];
}
interface Props {
  readonly label: string;
  readonly text: string;
  readonly onText: (text: string) => void;
  /** What fits before the cursor; asked only while someone types. */
  readonly offerAt: (text: string, cursor: number) => Offer | null;
  /** What a name that is taken puts into the text; itself where nothing is said. */
  readonly written?: (name: string) => string;
  /** Several lines: Ctrl+Enter writes them; else Enter does. */
  readonly lines?: boolean;
  readonly placeholder?: string;
  readonly autoFocus?: boolean;
  readonly className?: string;
  readonly onEnter?: () => void;
  readonly onEscape?: () => void;
  /** What stands beneath, with a way to put something in place of a part of the text. */
  readonly children?: (replace: (from: number, to: number, by: string) => void) => ReactNode;
}

export function CompletedText({
  label,
  text,
  onText,
  offerAt,
  written = (name) => name,
  lines,
  placeholder,
  autoFocus,
  className,
  onEnter,
  onEscape,
  children,
}: Props) {
  const input = useRef<HTMLTextAreaElement>(null);
  const [cursor, setCursor] = useState<number | null>(null);
  const [picked, setPicked] = useState(0);
  const listId = useId();
  // Set before the next key arrives: one that comes sooner than a frame must not land before what was put in.
  const caret = useRef<number | null>(null);
  useLayoutEffect(() => {
    const at = caret.current;
    if (at === null) return;
    caret.current = null;
    input.current?.focus();
    input.current?.setSelectionRange(at, at);
  });
  useEffect(() => {
    if (autoFocus) input.current?.focus();
  }, [autoFocus]);
  const offer = cursor === null ? null : offerAt(text, cursor);
  const replace = (from: number, to: number, by: string) => {
    onText(`${text.slice(0, from)}${by}${text.slice(to)}`);
    caret.current = from + by.length;
    setCursor(null);
  };
  const take = (name: string) => {
    if (offer) replace(offer.from, offer.to, written(name));
  };
  const press = (e: KeyboardEvent) => {
    if (offer && (e.key === "ArrowDown" || e.key === "ArrowUp"))
      setPicked((picked + (e.key === "ArrowDown" ? 1 : -1) + offer.names.length) % offer.names.length);
    else if (offer && e.key === "Tab" && !e.shiftKey) take(offer.names[Math.min(picked, offer.names.length - 1)]);
    else if (e.key === "Enter" && offer && picked > 0) take(offer.names[picked]);
    else if (e.key === "Enter" && (!lines || e.ctrlKey || e.metaKey)) onEnter?.();
    else if (e.key === "Escape") {
      if (offer) setCursor(null);
      else onEscape?.();
    } else return;
    e.preventDefault();
  };
  return (
    <div className="relative">
      <textarea
        ref={input}
        aria-label={label}
        aria-autocomplete="list"
        aria-controls={offer ? listId : undefined}
        aria-activedescendant={offer ? `${listId}-${picked}` : undefined}
        rows={1}
        spellCheck={false}
        className={cx("field field-sizing-content font-medium", !lines && "resize-none", className)}
        placeholder={placeholder}
        value={text}
        onChange={(e) => {
          onText(lines ? e.target.value : e.target.value.replace(/\n/g, " "));
          setCursor(e.target.selectionStart);
          setPicked(0);
        }}
        onKeyDown={press}
        onBlur={() => setCursor(null)}
      />
      {offer && (
        <NameList
          id={listId}
          label="Names"
          names={offer.names}
          picked={picked}
          onTake={take}
          hint="Tab"
          className="w-72"
        />
      )}
      {children?.(replace)}
    </div>
  );
}
