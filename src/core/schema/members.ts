/**
 * Values with members as text: `{stat: Vigour, by: 2}; {stat: Weight, by: -1}`. A text with signs of order in it is quoted.
 * What stands in braces may hold the same again.
 */

const SIGNS = /[{},;:"\\\n]|^\s|\s$|^$/;
export const quoted = (text: string): string => (SIGNS.test(text) ? `"${text.replace(/["\\]/g, "\\$&")}"` : text);

export interface Member {
  readonly name: string;
  /** Without its quotes. */
  readonly text: string;
}
type Or<T> = T | { readonly message: string };

/** `name: text, name: text`. */
export function readMembers(text: string): Or<{ readonly members: readonly Member[] }> {
  const members: Member[] = [];
  if (text.trim() === "") return { members };
  for (const part of split(text, ",")) {
    const [name, ...rest] = split(part, ":");
    if (!rest.length) return { message: `Expected a name, a colon and a value, found “${part.trim()}”.` };
    members.push({ name: plainText(name), text: plainText(rest.join(":")) });
  }
  return { members };
}

/** `{…}; {…}`, without the braces. */
export function readGroups(text: string): Or<{ readonly groups: readonly string[] }> {
  const groups: string[] = [];
  if (text.trim() === "") return { groups };
  for (const part of split(text, ";")) {
    const inner = within(part.trim());
    if (inner === null) return { message: `Expected { and }, found “${part.trim()}”.` };
    groups.push(inner);
  }
  return { groups };
}

/** What stands between the braces of a text that is one group; null where it is none. */
export const within = (text: string): string | null =>
  text.startsWith("{") && text.endsWith("}") && split(text.slice(1, -1), "}").length === 1 ? text.slice(1, -1) : null;

/** Parts between the signs that stand outside of quotes and braces. */
function split(text: string, sign: string): string[] {
  const parts: string[] = [];
  let from = 0;
  let deep = 0;
  for (let at = 0; at < text.length; at++) {
    const c = text[at];
    if (c === '"') {
      for (at++; at < text.length && text[at] !== '"'; at++) if (text[at] === "\\") at++;
    } else if (c === "{") deep++;
    else if (c === "}" && deep > 0) deep--;
    else if (c === sign && deep === 0) {
      parts.push(text.slice(from, at));
      from = at + 1;
    }
  }
  parts.push(text.slice(from));
  return parts;
}

function plainText(text: string): string {
  const typed = text.trim();
  return /^"(?:[^"\\]|\\[\s\S])*"$/.test(typed) ? typed.slice(1, -1).replace(/\\([\s\S])/g, "$1") : typed;
}
