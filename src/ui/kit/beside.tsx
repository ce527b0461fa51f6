"use client";
/** A panel beside what it belongs to; `popup.tsx` loads it when the first one opens. */
import { Popover } from "radix-ui";
import { type ReactNode, type RefObject, useRef } from "react";
import { cx } from "./kit";

export interface BesideProps {
  /** What it stands beside, and what has the focus again once it is closed. */
  readonly anchor: RefObject<HTMLElement | null>;
  readonly align: "start" | "end";
  readonly label?: string;
  /** Its width, and how its parts stand. */
  readonly className: string;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

export function Beside({ anchor, align, label, className, onClose, children }: BesideProps) {
  const left = useRef(false);
  return (
    <Popover.Root open onOpenChange={(open) => !open && onClose()}>
      <Popover.Anchor virtualRef={anchor as RefObject<HTMLElement>} />
      <Popover.Portal>
        <Popover.Content
          align={align}
          sideOffset={4}
          aria-label={label}
          className={cx("z-50 rounded-sm border border-line bg-salt p-3 shadow-lg", className)}
          onInteractOutside={(e) => {
            // The button itself closes it.
            if (anchor.current?.contains(e.target as Node)) e.preventDefault();
            else left.current = true;
          }}
          onCloseAutoFocus={(e) => {
            e.preventDefault();
            if (!left.current) anchor.current?.focus();
          }}
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
