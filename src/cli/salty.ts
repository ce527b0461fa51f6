/**
 * The salty command: check, cost, plan, draws, import, export, setup. Exit codes: 0 success, 1 findings at or above the
 * level, 2 bad use or input.
 */
import { parseArgs } from "node:util";
import anyAscii from "any-ascii";
import { transliterateBy } from "../core/schema/names";
import { BadUse, Unreadable } from "./failure";

const HELP = `salty – checks, costs and plans of a pantry

  salty check FILE [--format text|json] [--fail-on error|warning] [--accepted]
  salty cost FILE ITEM[=QUANTITY] [--format text|json]
  salty plan FILE ITEM[=QUANTITY] … [--stock ITEM=QUANTITY,…] [--confidence 0.9] [--measure value|time] [--format text|json]
  salty draws FILE RECIPE[=RUNS] [--of ITEM[=QUANTITY]] [--confidence 0.9] [--format text|json]
  salty import FILE [--pantry KEY] [--dry] [--replace]
  salty export FILE [--pantry KEY]
  salty import TABLE [--kind item] [--map NAME] [--make type,tag,…] [--dry] [--skip] [--refused FILE] [--pantry KEY]
  salty export TABLE [--kind item] [--view NAME] [--inherited] [--pantry KEY]
  salty schema
  salty generate FILE [--items N] [--seed N] [--loops N]

TABLE is a file that ends in .csv, .tsv or .xlsx (docs/tables.md).
FILE is a bundle (docs/bundle.md); "-" reads standard input or writes standard output.
check, cost, plan and draws also accept db:KEY instead of FILE, for a pantry of the running database.
check leaves out accepted findings; with --accepted it lists them, with the reason.
The database is the one that npm start runs, or the one DATABASE_URL names.

Exit codes: 0 success, 1 findings at or above --fail-on (default: error), 2 invalid use or unreadable input.
`;

type Run = (args: string[], options: Record<string, string | boolean | undefined>) => Promise<number>;

/** Loaded when they are called: a check needs no database driver. */
const commands: ReadonlyMap<string, () => Promise<Run>> = new Map(
  Object.entries({
    check: async () => (await import("./check")).checkCommand,
    cost: async () => (await import("./cost")).costCommand,
    plan: async () => (await import("./plan")).planCommand,
    draws: async () => (await import("./draws")).drawsCommand,
    import: async () => (await import("./database")).importCommand,
    export: async () => (await import("./database")).exportCommand,
    schema: async () => (await import("./schema")).schemaCommand,
    generate: async () => (await import("./generate")).generateCommand,
    setup: async () => (await import("./database")).setupCommand,
  }),
);

transliterateBy(anyAscii);

async function main(): Promise<number> {
  let parsed: ReturnType<typeof parse>;
  try {
    parsed = parse();
  } catch (error) {
    throw new BadUse((error as Error).message);
  }
  const [name, ...args] = parsed.positionals;
  if (parsed.values.help || name === "help") {
    process.stdout.write(HELP);
    return 0;
  }
  const command = commands.get(name ?? "");
  if (!command) throw new BadUse(name ? `There is no command “${name}”.` : "Name a command.");
  return (await command())(args, parsed.values);
}

const parse = () =>
  parseArgs({
    allowPositionals: true,
    options: {
      format: { type: "string" },
      "fail-on": { type: "string" },
      pantry: { type: "string" },
      items: { type: "string" },
      seed: { type: "string" },
      loops: { type: "string" },
      dry: { type: "boolean" },
      replace: { type: "boolean" },
      stock: { type: "string" },
      confidence: { type: "string" },
      measure: { type: "string" },
      of: { type: "string" },
      kind: { type: "string" },
      map: { type: "string" },
      make: { type: "string" },
      view: { type: "string" },
      refused: { type: "string" },
      skip: { type: "boolean" },
      inherited: { type: "boolean" },
      accepted: { type: "boolean" },
      help: { type: "boolean", short: "h" },
    },
  });

main().then(
  (code) => {
    process.exitCode = code;
  },
  (error: unknown) => {
    process.exitCode = 2;
    if (error instanceof BadUse) process.stderr.write(`salty: ${error.message}\n\n${HELP}`);
    else if (error instanceof Unreadable) process.stderr.write(`salty: ${error.message}\n`);
    else process.stderr.write(`salty: ${(error as Error).message ?? error}\n`);
  },
);
