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

/** Codes of two digits, the first in the upper byte. */
const PAIRS = Uint16Array.from({ length: 1296 }, (_, n) => code(Math.floor(n / 36)) * 256 + code(n % 36));
function code(digit: number): number {
  return digit < 10 ? digit + 48 : digit + 87;
}
/** The id whose two halves are these numbers. */
export function idFrom(high: number, low: number): Id {
  const [first, fourth] = [Math.floor(high / 1_679_616), Math.floor(low / 1_679_616)];
  const [high4, low4] = [high - first * 1_679_616, low - fourth * 1_679_616];
  const [second, fifth] = [(high4 / 1296) | 0, (low4 / 1296) | 0];
  const [a, b, c] = [PAIRS[first], PAIRS[second], PAIRS[high4 - second * 1296]];
  const [d, e, f] = [PAIRS[fourth], PAIRS[fifth], PAIRS[low4 - fifth * 1296]];
  return String.fromCharCode(
    a >> 8,
    a & 255,
    b >> 8,
    b & 255,
    c >> 8,
    c & 255,
    d >> 8,
    d & 255,
    e >> 8,
    e & 255,
    f >> 8,
    f & 255,
  ) as Id;
}

/** So many ranks there are. */
export const RANKS = 36 ** 6;
/** A new id that comes before all of higher ranks: its first six digits are the rank, 31 bits of chance follow. */
export const rankedId = (rank: number): Id => idFrom(rank, crypto.getRandomValues(new Uint32Array(1))[0] % RANKS);
