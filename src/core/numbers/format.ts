/** Numbers as they stand in sentences and cells. One place, so that the same value reads the same everywhere. */

/** Two decimals for money and costs; more only where two would hide the value. "–" for what can't be had. */
export function sayCost(value: number): string {
  if (!Number.isFinite(value)) return "–";
  if (value !== 0 && Math.abs(value) < 0.01) return value.toPrecision(2).replace(/e.*/, (e) => `·10^${e.slice(1)}`);
  return group(value.toFixed(2));
}

/** A plain quantity, without trailing zeros and at most four decimals. */
export function sayQuantity(value: number): string {
  if (!Number.isFinite(value)) return "–";
  const text = String(Number(value.toFixed(4)));
  return Math.abs(value) >= 10_000 ? group(text) : text;
}

/** "2" or "1–3". */
export const sayRange = (min: number, max: number): string =>
  min === max ? sayQuantity(min) : `${sayQuantity(min)}–${sayQuantity(max)}`;

/** A chance as a percentage, exact to four decimals. */
export const sayPercent = (chance: number): string => `${Number((chance * 100).toFixed(4))}%`;

/** A relative move with its sign: "+18%", "−3.5%", "new", "gone". */
export function sayMove(from: number, to: number): string {
  if (!Number.isFinite(from)) return Number.isFinite(to) ? "now obtainable" : "–";
  if (!Number.isFinite(to)) return "now unobtainable";
  if (from === 0) return `+${sayQuantity(to)}`;
  const percent = (to / from - 1) * 100;
  const digits = Math.abs(percent) < 10 ? 1 : 0;
  return `${percent < 0 ? "−" : "+"}${group(String(Number(Math.abs(percent).toFixed(digits))))}%`;
}

/** "1 recipe", "3 recipes". */
export const count = (n: number, noun: string, plural = `${noun}s`): string =>
  `${group(String(n))} ${n === 1 ? noun : plural}`;

/** "a, b and c". */
export function list(parts: readonly string[], most = 4): string {
  const shown = parts.length > most ? [...parts.slice(0, most - 1), `${parts.length - most + 1} more`] : parts;
  return shown.length < 2 ? (shown[0] ?? "") : `${shown.slice(0, -1).join(", ")} and ${shown[shown.length - 1]}`;
}

/** "a, b or c". */
export const either = (parts: readonly string[]): string =>
  parts.length < 2 ? (parts[0] ?? "") : `${parts.slice(0, -1).join(", ")} or ${parts[parts.length - 1]}`;

/** " Did you mean a or b?", or nothing. */
export const didYouMean = (offers: readonly string[]): string =>
  offers.length ? ` Did you mean ${either(offers)}?` : "";

/** Commas between thousands. */
export const group = (digits: string): string =>
  digits.replace(/^(-?)(\d+)/, (_, s: string, d: string) => s + d.replace(/\B(?=(\d{3})+$)/g, ","));

/** With a capital letter, as a sentence or a head begins. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
