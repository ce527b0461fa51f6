"use client";
/** Why something was not accepted, and what can be created so that it is. */
import { Button } from "./kit";

export interface Offer {
  /** "Create condition Fleet" */
  readonly label: string;
  /** @returns why that was refused; null where it was done */
  readonly run: () => Promise<string | null>;
}
export type Refused = string | { readonly message: string; readonly offer: Offer };

export const wordsOf = (refused: Refused): string => (typeof refused === "string" ? refused : refused.message);
export const isRefused = (answer: unknown): answer is Refused =>
  typeof answer === "string" ||
  (typeof answer === "object" && answer !== null && "message" in answer && "offer" in answer);

/** @param onDone  called once what was offered is done; `onRefused` with the reason where it was not */
export function OfferButton({
  refused,
  onDone,
  onRefused,
}: {
  readonly refused: Refused;
  readonly onDone: () => void;
  readonly onRefused: (message: string) => void;
}) {
  if (typeof refused === "string") return null;
  const { label, run } = refused.offer;
  return (
    <Button
      className="mt-1"
      // The focus stays where the name was typed: leaving it would ask for the same again.
      onMouseDown={(e) => e.preventDefault()}
      onClick={() =>
        void run().then((message) => {
          if (message === null) onDone();
          else onRefused(message);
        })
      }
    >
      {label}
    </Button>
  );
}
