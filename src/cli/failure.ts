/** The two ways a command ends with 2. */

/** The command was not understood; the help follows. */
export class BadUse extends Error {}

/** The input can't be used: file, place and reason are in the message. */
export class Unreadable extends Error {}

export function oneOf<T extends string>(
  name: string,
  given: string | boolean | undefined,
  allowed: readonly T[],
  rest: T,
): T {
  if (given === undefined) return rest;
  if (allowed.includes(given as T)) return given as T;
  throw new BadUse(`--${name} is ${allowed.join(" or ")}, not “${String(given)}”.`);
}
