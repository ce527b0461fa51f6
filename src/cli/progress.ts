/** How far something is, on one line of the terminal that is written over; nothing where no person looks. */
import type { Progress } from "../core/exchange/progress";
import { count } from "../core/numbers/format";

const DOES = { reading: "read", writing: "written" } as const;

export function progressLine(quiet: boolean): {
  readonly show: (progress: Progress) => void;
  readonly end: () => void;
} {
  const { stderr } = process;
  if (quiet || !stderr.isTTY) return { show: () => undefined, end: () => undefined };
  const begun = performance.now();
  let last = 0;
  return {
    show({ stage, done, of }) {
      const now = performance.now();
      // What is done in a moment needs no line.
      if (now - begun < 500 || (now - last < 100 && done < of)) return;
      last = now;
      stderr.write(`\r\x1b[K${Math.floor((100 * done) / Math.max(1, of))}% ${DOES[stage]} of ${count(of, "record")}`);
    },
    end: () => void stderr.write("\r\x1b[K"),
  };
}
