/** salty draws: what runs of a recipe or source give of each thing that comes by chance. */
import { namesOf } from "../core/catalogue/surroundings";
import { chanceOf, outcomes, runsUntil } from "../core/analysis/outcomes";
import { givenWith } from "../core/trials/given";
import { linesFor, makerOf } from "../core/process/maker";
import type { Id } from "../core/schema/id";
import { NameBook } from "../core/notation/book";
import { count, list, sayPercent, sayQuantity } from "../core/numbers/format";
import { BadUse, oneOf } from "./failure";
import { readCatalogue, wantedOne } from "./input";

const CONFIDENCES = [0.5, 0.9, 0.99];

export async function drawsCommand(
  [file, wanted, ...more]: string[],
  options: Record<string, string | boolean | undefined>,
): Promise<number> {
  const format = oneOf("format", options.format, ["text", "json"], "text");
  if (!wanted || more.length)
    throw new BadUse("Name one recipe or source by key or name, with =RUNS for more than one run.");
  const catalogue = await readCatalogue(file);
  const all = [...catalogue.records.recipe.values(), ...catalogue.records.source.values()];
  const { id, name, quantity: runs } = wantedOne("recipe or source", new NameBook(all), file, wanted);
  if (!Number.isInteger(runs) || runs > 1_000_000)
    throw new BadUse(`“${runs}” isn't a number of runs. Use a whole number from 1 to 1000000.`);
  const record = all.find((r) => r.id === id) as (typeof all)[number];
  const lines = linesFor(record.lines, makerOf(catalogue));
  const giving = givenWith(catalogue, lines, record.tables, record.level ?? 0);
  const ask = typeof options.of === "string" ? wantedOne("item", namesOf(catalogue, "item"), file, options.of) : null;
  const confidence = options.confidence === undefined ? null : Number(options.confidence);
  if (confidence !== null && !(confidence > 0 && confidence < 1))
    throw new BadUse(`“${String(options.confidence)}” isn't a confidence. Use a number between 0 and 1, such as 0.9.`);
  if (ask && !giving.items.includes(ask.id) && !lines.some((l) => l.role === "output" && l.item === ask.id))
    throw new BadUse(`${name} does not give ${ask.name}.`);
  const found = outcomes(giving, runs);
  const wantedRuns = (item: Id, amount: number) =>
    (confidence === null ? CONFIDENCES : [confidence]).map((c) => ({
      confidence: c,
      runs: runsUntil(giving, item, amount, c),
    }));
  const rows = found
    .filter((o) => !ask || o.item === ask.id)
    .map((o) => {
      const amount = ask?.quantity ?? 1;
      return {
        ...o,
        item: catalogue.records.item.get(o.item)?.key ?? o.item,
        name: catalogue.records.item.get(o.item)?.name ?? "",
        amount,
        chance: chanceOf(giving, o.item, amount, runs),
        runs: wantedRuns(o.item, amount),
      };
    });
  if (format === "json") {
    process.stdout.write(`${JSON.stringify({ of: name, runs, outcomes: rows }, null, 2)}\n`);
    return 0;
  }
  let text = `${name}, ${count(runs, "run")}:\n`;
  if (!rows.length) text += "  nothing is random: every run gives the same\n";
  for (const o of rows) {
    text += `  ${o.name}: ${o.about ? "about " : ""}${sayQuantity(o.expected)} on average, none with ${sayPercent(o.none)}; one player in ten gets ${sayQuantity(o.low)} or fewer, half ${sayQuantity(o.middle)} or fewer, nine in ten ${sayQuantity(o.high)} or fewer\n`;
    if (o.amount !== 1) text += `    at least ${sayQuantity(o.amount)}: ${sayPercent(o.chance ?? 0)}\n`;
    text += `    runs needed for ${sayQuantity(o.amount)}: ${list(o.runs.map((r) => `${sayPercent(r.confidence)} after ${r.runs === "unknown" ? "an unknown number of runs" : r.runs === null ? "more than 100,000 runs" : count(r.runs, "run")}`))}\n`;
  }
  process.stdout.write(text);
  return 0;
}
