/** What a pantry is set up with, out of its bundle: types, fields, stats and the like, without items and what needs them. */
import { definition, type Kind } from "../kinds/index";
import { isPlain, type Json, type JsonObject } from "../schema/json";

const LEFT_OUT: readonly Kind[] = ["item", "recipe", "table", "source", "use", "subject", "trial", "series"];

/** @param bundle  the text of one. @returns the text of another, of no pantry in particular */
export function setupOf(bundle: string): string {
  const whole = JSON.parse(bundle) as JsonObject;
  const out = new Set(["pantry", ...LEFT_OUT.map((kind) => definition(kind).section)]);
  return JSON.stringify(
    Object.fromEntries(Object.entries(whole).flatMap(([name, part]) => (out.has(name) ? [] : [[name, bare(part)]]))),
  );
}

/** Without links to items and uses, which would come along as stubs. */
function bare(part: Json): Json {
  if (!Array.isArray(part)) return part;
  return part.map((record) => {
    if (!isPlain(record)) return record;
    // Uses are of items.
    const { stops: _, ...kept } = record;
    if (!isPlain(record.own)) return kept;
    const own = Object.entries(record.own).filter(
      ([, value]) => !(Array.isArray(value) && value.some((link) => isPlain(link) && Object.hasOwn(link, "item"))),
    );
    return { ...kept, own: Object.fromEntries(own) } as JsonObject;
  });
}
