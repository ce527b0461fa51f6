"use client";
/** A sheet of paper over the page: a title, what is asked, a part that scrolls, and the ways to go on. */
import { AlertDialog, Dialog } from "radix-ui";
import type { ReactNode } from "react";
import { Button, cx } from "./kit";

const WIDTHS = { narrow: "w-[520px] top-[14vh]", middle: "w-[720px] top-[8vh]", wide: "w-[1040px] top-[5vh]" };

interface Props {
  readonly title: ReactNode;
  readonly description?: ReactNode;
  readonly width?: keyof typeof WIDTHS;
  /** What is chosen or typed, under the title. */
  readonly head?: ReactNode;
  /** Buttons, and what they would do. */
  readonly foot: ReactNode;
  /** Something may be lost: it is answered, not clicked away, and begins at Cancel, which is added to the buttons. */
  readonly alert?: boolean;
  readonly onClose: () => void;
  readonly children?: ReactNode;
}

export function DialogFrame({ title, description, width = "middle", head, foot, alert, onClose, children }: Props) {
  const Kind = alert ? AlertDialog : Dialog;
  return (
    <Kind.Root open onOpenChange={(open) => !open && onClose()}>
      <Kind.Portal>
        <Kind.Overlay className="fixed inset-0 z-40 bg-[#0d303855]" />
        <Kind.Content
          {...(description ? {} : { "aria-describedby": undefined })}
          className={cx(
            "fixed left-1/2 z-50 flex max-h-[88vh] max-w-[96vw] -translate-x-1/2 flex-col rounded-sm border border-line bg-salt shadow-2xl",
            WIDTHS[width],
          )}
        >
          <div className="border-b border-hair px-5 pt-4 pb-3">
            <Kind.Title className="text-[17px]">{title}</Kind.Title>
            {description && <Kind.Description className="pt-1 text-second">{description}</Kind.Description>}
            {head}
          </div>
          {children}
          <div className="flex flex-wrap items-center gap-2 border-t border-line px-5 py-3">
            {foot}
            {alert && (
              <AlertDialog.Cancel asChild>
                <Button look="quiet">Cancel</Button>
              </AlertDialog.Cancel>
            )}
          </div>
        </Kind.Content>
      </Kind.Portal>
    </Kind.Root>
  );
}

/** The part that scrolls, reached by keyboard. */
export function Scrolled({ label, className, children }: { label: string; className?: string; children: ReactNode }) {
  return (
    // biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element
    <div
      // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
      tabIndex={0}
      role="region"
      aria-label={label}
      className={cx("min-h-24 flex-1 overflow-auto px-5 py-2", className)}
    >
      {children}
    </div>
  );
}

/** Rows of a preview that are drawn; all are written. */
const SHOWN = 300;
export interface Previewed {
  readonly id: string;
  readonly name: string;
  readonly before: string;
  readonly after: string | null;
  /** Why it can't be. */
  readonly message: string | null;
}

/** What each record has, and what it would have or why it can't. */
/** @param long  whole lines of text, not values */
export function BeforeAndAfter({
  what,
  rows,
  long,
}: {
  readonly what: string;
  readonly rows: readonly Previewed[];
  readonly long?: boolean;
}) {
  const side = long ? "text-left" : "text-right";
  return (
    <>
      <table className="w-full">
        <thead>
          <tr className="text-left">
            <th className="head py-1">{what}</th>
            <th className={`head ${long ? "w-2/5 pl-4" : "w-36"} ${side}`}>Before</th>
            <th className={`head ${long ? "w-2/5 pl-4" : "w-80"} ${side}`}>After</th>
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, SHOWN).map((row) => (
            <tr key={row.id} className="border-t border-hair align-baseline">
              <td className="py-1 font-semibold">{row.name}</td>
              <td className={`pl-4 ${side} text-second`}>{row.before || "–"}</td>
              {row.message ? (
                <td className={`pl-4 ${side} text-beet`}>{row.message}</td>
              ) : (
                <td className={`pl-4 ${side} font-semibold`}>{row.after || "–"}</td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length > SHOWN && <p className="py-2 text-second">and {rows.length - SHOWN} more</p>}
    </>
  );
}
