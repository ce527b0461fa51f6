/** Numbers as people would have reckoned them: without what reckoning in binary leaves behind. */

/** More decimal places than anybody typed come from reckoning in binary; and −0 is 0. */
export const tidy = (value: number): number => Number(value.toPrecision(12)) + 0;

/** The nearest multiple of a step; the number itself where the step is 0. */
export const roundedTo = (value: number, step: number): number =>
  tidy(step > 0 ? Math.round(tidy(value / step)) * step : value);
