/** "burning 3m": how long something must burn at the station for a run. */
import { formatTicks } from "../numbers/ticks";
import { duration } from "../schema/duration";
import { clause, noteNone, readDuration } from "./clause";

export const heat = clause({
  word: "burning",
  what: "The heat",
  fields: {
    heat: duration({ title: "Heat", width: 80, help: "How long something must burn at its station for one run." }),
  },
  ofVariant: { heat: duration({ optional: true }) },
  none: "0s",
  placeholder: "none",
  read(r, word) {
    const ticks = readDuration(r);
    if (ticks === 0) noteNone(r, word.from, "Burning for no time is no heat; the line says nothing of it then.");
    return ticks === null ? null : { heat: ticks };
  },
  write: ({ heat: ticks }, { ticksPerSecond }) => (ticks ? formatTicks(ticks, ticksPerSecond) : null),
  draw: ({ heat: ticks }, { ticksPerSecond }) => `burning for ${formatTicks(ticks, ticksPerSecond)}`,
  run({ heat: ticks }, terms) {
    terms.heat = ticks;
  },
  better: (a, b) => b.heat - a.heat,
});
