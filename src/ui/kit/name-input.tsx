"use client";
/** An input that takes a record's name, with completion. */
import { useId, useState } from "react";
import { fitting } from "../grid/cell-editor";
import { cx } from "./kit";

interface Props {
  readonly label: string;
  readonly value: string;
  readonly names: readonly string[];
  readonly onDone: (name: string) => void;
  readonly placeholder?: string;
  readonly clearAfter?: boolean;
}

export function NameInput({ label, value, names, onDone, placeholder, clearAfter }: Props) {
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
        role="combobox"
        aria-label={label}
        aria-expanded={offers.length > 0}
        aria-controls={listId}
        className="field"
        placeholder={placeholder}
        value={typed ?? value}
        onFocus={(e) => e.target.select()}
        onChange={(e) => {
          setTyped(e.target.value);
          setPicked(0);
        }}
        onBlur={() => typed !== null && done(typed)}
        onKeyDown={(e) => {
          if (e.key === "ArrowDown" && offers.length) setPicked((picked + 1) % offers.length);
          else if (e.key === "ArrowUp" && offers.length) setPicked((picked - 1 + offers.length) % offers.length);
          else if ((e.key === "Enter" || e.key === "Tab") && typed !== null) {
            done(offers[picked] ?? typed);
            if (e.key === "Tab") return;
          } else if (e.key === "Escape") setTyped(null);
          else return;
          e.preventDefault();
        }}
      />
      {offers.length > 0 && (
        <ul id={listId} role="listbox" aria-label={`${label}: names`} className="absolute top-full left-0 z-40 mt-0.5 min-w-full rounded-sm border border-line bg-salt py-1 shadow-lg">
          {offers.map((name, i) => (
            <li
              key={name}
              role="option"
              aria-selected={i === picked}
              onMouseDown={(e) => {
                e.preventDefault();
                done(name);
              }}
              className={cx("px-2 py-1 whitespace-nowrap", i === picked && "bg-pick")}
            >
              {name}
            </li>
          ))}
        </ul>
      )}
    </span>
  );
}
