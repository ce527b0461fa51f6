/** salty import, export and setup: the commands that speak to the database. */
import { writeFileSync } from "node:fs";
import demo from "../demo/brackwater-reach.json";
import { type Catalogue, emptyCatalogue } from "../core/catalogue/catalogue";
import { newId } from "../core/schema/id";
import { PANTRY_DEFAULTS } from "../core/kinds/index";
import { isKey } from "../core/schema/key";
import { cut } from "../core/schema/characters";
import { exportBundle } from "../core/exchange/bundle";
import { bundlePantry, planImport } from "../core/exchange/read";
import { parseBundle } from "../core/exchange/parse";
import { count } from "../core/numbers/format";
import { commit } from "../store/commit";
import { batchOf } from "../store/prepare";
import { loadCatalogue, type PantryHead } from "../store/load";
import type { Orm } from "../store/orm";
import { query } from "../store/sql";
import { withDatabase } from "./connection";
import { BadUse, Unreadable } from "./failure";
import { readText, refused } from "./input";

type Options = Record<string, string | boolean | undefined>;

export async function importCommand([file]: string[], options: Options): Promise<number> {
  if (!file) throw new BadUse("A bundle file is needed.");
  return withDatabase((orm, heads) => importText(orm, heads, file, readText(file), options));
}

async function importText(
  orm: Orm,
  heads: readonly PantryHead[],
  file: string,
  text: string,
  options: Options,
): Promise<number> {
  const parsed = parseBundle(text);
  if ("problems" in parsed) throw refused(file, parsed.problems);
  const { settings, problems } = bundlePantry(parsed.bundle);
  if (problems.length) throw refused(file, problems);
  const key = typeof options.pantry === "string" ? options.pantry : settings.key;
  if (!isKey(key))
    throw new BadUse(`“${key}” is no key of a pantry. Use lower-case letters, digits and single “_” between them.`);
  const head = heads.find((p) => p.key === key);
  const id = head?.id ?? newId();
  const fresh = { ...PANTRY_DEFAULTS, id, key, name: settings.name };
  const read = async (): Promise<Catalogue> =>
    (head && (await loadCatalogue(orm.em.fork() as never, id))) || emptyCatalogue(fresh);
  const before = await read();
  const plan = planImport(before, text, options.replace === true);
  if (!options.quiet) for (const note of plan.notes) process.stderr.write(`${file}: ${note.place}: ${note.says}\n`);
  if (plan.problems.length) throw refused(file, plan.problems);
  const what = `${count(plan.added, "record")} new, ${plan.changed} changed, ${plan.same} the same${options.replace ? `, ${plan.removed} removed` : ""}`;
  if (options.dry) {
    process.stdout.write(`${key}: ${what}. Nothing was written (--dry).\n`);
    return 0;
  }
  // A new pantry is made in the same transaction: an import that fails leaves none behind.
  const outcome = await commit(
    orm,
    id,
    { author: cut(process.env.USER ?? "salty", 80), note: cut(`Imported ${file.split("/").pop()}`, 300) },
    async (_, revision) => {
      if (before.revision !== revision)
        throw new Unreadable("Somebody changed the pantry in the meantime. Run the import once more.");
      return batchOf(before, plan.edits);
    },
    head ? undefined : fresh,
  );
  if (!outcome.ok)
    throw new Unreadable([...outcome.faults, ...outcome.conflicts].map((f) => `${file}: ${f.says}`).join("\n"));
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
    if (!catalogue)
      throw new Unreadable(`There is no pantry “${String(key)}”. There are: ${heads.map((p) => p.key).join(", ")}.`);
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
    const [role] = await query(
      orm.em.fork() as never,
      "select rolsuper as super from pg_roles where rolname = current_user",
    );
    if (role?.super)
      process.stdout.write(
        "· the database is used with a superuser's role: better give the program a role that owns its database and nothing else\n",
      );
    if (heads.length) return 0;
    process.stdout.write("· stocking the demo pantry (its faults are planted, see src/demo/README.md): ");
    return importText(orm, heads, "brackwater-reach.json", JSON.stringify(demo), { quiet: true });
  });
}
