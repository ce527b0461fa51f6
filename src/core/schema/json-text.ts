/** What a text of JSON says that is lost once it is read. */
import { shown } from "./characters";

/** Names of one object up to so many are compared one by one; beyond, a set is quicker. */
const FEW = 16;

/** The names of the objects that are open, one below the other; what is done with is used again. */
class Open {
  private readonly few: string[] = [];
  private count = 0;
  private many: Set<string> | null = null;
  begin(): void {
    this.count = 0;
    this.many = null;
  }
  /** @returns false where the name is there already */
  add(name: string): boolean {
    if (this.many) {
      if (this.many.has(name)) return false;
      this.many.add(name);
      return true;
    }
    for (let k = 0; k < this.count; k++) if (this.few[k] === name) return false;
    this.few[this.count++] = name;
    if (this.count > FEW) this.many = new Set(this.few.slice(0, this.count));
    return true;
  }
}

/**
 * The first name that stands twice in one object, of which a reader of JSON keeps the last in silence (RFC 8259, 4).
 * @param text  what JSON.parse takes
 * @returns the name and where it stands for the second time, from 0; null: there is none
 */
export function repeatedName(text: string): { readonly name: string; readonly at: number } | null {
  const objects: Open[] = [];
  /** One bit of what is open for each depth: whether it is an object. */
  const isObject: boolean[] = [];
  let [depth, inObjects, names] = [0, 0, false];
  for (let at = 0; at < text.length; at++) {
    const c = text.charCodeAt(at);
    if (c === QUOTE) {
      const end = endOfText(text, at);
      if (names) {
        const raw = text.slice(at + 1, end);
        const name = raw.includes("\\") ? (JSON.parse(`"${raw}"`) as string) : raw;
        if (!objects[inObjects - 1].add(name)) return { name, at };
        names = false;
      }
      at = end;
    } else if (c === OPEN_OBJECT) {
      isObject[depth++] = names = true;
      if (inObjects === objects.length) objects.push(new Open());
      objects[inObjects++].begin();
    } else if (c === OPEN_LIST) isObject[depth++] = names = false;
    else if (c === CLOSE_OBJECT || c === CLOSE_LIST) {
      depth--;
      if (c === CLOSE_OBJECT) inObjects--;
      names = false;
    } else if (c === COMMA) names = depth > 0 && isObject[depth - 1];
  }
  return null;
}
const [QUOTE, BACKSLASH, COMMA] = [34, 92, 44];
const [OPEN_OBJECT, CLOSE_OBJECT, OPEN_LIST, CLOSE_LIST] = [123, 125, 91, 93];

/** Where the text that begins at a quotation mark ends. */
function endOfText(text: string, from: number): number {
  for (let end = text.indexOf('"', from + 1); ; end = text.indexOf('"', end + 1)) {
    let escapes = 0;
    while (text.charCodeAt(end - 1 - escapes) === BACKSLASH) escapes++;
    if (escapes % 2 === 0) return end;
  }
}

/** A place in a text as people count. */
export function placeIn(text: string, at: number): string {
  let [lines, last] = [1, -1];
  for (let k = text.indexOf("\n"); k >= 0 && k < at; k = text.indexOf("\n", k + 1)) [lines, last] = [lines + 1, k];
  return `line ${lines}, column ${at - last}`;
}

/** Where a name stands twice, and what to do about it; null: nowhere. */
export function saidTwice(text: string): { readonly place: string; readonly message: string } | null {
  const found = repeatedName(text);
  return (
    found && {
      place: placeIn(text, found.at),
      message: `${shown(found.name)} appears twice in the same object. Remove one of them.`,
    }
  );
}
