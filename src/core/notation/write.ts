/** From a line that was read to the edits that write it: stubs for new names, then the recipe or what differs in it. */
import { type Catalogue, keyIndex } from "../catalogue/catalogue";
import { difference, type Edit } from "../catalogue/changes";
import { fold, KeyAllocator, keyFrom, nearest, newId } from "../catalogue/names";
import { blank, type Id, type Item, type Kind, type Line, type Recipe } from "../catalogue/records";
import { currencyBook, itemBook, type NameBook } from "./book";
import { givenName } from "./format";
import { type Entry, type ParsedLine, parseLine, type Words } from "./parser";

/** So many names are compared with what was typed before near ones are no longer looked for. */
const PATIENCE = 300_000;

export function words(items: NameBook, currencies: NameBook, ticksPerSecond: number): Words {
  let left = PATIENCE;
  const near = (typed: string): readonly string[] => {
    if (left <= 0) return [];
    left -= items.size;
    return nearest(typed, items.names());
  };
  return { items, currencies, ticksPerSecond, near };
}

export const wordsOf = (catalogue: Catalogue): Words =>
  words(itemBook(catalogue), currencyBook(catalogue), catalogue.pantry.ticksPerSecond);

/** Hands out keys that are free in the catalogue and among those handed out before. */
export class Keys {
  private readonly of = new Map<Kind, KeyAllocator>();
  constructor(private readonly catalogue: Catalogue) {}
  next(kind: Kind, name: string): string {
    let keys = this.of.get(kind);
    if (!keys) {
      const index = keyIndex(this.catalogue, kind);
      keys = new KeyAllocator((folded) => index.has(folded));
      this.of.set(kind, keys);
    }
    return keys.next(keyFrom(name, kind));
  }
}

/** What several lines share while they are written together: a name that is new in two of them is one stub. */
export class Writing {
  readonly keys: Keys;
  readonly stubs: Item[] = [];
  private readonly byName = new Map<string, Item>();
  constructor(readonly catalogue: Catalogue) {
    this.keys = new Keys(catalogue);
  }
  stub(name: string): Id {
    const there = this.byName.get(fold(name));
    if (there) return there.id;
    const item = blank("item", { id: newId(), key: this.keys.next("item", name), name, status: "stub" });
    this.byName.set(fold(name), item);
    this.stubs.push(item);
    return item.id;
  }
  lines(parsed: ParsedLine): Line[] {
    return parsed.entries.map((e) => lineFrom(e, this.stub.bind(this)));
  }
  /** The item that teaches what the line makes. */
  teacher(parsed: ParsedLine): Id | null {
    return parsed.taughtBy && (parsed.taughtBy.item ?? this.stub(parsed.taughtBy.name));
  }
}

/** @param stub  gives the id for a name that is not in the pantry */
export const lineFrom = (e: Entry, stub: (name: string) => Id): Line => ({
  role: e.role,
  item: e.item ?? stub(e.name),
  min: e.min,
  max: e.max,
  chance: e.chance,
  uses: e.uses,
  ...(e.draw ? { draw: e.draw } : {}),
});

const named = (parsed: ParsedLine): string =>
  parsed.label ?? givenName(parsed.kind, (role) => parsed.entries.find((e) => e.role === role)?.name);

/** Edits that add one new recipe (and its stubs) for every line. @throws RangeError for a line with an error */
export function addRecipes(catalogue: Catalogue, lines: readonly ParsedLine[]): Edit[] {
  const writing = new Writing(catalogue);
  const recipes = lines.map((parsed) => recipeFrom(parsed, writing));
  return [
    ...writing.stubs.map((record): Edit => ({ op: "add", kind: "item", record })),
    ...recipes.map((record): Edit => ({ op: "add", kind: "recipe", record })),
  ];
}

export function recipeFrom(parsed: ParsedLine, writing: Writing): Recipe {
  if (!parsed.ok) throw new RangeError("A line with errors can't be written.");
  const name = named(parsed);
  return blank("recipe", {
    id: newId(),
    key: writing.keys.next("recipe", name),
    name,
    kind: parsed.kind,
    lines: writing.lines(parsed),
    ticks: parsed.ticks,
    fee: parsed.fee,
    feeCurrency: parsed.feeCurrency,
    level: parsed.level,
    taughtBy: writing.teacher(parsed),
    status: "ready",
  });
}

/** Edits that make an existing recipe say what the line says; its key, status and note stay. */
export function rewriteRecipe(catalogue: Catalogue, recipe: Recipe, parsed: ParsedLine): Edit[] {
  if (!parsed.ok) throw new RangeError("A line with errors can't be written.");
  const writing = new Writing(catalogue);
  const after: Recipe = {
    ...recipe,
    name: named(parsed),
    kind: parsed.kind,
    lines: writing.lines(parsed),
    ticks: parsed.ticks,
    fee: parsed.fee,
    feeCurrency: parsed.feeCurrency,
    level: parsed.level,
    taughtBy: writing.teacher(parsed),
  };
  return [
    ...writing.stubs.map((record): Edit => ({ op: "add", kind: "item", record })),
    ...difference("recipe", recipe, after),
  ];
}

/** One verdict for every line that is not blank and no comment (#); positions count from the line's own start. */
export function readLines(text: string, words: Words): { number: number; text: string; parsed: ParsedLine }[] {
  return text
    .split(/\r?\n/)
    .map((line, i) => ({ number: i + 1, text: line }))
    .filter(({ text: line }) => line.trim() && !line.trim().startsWith("//"))
    .map((line) => ({ ...line, parsed: parseLine(line.text, words) }));
}

/** What fits at the cursor: the span of the name being typed and the names that continue or contain it. */
export function completeAt(
  text: string,
  cursor: number,
  names: Iterable<string>,
  most = 8,
): { from: number; to: number; names: string[] } | null {
  const before = text.slice(0, cursor);
  let typed = before;
  for (const sign of before.matchAll(
    /->|→|\+\s|:\s|(?:^|\s)(?:at|using|salvage|craft|taught\s+by)\s|[{|]\s*[\d.]+:\s/gi,
  ))
    typed = before.slice(sign.index + sign[0].length);
  typed = typed.trimStart().replace(/^\d+(?:\.\d+)?(?:\.\.\d+(?:\.\d+)?)?\s+/, "");
  if (!typed.trim() || typed.includes('"') || /\d%\s*$/.test(typed)) return null;
  const wanted = fold(typed);
  const fits: { name: string; rank: number }[] = [];
  for (const name of names) {
    const folded = fold(name);
    const rank =
      folded === wanted
        ? -1
        : folded.startsWith(wanted)
          ? 0
          : name
                .toLowerCase()
                .split(/\s+/)
                .some((w) => fold(w).startsWith(wanted))
            ? 1
            : folded.includes(wanted)
              ? 2
              : 3;
    if (rank === -1) return null;
    if (rank < 3) fits.push({ name, rank });
  }
  if (!fits.length) return null;
  fits.sort((a, b) => a.rank - b.rank || a.name.length - b.name.length || a.name.localeCompare(b.name));
  return { from: cursor - typed.length, to: cursor, names: fits.slice(0, most).map((f) => f.name) };
}
