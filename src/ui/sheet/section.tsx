"use client";
/** A part of a sheet under its head. */
import type { ReactNode } from "react";

export function Section({
  title,
  aside,
  action,
  children,
}: {
  title: string;
  aside?: ReactNode;
  action?: ReactNode;
  children: ReactNode;
}) {
  return (
    <section aria-label={title} className="pt-3.5">
      <div className="flex min-h-7 items-center justify-between">
        <h3 className="head">{title}</h3>
        {aside && <span className="text-[12px] font-semibold text-kelp">{aside}</span>}
        {action}
      </div>
      {children}
    </section>
  );
}
