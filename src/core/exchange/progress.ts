/** How far something large has come: `done` of `of` records. */
export interface Progress {
  readonly stage: "reading" | "writing";
  readonly done: number;
  readonly of: number;
}
export type OnProgress = (progress: Progress) => void;
/** After so many records it is told again. */
export const TOLD_EVERY = 2_000;
