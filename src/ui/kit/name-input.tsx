"use client";
/** An input that takes a record's name, with completion. */
import { useId, useState } from "react";
import { cx } from "./kit";
import { fitting, NameList } from "./name-list";
import { isRefused, OfferButton, type Refused, wordsOf } from "./refusal";

type Refusal = Refused | null;

interface Props {
  readonly label: string;
  readonly value: string;
  readonly names: readonly string[];
  /** Takes the name, or says why not: then it stays where it was typed. */
  readonly onDone: ((name: string) => void) | ((name: string) => Refusal | Promise<Refusal>);
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
  const [message, setMessage] = useState<Refused | null>(null);
  const drop = () => {
    setTyped(null);
    setMessage(null);
  };
  const done = (name: string) => {
    drop();
    if (name.trim() === value && !clearAfter) return;
    const hear = (why: unknown) => {
      if (!isRefused(why)) return;
      setTyped(name);
      setMessage(why);
    };
    const answer: unknown = onDone(name.trim());
    if (answer instanceof Promise) void answer.then(hear);
    else hear(answer);
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
        aria-invalid={message !== null}
        className={cx("field", message !== null && "border-beet!")}
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
            drop();
            onCancel?.();
          } else return;
          e.preventDefault();
        }}
      />
      <NameList
        id={listId}
        label={`${label}: suggestions`}
        names={offers}
        picked={picked}
        onTake={done}
        className="top-full"
      />
      {message && (
        <span role="alert" className="block max-w-64 text-[12px] whitespace-normal text-beet">
          {wordsOf(message)}{" "}
          <OfferButton
            refused={message}
            onDone={() => {
              drop();
              onCancel?.();
            }}
            onRefused={setMessage}
          />
        </span>
      )}
    </span>
  );
}
