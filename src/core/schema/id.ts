/** Ids: twelve characters of 0-9a-z, which are two numbers of six digits to the base of 36. */

declare const idBrand: unique symbol;
/** Immutable name of a record, twelve characters of 0-9a-z. Never shown to people. */
export type Id = string & { readonly [idBrand]: true };

const ID = /^[0-9a-z]{12}$/;
export const isId = (value: unknown): value is Id => typeof value === "string" && value.length === 12 && ID.test(value);

const LETTERS = "0123456789abcdefghijklmnopqrstuvwxyz";
/** A new id: 12 characters, 62 bits of chance. */
export function newId(): Id {
  const bytes = crypto.getRandomValues(new Uint8Array(24));
  let id = "";
  for (const byte of bytes) if (byte < 252 && id.length < 12) id += LETTERS[byte % 36];
  return id.length === 12 ? (id as Id) : newId();
}

/** Six digits of an id from a place on, 0 or 6; NaN where there is another character. */
export function half(id: string, from: number): number {
  let n = 0;
  for (let k = from; k < from + 6; k++) {
    const c = id.charCodeAt(k);
    if (c >= 48 && c <= 57) n = n * 36 + c - 48;
    else if (c >= 97 && c <= 122) n = n * 36 + c - 87;
    else return Number.NaN;
  }
  return n;
}

const POWERS = [60_466_176, 1_679_616, 46_656, 1_296, 36, 1];
/** The id whose two halves are these numbers. */
export function idFrom(high: number, low: number): Id {
  return String.fromCharCode(
    digit(high, POWERS[0]),
    digit(high, POWERS[1]),
    digit(high, POWERS[2]),
    digit(high, POWERS[3]),
    digit(high, POWERS[4]),
    digit(high, POWERS[5]),
    digit(low, POWERS[0]),
    digit(low, POWERS[1]),
    digit(low, POWERS[2]),
    digit(low, POWERS[3]),
    digit(low, POWERS[4]),
    digit(low, POWERS[5]),
  ) as Id;
}
/** The character of the digit that stands for so many. */
function digit(n: number, worth: number): number {
  const d = Math.floor(n / worth) % 36;
  return d < 10 ? d + 48 : d + 87;
}
