"use client";
/** A value that is edited where it stands, with its ink: written here, inherited, or nowhere. */
import { RotateCcw } from "lucide-react";
import { useRef, useState } from "react";
import type { Held } from "@/core/catalogue/inheritance";
import { cx } from "./kit";
import { NameInput } from "./name-input";
import { OfferButton, type Refused, wordsOf } from "./refusal";

interface Props {
  readonly label: string;
  readonly held: Held<unknown>;
  readonly show: string;
  readonly text: string;
  readonly names?: readonly string[];
  readonly long?: boolean;
  readonly numeric?: boolean;
  readonly onWrite: (text: string) => Promise<Refused | null>;
  /** Puts an overridden value back to what it inherits. */
  readonly onPutBack?: () => void;
}

/** A value that nothing is inherited for. */
export const plain = (value: unknown): Held<unknown> => ({
  value,
  from: value === null || value === "" ? "none" : "own",
});

export function Inline({ label, held, show, text, names, long, numeric, onWrite, onPutBack }: Props) {
  const [editing, setEditing] = useState(false);
  const [message, setMessage] = useState<Refused | null>(null);
  const left = useRef(false);
  const done = async (typed: string) => {
    if (left.current) return;
    left.current = true;
    const why = typed === text ? null : await onWrite(typed);
    setMessage(why);
    // What can't be written stays where it was typed.
    if (why === null) setEditing(false);
    else left.current = false;
    return why;
  };
  const drop = () => {
    left.current = true;
    setMessage(null);
    setEditing(false);
  };
  const reason = message && (
    <span role="alert" className="block w-0 min-w-full text-[12px] whitespace-normal text-beet">
      {wordsOf(message)} <OfferButton refused={message} onDone={drop} onRefused={setMessage} />
    </span>
  );
  const begin = () => {
    left.current = false;
    setEditing(true);
  };
  if (editing && names) return <NameInput label={label} value={text} names={names} onDone={done} onCancel={drop} />;
  if (editing && long)
    return (
      <span className="block w-full">
        <textarea
          aria-label={label}
          aria-invalid={message !== null}
          // biome-ignore lint/a11y/noAutofocus: it appears because someone asked to type here
          autoFocus
          className="field min-h-20"
          defaultValue={text}
          onBlur={(e) => void done(e.target.value.trim())}
          onKeyDown={(e) => e.key === "Escape" && drop()}
        />
        {reason}
      </span>
    );
  if (editing)
    return (
      <span className="block min-w-0">
        <input
          aria-label={label}
          aria-invalid={message !== null}
          // biome-ignore lint/a11y/noAutofocus: it appears because someone asked to type here
          autoFocus
          className={cx("field", numeric && "text-right", message !== null && "border-beet!")}
          defaultValue={text}
          title={numeric ? "Enter saves it, Alt+Enter tries it in a scenario" : undefined}
          onFocus={(e) => e.target.select()}
          onBlur={(e) => void done(e.target.value.trim())}
          onKeyDown={(e) => {
            if (e.key === "Enter") e.currentTarget.blur();
            if (e.key === "Escape") drop();
          }}
        />
        {reason}
      </span>
    );
  return (
    <span className={cx("flex min-w-0 items-center gap-1", numeric && "justify-end")}>
      {held.from === "own" && onPutBack && (
        <button
          type="button"
          onClick={onPutBack}
          aria-label={`${label}: reset to inherited`}
          title="Reset to inherited"
          className="grid size-6 shrink-0 place-items-center text-third hover:text-ink"
        >
          <RotateCcw size={12} aria-hidden />
        </button>
      )}
      <button
        type="button"
        onClick={begin}
        aria-label={`${label}: ${show || "nothing"}${held.from === "inherited" ? `, inherited from ${held.type?.name ?? "its type"}` : ""}. Edit`}
        title={held.from === "inherited" ? `inherited from ${held.type?.name}` : undefined}
        className={cx(
          "min-h-6 min-w-6 rounded-sm px-1 hover:bg-pick",
          long ? "text-left" : "truncate",
          numeric && "text-right",
          held.from === "inherited" ? "ink-inherited" : held.from === "none" ? "text-third" : "ink-own",
        )}
      >
        {show || "–"}
      </button>
      {reason}
    </span>
  );
}
