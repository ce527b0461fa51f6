/** salty import, export and setup: the commands that speak to the database. */
import { writeFileSync } from "node:fs";
import demo from "../demo/brackwater-reach.json";
import { type Catalogue, emptyCatalogue } from "../core/catalogue/catalogue";
import { newId } from "../core/catalogue/names";
import { NEW_PANTRY } from "../core/catalogue/records";
import { exportBundle } from "../core/exchange/bundle";
import { bundlePantry, parseBundle, planImport } from "../core/exchange/read";
import { count } from "../core/numbers/format";
import { commit, createPantry } from "../store/commit";
import { loadCatalogue, type PantryHead } from "../store/load";
import type { Orm } from "../store/orm";
import { withDatabase } from "./connection";
import { BadUse, Unreadable } from "./failure";
import { readText, refused } from "./input";

type Options = Record<string, string | boolean | undefined>;

export async function importCommand([file]: string[], options: Options): Promise<number> {
  if (!file) throw new BadUse("A bundle file is needed.");
  return withDatabase((orm, heads) => importText(orm, heads, file, readText(file), options));
}

async function importText(orm: Orm, heads: readonly PantryHead[], file: string, text: string, options: Options): Promise<number> {
  const parsed = parseBundle(text);
  if ("problems" in parsed) throw refused(file, parsed.problems);
  const settings = bundlePantry(parsed.bundle);
  const key = typeof options.pantry === "string" ? options.pantry : settings.key;
  let head = heads.find((p) => p.key === key);
  const id = head?.id ?? newId();
  const em = () => orm.em.fork() as never;
  const read = async (): Promise<Catalogue> => (await loadCatalogue(em(), id)) ?? emptyCatalogue({ id, key, name: settings.name, ...NEW_PANTRY });
  const before = await read();
  const plan = planImport(before, text, options.replace === true);
  if (!options.quiet) for (const note of plan.notes) process.stderr.write(`${file}: ${note.place}: ${note.says}\n`);
  if (plan.problems.length) throw refused(file, plan.problems);
  const what = `${count(plan.added, "record")} new, ${plan.changed} changed, ${plan.same} the same${options.replace ? `, ${plan.removed} removed` : ""}`;
  if (options.dry) {
    process.stdout.write(`${key}: ${what}. Nothing was written (--dry).\n`);
    return 0;
  }
  if (!head) {
    await createPantry(em(), { id, ...NEW_PANTRY, key, name: settings.name });
    head = { id, key, name: settings.name, revision: 0 };
  }
  const outcome = await commit(orm, id, { author: process.env.USER ?? "salty", note: `Imported ${file.split("/").pop()}`, edits: plan.edits }, async (_, revision) => {
    const now = await read();
    if (now.revision !== revision) throw new Unreadable("Somebody changed the pantry in the meantime. Run the import once more.");
    return now;
  });
  if (!outcome.ok) throw new Unreadable([...outcome.faults, ...outcome.conflicts].map((f) => `${file}: ${f.says}`).join("\n"));
  process.stdout.write(`${key}: ${what}. Revision ${outcome.revision}.\n`);
  return 0;
}

export async function exportCommand([file]: string[], options: Options): Promise<number> {
  if (!file) throw new BadUse("A file to write is needed, or - for standard output.");
  return withDatabase(async (orm, heads) => {
    const key = options.pantry ?? (heads.length === 1 ? heads[0].key : undefined);
    if (!key) throw new BadUse(`Say which pantry: --pantry ${heads.map((p) => p.key).join(" or ") || "KEY"}.`);
    const head = heads.find((p) => p.key === key);
    const catalogue = head && (await loadCatalogue(orm.em.fork() as never, head.id));
    if (!catalogue) throw new Unreadable(`There is no pantry “${String(key)}”. There are: ${heads.map((p) => p.key).join(", ")}.`);
    const text = exportBundle(catalogue);
    if (file === "-") process.stdout.write(text);
    else {
      try {
        writeFileSync(file, text);
      } catch (error) {
        throw new Unreadable(`${file}: can't be written: ${(error as Error).message}`);
      }
      process.stdout.write(`${head.key} at revision ${head.revision} written to ${file}.\n`);
    }
    return 0;
  });
}

/** What npm start runs: tables, and the demo where there is no pantry at all. */
export async function setupCommand(): Promise<number> {
  return withDatabase(async (orm, heads) => {
    if (heads.length) return 0;
    process.stdout.write("· stocking the demo pantry (its faults are planted, see src/demo/README.md): ");
    return importText(orm, heads, "brackwater-reach.json", JSON.stringify(demo), { quiet: true });
  });
}
