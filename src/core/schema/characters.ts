/**
 * What may stand in a text: well-formed Unicode without control characters, and in names nothing that can't be seen.
 */

/** Half of a pair that stands for no character by itself. */
const LONE = /\p{Surrogate}/u;
/** Control characters and code points that are no characters, but for tabs and line breaks. */
// biome-ignore lint/suspicious/noControlCharactersInRegex: these are looked for
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f\ufdd0-\ufdef\p{Noncharacter_Code_Point}]/u;
const BREAK = /[\t\n\r\u2028\u2029]/u;
/**
 * Characters without a shape of their own (Unicode's default ignorables, formats, blanks that are not spaces). Joiners
 * and
 * variation selectors count where they change the character before them: in scripts that join, and in emoji.
 */
const JOINED = /(?<=[^\s\p{Default_Ignorable_Code_Point}\p{Cf}])(?:\u200c|\u200d|\ufe0e|\ufe0f)/gu;
const INVISIBLE = /[\p{Default_Ignorable_Code_Point}\p{Cf}\u2800]/u;
const VISIBLE = /[\p{L}\p{N}\p{P}\p{S}]/u;

export interface TextRule {
  /** Most characters, in UTF-16 units. */
  readonly max: number;
  /** A name: it must show something and hide nothing. */
  readonly name?: boolean;
  /** Line breaks and tabs are allowed. */
  readonly lines?: boolean;
}

/** What is wrong with a text, or null. Takes anything, reads no more than `max` characters of it. */
export function textProblem(value: unknown, { max, name, lines }: TextRule): string | null {
  if (typeof value !== "string") return `Expected text, not ${shown(value)}.`;
  if (value.length > max) return `It has ${value.length} characters; the maximum is ${max}.`;
  if (LONE.test(value)) return "It contains half of a character, which is not valid Unicode. Type it again.";
  const control = CONTROL.exec(value) ?? (lines ? null : BREAK.exec(value));
  if (control) return `It contains a control character (${codeOf(control[0])}). Remove it.`;
  if (!name) return null;
  const hidden = INVISIBLE.exec(value.replace(JOINED, ""));
  if (hidden) return `It contains an invisible character (${codeOf(hidden[0])}). Remove it.`;
  return !value || VISIBLE.test(value) ? null : "Enter a name with at least one letter.";
}

const codeOf = (text: string): string => `U+${(text.codePointAt(0) ?? 0).toString(16).toUpperCase().padStart(4, "0")}`;

/** The first characters of a text, never half of one. */
export function cut(text: string, most: number): string {
  if (text.length <= most) return text;
  const last = text.charCodeAt(most - 1);
  return text.slice(0, last >= 0xd800 && last <= 0xdbff ? most - 1 : most);
}

/** A value as it can stand in a sentence, whatever it is: never longer than a line, never by its own methods. */
export function shown(value: unknown): string {
  if (typeof value === "string") return `“${cut(value, 60)}${value.length > 60 ? "…" : ""}”`;
  if (value === undefined) return "nothing";
  if (value === null || typeof value === "number" || typeof value === "boolean") return `“${String(value)}”`;
  return Array.isArray(value) ? "a list" : "an object";
}
