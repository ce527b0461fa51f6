"use client";
/** A button with a panel beside it. What places the panel is loaded when the first one opens: most pages open none. */
import dynamic from "next/dynamic";
import { orNotLoaded } from "./not-loaded";
import { type ReactNode, type RefObject, useRef, useState } from "react";
import type { BesideProps } from "./beside";

export const Beside = dynamic(() => orNotLoaded(import("./beside").then((m) => m.Beside)), { ssr: false });

/** What makes a button the one that opens the panel. */
export interface Opener {
  readonly ref: RefObject<HTMLButtonElement | null>;
  readonly onClick: () => void;
  readonly "aria-haspopup": "dialog";
  readonly "aria-expanded": boolean;
}

interface Props extends Pick<BesideProps, "align" | "label" | "className"> {
  readonly button: (opener: Opener) => ReactNode;
  /** Where whoever uses it knows whether it is open. */
  readonly open?: boolean;
  readonly onOpen?: (open: boolean) => void;
  readonly children: ReactNode;
}

export function Popup({ button, open: isOpen, onOpen, children, ...panel }: Props) {
  const ref = useRef<HTMLButtonElement>(null);
  const [own, setOwn] = useState(false);
  const open = isOpen ?? own;
  const turn = onOpen ?? setOwn;
  return (
    <>
      {button({ ref, onClick: () => turn(!open), "aria-haspopup": "dialog", "aria-expanded": open })}
      {open && (
        <Beside anchor={ref} onClose={() => turn(false)} {...panel}>
          {children}
        </Beside>
      )}
    </>
  );
}
