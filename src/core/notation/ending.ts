/** Completion of names in lines made of clauses: what the words before the cursor are the beginning of. */
import { normalise } from "../schema/names";

export interface Ending {
  /** Where the words begin that a name would take the place of. */
  readonly from: number;
  readonly to: number;
  readonly names: readonly string[];
}

/** Words before the cursor that are tried as the beginning of a name. */
const MOST_WORDS = 4;
/** Letters after which names are offered. */
const LEAST = 2;

/**
 * The longest run of words up to the cursor that some name begins with.
 * @param names  each with its normalised form, computed once
 * @param most   how many are offered
 */
export function endingAt(
  text: string,
  cursor: number,
  names: readonly (readonly [name: string, normalised: string])[],
  most = 8,
): Ending | null {
  const before = text.slice(0, cursor);
  const clause = Math.max(
    before.lastIndexOf(","),
    before.lastIndexOf(":"),
    before.lastIndexOf("("),
    before.lastIndexOf("\n"),
  );
  const starts = [...before.slice(clause + 1).matchAll(/\S+/g)].map((m) => clause + 1 + m.index).slice(-MOST_WORDS);
  for (const from of starts) {
    const typed = normalise(before.slice(from));
    if (typed.length < LEAST || /\s$/.test(before)) continue;
    const found: string[] = [];
    for (const [name, normalised] of names) {
      if (normalised.startsWith(typed) && normalised !== typed && !found.includes(name)) found.push(name);
      if (found.length >= most) break;
    }
    if (found.length) return { from, to: cursor, names: found };
  }
  return null;
}
