"use client";
/** The one input for what is typed and read: what can't be read stays in it, with the reason, until it is fixed or dropped. */
import { useId, useState } from "react";
import { cx } from "./kit";

export type Read<T> = { readonly value: T } | { readonly message: string };

interface Props<T> {
  readonly label: string;
  /** What is there, as it is typed. */
  readonly shown: string;
  readonly read: (text: string) => Read<T>;
  readonly onDone: (value: T) => void;
  readonly numeric?: boolean;
  readonly placeholder?: string;
  readonly title?: string;
  readonly className?: string;
  /** Names to complete from. */
  readonly names?: (typed: string) => readonly string[];
  /**
   * The reason has no room below it: it stands over what is there, lets clicks through, and makes way while something
   * else is typed into.
   */
  readonly narrow?: boolean;
}

/** Enter or leaving it writes; Escape puts back what is there. */
export function TypedInput<T>({
  label,
  shown,
  read,
  onDone,
  numeric,
  placeholder,
  title,
  className,
  names,
  narrow,
}: Props<T>) {
  const [typed, setTyped] = useState<string | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const id = useId();
  const drop = () => {
    setTyped(null);
    setMessage(null);
  };
  const done = () => {
    if (typed === null || typed.trim() === shown) return drop();
    const found = read(typed.trim());
    if ("message" in found) return setMessage(found.message);
    drop();
    onDone(found.value);
  };
  const offered = typed !== null && names ? names(typed) : [];
  return (
    <span className={cx("block min-w-0", narrow && "group/typed relative")}>
      <input
        aria-label={label}
        aria-invalid={message !== null}
        aria-describedby={message === null ? undefined : `${id}-says`}
        inputMode={numeric ? "decimal" : undefined}
        list={offered.length ? `${id}-names` : undefined}
        className={cx("field", numeric && "text-right", className, message !== null && "border-beet!")}
        placeholder={placeholder}
        title={message ?? title}
        value={typed ?? shown}
        onFocus={(e) => e.target.select()}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={done}
        onKeyDown={(e) => {
          if (e.key === "Enter") done();
          else if (e.key === "Escape" && typed !== null) {
            e.stopPropagation();
            drop();
          }
        }}
      />
      {offered.length > 0 && (
        <datalist id={`${id}-names`}>
          {offered.map((name) => (
            <option key={name} value={name} />
          ))}
        </datalist>
      )}
      {message !== null && (
        <span
          id={`${id}-says`}
          role="alert"
          className={cx(
            "block text-left text-[12px] leading-4 whitespace-normal text-beet",
            narrow
              ? "pointer-events-none absolute top-full left-0 z-20 mt-0.5 w-44 rounded-sm border border-beet bg-salt px-1.5 py-1 shadow-md group-hover/typed:block! group-focus-within/typed:block! [:root:has(:is(input,textarea,select):focus)_&]:hidden"
              : "max-w-56",
          )}
        >
          {message}
        </span>
      )}
    </span>
  );
}
