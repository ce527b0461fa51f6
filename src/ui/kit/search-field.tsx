"use client";
/** A field that narrows what a view shows while it is typed into. */
import type { ComponentProps } from "react";
import { cx } from "./kit";

interface Props extends Omit<ComponentProps<"input">, "type" | "aria-label"> {
  /** What it searches, such as "Search findings". */
  readonly label: string;
}

export function SearchField({ label, placeholder = label, className, ...rest }: Props) {
  return (
    <input type="search" aria-label={label} placeholder={placeholder} className={cx("field", className)} {...rest} />
  );
}
