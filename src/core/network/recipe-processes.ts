/** What recipes are to the network: each of their ways a process, and one for each station that makes a difference. */
import type { Catalogue } from "../catalogue/catalogue";
import { around } from "../catalogue/surroundings";
import type { Item, Recipe } from "../kinds/index";
import { variantName } from "../kinds/ways";
import { type Line, line } from "../notation/line";
import type { Id } from "../schema/id";
import { levelsOf, splitThing } from "./box";
import { tableMeans } from "./table-means";
import { linesFor, makerOf } from "../process/maker";
import { isMember, vesselsAmong } from "../process/members";
import { isItem, type Node, nodeOfHeat, nodeOfTag, tagOf, vesselIn } from "../process/node";
import { type Flow, flows, type ProcessSpec } from "./process";
import { containerOf, empties } from "../process/containers";
import { type RecipeRun, recipeRuns } from "../process/run";
import { anySays, vesselOf } from "../process/traits";
import { average } from "./use-processes";

/** Most processes of one recipe. */
const MOST_PROCESSES = 4_000;
/** From here on are counted draws that are what worn tools leave. */
const WORN_OUT = 10_000;
/** Most levels at which a table is one of its own. */
const MOST_LEVELS = 12;

/**
 * One process for each way; where uses teach it, one for each item that does, which must be at hand. What ingredients
 * are in comes back; a station says how long it takes there, what may burn, and what comes twice.
 */
export function recipeProcesses(recipe: Recipe, catalogue: Catalogue): readonly ProcessSpec[] {
  if (recipe.status === "retired") return [];
  const specs: ProcessSpec[] = [];
  for (const run of recipeRuns(recipe, catalogue)) {
    const { terms, way, station, teachers } = run;
    const own = linesFor(run.lines, makerOf(catalogue));
    for (const { level, drawn } of drawsOf(catalogue, recipe, terms.level))
      for (const { taken, back, chosen } of choicesOf(catalogue, own, drawn)) {
        const lines = again(taken, station.extra);
        const heat =
          terms.heat > 0
            ? [line("ingredient", nodeOfHeat(station.fuel), terms.heat / catalogue.pantry.ticksPerSecond / terms.batch)]
            : NONE;
        const plain = !back.length && !drawn.length && !heat.length;
        const spec: ProcessSpec = {
          sort: recipe.kind === "salvage" ? "salvage" : "craft",
          lines: plain ? lines : [...lines, ...back, ...drawn, ...heat],
          way,
          ...(chosen.length ? { chosen } : {}),
          needs: [],
          price: terms.price,
          currency: terms.currency,
          ticks: terms.ticks / terms.batch,
          ...(terms.batch > 1 ? { batch: terms.batch } : {}),
          level,
          ...(way > 0 || station.named ? { as: { kind: "recipe", record: calledOf(catalogue, run) } } : {}),
        };
        if (teachers.length) for (const item of teachers) specs.push({ ...spec, needs: [item] });
        else specs.push(spec);
      }
  }
  return specs.length > MOST_PROCESSES ? specs.slice(0, MOST_PROCESSES) : specs;
}

const NONE: readonly Flow[] = [];
/** What comes out, and with a chance all of it once more. What is drawn is drawn once. */
const again = (lines: readonly Flow[], extra: number): readonly Flow[] =>
  extra > 0
    ? [
        ...lines,
        ...lines.flatMap((l) =>
          l.role === "output" && !l.draw ? [{ ...l, chance: Math.min(1, l.chance) * extra }] : [],
        ),
      ]
    : lines;

/** Most choices of what is taken where lines ask for any with a tag. */
const MOST_CHOICES = 64;

interface Choice {
  readonly taken: readonly Flow[];
  /** What comes back of what is taken, as much and as surely as is taken; and of a tool when it is worn out. */
  readonly back: readonly Flow[];
  readonly chosen: readonly (readonly [tag: Id, item: Id])[];
}

/**
 * What may be taken where lines ask for any with a tag: those in each sort of vessel, since another vessel comes back;
 * and each one of which the run gives some itself, so that it is netted out as if the line named it. A run takes one of
 * these for a whole line.
 */
function choicesOf(catalogue: Catalogue, lines: readonly Line[], drawn: readonly Flow[]): Choice[] {
  const vessels = anySays(catalogue, "vessel");
  const plain = flows(lines);
  const asked = lines.flatMap((l, k) => (l.any === undefined ? [] : [k]));
  const chosen = (nodes: readonly (Node | undefined)[]): Choice => {
    const taken = nodes.length ? plain.map((l, k) => (nodes[k] === undefined ? l : { ...l, item: nodes[k] })) : plain;
    const named = asked.flatMap((k) => {
      const node = nodes[k];
      return node !== undefined && isItem(node) ? [[lines[k].any as Id, node] as const] : [];
    });
    return { taken, back: vessels ? vesselsOf(catalogue, lines, taken) : NONE, chosen: named };
  };
  if (!asked.length) return [chosen([])];
  const given = new Set([...plain, ...drawn].flatMap((l) => (l.role === "output" ? [l.item] : [])));
  if (vessels) {
    const back = plain.map((l) => (l.role === "ingredient" && isItem(l.item) ? vesselOf(catalogue, l.item) : null));
    const among = asked.flatMap((k) => vesselsAmong(catalogue, lines[k].any as Id));
    for (const vessel of [...back, ...among]) if (vessel !== null) given.add(vessel);
  }
  let choices: (Node | undefined)[][] = [[]];
  for (const k of asked) {
    const tag = lines[k].any as Id;
    const nodes: Node[] = vesselsAmong(catalogue, tag).map((vessel) => nodeOfTag(tag, vessel));
    if (lines[k].role === "ingredient")
      for (const item of [...given].sort()) if (isItem(item) && isMember(catalogue, tag, item)) nodes.push(item);
    choices = choices.flatMap((choice) =>
      nodes.map((node) => {
        const next = [...choice];
        next[k] = node;
        return next;
      }),
    );
    if (choices.length > MOST_CHOICES) choices = choices.slice(0, MOST_CHOICES);
  }
  return choices.map(chosen);
}

function vesselsOf(catalogue: Catalogue, lines: readonly Line[], taken: readonly Flow[]): readonly Flow[] {
  return lines.flatMap((l, k): Flow[] => {
    if (!empties(l)) return [];
    const { item } = taken[k];
    const vessel = tagOf(item) === null ? containerOf(catalogue, l, item) : vesselIn(item);
    if (vessel === null || (l.any !== undefined && vessel === item)) return [];
    if (l.role === "ingredient") return [line("output", vessel, l.min, l.max, l.chance)];
    const draw = { group: WORN_OUT + k, times: 1, weight: 1, of: l.uses as number };
    return [{ ...line("output", vessel, l.min, l.max), draw }];
  });
}

/** What the tables give by expectation, from each level on at which that is something else. */
function drawsOf(
  catalogue: Catalogue,
  { tables }: Pick<Recipe, "tables">,
  from: number,
): { level: number; drawn: readonly Flow[] }[] {
  if (!tables.length) return [{ level: from, drawn: NONE }];
  return levelsFrom(catalogue, tables, from).map((level) => ({ level, drawn: drawnFrom(catalogue, tables, level) }));
}

type Tables = Recipe["tables"];
/** Levels from which tables give other things, from one on. */
export function levelsFrom({ records: { table } }: Catalogue, tables: Tables, from: number): number[] {
  const levels = new Set([from]);
  for (const { table: id } of tables) {
    const box = table.get(id);
    for (const level of box ? levelsOf(box, table, from, MOST_LEVELS) : []) levels.add(level);
  }
  return [...levels].sort((a, b) => a - b).slice(0, MOST_LEVELS);
}
/** Items that tables give on average. Groups of draws are counted from 1,000, above those of lines. */
export function drawnFrom(catalogue: Catalogue, tables: Tables, level: number): Flow[] {
  let group = 1_000;
  return tables.flatMap(({ table: id, times }) => {
    const box = catalogue.records.table.get(id);
    return [...(box ? tableMeans(catalogue).of(box, level) : [])].flatMap(([thing, mean]) => {
      const { kind, id: item } = splitThing(thing);
      return kind === "item" && mean > 0 ? [average(item, mean * times, ++group)] : [];
    });
  });
}

const called = new WeakMap<Recipe, Map<string, { readonly station: Item | null; readonly record: Recipe }>>();
/**
 * A way of a recipe as a recipe of its own: "Smoke eel, using Fine knife", "Burn lime, at Great kiln". The same object
 * for the same records.
 */
function calledOf(catalogue: Catalogue, { recipe, of: values, way, station: { named: station } }: RecipeRun): Recipe {
  const of = called.get(recipe) ?? new Map<string, { station: Item | null; record: Recipe }>();
  called.set(recipe, of);
  const words = [
    ...(way > 0 ? [variantName(recipe.variants[way - 1], way - 1, around(catalogue))] : []),
    ...(station ? [`at ${station.name}`] : []),
  ];
  const key = `${way} ${station?.id ?? ""}`;
  const name = `${recipe.name}, ${words.join(", ")}`;
  const there = of.get(key);
  if (there && there.station === station && there.record.name === name) return there.record;
  const record = { ...recipe, ...values, name, variants: [] };
  of.set(key, { station, record });
  return record;
}
