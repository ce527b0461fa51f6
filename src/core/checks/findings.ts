/** What the checks find in a pantry, kept up to date: after a change only what it can have moved is looked at again. */
import type { Reading } from "../analysis/reading";
import type { Delta } from "../analysis/readings";
import { reach } from "../analysis/registry";
import { inOrder, ruleTitle, type Severity } from "../checklist/index";
import { type Catalogue, recordAt, recordsOf } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import { type AnyRecord, type Kind, KINDS } from "../kinds/index";
import type { Id } from "../schema/id";
import { IdTable } from "../catalogue/ids";
import { digestOf, digestOfAll } from "./digest";
import { fingerprintOf } from "./fingerprint";
import { Groups } from "./groups";
import { severitiesOf, severityIn } from "./severities";
import {
  type Check,
  type Checked,
  type Finding,
  type FindingDraft,
  type GroupCheck,
  type RecordCheck,
  type Ref,
  ref,
  type CheckContext,
  FindingCache,
} from "./check";

/** Findings that belong together: of one record, one group or one whole check. */
type Place = string;

/** What is kept of the findings of a place: enough to know them again. They are told again when they are asked for. */
interface Known {
  readonly prints: readonly string[];
  /** A number for everything that each of them says. */
  readonly digests: readonly number[];
  /** Records that they name. */
  readonly names: readonly Id[];
}
/** What is found at a place now, with the numbers for what it says. */
interface FoundList {
  readonly list: readonly Finding[];
  readonly digests: readonly number[];
}
/** Places that name a record beyond these are a set: looking one of very many up in a list would take long. */
const MANY = 32;
const NOTHING: Known = { prints: [], digests: [], names: [] };

const commonsOf = (check: GroupCheck, kind: Kind, record: AnyRecord): readonly string[] => {
  const common = check.common(record, kind);
  return typeof common === "string" ? [common] : (common ?? NO_COMMONS);
};
const NO_COMMONS: readonly string[] = [];

export class Findings {
  private readonly at = new Map<Place, Known>();
  /**
   * Where a check finds one thing about one record that names no other, which is most of what is found: the record's id,
   * told apart by check and kind, and the number for what is said (NaN: nothing is). About 25 bytes a finding.
   */
  private single = new IdTable();
  private singleDigests = new Float64Array(16).fill(Number.NaN);
  /** Record → places whose findings name it. */
  private readonly named = new Map<Id, Place[] | Set<Place>>();
  /** Places of each check that follows chains. */
  private readonly chains = new Map<string, Set<Place>>();
  /** Per check and kind: records by a number made of what they have in common. */
  private readonly groups = new Map<number, Groups>();
  private context: CheckContext;

  constructor(
    private readonly checks: readonly Check[],
    checked: Checked,
    /** A number of 32 bits for a text; texts that share one are told apart by what they say. */
    private readonly digest: (text: string) => number = digestOf,
  ) {
    this.context = { ...checked, told: new FindingCache(), severities: severitiesOf(checked.catalogue) };
    for (const [k, check] of checks.entries()) this.numbers.set(check, k);
    this.start();
  }

  *all(): Generator<Finding> {
    yield* this.of(() => true);
  }
  /** Findings of some checks: only these are written out. */
  *of(wanted: (rule: string) => boolean): Generator<Finding> {
    for (const place of this.at.keys()) {
      const parts = this.partsOf(place);
      if (wanted(parts[0].id)) yield* this.tell(...parts);
    }
    for (let n = 0; n < this.single.size; n++)
      if (!Number.isNaN(this.singleDigests[n]) && wanted(this.checkOfSingle(n).id))
        yield* this.tell(...this.partsOf(this.placeOfSingle(n)));
  }

  /** How many findings there are of each rule, without telling them. */
  counts(): ReadonlyMap<string, number> {
    const counts = new Map<string, number>();
    const add = (rule: string, n: number) => counts.set(rule, (counts.get(rule) ?? 0) + n);
    for (const [place, { prints }] of this.at) add(this.partsOf(place)[0].id, prints.length);
    for (let n = 0; n < this.single.size; n++)
      if (!Number.isNaN(this.singleDigests[n])) add(this.checkOfSingle(n).id, 1);
    return counts;
  }

  private readonly numbers = new Map<Check, number>();
  /** What is told of by name, of each check and kind: most looks find nothing where nothing was, and need no name. */
  private readonly kept = new Map<number, Set<string>>();
  private groupOf(check: Check, kind: Kind): number {
    return (this.numbers.get(check) ?? 0) * KINDS.length + (KIND_NUMBERS.get(kind) ?? 0);
  }
  private setAt(place: Place, group: number, about: string, known: Known | null): void {
    if (known) this.at.set(place, known);
    else this.at.delete(place);
    if (group < 0) return;
    let kept = this.kept.get(group);
    if (!kept) {
      kept = new Set();
      this.kept.set(group, kept);
    }
    if (known) kept.add(about);
    else kept.delete(about);
  }
  private checkOfSingle(n: number): Check {
    return this.checks[Math.floor(this.single.groupOf(n) / KINDS.length)];
  }
  private placeOfSingle(n: number): Place {
    return placeOf(this.checkOfSingle(n), KINDS[this.single.groupOf(n) % KINDS.length], this.single.idOf(n));
  }
  private knownAt(place: Place, check: Check, kind: Kind | undefined, about: string): Known {
    const n = kind && "per" in check ? this.single.get(about, this.groupOf(check, kind)) : undefined;
    if (n !== undefined && !Number.isNaN(this.singleDigests[n]))
      return { prints: [printOf(check, about)], digests: [this.singleDigests[n]], names: [about as Id] };
    return this.at.get(place) ?? NOTHING;
  }

  private start(): void {
    for (const map of [this.at, this.named, this.groups, this.chains, this.kept]) map.clear();
    this.single = new IdTable();
    this.singleDigests = new Float64Array(16).fill(Number.NaN);
    const { context } = this;
    const { catalogue } = context;
    const checks = this.checks.filter((c) => this.concerned(c));
    // Each record once for all checks: where records are bytes, coming by them is most of the work.
    for (const kind of KINDS) {
      const alone = checks.flatMap((c) => ("per" in c && c.per.includes(kind) ? [c] : []));
      const groups = checks.flatMap((c) => ("groups" in c && c.groups.includes(kind) ? [c] : []));
      // Once for all records: asking each check for them costs more than most of them do.
      const [mays, marks] = [
        alone.map((c) => c.may?.bind(c)),
        alone.map((c) => c.mark && ((record: AnyRecord) => markOf(c, record, context))),
      ];
      if (alone.length + groups.length)
        for (const record of recordsOf(catalogue, kind).values()) {
          for (let k = 0; k < alone.length; k++) {
            const check = alone[k];
            this.asked++;
            const may = mays[k];
            if (may && !may(record as never, context, kind)) continue;
            // While a change is followed what is found is told, to be held against what was there before.
            const mark = this.following ? undefined : marks[k];
            if (mark) {
              const digest = mark(record);
              if (typeof digest === "number") this.putSingle(this.groupOf(check, kind), record.id, digest);
              if (digest !== undefined) continue;
            }
            const found = marked(check, () => check.at(context, record as never, kind), context, kind, record);
            if (found.length) this.put(check, found, kind, record.id);
          }
          for (let k = 0; k < groups.length; k++) this.join(groups[k], kind, record);
        }
      for (const check of groups) for (const common of this.sharedBy(check, kind)) this.look(check, kind, common);
    }
    for (const check of checks) if ("find" in check) this.look(check);
  }

  /** How often a check was asked about a record. */
  asked = 0;

  /** Whether anything in the pantry can concern a check: where nothing can, it is not asked about any record. */
  private concerned(check: Check): boolean {
    const { catalogue, severities } = this.context;
    return severities.get(check.id) !== "off" && (check.concerns?.(catalogue) ?? true);
  }

  /** What a check finds about a record. Most find nothing about most: that is seen before anything is made. */
  private about(check: RecordCheck, kind: Kind, record: AnyRecord): readonly Finding[] {
    const { context } = this;
    if (check.may && !check.may(record as never, context, kind)) return NONE;
    if (markOf(check, record, context) === null) return NONE;
    return marked(check, () => check.at(context, record as never, kind), context, kind, record);
  }

  /**
   * @returns findings that are new or say something else now, those among them that are new, and fingerprints of what
   * is gone
   */
  advance(
    checked: Checked,
    delta: Delta,
    edits: readonly Edit[],
  ): { put: Finding[]; opened: Finding[]; drop: string[] } {
    const [before, now] = [new Map<Place, Known>(), new Map<Place, FoundList>()];
    this.following = { before, now };
    const earlier = this.context.catalogue;
    const asked = new Set(this.checks.filter((c) => this.concerned(c)));
    const severities = edits.some((e) => e.kind === "severity")
      ? severitiesOf(checked.catalogue)
      : this.context.severities;
    const set = this.context.severities;
    this.context = { ...checked, told: this.context.told, severities };
    let anew = delta.anew || set !== severities || edits.some((e) => e.kind === "pantry");
    for (const check of this.checks) {
      const concerned = this.concerned(check);
      if (check.concernsAll && concerned !== asked.has(check)) anew = true;
      if (concerned) asked.add(check);
    }
    if (anew) {
      for (const [place, known] of this.at) before.set(place, known);
      for (let n = 0; n < this.single.size; n++)
        if (!Number.isNaN(this.singleDigests[n])) {
          const place = this.placeOfSingle(n);
          before.set(place, this.knownAt(place, ...this.partsOf(place)));
        }
      this.start();
    } else this.lookAgain(delta, edits, earlier, asked);
    this.following = null;
    const [was, is] = [
      new Map<string, number>(),
      new Map<string, { readonly finding: Finding; readonly digest: number }>(),
    ];
    for (const { prints, digests } of before.values())
      for (const [k, print] of prints.entries()) was.set(print, digests[k]);
    for (const { list, digests } of now.values())
      for (const [k, f] of list.entries()) is.set(f.fingerprint, { finding: f, digest: digests[k] });
    const put = inOrder(
      [...is].flatMap(([print, { finding, digest }]) =>
        was.get(print) === digest && set.get(finding.rule) === severities.get(finding.rule) ? [] : [finding],
      ),
    );
    return {
      put,
      opened: put.filter((f) => !was.has(f.fingerprint)),
      drop: [...was.keys()].filter((print) => !is.has(print)).sort(),
    };
  }
  /** While a change is followed: what stood at each place that was looked at, and what is found there now. */
  private following: { readonly before: Map<Place, Known>; readonly now: Map<Place, FoundList> } | null = null;

  private lookAgain(delta: Delta, edits: readonly Edit[], earlier: Catalogue, asked: ReadonlySet<Check>): void {
    const { catalogue, readings } = this.context;
    const { compiled } = readings;
    const dirty = new Map<Kind, Set<Id>>();
    /**
     * Records that were written, and items that written recipes use; what merely moved says nothing else in its group.
     */
    const edited = new Map<Kind, Set<Id>>();
    const markDirty = (kind: Kind, id: Id | null) => {
      if (id === null) return;
      const set = dirty.get(kind);
      if (set) set.add(id);
      else dirty.set(kind, new Set([id]));
    };
    const places = new Set<Place>();
    for (const edit of edits) {
      const id = edit.op === "set" ? edit.id : edit.record.id;
      if (edit.kind !== "pantry") {
        markDirty(edit.kind, id);
        edited.set(edit.kind, (edited.get(edit.kind) ?? new Set()).add(id));
      }
      for (const place of this.named.get(id) ?? []) places.add(place);
    }
    for (const i of delta.network.linked) {
      const item = compiled.idOf(i);
      if (item !== null) edited.set("item", (edited.get("item") ?? new Set()).add(item));
    }
    for (const p of delta.of(reach).processes) {
      const process = compiled.behind(p);
      if (process) markDirty(process.kind, process.id);
    }
    for (const list of [delta.network.linked, delta.network.priced, delta.of(reach).items])
      for (const i of list) markDirty("item", compiled.idOf(i));
    const { consumers, producers } = compiled.network;
    // Lines name items: a new name or status is read in every line around it.
    for (const id of new Set(edits.flatMap((e) => (e.op === "set" && e.kind === "item" ? [e.id] : [])))) {
      const i = compiled.numberOf(id);
      if (i === undefined) continue;
      for (const { start, end, to } of [consumers, producers])
        for (let k = start[i]; k < end[i]; k++) {
          const process = compiled.behind(to[k]);
          if (process) markDirty(process.kind, process.id);
        }
    }
    const movedIds = new Map<Reading, readonly Id[]>();
    const idsMoved = (reading: Reading): readonly Id[] => {
      let ids = movedIds.get(reading);
      if (!ids) {
        ids = [...movedItems(delta.of(reading))].flatMap((i) => compiled.idOf(i) ?? []);
        movedIds.set(reading, ids);
      }
      return ids;
    };
    for (const check of asked) {
      if ("per" in check) {
        const also = check.also ? [...check.also(this.context, delta, edits)] : [];
        for (const kind of check.per) {
          const touched = dirty.get(kind);
          for (const id of touched ?? []) this.look(check, kind, id);
          const more = kind === "item" ? [also, ...check.reads.map(idsMoved)] : [also];
          const seen = new Set<Id>();
          for (const ids of more)
            for (const id of ids)
              if (!touched?.has(id) && !seen.has(id)) {
                seen.add(id);
                this.look(check, kind, id);
              }
        }
      } else if ("groups" in check) {
        const anew = check.anew?.(edits) ?? false;
        for (const kind of check.groups) {
          const open = anew ? this.regroup(check, kind) : new Set<string>();
          for (const id of anew ? [] : (edited.get(kind) ?? [])) {
            const [before, now] = [recordAt(earlier, kind, id), recordAt(catalogue, kind, id)];
            if (before) for (const common of this.leave(check, kind, before)) open.add(common);
            if (now) for (const common of this.join(check, kind, now)) open.add(common);
          }
          for (const common of open) this.look(check, kind, common);
        }
      } else if (
        check.reads.some((reading) => hasMoved(delta.of(reading))) ||
        (check.namesOthers && delta.network.renamed)
      )
        this.look(check);
    }
    const moved = delta.of(reach).processes.size > 0 || delta.network.priced.length > 0;
    if (moved) for (const chained of this.chains.values()) for (const place of chained) places.add(place);
    for (const place of places) if (!this.following?.now.has(place)) this.look(...this.partsOf(place));
  }

  private partsOf(place: Place): [check: Check, kind: Kind, about: string] {
    const [id, kind, ...rest] = place.split("|");
    return [this.checks.find((c) => c.id === id) as Check, kind as Kind, rest.join("|")];
  }

  /** What a check finds about a record, about a group by what it has in common, or at all. */
  private tell(check: Check, kind: Kind, about: string): readonly Finding[] {
    const { context } = this;
    if ("find" in check) return [...marked(check, () => check.find(context), context, kind)];
    if ("per" in check) {
      this.asked++;
      if (check.mayBe && !check.mayBe(about as Id, context)) return NONE;
      const record = recordAt(context.catalogue, kind, about as Id);
      return record ? this.about(check, kind, record) : NONE;
    }
    const records = this.groupsOf(check, kind)
      .of(this.digest(about))
      .flatMap((id) => recordAt(context.catalogue, kind, id) ?? [])
      .filter((r) => commonsOf(check, kind, r).includes(about))
      .sort((a, b) => (a.key < b.key ? -1 : 1));
    return records.length < 2
      ? []
      : [...marked(check, () => check.among(context, records, kind, about), context, kind, ...records)];
  }

  private look(check: Check, kind?: Kind, about = ""): void {
    this.put(check, this.tell(check, kind as Kind, about), kind, about);
  }

  private groupsOf(check: GroupCheck, kind: Kind): Groups {
    const name = this.groupOf(check, kind);
    let groups = this.groups.get(name);
    if (!groups) {
      groups = new Groups();
      this.groups.set(name, groups);
    }
    return groups;
  }

  /** @returns what the record has in common with those that it joined */
  private join(check: GroupCheck, kind: Kind, record: AnyRecord): readonly string[] {
    const commons = commonsOf(check, kind, record);
    for (const common of commons) this.groupsOf(check, kind).join(this.digest(common), record.id);
    return commons;
  }

  private leave(check: GroupCheck, kind: Kind, record: AnyRecord): readonly string[] {
    const commons = commonsOf(check, kind, record);
    for (const common of commons) this.groupsOf(check, kind).leave(this.digest(common), record.id);
    return commons;
  }

  /** What several records have in common. */
  private sharedBy(check: GroupCheck, kind: Kind): Set<string> {
    const { catalogue } = this.context;
    const shared = new Set<string>();
    for (const ids of this.groupsOf(check, kind).several())
      for (const id of ids)
        for (const common of commonsOf(check, kind, recordAt(catalogue, kind, id) as AnyRecord)) shared.add(common);
    return shared;
  }

  /** Groups all records again. @returns what several have in common, and what was found of before */
  private regroup(check: GroupCheck, kind: Kind): Set<string> {
    const found = [...this.at.keys()].map((place) => this.partsOf(place)).filter(([c, k]) => c === check && k === kind);
    this.groups.delete(this.groupOf(check, kind));
    if (this.concerned(check))
      for (const record of recordsOf(this.context.catalogue, kind).values()) this.join(check, kind, record);
    return new Set([...found.map(([, , about]) => about), ...this.sharedBy(check, kind)]);
  }

  /** Whether it is one thing about a record that names no other. */
  private isSingle(check: Check, list: readonly Finding[], names: readonly Id[], about: string): boolean {
    return (
      "per" in check &&
      list.length === 1 &&
      names.length === 1 &&
      names[0] === about &&
      list[0].fingerprint === printOf(check, about)
    );
  }
  /** Numbers for what findings say. */
  private digestsOf(check: Check, list: readonly Finding[], kind: Kind | undefined, about: string): readonly number[] {
    const record =
      "per" in check && check.mark && kind ? recordAt(this.context.catalogue, kind, about as Id) : undefined;
    const mark = record && list.length === 1 ? markOf(check as RecordCheck, record, this.context) : null;
    return typeof mark === "number" ? [mark] : list.map(digestOfAll);
  }
  private putSingle(group: number, about: string, digest: number): void {
    const n = this.single.add(about, group);
    if (n >= this.singleDigests.length) {
      const more = new Float64Array(Math.ceil(n * 1.5) + 16).fill(Number.NaN);
      more.set(this.singleDigests);
      this.singleDigests = more;
    }
    this.singleDigests[n] = digest;
  }

  private put(check: Check, list: readonly Finding[], kind: Kind | undefined, about: string): void {
    const following = this.following;
    const group = kind && "per" in check ? this.groupOf(check, kind) : -1;
    if (!list.length && group >= 0 && !this.kept.get(group)?.has(about)) {
      // Nothing is found and nothing was: the commonest case by far.
      const n = this.single.get(about, group);
      if (n === undefined || Number.isNaN(this.singleDigests[n])) return;
    }
    const names = namesIn(list);
    if (!following && group >= 0 && !check.followsChains && this.isSingle(check, list, names, about)) {
      this.putSingle(group, about, this.digestsOf(check, list, kind, about)[0]);
      return;
    }
    const place = kind ? placeOf(check, kind, about) : check.id;
    const before = this.knownAt(place, check, kind, about);
    if (before === NOTHING && !list.length) return;
    const digests = this.digestsOf(check, list, kind, about);
    if (following) {
      if (!following.before.has(place)) following.before.set(place, before);
      following.now.set(place, { list, digests });
    }
    if (this.at.has(place)) for (const id of before.names) this.unname(id, place);
    else if (group >= 0 && this.single.get(about, group) !== undefined) this.putSingle(group, about, Number.NaN);
    if (group >= 0 && !check.followsChains && this.isSingle(check, list, names, about)) {
      this.setAt(place, group, about, null);
      this.putSingle(group, about, digests[0]);
      return;
    }
    const known = { prints: list.map((f) => f.fingerprint), digests, names };
    this.setAt(place, group, about, list.length ? known : null);
    if (check.followsChains) {
      const places = this.chains.get(check.id) ?? new Set();
      this.chains.set(check.id, places);
      if (list.length) places.add(place);
      else places.delete(place);
    }
    for (const id of names) {
      const naming = this.named.get(id);
      if (!naming) this.named.set(id, [place]);
      else if (naming instanceof Set) naming.add(place);
      else if (naming.length < MANY) naming.push(place);
      else this.named.set(id, new Set([...naming, place]));
    }
  }

  private unname(id: Id, place: Place): void {
    const naming = this.named.get(id) ?? [];
    if (naming instanceof Set) {
      naming.delete(place);
      if (!naming.size) this.named.delete(id);
      return;
    }
    const left = naming.filter((p) => p !== place);
    if (left.length) this.named.set(id, left);
    else this.named.delete(id);
  }
}

/** Items that a reading says have moved; nothing where it says of no item. */
function movedItems(moved: unknown): Iterable<number> {
  if (moved instanceof Map) return moved.keys();
  if (moved instanceof Set || Array.isArray(moved)) return moved as Iterable<number>;
  return typeof moved === "object" && moved !== null && "items" in moved ? movedItems(moved.items) : [];
}
/** Whether anything moved in a reading. */
const hasMoved = (moved: unknown): boolean => moved === true || !movedItems(moved)[Symbol.iterator]().next().done;

const placeOf = (check: Check, kind: Kind, about: string): Place => `${check.id}|${kind}|${about}`;

const NONE: readonly Finding[] = [];
/** Largest size of a finding, so that it can be written as a number. */
const WORST = 1e15;
const NO_REFS: readonly Ref[] = [];
/** The number that a check gives for what it says of a record; undefined where it gives none, or can't work it out. */
function markOf(check: RecordCheck, record: AnyRecord, context: CheckContext): number | null | undefined {
  try {
    return check.mark?.(record as never, context);
  } catch {
    // It is told as a finding of its own, as every check that can't be computed.
    return undefined;
  }
}
const KIND_NUMBERS = new Map<Kind, number>(KINDS.map((kind, n) => [kind, n]));
const printOf = (check: Check, id: string): string => fingerprintOf(check.id, [id]);

/**
 * Each with its check, and with a fingerprint of its own. A check that can't be computed is a finding itself:
 * whatever could be stored can be opened.
 * @param about  the records that are looked at
 */
function marked(
  check: Check,
  look: () => Iterable<FindingDraft>,
  { catalogue, severities }: CheckContext,
  kind: Kind,
  ...about: readonly AnyRecord[]
): readonly Finding[] {
  let list: Finding[] | null = null;
  let prints: Map<string, number> | null = null;
  const put = (f: FindingDraft, severity: Severity) => {
    const { subject, with: others = NO_REFS, message, evidence, fixes, size } = f;
    const subjects: readonly Ref[] = "id" in subject ? [subject] : subject;
    const ids = subjects.map((r) => r.id);
    const print = fingerprintOf(check.id, ids);
    list ??= [];
    let nth = 1;
    if (list.length) {
      prints ??= new Map([[list[0].fingerprint, 1]]);
      nth = (prints.get(print) ?? 0) + 1;
      prints.set(print, nth);
    }
    list.push({
      rule: check.id,
      severity,
      about: [...subjects, ...others],
      message,
      evidence,
      fixes,
      fingerprint: nth === 1 ? print : fingerprintOf(check.id, ids, nth),
      ...(size === undefined || Number.isNaN(size) ? {} : { size: Math.min(size, WORST) }),
    });
  };
  try {
    const severity = severityIn(severities, check.id);
    for (const f of look()) put(f, severity === "off" ? "note" : severity);
  } catch (error) {
    const named = about.slice(0, 3).map((r) => ref(catalogue, kind, r.id));
    put(
      {
        subject: named,
        message: `“${ruleTitle(check.id)}” could not be computed${named.length ? ` for ${named.map((r) => r.name).join(", ")}` : ""}: ${(error as Error).message}`,
        evidence: { type: "names", names: [] },
        fixes: named.map((r) => ({ message: `Open ${r.name}`, do: "open", kind, id: r.id })),
      },
      "warning",
    );
  }
  return list ?? NONE;
}

/** Ids of all records that findings name: in what they are about and in their evidence. */
function namesIn(findings: readonly Finding[]): Id[] {
  if (!findings.length) return [];
  const ids = new Set<Id>();
  const walk = (value: unknown): void => {
    if (typeof value !== "object" || value === null) return;
    if (Array.isArray(value)) for (const v of value) walk(v);
    else {
      const { kind, id } = value as { kind?: unknown; id?: unknown };
      if (typeof kind === "string" && typeof id === "string") ids.add(id as Id);
      else for (const v of Object.values(value)) walk(v);
    }
  };
  for (const f of findings) {
    walk(f.about);
    walk(f.evidence);
  }
  return [...ids];
}
