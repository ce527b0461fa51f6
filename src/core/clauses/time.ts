/** "in 90s": how long a run takes. */
import { formatTicks } from "../numbers/ticks";
import { duration } from "../schema/duration";
import { clause, noteNone, readDuration } from "./clause";

const said = { label: "time", bundled: "time" } as const;

export const time = clause({
  word: "in",
  what: "The time",
  fields: { ticks: duration({ ...said, title: "Time", width: 80 }) },
  ofVariant: { ticks: duration({ ...said, optional: true }) },
  none: "0s",
  placeholder: "90s",
  read(r, word) {
    const ticks = readDuration(r);
    if (ticks === 0) noteNone(r, word.from, "A time of 0 is left out.");
    return ticks === null ? null : { ticks };
  },
  write: ({ ticks }, { ticksPerSecond }) => (ticks ? formatTicks(ticks, ticksPerSecond) : null),
  draw: ({ ticks }, { ticksPerSecond }) => `in ${formatTicks(ticks, ticksPerSecond)} (${ticks} ticks)`,
  run({ ticks }, terms) {
    terms.ticks = ticks;
  },
  better: (a, b) => b.ticks - a.ticks,
});
