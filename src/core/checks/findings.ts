/** What the checks find in a pantry, kept up to date: after a change only what it can have moved is looked at again. */
import type { Shift } from "../analysis/readings";
import { recordAt, recordsOf } from "../catalogue/catalogue";
import { type Edit, same } from "../catalogue/changes";
import type { AnyRecord, Id, Kind, Line } from "../catalogue/records";
import { SALVAGE } from "../network/network";
import type { Check, Finding, Found, GroupCheck, RecordCheck, Scene, WholeCheck } from "./check";

/** Findings that belong together: of one record, one group or one whole check. */
type Place = string;

export class Findings {
  private readonly at = new Map<Place, readonly Finding[]>();
  /** Record → places whose findings name it. */
  private readonly named = new Map<Id, Set<Place>>();
  /** Group → its records, and record → its group, per check. */
  private readonly groups = new Map<Place, Set<Id>>();
  private readonly member = new Map<string, Place>();

  constructor(
    private readonly checks: readonly Check[],
    private scene: Scene,
  ) {
    this.start();
  }

  *all(): Generator<Finding> {
    for (const list of this.at.values()) yield* list;
  }

  private start(): void {
    for (const map of [this.at, this.named, this.groups, this.member]) map.clear();
    const { catalogue } = this.scene;
    for (const check of this.checks) {
      if ("per" in check) for (const kind of check.per) for (const record of recordsOf(catalogue, kind).values()) this.lookAt(check, kind, record);
      else if ("groups" in check) {
        for (const kind of check.groups) for (const record of recordsOf(catalogue, kind).values()) this.join(check, kind, record);
        for (const place of this.groups.keys()) if (place.startsWith(`${check.id}|`)) this.lookAmong(check, place);
      } else this.put(check.id, check, check.find(this.scene));
    }
  }

  /** @returns findings that are new or say something else now, and fingerprints of those that are gone */
  advance(scene: Scene, shift: Shift, edits: readonly Edit[]): { put: Finding[]; drop: string[] } {
    const before = new Map<Place, readonly Finding[]>();
    this.keeping = before;
    this.scene = scene;
    const settings = edits.some((e) => e.kind === "pantry");
    if (shift.anew || settings) {
      for (const [place, list] of this.at) before.set(place, list);
      this.start();
    } else this.lookAgain(shift, edits);
    this.keeping = null;
    const [was, is] = [new Map<string, Finding>(), new Map<string, Finding>()];
    for (const [place, list] of before) for (const f of list) if (this.at.get(place) !== list) was.set(f.fingerprint, f);
    for (const place of new Set([...before.keys(), ...(shift.anew || settings ? this.at.keys() : [])])) for (const f of this.at.get(place) ?? []) if (before.get(place) !== this.at.get(place)) is.set(f.fingerprint, f);
    return { put: [...is.values()].filter((f) => !same(was.get(f.fingerprint), f)), drop: [...was.keys()].filter((f) => !is.has(f)) };
  }
  /** While a change is followed: what stood at each place that was looked at. */
  private keeping: Map<Place, readonly Finding[]> | null = null;

  private lookAgain(shift: Shift, edits: readonly Edit[]): void {
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
      const process = compiled.processes[p];
      if (process) soil(process.of, process.record.id);
    }
    for (const list of [shift.value.keys(), shift.bare.keys(), shift.ways, shift.levels, shift.reach, shift.linked, shift.priced]) for (const i of list) soil("item", compiled.items[i]);
    const { users, makers, flags } = compiled.network;
    // What a salvage takes and gives moved.
    for (const i of shift.bare.keys())
      for (const { start, end, to } of [users, makers])
        for (let k = start[i]; k < end[i]; k++) {
          const process = flags[to[k]] & SALVAGE ? compiled.processes[to[k]] : null;
          if (process) soil(process.of, process.record.id);
        }
    // Lines name items: a new name or status is read in every line around it.
    for (const id of dirty.get("item") ?? []) {
      if (!edits.some((e) => e.op === "set" && e.kind === "item" && e.id === id)) continue;
      const i = compiled.index.get(id);
      if (i === undefined) continue;
      for (const { start, end, to } of [users, makers])
        for (let k = start[i]; k < end[i]; k++) {
          const process = compiled.processes[to[k]];
          if (process) soil(process.of, process.record.id);
        }
    }
    for (const check of this.checks) {
      if ("per" in check) {
        for (const kind of check.per) {
          const also = check.also ? [...check.also(this.scene, shift)] : [];
          for (const id of new Set([...(dirty.get(kind) ?? []), ...also])) this.lookAt(check, kind, recordAt(catalogue, kind, id) ?? { id });
        }
      } else if ("groups" in check) {
        const open = new Set<Place>();
        for (const kind of check.groups)
          for (const id of edited.get(kind) ?? []) {
            const left = this.member.get(`${check.id}|${kind}|${id}`);
            if (left) open.add(left);
            const record = recordAt(catalogue, kind, id);
            const joined = record ? this.join(check, kind, record) : this.leave(check, kind, id);
            if (joined) open.add(joined);
          }
        for (const place of open) this.lookAmong(check, place);
      } else if (check.concerns(shift)) this.put(check.id, check, check.find(this.scene));
    }
    const moved = shift.processes.size > 0 || shift.priced.length > 0;
    for (const check of this.checks) if ((shift.renamed && check.writesLines) || (moved && check.followsChains)) for (const place of this.at.keys()) if (place === check.id || place.startsWith(`${check.id}|`)) places.add(place);
    for (const place of places) if (!this.keeping?.has(place)) this.lookAtPlace(place);
  }

  private lookAtPlace(place: Place): void {
    const [id, kind, record] = place.split("|");
    const check = this.checks.find((c) => c.id === id) as Check;
    if ("per" in check) this.lookAt(check, kind as Kind, recordAt(this.scene.catalogue, kind as Kind, record as Id) ?? { id: record as Id });
    else if ("groups" in check) this.lookAmong(check, place);
    else this.put(place, check, check.find(this.scene));
  }

  private lookAt(check: RecordCheck, kind: Kind, record: AnyRecord | { readonly id: Id }): void {
    this.put(`${check.id}|${kind}|${record.id}`, check, "key" in record ? check.at(this.scene, record as never, kind) : []);
  }

  private lookAmong(check: GroupCheck, place: Place): void {
    const kind = place.split("|")[1] as Kind;
    const ids = [...(this.groups.get(place) ?? [])];
    const records = ids.length < 2 ? [] : (ids.flatMap((id) => recordAt(this.scene.catalogue, kind, id) ?? []) as AnyRecord[]).sort((a, b) => (a.key < b.key ? -1 : 1));
    this.put(place, check, records.length < 2 ? [] : check.among(this.scene, records, kind));
  }

  private join(check: GroupCheck, kind: Kind, record: AnyRecord): Place | null {
    const common = check.common(record, kind);
    const key = `${check.id}|${kind}|${record.id}`;
    const place = common === null ? null : `${check.id}|${kind}|${common}`;
    if (this.member.get(key) !== (place ?? undefined)) this.leave(check, kind, record.id);
    if (place === null) return null;
    this.member.set(key, place);
    const group = this.groups.get(place);
    if (group) group.add(record.id);
    else this.groups.set(place, new Set([record.id]));
    return place;
  }

  private leave(check: GroupCheck, kind: Kind, id: Id): null {
    const key = `${check.id}|${kind}|${id}`;
    const place = this.member.get(key);
    if (!place) return null;
    this.member.delete(key);
    const group = this.groups.get(place);
    group?.delete(id);
    if (!group?.size) this.groups.delete(place);
    return null;
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
    if (this.keeping && !this.keeping.has(place)) this.keeping.set(place, before ?? []);
    if (!before && !list.length) return;
    if (before) for (const id of namesIn(before)) this.named.get(id)?.delete(place);
    if (list.length) this.at.set(place, list);
    else this.at.delete(place);
    for (const id of namesIn(list)) {
      const places = this.named.get(id);
      if (places) places.add(place);
      else this.named.set(id, new Set([place]));
    }
  }
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

