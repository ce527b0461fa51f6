/** salty import and export of tables: CSV, TSV and workbooks, by a mapping or a view of the pantry. */
import { writeFileSync } from "node:fs";
import { type Catalogue, recordsOf } from "../core/catalogue/catalogue";
import { pathByKey } from "../core/catalogue/filters";
import { filterOf } from "../core/catalogue/keep";
import { namesOf } from "../core/catalogue/surroundings";
import { Engine } from "../core/engine/engine";
import { decimalSignOf, type DecimalSign } from "../core/exchange/table/local";
import { targetsBy } from "../core/exchange/table/mappings";
import { MAKEABLE, planTable, refusedTable } from "../core/exchange/table/plan-table";
import { readTextTable, writeDelimited } from "../core/exchange/table/read-table";
import { guessTargets, NOTHING } from "../core/exchange/table/targets";
import { isWorkbook, readWorkbook, writeWorkbook } from "../core/exchange/table/workbook";
import { pathsOf, type WorkedColumn, writeTable } from "../core/exchange/table/write-table";
import { type AnyRecord, definition, isKind, type Item, type Kind, KINDS, kindWord } from "../core/kinds/index";
import { iconsIn, noIcons } from "../core/catalogue/icons";
import { cut } from "../core/schema/characters";
import type { Id } from "../core/schema/id";
import { pathOf } from "../core/schema/record";
import { loadCatalogue, type PantryHead } from "../store/load";
import type { Orm } from "../store/orm";
import { LocalWriter } from "./local-writer";
import { withDatabase } from "./connection";
import { BadUse, Unreadable } from "./failure";
import { readBytes, refused } from "./input";

type Options = Record<string, string | boolean | undefined>;

/** Whether a file is a table by its name. */
export const isTable = (file: string): boolean => /\.(csv|tsv|txt|xlsx)$/i.test(file);

function kindOf({ kind = "item" }: Options): Kind {
  if (isKind(kind)) return kind;
  throw new BadUse(`“${String(kind)}” isn't a kind of record. Use one of: ${KINDS.join(", ")}.`);
}

/** The pantry that is meant, and everything in it. */
async function opened(
  orm: Orm,
  heads: readonly PantryHead[],
  { pantry }: Options,
): Promise<{ head: PantryHead; catalogue: Catalogue }> {
  const key = pantry ?? (heads.length === 1 ? heads[0].key : undefined);
  const all = heads.map((p) => p.key);
  if (!key) throw new BadUse(`Choose a pantry: --pantry ${all.join(" or ") || "KEY"}.`);
  const head = heads.find((p) => p.key === key);
  const catalogue = head && (await loadCatalogue(orm.em.fork() as never, head.id));
  if (!head || !catalogue) throw new Unreadable(`There is no pantry “${String(key)}”. There are: ${all.join(", ")}.`);
  return { head, catalogue };
}

/** A record of the pantry that the command line names, by name or key. */
function named<K extends "mapping" | "view">(catalogue: Catalogue, kind: K, wanted: string) {
  const found = namesOf(catalogue, kind).find(wanted);
  const record = found.found === "one" ? recordsOf(catalogue, kind).get(found.id) : undefined;
  if (record) return record;
  const all = [...recordsOf(catalogue, kind).values()].map((r) => r.name);
  throw new BadUse(
    `There is no ${kind} “${wanted}”.${all.length ? ` There are: ${all.join(", ")}.` : " There are none yet."}`,
  );
}

/** Everything or nothing; with --skip the rows that can be read. */
export async function importTable(file: string, options: Options): Promise<number> {
  const kind = kindOf(options);
  const bytes = readBytes(file);
  const { table, issues } = isWorkbook(bytes) ? await readWorkbook(bytes) : readTextTable(bytes);
  if (!table) throw refused(file, issues);
  const make = new Set(
    String(options.make ?? "")
      .split(",")
      .map((k) => k.trim())
      .filter(Boolean),
  );
  for (const each of make)
    if (!MAKEABLE.includes(each as Kind)) throw new BadUse(`--make accepts ${MAKEABLE.join(", ")}, not “${each}”.`);
  return withDatabase(async (orm, heads) => {
    const { head, catalogue } = await opened(orm, heads, options);
    const mapping = typeof options.map === "string" ? named(catalogue, "mapping", options.map) : null;
    const decimal: DecimalSign = mapping?.decimal ?? decimalSignOf(table);
    const targets = mapping ? targetsBy(mapping.columns, table.head) : guessTargets(catalogue, kind, table);
    const plan = planTable(catalogue, table, { kind, targets, decimal, make: make as Set<Kind>, clears: false });
    if (plan.message) throw new Unreadable(`${file}: ${plan.message}`);
    for (const [k, target] of targets.entries())
      if (target === NOTHING && table.head[k])
        process.stderr.write(`${file}: the column “${table.head[k]}” is skipped.\n`);
    const bad = plan.rows.filter((r) => r.state === "refused");
    for (const { number, refused: cells } of bad)
      for (const { column, message } of cells)
        process.stderr.write(`${file}: row ${number}${column < 0 ? "" : `, ${table.head[column]}`}: ${message}\n`);
    if (bad.length && typeof options.refused === "string")
      writeFileSync(options.refused, writeDelimited(refusedTable(table, plan)));
    const count = (state: string) => plan.rows.filter((r) => r.state === state).length;
    const what = `${count("new")} new, ${count("changed")} changed, ${count("same")} the same, ${bad.length} rejected`;
    if (bad.length && !options.skip && !options.dry)
      throw new Unreadable(`${file}: ${what}. Nothing was saved; --skip saves the valid rows.`);
    const alone = new LocalWriter(orm, head.id);
    const strange = await alone.strange(iconsIn(plan.edits));
    if (strange.length) process.stderr.write(`${file}: ${noIcons(strange.slice(0, 50))}\n`);
    if (options.dry || !plan.edits.length) {
      process.stdout.write(`${head.key}: ${what}. Nothing was saved${options.dry ? " (--dry)" : ""}.\n`);
      return bad.length ? 1 : 0;
    }
    const submission = {
      author: cut(process.env.USER ?? "salty", 80),
      note: cut(`Imported ${file.split("/").pop() ?? file}`, 300),
    };
    const done = await alone.submit(submission, { do: "edit", edits: plan.edits });
    if ("issues" in done) throw refused(file, done.issues);
    if (!done.committed.ok)
      throw new Unreadable(
        [...done.committed.issues.map((i) => i.message), ...done.committed.conflicts.map((c) => c.message)].join("\n"),
      );
    process.stdout.write(`${head.key}: ${what}. Revision ${done.committed.revision}.\n`);
    return bad.length ? 1 : 0;
  });
}

/** All records of a kind with every column, or what a view of the shelves shows. */
export async function exportTable(file: string, options: Options): Promise<number> {
  const kind = kindOf(options);
  return withDatabase(async (orm, heads) => {
    const { head, catalogue } = await opened(orm, heads, options);
    const view = typeof options.view === "string" ? named(catalogue, "view", options.view) : null;
    const rows = view ? shownBy(catalogue, view) : null;
    const cells = writeTable(
      catalogue,
      view ? "item" : kind,
      rows?.items ?? (recordsOf(catalogue, kind).values() as Iterable<AnyRecord>),
      rows?.columns ?? pathsOf(catalogue, kind),
      { inherited: options.inherited === true },
    );
    const content = /\.xlsx$/i.test(file)
      ? await writeWorkbook(cells, view?.name ?? kindWord(kind, true))
      : writeDelimited(cells, /\.tsv$/i.test(file) ? "\t" : ",");
    try {
      writeFileSync(file, content);
    } catch (error) {
      throw new Unreadable(`${file}: can't be written: ${(error as Error).message}`);
    }
    process.stdout.write(`${cells.length - 1} rows of ${head.key} at revision ${head.revision} written to ${file}.\n`);
    return 0;
  });
}

/** The items that a view keeps, and its columns. */
function shownBy(catalogue: Catalogue, view: { readonly query: string; readonly columns: string }) {
  const { figures, findings } = new Engine(catalogue).model();
  const readings = new Map(
    (["value", "time"] as const).map((figure) => [
      figure === "value" ? "cost" : "time",
      (item: Item) => figures[item.id]?.[figure] ?? null,
    ]),
  );
  const troubled = new Set(findings.flatMap((f) => f.about.map((r) => r.id as Id)));
  const filter = filterOf(new URLSearchParams(view.query), catalogue, readings, troubled);
  const items = [...catalogue.records.item.values()].filter((item) => filter?.keep(item) ?? true);
  items.sort((a, b) => a.name.localeCompare(b.name));
  const columns = view.columns.split(/\s+/).flatMap((text): (string | WorkedColumn)[] => {
    const keyed = text.replace(/^\*/, "").replace(/:\d+$/, "");
    const path = pathByKey(catalogue, "item", keyed);
    if (pathOf(definition("item"), path)) return [path];
    const reading = readings.get(keyed);
    return reading
      ? [{ title: keyed === "cost" ? "Cost" : "Time", text: (r) => String(reading(r as Item) ?? "") }]
      : [];
  });
  return { items, columns: columns.length ? columns : pathsOf(catalogue, "item") };
}
