/** Who is acting. Today a name chosen in the interface; accounts and roles will answer here. */
import { cut, textProblem } from "../core/schema/characters";

export interface Actor {
  readonly name: string;
}

const MOST = 80;
/** Longer headers are no names. */
const LONGEST = 2_000;

/** The name in the header, encoded or as it came, shortened; or what is wrong with it. */
export function actingFrom(headers: Headers): Actor | { readonly message: string } {
  const given = decoded(cut(headers.get("x-salty-author") ?? "", LONGEST)).trim();
  const name = cut(given, MOST).trim();
  const message = textProblem(name, { max: MOST, name: true });
  return name && message ? { message: `The author's name isn't valid. ${message}` } : { name: name || "Anonymous" };
}

/** A name that was not encoded is taken as it came. */
function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
