/** salty import, export and setup: the commands that speak to the database. */
import { createWriteStream } from "node:fs";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import type { EntityManager } from "@mikro-orm/postgresql";
import demo from "../demo/brackwater-reach.json";
import { newId } from "../core/schema/id";
import { PANTRY_DEFAULTS } from "../core/kinds/index";
import { isKey } from "../core/schema/key";
import { cut } from "../core/schema/characters";
import { exportBundle } from "../core/exchange/bundle";
import { withPictures } from "../core/exchange/pictures";
import { bundlePantry } from "../core/exchange/read";
import { parseBundle } from "../core/exchange/parse";
import { count } from "../core/numbers/format";
import { ownPicturesOf } from "../core/catalogue/icons";
import { importBundle } from "../server/use-cases/writing";
import { loadCatalogue, type PantryHead } from "../store/load";
import type { Orm } from "../store/orm";
import { picturesOf } from "../store/pictures";
import { query } from "../store/sql";
import { LocalWriter } from "./local-writer";
import { withDatabase } from "./connection";
import { BadUse, Unreadable } from "./failure";
import { readBytes, refused } from "./input";
import { progressLine } from "./progress";
import { exportTable, importTable, isTable } from "./tables";

type Options = Record<string, string | boolean | undefined>;

export async function importCommand([file]: string[], options: Options): Promise<number> {
  if (!file) throw new BadUse("Name a bundle or a table file.");
  if (isTable(file)) return importTable(file, options);
  return withDatabase((orm, heads) => importText(orm, heads, file, readBytes(file), options));
}

async function importText(
  orm: Orm,
  heads: readonly PantryHead[],
  file: string,
  bundle: Uint8Array,
  options: Options,
): Promise<number> {
  const settings = settingsIn(file, bundle);
  const key = typeof options.pantry === "string" ? options.pantry : settings.key;
  if (!isKey(key))
    throw new BadUse(`“${key}” isn't a valid pantry key. Use lower-case letters, digits and single “_” between them.`);
  const head = heads.find((p) => p.key === key);
  const id = head?.id ?? newId();
  const fresh = head ? undefined : { ...PANTRY_DEFAULTS, id, key, name: settings.name };
  const line = progressLine(options.quiet === true);
  const outcome = await importBundle(
    new LocalWriter(orm, id, fresh),
    {
      bundle,
      replace: options.replace === true,
      dry: options.dry === true,
      author: cut(process.env.USER ?? "salty", 80),
      name: file.split("/").pop() ?? file,
    },
    { progress: line.show },
  ).finally(line.end);
  if (outcome.is === "refused") {
    const { issues, conflicts } = outcome.refused;
    const message = [...issues.map((i) => i.message), ...conflicts.map((c) => c.message)];
    throw new Unreadable(message.map((why) => `${file}: ${why}`).join("\n"));
  }
  const { notes } = outcome.is === "unread" ? outcome : outcome.plan;
  if (!options.quiet) for (const note of notes) process.stderr.write(`${file}: ${note.path}: ${note.message}\n`);
  if (outcome.is === "unread") throw refused(file, outcome.issues);
  const { added, changed, same, removed, pictures } = outcome.plan;
  const what = `${count(added, "record")} new, ${changed} changed, ${same} the same${options.replace ? `, ${removed} removed` : ""}${pictures ? `, ${count(pictures, "picture")}` : ""}`;
  process.stdout.write(
    options.dry ? `${key}: ${what}. Nothing was saved (--dry).\n` : `${key}: ${what}. Revision ${outcome.revision}.\n`,
  );
  return 0;
}

/** Key and name of the pantry that a bundle is of. */
function settingsIn(file: string, bundle: Uint8Array): { readonly key: string; readonly name: string } {
  const parsed = parseBundle(new TextDecoder().decode(bundle));
  if ("issues" in parsed) throw refused(file, parsed.issues);
  const { settings, issues } = bundlePantry(parsed.bundle);
  if (issues.length) throw refused(file, issues);
  return settings;
}

export async function exportCommand([file]: string[], options: Options): Promise<number> {
  if (!file) throw new BadUse("Name a file to write, or - for standard output.");
  if (isTable(file)) return exportTable(file, options);
  return withDatabase(async (orm, heads) => {
    const key = options.pantry ?? (heads.length === 1 ? heads[0].key : undefined);
    if (!key) throw new BadUse(`Choose a pantry: --pantry ${heads.map((p) => p.key).join(" or ") || "KEY"}.`);
    const head = heads.find((p) => p.key === key);
    const catalogue = head && (await loadCatalogue(orm.em.fork() as never, head.id));
    if (!catalogue)
      throw new Unreadable(`There is no pantry “${String(key)}”. There are: ${heads.map((p) => p.key).join(", ")}.`);
    const pictures = picturesOf(orm.em.fork() as EntityManager, head.id, ownPicturesOf(catalogue));
    const parts = Readable.from(withPictures(exportBundle(catalogue), pictures));
    if (file === "-") await pipeline(parts, process.stdout, { end: false });
    else {
      try {
        await pipeline(parts, createWriteStream(file));
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
      process.stdout.write("· the program uses a superuser role; use a role that owns only its database instead\n");
    if (heads.length) return 0;
    process.stdout.write("· creating the demo pantry (its errors are planted, see src/demo/README.md): ");
    return importText(orm, heads, "brackwater-reach.json", Buffer.from(JSON.stringify(demo)), { quiet: true });
  });
}
