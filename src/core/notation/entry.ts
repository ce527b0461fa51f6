/** From what was typed into a cell to an edit, or to a sentence that says why not. */
import { type Catalogue, recordAt, recordsOf } from "../catalogue/catalogue";
import { type Edit, setField, type Value } from "../catalogue/changes";
import { fold, nearest, newId } from "../catalogue/names";
import {
  type AnyRecord,
  blank,
  type Field,
  FIELDS,
  type Id,
  type Kind,
  kindWord,
  PANTRY_FIELDS,
} from "../catalogue/records";
import { parseLine } from "./parser";
import { Keys, wordsOf, Writing } from "./write";
import { parseTicks } from "../numbers/ticks";

export type Read = { readonly edits: readonly Edit[] } | { readonly says: string };

/** The edit that writes typed text into a field. An empty text clears where that is possible. */
export function readEntry(catalogue: Catalogue, kind: Kind | "pantry", id: Id, field: string, text: string): Read {
  const about = fieldOf(kind, field);
  const to = (value: Value): Read => ({ edits: [setField(catalogue, kind, id, field, value)] });
  const typed = text.trim();
  if (field === "ticks") {
    const ticks = typed === "" ? 0 : parseTicks(typed, catalogue.pantry.ticksPerSecond);
    return ticks === null
      ? {
          says: `“${typed}” is no time. Write 90s, 1m30s or 1800t, in whole ticks (${catalogue.pantry.ticksPerSecond} a second).`,
        }
      : to(ticks);
  }
  switch (about?.as) {
    case "lines": {
      const parsed = parseLine(`nothing -> ${typed || "nothing"}`, wordsOf(catalogue));
      const error = parsed.remarks.find((r) => r.level === "error");
      if (error || parsed.entries.some((e) => e.role !== "output"))
        return {
          says: error?.says ?? "Only what the source gives belongs here, such as 2..3 River eel + 1 Gull egg 10%.",
        };
      const writing = new Writing(catalogue);
      const lines = writing.lines(parsed) as unknown as Value;
      return {
        edits: [
          ...writing.stubs.map((record): Edit => ({ op: "add", kind: "item", record })),
          setField(catalogue, kind, id, field, lines),
        ],
      };
    }
    case "number":
    case "stats": {
      if (typed === "")
        return about.as === "stats" || about.optional
          ? to(null)
          : about.min <= 0
            ? to(0)
            : { says: "A number is needed here." };
      const value = readNumber(typed);
      if (value === null)
        return { says: `“${typed}” is not a number. Write digits with a point for decimals, such as 2.5.` };
      return to(value);
    }
    case "ref":
    case "refs": {
      if (typed === "")
        return about.as === "refs" ? to([]) : about.optional ? to(null) : { says: "A name is needed here." };
      const names =
        about.as === "refs"
          ? typed
              .split(/[,;]/)
              .map((t) => t.trim().replace(/^#/, ""))
              .filter(Boolean)
          : [typed];
      const found = names.map((name) => named(catalogue, about.to, name));
      const made: Edit[] = [];
      const keys = new Keys(catalogue);
      const ids: Id[] = [];
      for (const [i, record] of found.entries()) {
        if (record) ids.push(record.id);
        else if (about.to === "tag") {
          const tag = blank("tag", { id: newId(), key: keys.next("tag", names[i]), name: names[i] });
          made.push({ op: "add", kind: "tag", record: tag });
          ids.push(tag.id);
        } else {
          const offers = nearest(
            names[i],
            [...recordsOf(catalogue, about.to).values()].map((r) => r.name),
          );
          return {
            says: `There is no ${kindWord(about.to)} called “${names[i]}”.${offers.length ? ` Did you mean ${offers.join(" or ")}?` : " Add it in Setup first."}`,
          };
        }
      }
      const value: Value = about.as === "refs" ? [...new Set(ids)] : ids[0];
      return { edits: [...made, setField(catalogue, kind, id, field, value)] };
    }
    case "choice": {
      const choice =
        about.of.find((o) => fold(o) === fold(typed)) ??
        about.of.find((o) => fold(o).startsWith(fold(typed)) && typed !== "");
      return choice ? to(choice) : { says: `“${typed}” is none of ${about.of.join(", ")}.` };
    }
    case "colour":
      return /^#?[0-9a-f]{6}$/i.test(typed)
        ? to(typed.startsWith("#") ? typed.toLowerCase() : `#${typed.toLowerCase()}`)
        : { says: `“${typed}” is not a colour. Write six hex digits, such as #2c6e8f.` };
    default:
      if (field === "name" && kind !== "pantry") return rename(catalogue, kind, id, typed);
      return to(field === "icon" && typed === "" ? null : typed);
  }
}

/** A new name; a key that was only a placeholder follows it. */
function rename(catalogue: Catalogue, kind: Kind, id: Id, name: string): Read {
  if (name === "") return { says: "A name can't be empty." };
  const key = recordAt(catalogue, kind, id)?.key ?? "";
  const edits = [setField(catalogue, kind, id, "name", name)];
  if (new RegExp(`^new_${kind}(_\\d+)?$`).test(key))
    edits.push(setField(catalogue, kind, id, "key", new Keys(catalogue).next(kind, name)));
  return { edits };
}

const fieldOf = (kind: Kind | "pantry", field: string): Field | undefined => {
  const fields = (kind === "pantry" ? PANTRY_FIELDS : FIELDS[kind]) as Record<string, Field>;
  return fields[field.startsWith("stats.") ? "stats" : field];
};

/** "2.5", "2,5", "1 200", "40%": what people type and what spreadsheets paste. */
export function readNumber(text: string): number | null {
  const plain = text
    .replace(/[\s\u2009']/g, "")
    .replace(/−/g, "-")
    .replace(/%$/, "");
  const point = /^-?\d+,\d+$/.test(plain) ? plain.replace(",", ".") : plain.replace(/,(?=\d{3}(\D|$))/g, "");
  return /^[-+]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(point) ? Number(point) : null;
}

export function named(catalogue: Catalogue, kind: Kind, text: string): AnyRecord | undefined {
  const wanted = fold(text);
  let loose: AnyRecord | undefined;
  for (const record of (catalogue[kind] as ReadonlyMap<Id, AnyRecord>).values()) {
    if (record.name === text || record.key === text) return record;
    if (!loose && (fold(record.name) === wanted || fold(record.key) === wanted)) loose = record;
  }
  return loose;
}

/** Edits for many entries at once; the first that can't be read refuses them all, and says which. */
export function readEntries(
  catalogue: Catalogue,
  entries: readonly { kind: Kind; id: Id; field: string; text: string }[],
): Read {
  const edits: Edit[] = [];
  for (const entry of entries) {
    const read = readEntry(catalogue, entry.kind, entry.id, entry.field, entry.text);
    if ("says" in read)
      return {
        says:
          entries.length > 1
            ? `${recordAt(catalogue, entry.kind, entry.id)?.name ?? ""}: ${read.says} Nothing was written.`
            : read.says,
      };
    edits.push(...read.edits);
  }
  return { edits };
}
