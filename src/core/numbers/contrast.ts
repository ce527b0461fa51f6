/** How well one colour is told from another: relative luminance and contrast (WCAG 2.2). Colours are "#rrggbb". */

const channels = (colour: string): number[] => [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16));

function luminance(colour: string): number {
  const [r, g, b] = channels(colour).map((value) => {
    const share = value / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** 1 (the same) to 21 (black and white). */
export function contrast(a: string, b: string): number {
  const [low, high] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (high + 0.05) / (low + 0.05);
}

/** What records stand on, by day and by night; less contrast with one of them can't be told from it. */
export const GROUNDS = ["#fbfcfa", "#11252b"];
export const LEAST_CONTRAST = 1.5;

/** The least contrast of a colour with some grounds. */
export const leastContrast = (colour: string, grounds: readonly string[]): number =>
  Math.min(...grounds.map((ground) => contrast(colour, ground)));

const GREY = 128;
const STEPS = 16;
/** The nearest mixture of a colour with grey that is told from every ground; grey itself where none is. */
export function madeVisible(colour: string, grounds: readonly string[], least: number): string {
  for (let step = 0; step <= STEPS; step++) {
    const mixed = `#${channels(colour)
      .map((value) =>
        Math.round(value + ((GREY - value) * step) / STEPS)
          .toString(16)
          .padStart(2, "0"),
      )
      .join("")}`;
    if (leastContrast(mixed, grounds) >= least) return mixed;
  }
  return "#808080";
}
