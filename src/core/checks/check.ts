/** What a check is, and what it finds. A new check is one file beside this one and one line in index.ts. */
import type { Reading } from "../analysis/reading";
import type { Delta, Readings } from "../analysis/readings";
import type { RuleId, Severity } from "../checklist/index";
import { type Catalogue, recordAt } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import type { Severities } from "./severities";
import type { AnyRecord, Kind, Recipe, RecordOf, Source } from "../kinds/index";
import { around } from "../catalogue/surroundings";
import { processAt } from "../network/compile";
import { fuelOf, type Node, nodeOf, sayNode, tagOf } from "../process/node";
import type { LineTarget as NamedThing } from "../notation/line";
import type { Id } from "../schema/id";

/** A record as findings name it: enough to link to it and to say it. */
export interface Ref {
  readonly kind: Kind;
  readonly id: Id;
  readonly key: string;
  readonly name: string;
}

/**
 * What the views can draw and the command line prints. Records are named only; their lines are written where they are
 * shown (written.ts).
 */
export type Evidence =
  | {
      readonly type: "loop";
      readonly runs: readonly { readonly of: Ref; readonly times: string }[];
      readonly net: readonly { readonly of: Ref; readonly amount: string; readonly value: number }[];
      readonly chance: number;
      readonly exact: boolean;
      readonly live: boolean;
      readonly seconds: number;
    }
  | { readonly type: "circle"; readonly items: readonly Ref[]; readonly recipes: readonly Ref[] }
  | { readonly type: "cause"; readonly leaves: readonly Ref[]; readonly path: readonly Ref[] }
  | {
      readonly type: "amounts";
      readonly unit: string;
      readonly rows: readonly { readonly label: string; readonly value: number }[];
    }
  | { readonly type: "lines"; readonly inputs: readonly Ref[]; readonly recipes: readonly Ref[] }
  | { readonly type: "names"; readonly names: readonly string[] };

/** A ready-made way to fix: edits, a new source to fill in, or a place that needs a hand. */
export type Fix = { readonly message: string } & (
  | { readonly do: "edit"; readonly edits: readonly Edit[] }
  | { readonly do: "source"; readonly item: Id }
  /** One item stands wherever others stood, and those retire or are taken out. */
  | { readonly do: "merge"; readonly keep: Id; readonly others: readonly Id[]; readonly after: "retire" | "remove" }
  | { readonly do: "open"; readonly kind: Kind; readonly id: Id }
);

export interface Finding {
  readonly rule: string;
  readonly severity: Severity;
  readonly about: readonly Ref[];
  /** One sentence in plain words with its numbers. */
  readonly message: string;
  readonly evidence: Evidence;
  readonly fixes: readonly Fix[];
  /** Stays the same while unrelated edits and the numbers in the sentence change. */
  readonly fingerprint: string;
  /** How bad it is, from 0: larger is worse. Absent: it has no number. */
  readonly size?: number;
}

/** What a check yields; rule, severity and fingerprint follow from the check and the subject. */
export interface FindingDraft {
  /** What it is about: what waivers and "new since" go by. */
  readonly subject: Ref | readonly Ref[];
  /** Who else is named. */
  readonly with?: readonly Ref[];
  readonly message: string;
  readonly evidence: Evidence;
  readonly fixes: readonly Fix[];
  /** How bad it is, from 0: larger is worse. Absent: it has no number. */
  readonly size?: number;
}

/** A pantry as checks see it. */
export interface Checked {
  readonly catalogue: Catalogue;
  readonly readings: Readings;
}
export interface CheckContext extends Checked {
  /** What was told before, by what it is about. */
  readonly told: FindingCache;
  /** Severities that this pantry sets for itself, by rule. */
  readonly severities: Severities;
}

interface CheckHead {
  /** Its entry in the checklist. */
  readonly id: RuleId;
  /** Readings that what it says depends on: what moved in them is looked at again. */
  readonly reads: readonly Reading[];
  /**
   * True where what it says follows a chain through several records: what was found is looked at again after every
   * change of a line.
   */
  readonly followsChains?: true;
  /** False where nothing in the pantry can concern it: then it is asked about no record at all. Absent: always true. */
  concerns?(catalogue: Catalogue): boolean;
  /** True where a change of `concerns` matters to records that were not edited: then everything is checked again. */
  readonly concernsAll?: true;
}

/** Looks at one record at a time, by what the readings say about it and its nearest neighbours. */
export interface RecordCheck<K extends Kind = Kind> extends CheckHead {
  readonly per: readonly K[];
  at(context: CheckContext, record: RecordOf<K>, kind: K): Iterable<FindingDraft>;
  /**
   * A quick look by the readings alone, after a change, before the record is read: false where `at` would surely find
   * nothing. It is not asked where all records are gone through, which are read anyway.
   */
  mayBe?(id: Id, context: CheckContext): boolean;
  /** A quick look before `at`: false where that would surely find nothing. */
  may?(record: RecordOf<K>, context: CheckContext, kind: K): boolean;
  /**
   * Where it finds one thing at most about a record, and names no other: a number for all that it says (digest.ts); null
   * where it finds nothing. What very many records have is then told only where someone reads it.
   */
  mark?(record: RecordOf<K>, context: CheckContext): number | null;
  /** More records to look at after a change than those that were touched or whose readings moved. */
  also?(context: CheckContext, delta: Delta, edits: readonly Edit[]): Iterable<Id>;
}
/** Looks at all records of a kind that have something in common. */
export interface GroupCheck extends CheckHead {
  readonly groups: readonly Kind[];
  /** What a group has in common, or several such things of which each makes a group; null if the record is in no group. */
  common(record: AnyRecord, kind: Kind): string | readonly string[] | null;
  /** True if the edits change what is found in groups whose records stay the same: all are looked at again. */
  anew?(edits: readonly Edit[]): boolean;
  /** @param common  what the records have in common */
  among(context: CheckContext, records: readonly AnyRecord[], kind: Kind, common: string): Iterable<FindingDraft>;
}
/** Looks at the whole, whenever something moved in what it reads. */
export interface WholeCheck extends CheckHead {
  /** It names more items than its evidence does: it looks again where one is renamed. */
  readonly namesOthers?: true;
  find(context: CheckContext): Iterable<FindingDraft>;
}
export type Check = RecordCheck | GroupCheck | WholeCheck;

/** Keeps the kinds of a check and what it looks at together. */
export const perRecord = <K extends Kind>(check: RecordCheck<K>): RecordCheck => check as unknown as RecordCheck;

export function ref(catalogue: Catalogue, kind: Kind, id: Id): Ref {
  const record = recordAt(catalogue, kind, id);
  return { kind, id, key: record?.key ?? id, name: record?.name ?? `(removed: ${id})` };
}

export const itemRef = ({ catalogue, readings }: Checked, index: number): Ref =>
  nodeRef(catalogue, readings.compiled.nodeOf(index) as Node);
/** The record that a process is known by. */
export function processRef({ readings }: Checked, p: number): Ref {
  const { kind, record } = processAt(readings.compiled, p);
  return { kind, id: record.id, key: record.key, name: record.name };
}
/** An item, or a tag as "any" of it. */
export function nodeRef(catalogue: Catalogue, node: Node): Ref {
  const [tag, fuel] = [tagOf(node), fuelOf(node)];
  if (fuel !== undefined) {
    const name = sayNode(around(catalogue), node);
    return { kind: "tag", id: fuel ?? node, key: (fuel && catalogue.records.tag.get(fuel)?.key) ?? "heat", name };
  }
  if (tag === null) return ref(catalogue, "item", node);
  return { ...ref(catalogue, "tag", tag), name: sayNode(around(catalogue), node) };
}
/** What a line names. */
export const namedRef = (catalogue: Catalogue, line: NamedThing): Ref => nodeRef(catalogue, nodeOf(line));

/** Recipes in use (not retired) that need, use or make an item, in order of key. */
export function recipesAround(
  { readings: { compiled } }: CheckContext,
  item: Id,
  side: "consumers" | "producers",
): Recipe[] {
  const i = compiled.numberOf(item);
  if (i === undefined) return [];
  const { start, end, to } = compiled.network[side];
  const found = new Set<Recipe>();
  for (let k = start[i]; k < end[i]; k++) {
    // A recipe may be several processes, some under a name of their own.
    const behind = compiled.behind(to[k]);
    const recipe = behind?.kind === "recipe" ? compiled.catalogue.records.recipe.get(behind.id) : undefined;
    if (recipe) found.add(recipe);
  }
  return [...found].sort((a, b) => (a.key < b.key ? -1 : 1));
}

/** Sources that give an item, in order of key. */
export function sourcesOf({ readings: { compiled } }: Checked, item: Id): Source[] {
  const i = compiled.numberOf(item);
  if (i === undefined) return [];
  const { start, end, to } = compiled.network.producers;
  const found = new Set<Source>();
  for (let k = start[i]; k < end[i]; k++) {
    const process = compiled.process(to[k]);
    if (process?.kind === "source") found.add(process.record as Source);
  }
  return [...found].sort((a, b) => (a.key < b.key ? -1 : 1));
}

export const recipeRef = (recipe: Recipe): Ref => ({
  kind: "recipe",
  id: recipe.id,
  key: recipe.key,
  name: recipe.name,
});

/**
 * What a check found about something, for as long as that, the records it is made of, and all names and settings stay
 * as they
 * are: an object that is taken over from one revision to the next need not be told again.
 */
export class FindingCache {
  private readonly by = new WeakMap<object, { readonly of: readonly unknown[]; readonly found: FindingDraft }>();

  about(
    what: object,
    { catalogue }: CheckContext,
    records: readonly unknown[],
    tell: () => FindingDraft,
  ): FindingDraft {
    const of = [catalogue.records.item, catalogue.records.currency, catalogue.pantry, ...records];
    const known = this.by.get(what);
    if (known && known.of.length === of.length && known.of.every((x, k) => x === of[k])) return known.found;
    const found = tell();
    this.by.set(what, { of, found });
    return found;
  }
}
