"use client";
/** A choice of one out of a few, as a row of buttons; arrow keys move between them. */
import { ToggleGroup } from "radix-ui";
import { Button, cx } from "./kit";

interface Props<T extends string> {
  /** What is chosen. */
  readonly label: string;
  readonly value: T;
  readonly of: readonly (readonly [T, string])[];
  readonly onPick: (value: T) => void;
  readonly className?: string;
}

export function ChoiceButtons<T extends string>({ label, value, of, onPick, className }: Props<T>) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      className={cx("flex flex-wrap gap-1.5", className)}
      value={value}
      // Pressing the selected button keeps it selected.
      onValueChange={(next) => next !== "" && onPick(next as T)}
    >
      {of.map(([id, text]) => (
        <ToggleGroup.Item key={id} value={id} asChild>
          <Button className={cx(id === value && "border-ink!")}>{text}</Button>
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
