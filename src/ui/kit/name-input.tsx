"use client";
/** An input that takes a record's name, with completion. */
import { useId, useState } from "react";
import { fitting, NameList } from "./name-list";

interface Props {
  readonly label: string;
  readonly value: string;
  readonly names: readonly string[];
  readonly onDone: (name: string) => void;
  readonly placeholder?: string;
  readonly clearAfter?: boolean;
  /** It has come up to be typed into, and goes when nothing was typed. */
  readonly onCancel?: () => void;
}

export function NameInput({ label, value, names, onDone, placeholder, clearAfter, onCancel }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const [picked, setPicked] = useState(0);
  const listId = useId();
  const offers = typed?.trim() ? fitting(typed, names) : [];
  const done = (name: string) => {
    setTyped(null);
    if (name.trim() !== value || clearAfter) onDone(name.trim());
  };
  return (
    <span className="relative block min-w-0 flex-1">
      <input
        ref={(input) => {
          if (input && onCancel && document.activeElement !== input) input.focus();
        }}
        role="combobox"
        aria-label={label}
        aria-expanded={offers.length > 0}
        aria-controls={listId}
        aria-activedescendant={offers.length ? `${listId}-${picked}` : undefined}
        className="field"
        placeholder={placeholder}
        value={typed ?? value}
        onFocus={(e) => e.target.select()}
        onChange={(e) => {
          setTyped(e.target.value);
          setPicked(0);
        }}
        onBlur={() => (typed === null ? onCancel?.() : done(typed))}
        onKeyDown={(e) => {
          if (e.key === "ArrowDown" && offers.length) setPicked((picked + 1) % offers.length);
          else if (e.key === "ArrowUp" && offers.length) setPicked((picked - 1 + offers.length) % offers.length);
          else if ((e.key === "Enter" || e.key === "Tab") && typed !== null) {
            done(offers[picked] ?? typed);
            if (e.key === "Tab") return;
          } else if (e.key === "Escape" || (e.key === "Enter" && onCancel)) {
            setTyped(null);
            onCancel?.();
          } else return;
          e.preventDefault();
        }}
      />
      <NameList
        id={listId}
        label={`${label}: names`}
        names={offers}
        picked={picked}
        onTake={done}
        className="top-full"
      />
    </span>
  );
}
