"use client";
/** Small parts used everywhere: buttons, empty places, dots. They know nothing of a pantry, so that error pages stay small. */
import type { ComponentProps, ReactNode } from "react";

export const cx = (...names: (string | false | null | undefined)[]): string => names.filter(Boolean).join(" ");

type ButtonProps = ComponentProps<"button"> & { look?: "solid" | "plain" | "quiet" };
export function Button({ look = "plain", className, type = "button", ...rest }: ButtonProps) {
  const looks = {
    solid: "bg-solid text-on-solid border-solid hover:opacity-90",
    plain: "bg-salt text-ink border-line hover:border-third",
    quiet: "bg-transparent text-second border-transparent hover:text-ink hover:bg-shade",
  };
  return (
    <button
      type={type}
      className={cx(
        "inline-flex h-7 shrink-0 items-center gap-1.5 rounded-sm border px-2.5 font-semibold whitespace-nowrap disabled:opacity-45",
        looks[look],
        className,
      )}
      {...rest}
    />
  );
}

export function Empty({ title, children, action }: { title: string; children?: ReactNode; action?: ReactNode }) {
  return (
    <div className="mx-auto flex max-w-md flex-col items-center gap-2 px-6 py-14 text-center">
      <h2 className="text-base">{title}</h2>
      <p className="text-second">{children}</p>
      {action}
    </div>
  );
}

const DOTS = {
  error: "rounded-full bg-beet",
  warning: "rotate-45 bg-copper",
  note: "rounded-full border-2 border-second",
} as const;
export function Dot({ severity }: { severity: keyof typeof DOTS }) {
  return <span aria-hidden className={cx("inline-block size-2 shrink-0", DOTS[severity])} />;
}

/** "just now", "4 min ago", "14:02", "12 Nov". */
export function sayWhen(iso: string): string {
  const then = new Date(iso);
  const minutes = Math.floor((Date.now() - then.getTime()) / 60_000);
  if (minutes < 1) return "just now";
  if (minutes < 60) return `${minutes} min ago`;
  const today = new Date().toDateString() === then.toDateString();
  return today
    ? then.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" })
    : then.toLocaleDateString("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" });
}
