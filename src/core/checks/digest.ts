/** Numbers that stand for what findings say, so that it is kept and compared without being written. */

/** Fowler, Noll and Vo's hash of 32 bits. */
export function digestOf(text: string): number {
  let n = 0x811c9dc5;
  for (let k = 0; k < text.length; k++) n = Math.imul(n ^ text.charCodeAt(k), 0x01000193);
  return n >>> 0;
}

/**
 * A number of 53 bits for everything that a value says: two of 32 bits by Fowler, Noll and Vo's hash with different
 * starts and factors, over its values in their order, without writing them as one text first.
 */
export function digestOfAll(message: unknown): number {
  hashed.a = 0x811c9dc5;
  hashed.b = 0x85ebca6b;
  hash(message);
  return (hashed.a >>> 0) * 2 ** 21 + (hashed.b >>> 11);
}
const hashed = { a: 0, b: 0 };
/** Numbers that no text has for a character: where a value of each form begins and ends. */
const [TEXT, OTHER, OPEN, CLOSE] = [0x10001, 0x10002, 0x10003, 0x10004];
function mix(c: number): void {
  hashed.a = Math.imul(hashed.a ^ c, 0x01000193);
  hashed.b = Math.imul(hashed.b ^ c, 0x5bd1e995);
}
function hashText(text: string): void {
  let { a, b } = hashed;
  for (let k = 0; k < text.length; k++) {
    const c = text.charCodeAt(k);
    a = Math.imul(a ^ c, 0x01000193);
    b = Math.imul(b ^ c, 0x5bd1e995);
  }
  hashed.a = a;
  hashed.b = b;
}
function hash(value: unknown): void {
  if (typeof value === "string") {
    mix(TEXT);
    hashText(value);
  } else if (typeof value !== "object" || value === null) {
    mix(OTHER);
    hashText(String(value));
  } else if (Array.isArray(value)) {
    mix(OPEN);
    for (let k = 0; k < value.length; k++) hash(value[k]);
    mix(CLOSE);
  } else {
    mix(OPEN);
    for (const name in value) {
      hash(name);
      hash((value as Readonly<Record<string, unknown>>)[name]);
    }
    mix(CLOSE);
  }
}
