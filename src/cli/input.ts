/** Where a catalogue comes from: a bundle file, standard input, or a pantry of the database. */
import { namesOf } from "../core/catalogue/surroundings";
import { readFileSync } from "node:fs";
import { type Catalogue, emptyCatalogue } from "../core/catalogue/catalogue";
import { apply } from "../core/catalogue/apply";
import { nearest } from "../core/schema/names";
import { newId, type Id } from "../core/schema/id";
import { bundlePantry, planImport } from "../core/exchange/read";
import { parseBundle } from "../core/exchange/parse";
import { type Issue, issue } from "../core/schema/issue";
import type { NameBook } from "../core/notation/book";
import { BadUse, Unreadable } from "./failure";

export function readBytes(file: string): Buffer {
  try {
    return readFileSync(file === "-" ? 0 : file);
  } catch (error) {
    throw new Unreadable(`${file}: can't be read: ${(error as Error).message}`);
  }
}
export const readText = (file: string): string => readBytes(file).toString("utf8");

export const refused = (file: string, issues: readonly Issue[]): Unreadable =>
  new Unreadable(issues.map((p) => `${file}: ${p.path}: ${p.message}`).join("\n"));

/** The catalogue of a bundle, as if imported into an empty pantry. */
export function catalogueOf(file: string, text: string): Catalogue {
  const parsed = parseBundle(text);
  if ("issues" in parsed) throw refused(file, parsed.issues);
  const { settings, issues } = bundlePantry(parsed.bundle);
  if (issues.length) throw refused(file, issues);
  const empty = emptyCatalogue({ id: newId(), ...settings });
  const plan = planImport(empty, text);
  if (plan.issues.length) throw refused(file, plan.issues);
  const outcome = apply(empty, plan.edits);
  if (!outcome.ok)
    throw refused(
      file,
      outcome.issues.map((f) => issue(`${f.kind} ${f.key}.${f.path}`, f.message)),
    );
  return outcome.catalogue;
}

export async function readCatalogue(file: string | undefined): Promise<Catalogue> {
  if (!file) throw new BadUse("Name a bundle file.");
  if (!file.startsWith("db:")) return catalogueOf(file, readText(file));
  const { withDatabase } = await import("./connection");
  const { loadCatalogue } = await import("../store/load");
  return withDatabase(async (orm, heads) => {
    const head = heads.find((p) => p.key === file.slice(3));
    if (!head)
      throw new Unreadable(
        `${file}: there is no such pantry. There ${heads.length ? `are: ${heads.map((p) => p.key).join(", ")}` : "is none yet"}.`,
      );
    const catalogue = await loadCatalogue(orm.em.fork() as never, head.id);
    if (!catalogue) throw new Unreadable(`${file}: it was just removed.`);
    return catalogue;
  });
}

/** "smoked_eel=20": an item by key or name, and how many of it. */
export const wantedItem = (catalogue: Catalogue, file: string, wanted: string): CommandOptions =>
  wantedOne("item", namesOf(catalogue, "item"), file, wanted);

export interface CommandOptions {
  readonly id: Id;
  readonly name: string;
  readonly quantity: number;
}

/** The same of any kind whose names are in a book. */
export function wantedOne(kind: string, book: NameBook, file: string, wanted: string): CommandOptions {
  const [, name, amount] = /^(.*?)(?:=([^=]*))?$/s.exec(wanted) as RegExpExecArray;
  const quantity = amount === undefined ? 1 : Number(amount);
  if (!Number.isFinite(quantity) || quantity <= 0)
    throw new BadUse(`“${amount}” isn't a quantity. Use a number above 0, such as ${name}=20.`);
  const found = book.find(name);
  if (found.found === "several")
    throw new Unreadable(`${file}: “${name}” is the name of several ${kind}s. Use a key: ${found.keys.join(" or ")}.`);
  if (found.found === "none") {
    const offers = nearest(name, [...book.names(), ...book.keys()]);
    throw new Unreadable(
      `${file}: there is no ${kind} “${name}”.${offers.length ? ` Did you mean ${offers.join(" or ")}?` : ""}`,
    );
  }
  return { id: found.id, name: found.name, quantity };
}
