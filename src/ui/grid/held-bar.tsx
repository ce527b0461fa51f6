"use client";
/** The bar below a grid that lists invalid cells and offers to save the others or discard all. */
import { Button } from "../kit/kit";
import type { Entries } from "./use-entries";

interface Props<R> {
  readonly entries: Entries<R>;
  /** The cell the cursor is on. */
  readonly here: string | null;
  readonly onNext: () => void;
}

export function HeldBar<R>({ entries: { held, readable, offer, accept, write, discard }, here, onNext }: Props<R>) {
  if (!held) return null;
  const { faults } = held;
  const reason = here === null ? undefined : faults.get(here);
  return (
    <div role="alert" className="flex flex-wrap items-center gap-2 border-t border-beet bg-beet-wash px-3 py-1.5">
      <span className="min-w-0 flex-1 text-beet">
        {faults.size > 0 ? (
          <>
            {faults.size === 1 ? "1 cell" : `${faults.size} cells`} can't be read and{" "}
            {faults.size === 1 ? "stays" : "stay"} marked
            {reason ? `. Here: ${reason}` : `: ${[...faults.values()][0]}`}
          </>
        ) : (
          "All invalid cells are corrected."
        )}
      </span>
      {offer && <Button onClick={() => void accept()}>{offer.label}</Button>}
      {faults.size > 0 && <Button onClick={onNext}>Next</Button>}
      {readable.length > 0 && (
        <Button look="solid" onClick={() => void write(readable)}>
          Save the other {readable.length}
        </Button>
      )}
      <Button onClick={discard}>Discard</Button>
    </div>
  );
}
