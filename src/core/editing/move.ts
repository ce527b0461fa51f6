/** An item comes to another type, or a type to another place in the tree: what changes for every item under it. */
import { apply } from "../catalogue/apply";
import type { Catalogue } from "../catalogue/catalogue";
import { type Edit, fieldWord, setField } from "../catalogue/edit";
import { demandOn, fieldsOfItem, fieldsOfKind, statsOfItem } from "../catalogue/fields";
import { heldAt } from "../catalogue/inheritance";
import { around } from "../catalogue/surroundings";
import { itemsBelow } from "../catalogue/types";
import { definition, type Item } from "../kinds/index";
import type { Id } from "../schema/id";
import { same } from "../schema/json";
import { fieldAt, pathOf } from "../schema/record";

export interface MoveRow {
  readonly item: Item;
  readonly what: string;
  readonly before: string;
  readonly after: string;
  /** It inherits another value, its own is not taken there, or it must say it and does not. */
  readonly is: "inherits" | "not taken" | "required";
}
export interface MovePlan {
  readonly rows: readonly MoveRow[];
  /** Takes off what is not taken. */
  readonly takeOff: readonly Edit[];
  /** Items that were not looked at, because there are very many. */
  readonly unseen: number;
}
const MOST = 2000;

/** Paths of what items hold that a type may say something of. */
function pathsOf(catalogue: Catalogue): string[] {
  const plain = Object.entries(definition("item").fields).flatMap(([name, { options, parts }]) =>
    options.inheritable && !parts ? [name] : [],
  );
  const stats = [...catalogue.records.stat.keys()].map((id) => `stats.${id}`);
  return [...plain, ...stats, ...fieldsOfKind(catalogue, "item").map((f) => `own.${f.id}`)];
}

/** @param edits  that give items another type, or types another parent. @returns null where they can't be made */
export function planMove(catalogue: Catalogue, edits: readonly Edit[]): MovePlan | null {
  const outcome = apply(catalogue, edits);
  if (!outcome.ok) return null;
  const next = outcome.catalogue;
  const moved = new Set<Id>();
  for (const edit of edits) {
    if (edit.op !== "set") continue;
    if (edit.kind === "item" && edit.field === "type") moved.add(edit.id);
    if (edit.kind === "type" && edit.field === "parent")
      for (const id of itemsBelow(next, new Set([edit.id]))) moved.add(id);
  }
  const rows: MoveRow[] = [];
  const takeOff: Edit[] = [];
  const paths = pathsOf(catalogue);
  const here = around(next);
  for (const id of [...moved].slice(0, MOST)) {
    const [before, after] = [catalogue.records.item.get(id), next.records.item.get(id)];
    if (!before || !after) continue;
    const fields = new Set(fieldsOfItem(next, after).map((f) => f.id));
    const hadFields = new Set(fieldsOfItem(catalogue, before).map((f) => f.id));
    const [stats, hadStats] = [statsOfItem(next, after), statsOfItem(catalogue, before)];
    for (const path of paths) {
      const at = pathOf(definition("item"), path);
      if (!at) continue;
      const [was, is] = [heldAt(catalogue, "item", before, path).here, heldAt(next, "item", after, path).here];
      const part = at.part as Id | null;
      const taken = (all: ReadonlySet<Id> | null) => part === null || all === null || all.has(part);
      const has = at.name === "own" ? taken(fields) : at.name === "stats" ? taken(stats) : true;
      const had = at.name === "own" ? taken(hadFields) : at.name === "stats" ? taken(hadStats) : true;
      const say = (value: unknown, from: string) => (from === "none" ? "" : fieldAt(at, here).say(value, here));
      const row = (kind: MoveRow["is"]) =>
        rows.push({
          item: after,
          what: fieldWord(next, "item", path),
          before: say(was.value, was.from),
          after: say(is.value, is.from),
          is: kind,
        });
      if (is.from === "own" && had && !has) {
        row("not taken");
        takeOff.push(setField(next, "item", id, path, null));
      } else if (!same(was.value, is.value) && (is.from === "inherited" || was.from === "inherited")) row("inherits");
      const which = at.name === "own" ? "takes" : at.name === "stats" ? "measures" : null;
      if (which && part && has && is.from === "none" && demandOn(next, after, which, part).required) row("required");
    }
  }
  return { rows, takeOff, unseen: Math.max(0, moved.size - MOST) };
}
