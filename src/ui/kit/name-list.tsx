"use client";
/** The names that complete what is being typed, and which of them fit. */
import { normalise } from "@/core/schema/names";
import { cx } from "./kit";

/** Names that begin with what was typed, then those that contain it; all of them for nothing typed. */
export const fitting = (typed: string, names: readonly string[], most = 8): string[] => {
  const wanted = normalise(typed);
  if (!wanted) return names.slice(0, most);
  const normalised = names.map((name) => ({ name, text: normalise(name) }));
  const starts = normalised.filter((n) => n.text.startsWith(wanted));
  return [...starts, ...normalised.filter((n) => !n.text.startsWith(wanted) && n.text.includes(wanted))]
    .slice(0, most)
    .map((n) => n.name);
};

interface Props {
  readonly id: string;
  readonly label: string;
  readonly names: readonly string[];
  /** Index of the one that Enter or Tab takes, −1: none. */
  readonly picked: number;
  readonly onTake: (name: string) => void;
  /** Shown beside the picked one: the key that takes it. */
  readonly hint?: string;
  readonly className?: string;
}

/** Options under an input that keeps the focus; its aria-activedescendant is `${id}-${picked}`. */
export function NameList({ id, label, names, picked, onTake, hint, className }: Props) {
  if (!names.length) return null;
  return (
    <ul
      id={id}
      // biome-ignore lint/a11y/noNoninteractiveElementToInteractiveRole: options of a combobox after the ARIA pattern
      role="listbox"
      aria-label={label}
      className={cx(
        "absolute left-0 z-40 mt-0.5 min-w-full rounded-sm border border-line bg-salt py-1 shadow-lg",
        className,
      )}
    >
      {names.map((name, i) => (
        // biome-ignore lint/a11y/useFocusableInteractive: focus stays on the whole; aria-activedescendant tells what is active
        <li
          key={name}
          id={`${id}-${i}`}
          // biome-ignore lint/a11y/noNoninteractiveElementToInteractiveRole: options of a combobox after the ARIA pattern
          role="option"
          aria-selected={i === picked}
          // The input must not lose the focus, nor a grid beneath take the press for its own.
          onMouseDown={(e) => {
            e.preventDefault();
            e.stopPropagation();
            onTake(name);
          }}
          className={cx("flex justify-between gap-3 px-2 py-1 text-left whitespace-nowrap", i === picked && "bg-pick")}
        >
          {name}
          {hint && i === picked && <kbd className="text-[12px] text-second">{hint}</kbd>}
        </li>
      ))}
    </ul>
  );
}
