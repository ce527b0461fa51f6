/** What a pantry is set up with, out of its bundle: types, fields, stats and the like, without items and what needs them. */
import { definition, type Kind, KINDS } from "../kinds/index";
import { PICTURES } from "./pictures";
import { isPlain, type Json, type JsonObject } from "../schema/json";

const LEFT_OUT: readonly Kind[] = [
  ...["item", "recipe", "table", "source", "use", "subject", "trial", "series"],
  ...["point", "decision", "scenario"],
] as readonly Kind[];

/** @param bundle  the text of one. @returns the text of another, of no pantry in particular */
export function setupOf(bundle: string): string {
  const whole = JSON.parse(bundle) as JsonObject;
  const out = new Set(["pantry", ...LEFT_OUT.map((kind) => definition(kind).section)]);
  const { [PICTURES]: pictures, ...rest } = whole;
  const kept = Object.entries(rest).flatMap(([name, part]) =>
    out.has(name) ? [] : [[name, bare(part, linksOf(name))]],
  );
  const text = JSON.stringify(Object.fromEntries(kept));
  const shown = Array.isArray(pictures)
    ? pictures.filter((p) => isPlain(p) && text.includes(JSON.stringify(p.name)))
    : [];
  return shown.length ? JSON.stringify({ ...Object.fromEntries(kept), [PICTURES]: shown }) : text;
}

/** Members of a list's records that refer to what is left out. */
function linksOf(section: string): ReadonlySet<string> {
  const kind = KINDS.find((k) => definition(k).section === section);
  const fields = kind ? Object.entries(definition(kind).fields) : [];
  return new Set(
    fields.flatMap(([name, { targets, options }]) =>
      name !== "own" && targets.some((to) => LEFT_OUT.includes(to as Kind)) ? [options.bundled ?? name] : [],
    ),
  );
}

/** Without links to items and uses, which would come along as stubs. */
function bare(part: Json, links: ReadonlySet<string>): Json {
  if (!Array.isArray(part)) return part;
  return part.map((record) => {
    if (!isPlain(record)) return record;
    const kept = Object.fromEntries(Object.entries(record).filter(([name]) => !links.has(name))) as JsonObject;
    if (!isPlain(record.own)) return kept;
    const own = Object.entries(record.own).filter(
      ([, value]) => !(Array.isArray(value) && value.some((link) => isPlain(link) && Object.hasOwn(link, "item"))),
    );
    return { ...kept, own: Object.fromEntries(own) } as JsonObject;
  });
}
