/** What the checks find in a pantry, kept up to date: after a change only what it can have moved is looked at again. */
import type { Shift } from "../analysis/readings";
import { type Catalogue, recordAt, recordsOf } from "../catalogue/catalogue";
import { type Edit, same } from "../catalogue/changes";
import type { AnyRecord, Id, Kind, Line } from "../catalogue/records";
import { SALVAGE } from "../network/network";
import { Groups } from "./groups";
import type { Check, Finding, Found, GroupCheck, RecordCheck, Scene, WholeCheck } from "./check";

/** Findings that belong together: of one record, one group or one whole check. */
type Place = string;

export class Findings {
  private readonly at = new Map<Place, readonly Finding[]>();
  /** Record → places whose findings name it. */
  private readonly named = new Map<Id, Place[]>();
  /** Places of a check. */
  private readonly places = new Map<string, Set<Place>>();
  /** Per check and kind: records by a number made of what they have in common. */
  private readonly groups = new Map<string, Groups>();

  constructor(
    private readonly checks: readonly Check[],
    private scene: Scene,
    /** A number of 32 bits for a text; texts that share one are told apart by what they say. */
    private readonly digest: (text: string) => number = digestOf,
  ) {
    this.start();
  }

  *all(): Generator<Finding> {
    for (const list of this.at.values()) yield* list;
  }

  private start(): void {
    for (const map of [this.at, this.named, this.groups, this.places]) map.clear();
    const { catalogue } = this.scene;
    for (const check of this.checks) {
      if ("per" in check) {
        for (const kind of check.per)
          for (const record of recordsOf(catalogue, kind).values()) {
            const found = [...check.at(this.scene, record as never, kind)];
            if (found.length) this.put(placeOf(check, kind, record.id), check, found);
          }
      } else if ("groups" in check) for (const kind of check.groups) this.group(check, kind);
      else this.put(check.id, check, check.find(this.scene));
    }
  }

  private group(check: GroupCheck, kind: Kind): void {
    const { catalogue } = this.scene;
    for (const record of recordsOf(catalogue, kind).values()) this.join(check, kind, record);
    for (const ids of this.groupsOf(check, kind).several())
      for (const common of new Set(ids.map((id) => check.common(recordAt(catalogue, kind, id) as AnyRecord, kind)))) this.lookAmong(check, kind, common as string);
  }

  /** @returns findings that are new or say something else now, and fingerprints of those that are gone */
  advance(scene: Scene, shift: Shift, edits: readonly Edit[]): { put: Finding[]; drop: string[] } {
    const before = new Map<Place, readonly Finding[]>();
    this.keeping = before;
    const earlier = this.scene.catalogue;
    this.scene = scene;
    const settings = edits.some((e) => e.kind === "pantry");
    if (shift.anew || settings) {
      for (const [place, list] of this.at) before.set(place, list);
      this.start();
    } else this.lookAgain(shift, edits, earlier);
    this.keeping = null;
    const [was, is] = [new Map<string, Finding>(), new Map<string, Finding>()];
    for (const [place, list] of before) for (const f of list) if (this.at.get(place) !== list) was.set(f.fingerprint, f);
    for (const place of new Set([...before.keys(), ...(shift.anew || settings ? this.at.keys() : [])])) for (const f of this.at.get(place) ?? []) if (before.get(place) !== this.at.get(place)) is.set(f.fingerprint, f);
    return { put: [...is.values()].filter((f) => !same(was.get(f.fingerprint), f)), drop: [...was.keys()].filter((f) => !is.has(f)) };
  }
  /** While a change is followed: what stood at each place that was looked at. */
  private keeping: Map<Place, readonly Finding[]> | null = null;

  private lookAgain(shift: Shift, edits: readonly Edit[], earlier: Catalogue): void {
    const { catalogue, readings } = this.scene;
    const { compiled } = readings;
    const dirty = new Map<Kind, Set<Id>>();
    /** Records that were written, and items in lines that were; what merely moved says nothing else in its group. */
    const edited = new Map<Kind, Set<Id>>();
    const soil = (kind: Kind, id: Id | null) => {
      if (id === null) return;
      const set = dirty.get(kind);
      if (set) set.add(id);
      else dirty.set(kind, new Set([id]));
    };
    const places = new Set<Place>();
    for (const edit of edits) {
      const id = edit.op === "set" ? edit.id : edit.record.id;
      if (edit.kind !== "pantry") {
        soil(edit.kind, id);
        edited.set(edit.kind, (edited.get(edit.kind) ?? new Set()).add(id));
      }
      for (const place of this.named.get(id) ?? []) places.add(place);
      for (const item of itemsOf(edit)) {
        soil("item", item);
        edited.set("item", (edited.get("item") ?? new Set()).add(item));
      }
    }
    for (const p of shift.processes) {
      const process = compiled.behind(p);
      if (process) soil(process.of, process.id);
    }
    for (const list of [shift.value.keys(), shift.bare.keys(), shift.ways, shift.levels, shift.reach, shift.linked, shift.priced]) for (const i of list) soil("item", compiled.idOf(i));
    const { users, makers, flags } = compiled.network;
    // What a salvage takes and gives moved.
    for (const i of shift.bare.keys())
      for (const { start, end, to } of [users, makers])
        for (let k = start[i]; k < end[i]; k++) {
          const process = flags[to[k]] & SALVAGE ? compiled.behind(to[k]) : null;
          if (process) soil(process.of, process.id);
        }
    // Lines name items: a new name or status is read in every line around it.
    for (const id of dirty.get("item") ?? []) {
      if (!edits.some((e) => e.op === "set" && e.kind === "item" && e.id === id)) continue;
      const i = compiled.numberOf(id);
      if (i === undefined) continue;
      for (const { start, end, to } of [users, makers])
        for (let k = start[i]; k < end[i]; k++) {
          const process = compiled.behind(to[k]);
          if (process) soil(process.of, process.id);
        }
    }
    for (const check of this.checks) {
      if ("per" in check) {
        for (const kind of check.per) {
          const also = check.also ? [...check.also(this.scene, shift)] : [];
          for (const id of new Set([...(dirty.get(kind) ?? []), ...also])) this.lookAt(check, kind, recordAt(catalogue, kind, id) ?? { id });
        }
      } else if ("groups" in check) {
        for (const kind of check.groups) {
          const open = new Set<string | null>();
          for (const id of edited.get(kind) ?? []) {
            const [before, now] = [recordAt(earlier, kind, id), recordAt(catalogue, kind, id)];
            if (before) open.add(this.leave(check, kind, before));
            if (now) open.add(this.join(check, kind, now));
          }
          for (const common of open) if (common !== null) this.lookAmong(check, kind, common);
        }
      } else if (check.concerns(shift)) this.put(check.id, check, check.find(this.scene));
    }
    const moved = shift.processes.size > 0 || shift.priced.length > 0;
    if (moved) for (const check of this.checks) if (check.followsChains) for (const place of this.places.get(check.id) ?? []) places.add(place);
    for (const place of places) if (!this.keeping?.has(place)) this.lookAtPlace(place);
  }

  private lookAtPlace(place: Place): void {
    const [id, kind, ...rest] = place.split("|");
    const [check, about] = [this.checks.find((c) => c.id === id) as Check, rest.join("|")];
    if ("per" in check) this.lookAt(check, kind as Kind, recordAt(this.scene.catalogue, kind as Kind, about as Id) ?? { id: about as Id });
    else if ("groups" in check) this.lookAmong(check, kind as Kind, about);
    else this.put(place, check, check.find(this.scene));
  }

  private lookAt(check: RecordCheck, kind: Kind, record: AnyRecord | { readonly id: Id }): void {
    this.put(placeOf(check, kind, record.id), check, "key" in record ? check.at(this.scene, record as never, kind) : []);
  }

  private groupsOf(check: GroupCheck, kind: Kind): Groups {
    const name = `${check.id}|${kind}`;
    const groups = this.groups.get(name) ?? new Groups();
    this.groups.set(name, groups);
    return groups;
  }

  private lookAmong(check: GroupCheck, kind: Kind, common: string): void {
    const { catalogue } = this.scene;
    const all = this.groupsOf(check, kind).of(this.digest(common)).flatMap((id) => recordAt(catalogue, kind, id) ?? []);
    const records = all.filter((r) => check.common(r, kind) === common).sort((a, b) => (a.key < b.key ? -1 : 1));
    this.put(placeOf(check, kind, common), check, records.length < 2 ? [] : check.among(this.scene, records, kind));
  }

  /** @returns what the record has in common with those that it joined; null: it counts for nothing */
  private join(check: GroupCheck, kind: Kind, record: AnyRecord): string | null {
    const common = check.common(record, kind);
    if (common === null) return null;
    this.groupsOf(check, kind).join(this.digest(common), record.id);
    return common;
  }

  private leave(check: GroupCheck, kind: Kind, record: AnyRecord): string | null {
    const common = check.common(record, kind);
    if (common === null) return null;
    this.groupsOf(check, kind).leave(this.digest(common), record.id);
    return common;
  }

  private put(place: Place, check: Check | WholeCheck, found: Iterable<Found>): void {
    const list: Finding[] = [];
    const prints = new Map<string, number>();
    for (const f of found) {
      const print = `${check.id}:${f.about.map((r) => r.id).sort().join(",")}`;
      const nth = (prints.get(print) ?? 0) + 1;
      prints.set(print, nth);
      list.push({ rule: check.id, severity: check.severity, ...f, fingerprint: nth === 1 ? print : `${print}#${nth}` });
    }
    const before = this.at.get(place);
    if (!before && !list.length) return;
    if (this.keeping && !this.keeping.has(place)) this.keeping.set(place, before ?? []);
    if (before) for (const id of namesIn(before)) this.unname(id, place);
    const places = this.places.get(check.id) ?? new Set();
    this.places.set(check.id, places);
    if (list.length) {
      this.at.set(place, list);
      places.add(place);
    } else {
      this.at.delete(place);
      places.delete(place);
    }
    for (const id of namesIn(list)) {
      const naming = this.named.get(id);
      if (!naming) this.named.set(id, [place]);
      else if (!naming.includes(place)) naming.push(place);
    }
  }

  private unname(id: Id, place: Place): void {
    const left = (this.named.get(id) ?? []).filter((p) => p !== place);
    if (left.length) this.named.set(id, left);
    else this.named.delete(id);
  }
}

const placeOf = (check: Check, kind: Kind, about: string): Place => `${check.id}|${kind}|${about}`;

/** Fowler, Noll and Vo's hash of 32 bits. */
function digestOf(text: string): number {
  let n = 0x811c9dc5;
  for (let k = 0; k < text.length; k++) n = Math.imul(n ^ text.charCodeAt(k), 0x01000193);
  return n >>> 0;
}

/** Items that the lines of a changed recipe or source name, before or after. */
function itemsOf(edit: Edit): Id[] {
  const lines = (value: unknown) => (Array.isArray(value) ? (value as Line[]).map((l) => l.item) : []);
  if (edit.op !== "set") return "lines" in edit.record ? lines(edit.record.lines) : [];
  return edit.field === "lines" ? [...lines(edit.from), ...lines(edit.to)] : [];
}

/** Ids of all records that findings name: in what they are about and in their evidence. */
function namesIn(findings: readonly Finding[]): Set<Id> {
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
  return ids;
}

