/** "burning 3m": how long something must burn at the station for a run. */
import { formatTicks } from "../numbers/ticks";
import { duration } from "../schema/duration";
import { clause, noteNone, readDuration } from "./clause";

export const heat = clause({
  word: "burning",
  what: "The heat",
  fields: {
    heat: duration({
      title: "Heat",
      width: 80,
      help: "How long fuel must burn at the station for one run, such as 30s.",
    }),
  },
  ofVariant: { heat: duration({ optional: true }) },
  none: "0s",
  placeholder: "none",
  read(r, word) {
    const ticks = readDuration(r);
    if (ticks === 0) noteNone(r, word.from, "A heat of 0 is left out.");
    return ticks === null ? null : { heat: ticks };
  },
  write: ({ heat: ticks }, { ticksPerSecond }) => (ticks ? formatTicks(ticks, ticksPerSecond) : null),
  draw: ({ heat: ticks }, { ticksPerSecond }) => `burning for ${formatTicks(ticks, ticksPerSecond)}`,
  run({ heat: ticks }, terms) {
    terms.heat = ticks;
  },
  better: (a, b) => b.heat - a.heat,
});
