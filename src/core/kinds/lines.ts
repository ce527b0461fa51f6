/** The lines of a recipe or source as a field: a list of structs that people write as a recipe line. */
import { formatGiven, formatLines } from "../notation/format";
import { type Amounts, type Draw, inDraws, isWeight, type Line, sayNamed, weightOfNothing } from "../notation/line";
import { parseLine } from "../notation/parser";
import { words } from "../notation/parsed";
import { countCells, MOST_CELLS, placesOf, readCell, sayCell } from "../notation/places";
import { LISTED, type Role, roleRule } from "../notation/roles";
import { add, compare, type Fraction, fromNumber, toNumber, ZERO } from "../numbers/fraction";
import { choice } from "../schema/choice";
import { flag } from "../schema/flag";
import type { BundleReading, BundleWriting, Field, FieldOptions, Members, Surroundings } from "../schema/field";
import type { Id } from "../schema/id";
import { group, list, maybe } from "../schema/group";
import { sayPercent, sayQuantity } from "../numbers/format";
import { isPlain, type Json, type JsonObject, type JsonSchema, same } from "../schema/json";
import { LEAST, MOST, MOST_CHANCE, MOST_LINES, MOST_TIMES, MOST_WEIGHT } from "../schema/limits";
import { number } from "../schema/number";
import { ref } from "../schema/ref";
import { lineFrom } from "./parsed";

const amount = (max: number) => number({ min: 0, max, least: LEAST, initial: 1 });
/** Places of a pattern; in a bundle by their names. */
const places: Field<number> = (() => {
  const field = number({ min: 1, max: MOST_CELLS, whole: true });
  return {
    ...field,
    toBundle: (value) => placesOf(value).map(sayCell),
    fromBundle: (value, place, from) => cellsIn(value, place, from),
    schema: (defs) => defs.define("places", () => PLACES),
  };
})();
const PLACES = {
  type: "array",
  minItems: 1,
  maxItems: 25,
  items: { type: "string", pattern: "^[A-Ea-e][1-5]$" },
  description: "Places in a pattern: A1 is the first of the first row, B1 the next one.",
} as const;
function cellsIn(given: Json, place: string, from: BundleReading): number {
  const bits = Array.isArray(given) ? given.map(readCell) : [];
  if (!bits.length || bits.includes(0) || new Set(bits).size < bits.length)
    from.fault(place, 'Expected places of a pattern, each once, such as ["A1", "B1"]; the last is E5.');
  return bits.reduce((all, bit) => all | bit, 0);
}

const WEIGHT = "A weight is a number from 0 to 1000000 with at most six decimal places.";

const draw = group(
  {
    group: number({ min: 1, max: MOST_LINES, whole: true }),
    times: number({ min: 1, max: MOST_TIMES, whole: true }),
    weight: number({ min: 0, max: MOST_WEIGHT, places: 6 }),
    of: number({ min: 0, max: MOST, places: 6 }),
  },
  {
    noun: "draw",
    rules({ of }, fault) {
      if (of <= 0) fault("of", "The weights of a draw sum to a number above 0.");
    },
  },
);

const bonus = group(
  { share: number({ min: -1, max: 1, least: LEAST }), stat: ref("stat") },
  {
    noun: "bonus",
    rules({ share }, fault) {
      if (share === 0) fault("share", "What each point of a stat adds can't be 0.");
    },
  },
);

/** What holds of one line. */
function lineRules(
  {
    role,
    item,
    any,
    min,
    max,
    chance,
    uses,
    draw: drawn,
    bonus: more,
    whole,
    cells,
  }: Amounts & { readonly item?: Id; readonly any?: Id },
  fault: (path: string, message: string) => void,
): void {
  if ((item === undefined) === (any === undefined)) fault("", "A line names an item or a tag.");
  if (any !== undefined && !roleRule(role).any) fault("any", "Only inputs can be any item with a tag.");
  if (uses !== null && !roleRule(role).wears) fault("uses", "Only a tool has a number of uses.");
  if (more && (!roleRule(role).bonus || drawn))
    fault("bonus", "Only outputs with a chance can depend on a stat of the maker.");
  if (whole !== undefined && (!whole || !roleRule(role).emptied))
    fault("whole", "Only ingredients can be taken whole; otherwise leave it out.");
  if (whole && any !== undefined)
    fault("whole", "The container of any item with a tag is always returned. Name the item to take it whole.");
  if (cells !== undefined && !roleRule(role).placed) fault("cells", "Only inputs have a place in a pattern.");
  else if (cells !== undefined && (min !== max || min !== countCells(cells) || chance !== 1))
    fault("cells", "In a pattern each place has exactly one item, without a chance.");
  if (drawn && (!roleRule(role).draws || chance !== 1))
    fault("draw", "Only outputs can be drawn, and they have a weight instead of a chance.");
}

const MILLION = fromNumber(MOST_WEIGHT);
/** The lines of a draw agree on how often it is made and on its whole weight. */
function drawRules(lines: readonly Line[], fault: (path: string, message: string) => void): void {
  let taken = 0;
  for (const [at, { cells = 0 }] of lines.entries()) {
    if (taken & cells) fault(String(at + 1), "Two items are in the same place.");
    taken |= cells;
  }
  const whole = new Map<number, { draw: Draw; weight: Fraction }>();
  for (const [at, { draw: drawn }] of lines.entries()) {
    if (!drawn) continue;
    const first = whole.get(drawn.group);
    if (first && (first.draw.times !== drawn.times || first.draw.of !== drawn.of))
      fault(String(at + 1), "The lines of one draw must have the same number of draws and the same total weight.");
    whole.set(drawn.group, { draw: drawn, weight: add(first?.weight ?? ZERO, fromNumber(drawn.weight)) });
  }
  for (const { draw: drawn, weight } of whole.values()) {
    const rest = compare(weight, fromNumber(drawn.of));
    if (rest > 0) fault("", `The weights of a draw sum to more than ${drawn.of}.`);
    else if (compare(add(weight, MILLION), fromNumber(drawn.of)) < 0)
      fault("", `The remaining weight of nothing is above the maximum of 1000000.`);
  }
}

/** @param roles  those that may stand in it; a field of outputs only is written without an arrow */
export function lines(roles: readonly Role[], options: FieldOptions = {}): Field<readonly Line[]> {
  const entry = {
    role: choice(roles),
    ...(roles.some((role) => roleRule(role).any)
      ? { item: maybe(ref("item")), any: maybe(ref("tag")) }
      : { item: ref("item") }),
    min: amount(MOST),
    max: amount(MOST),
    chance: amount(MOST_CHANCE),
    uses: number({ min: 1, max: MOST, whole: true, optional: true }),
    draw: maybe(draw),
    ...(roles.some((role) => roleRule(role).bonus) ? { bonus: maybe(bonus) } : {}),
    ...(roles.some((role) => roleRule(role).placed)
      ? { whole: maybe(flag({ initial: true })), cells: maybe(places) }
      : {}),
  };
  const base = list(entry, {
    most: MOST_LINES,
    noun: "line",
    rules: lineRules,
    together: drawRules as never,
    ...options,
  }) as unknown as Field<readonly Line[]>;
  const given = roles.length === 1;
  return {
    ...base,
    type: "lines",
    // It is written as a recipe line, not as a form.
    inner: undefined,
    entry,
    format: (value, around) => (given ? formatGiven(around, value) : formatLines(around, value)),
    say: (value, around) => formatLines(around, value),
    sayChange: (from, to, around) =>
      sayOneMoved(from as readonly Line[], to as readonly Line[], around) ?? "other ingredients or results",
    parse(text, typing) {
      const typed = text.trim() || "nothing";
      const parsed = parseLine(given ? `nothing -> ${typed}` : typed, words(typing));
      const error = parsed.issues.find((r) => r.severity === "error");
      if (error || parsed.entries.some((e) => !roles.includes(e.role)))
        return {
          message: error?.message ?? "Enter only what the source gives, such as 2..3 River eel + 1 Gull egg 10%.",
        };
      return {
        value: parsed.entries.map((e) => lineFrom(e, (name, kind) => typing.make(kind, name) ?? ("" as never))),
      };
    },
    members: (name) => members(name, roles, given),
  };
}

/** The one line that changed between two lists, where it is only one: "Coarse salt 5 → 6". */
function sayOneMoved(before: readonly Line[], after: readonly Line[], around: Surroundings): string | null {
  if (before.length !== after.length) return null;
  const moved = after.flatMap((line, k) => (same(line, before[k]) ? [] : [[before[k], line] as const]));
  if (moved.length !== 1) return null;
  const [[was, is]] = moved;
  if (was.item !== is.item || was.any !== is.any || was.role !== is.role) return null;
  const amount = (l: Line) => (l.min === l.max ? sayQuantity(l.min) : `${sayQuantity(l.min)}..${sayQuantity(l.max)}`);
  const what =
    was.chance !== is.chance
      ? `${sayPercent(was.chance)} → ${sayPercent(is.chance)}`
      : `${amount(was)} → ${amount(is)}`;
  return `${sayNamed(is, around)} ${what}`;
}

/** In a bundle lines stand in a list for each role, and draws in one of their own. */
function members(field: string, roles: readonly Role[], given: boolean): Members {
  const lists = LISTED.filter(({ name }) => roles.includes(name as Role)).map((r) => ({
    list: given ? "gives" : r.list,
    role: r.name as Role,
  }));
  return {
    called: given ? "gives" : field,
    names: [...lists.map((l) => l.list), "draws"],
    out(record, to) {
      const all = record[field] as readonly Line[];
      const out: JsonObject = {};
      for (const { list: name, role } of lists) {
        const rows = all.filter((l) => l.role === role && !l.draw).map((l) => entryOut(l, to));
        if (rows.length) out[name] = rows;
      }
      const draws = inDraws(all.filter((l) => l.draw));
      if (draws.length) out.draws = draws.map((drawn) => drawOut(drawn, to));
      return out;
    },
    in(row, place, from, before) {
      const read = lists.flatMap(({ list: name, role }) => {
        const rows = row[name] ?? [];
        if (!Array.isArray(rows)) {
          from.fault(`${place}.${name}`, "Expected a list.");
          return [];
        }
        return rows.flatMap((entry, k) => entryIn(role, entry, `${place}.${name}[${k}]`, from));
      });
      const drawn = drawsIn(row.draws ?? [], `${place}.draws`, from);
      return { [field]: inOrderOf(before?.[field] as readonly Line[] | undefined, [...read, ...drawn]) };
    },
    schema: (defs) => ({
      ...Object.fromEntries(
        lists.map(({ list: name, role }) => [
          name,
          { type: "array", items: defs.define(entryName(role), () => entrySchema(role)) },
        ]),
      ),
      draws: { type: "array", items: defs.define("draw", drawSchema) },
    }),
  };
}

function entryOut(l: Line, to: BundleWriting): JsonObject {
  const row: JsonObject = l.any === undefined ? { item: to.keyOf("item", l.item) } : { any: to.keyOf("tag", l.any) };
  if (l.min !== l.max) row.quantity = [l.min, l.max];
  else if (l.min !== 1) row.quantity = l.min;
  if (l.chance !== 1) row.chance = l.chance;
  if (l.bonus) row.bonus = { stat: to.keyOf("stat", l.bonus.stat), share: l.bonus.share };
  if (l.uses !== null) row.uses = l.uses;
  if (l.whole) row.whole = true;
  if (l.cells) {
    row.cells = placesOf(l.cells).map(sayCell);
    delete row.quantity;
  }
  return row;
}

function drawOut(drawn: readonly Line[], to: BundleWriting): JsonObject {
  const { times } = drawn[0].draw as Draw;
  const nothing = weightOfNothing(drawn);
  return {
    ...(times === 1 ? {} : { times }),
    entries: drawn.map((l) => ({ weight: l.draw?.weight ?? 0, ...entryOut(l, to) })),
    ...(nothing > 0 ? { nothing } : {}),
  };
}

function entryIn(role: Role, given: Json, place: string, from: BundleReading): Line[] {
  const entry = typeof given === "string" ? { item: given } : given;
  if (!isPlain(entry)) {
    from.fault(place, 'Expected an object such as { "item": "river_eel", "quantity": 2 }.');
    return [];
  }
  const any = roleRule(role).any && entry.any !== undefined;
  const { wears, emptied, placed, bonus: mayVary } = roleRule(role);
  const known = [
    any ? "any" : "item",
    "quantity",
    "chance",
    ...(mayVary ? ["bonus"] : []),
    ...(wears ? ["uses"] : []),
    ...(emptied && !any ? ["whole"] : []),
    ...(placed ? ["cells"] : []),
  ];
  for (const name of Object.keys(entry)) if (!known.includes(name)) from.unknown(place, name, known);
  const cells = entry.cells === undefined ? undefined : cellsIn(entry.cells, `${place}.cells`, from);
  const { quantity = cells === undefined ? 1 : countCells(cells), chance = 1, uses = null, whole } = entry;
  const range: readonly unknown[] = Array.isArray(quantity) ? quantity : [quantity, quantity];
  if (range.length !== 2 || range.some((q) => typeof q !== "number"))
    from.fault(`${place}.quantity`, "Expected a number, or a range of two such as [1, 3].");
  if (typeof chance !== "number") from.fault(`${place}.chance`, "Expected a probability between 0 and 1, such as 0.4.");
  const named = any
    ? { any: from.reference("tag", entry.any, `${place}.any`) }
    : { item: from.reference("item", entry.item as Json | undefined, `${place}.item`) };
  return [
    {
      role,
      ...named,
      min: range[0],
      max: range[1],
      chance,
      uses,
      ...(entry.bonus === undefined ? {} : { bonus: bonus.fromBundle(entry.bonus, `${place}.bonus`, from, undefined) }),
      ...(whole === true || (whole !== undefined && whole !== false) ? { whole } : {}),
      ...(cells === undefined ? {} : { cells }),
    } as Line,
  ];
}

function drawsIn(given: Json, place: string, from: BundleReading): Line[] {
  if (!Array.isArray(given)) {
    from.fault(place, "Expected a list of draws.");
    return [];
  }
  return given.flatMap((drawn, g) => {
    const at = `${place}[${g}]`;
    if (!isPlain(drawn) || !Array.isArray(drawn.entries) || !drawn.entries.length) {
      from.fault(
        at,
        'Expected an object such as { "times": 3, "entries": [{ "weight": 5, "item": "rope" }], "nothing": 1 }.',
      );
      return [];
    }
    const known = ["times", "entries", "nothing"];
    for (const name of Object.keys(drawn)) if (!known.includes(name)) from.unknown(at, name, known);
    const { times = 1, nothing = 0 } = drawn;
    const weighed = (drawn.entries as Json[]).map((entry, k) => {
      const { weight = 1, ...rest } = isPlain(entry) ? (entry as JsonObject) : { item: entry };
      if (!isWeight(weight)) from.fault(`${at}.entries[${k}].weight`, WEIGHT);
      const read = entryIn("output", rest, `${at}.entries[${k}]`, from);
      return { weight: isWeight(weight) ? weight : 0, line: read[0] };
    });
    if (!isWeight(nothing)) from.fault(`${at}.nothing`, `Expected the weight of drawing nothing. ${WEIGHT}`);
    const rest = fromNumber(isWeight(nothing) ? nothing : 0);
    const of = toNumber(weighed.reduce((sum, e) => add(sum, fromNumber(e.weight)), rest));
    return weighed.flatMap(({ weight, line }) =>
      line ? [{ ...line, draw: { group: g + 1, times: times as number, weight, of } }] : [],
    );
  });
}

/** Lines by role and draw, each group of them in its order; draws are numbered as they come. */
function byList(all: readonly Line[]): string {
  const draws = new Map<number, number>();
  const lists = new Map<string, unknown[]>();
  for (const { draw: drawn, ...line } of all) {
    if (drawn && !draws.has(drawn.group)) draws.set(drawn.group, draws.size + 1);
    const name = drawn ? `draw ${draws.get(drawn.group)}` : line.role;
    const entry = [
      line.item,
      line.any,
      line.min,
      line.max,
      line.chance,
      line.uses,
      line.bonus?.share,
      line.bonus?.stat,
      line.whole,
      line.cells,
      drawn?.times,
      drawn?.weight,
      drawn?.of,
    ];
    const there = lists.get(name);
    if (there) there.push(entry);
    else lists.set(name, [entry]);
  }
  return JSON.stringify([...lists].sort(([a], [b]) => (a < b ? -1 : 1)));
}
/** A bundle lists lines by role: where the same lists are there already, the order in which they stand is kept. */
const inOrderOf = (before: readonly Line[] | undefined, read: readonly Line[]): readonly Line[] =>
  before?.length === read.length && byList(before) === byList(read) ? before : read;

const BONUS = {
  type: "object",
  required: ["stat", "share"],
  additionalProperties: false,
  description: "What each point of a stat of the maker adds to the chance.",
  properties: {
    stat: { type: "string", minLength: 1, description: "Key of a stat." },
    share: { type: "number", minimum: -1, maximum: 1 },
  },
} as const;
const positive = { type: "number", minimum: 0 } as const;
const entryProperties = (role: Role): { [name: string]: JsonSchema } => ({
  item: { type: "string", minLength: 1, description: "Key of an item." },
  quantity: {
    description: "A number, or a range [from, to].",
    default: 1,
    oneOf: [
      { ...positive, maximum: MOST },
      { type: "array", minItems: 2, maxItems: 2, items: { ...positive, maximum: MOST } },
    ],
  },
  chance: {
    ...positive,
    maximum: MOST_CHANCE,
    default: 1,
    description: "Probability; above 1 is reported by the checks.",
  },
  ...(roleRule(role).wears
    ? {
        uses: {
          type: ["integer", "null"],
          minimum: 1,
          maximum: MOST,
          description: "Runs that one tool lasts. If absent, it never wears out.",
        },
      }
    : {}),
  ...(roleRule(role).bonus ? { bonus: BONUS } : {}),
  ...(roleRule(role).emptied
    ? { whole: { type: "boolean", default: false, description: "Its container is not returned." } }
    : {}),
  ...(roleRule(role).placed ? { cells: PLACES } : {}),
});
const entryName = (role: Role): string =>
  roleRule(role).wears ? "toolEntry" : roleRule(role).any ? "takenEntry" : "entry";
const entrySchema = (role: Role): JsonSchema => ({
  oneOf: [
    { type: "string", minLength: 1, description: "An item's key: one of it, for certain." },
    { type: "object", required: ["item"], additionalProperties: false, properties: entryProperties(role) },
    ...(roleRule(role).any ? [{ ...anySchema(role) }] : []),
  ],
});
/** Any item with a tag in place of one item. */
function anySchema(role: Role): JsonSchema {
  const { item: _, whole: __, ...rest } = entryProperties(role);
  const any = { type: "string", minLength: 1, description: "Key of a tag: any item that has it." };
  return { type: "object", required: ["any"], additionalProperties: false, properties: { any, ...rest } };
}
const weight = { ...positive, maximum: MOST_WEIGHT } as const;
function drawSchema(): JsonSchema {
  const { item, quantity } = entryProperties("output");
  return {
    type: "object",
    required: ["entries"],
    additionalProperties: false,
    properties: {
      times: { type: "integer", minimum: 1, maximum: MOST_TIMES, default: 1 },
      nothing: { ...weight, default: 0, description: "Weight of drawing nothing." },
      entries: {
        type: "array",
        minItems: 1,
        items: {
          oneOf: [
            { type: "string", minLength: 1 },
            {
              type: "object",
              required: ["item"],
              additionalProperties: false,
              properties: { weight: { ...weight, default: 1 }, item, quantity },
            },
          ],
        },
      },
    },
  };
}
