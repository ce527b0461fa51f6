"use client";
/** The recipes that the address asks for, under heads, kept up to date from change to change. */
import { useMemo, useState } from "react";
import type { Catalogue } from "@/core/catalogue/catalogue";
import { held } from "@/core/catalogue/inheritance";
import { byKey } from "@/core/catalogue/keys";
import { around } from "@/core/catalogue/surroundings";
import { sayNamed } from "@/core/notation/line";
import { recordsWith } from "@/core/catalogue/references";
import type { Recipe } from "@/core/kinds/index";
import { allLines } from "@/core/kinds/ways";
import type { Role } from "@/core/notation/roles";
import type { Id } from "@/core/schema/id";
import { normalise, normalisedName } from "@/core/schema/names";
import { KeptRows, union } from "../grid/rows";

export type BookEntry = { readonly head: string; readonly n: number } | { readonly recipe: Recipe };

/** A recipe with the head it stands under. */
interface BookRow {
  readonly id: Id;
  readonly head: string;
  readonly recipe: Recipe;
}
const { compare } = new Intl.Collator();
const byHead = (a: BookRow, b: BookRow): number =>
  compare(a.head, b.head) || compare(a.recipe.name, b.recipe.name) || (a.id < b.id ? -1 : 1);
/** Roles of the items that a head may be made of. */
const HEADS: readonly Role[] = ["station", "ingredient", "output"];

function headOf(catalogue: Catalogue, recipe: Recipe, by: string): string {
  const role = by === "station" ? "station" : recipe.kind === "salvage" ? "ingredient" : "output";
  const line = recipe.lines.find((l) => l.role === role);
  if (by === "station") {
    if (line) return sayNamed(line, around(catalogue));
    return recipe.kind === "salvage" ? "Salvage, by hand" : "By hand";
  }
  const type = line?.item && catalogue.records.item.get(line.item)?.type;
  return (type && catalogue.records.type.get(type)?.name) || "Other";
}

/** Recipes that may stand elsewhere than before, or came or went. */
function changedSince(before: Catalogue, now: Catalogue): ReadonlySet<Id> | null {
  const items = now.records.item.changedSince(before.records.item);
  const using = items && [...items].flatMap((id) => [...recordsWith(now, "recipe", id, HEADS)].map((r) => r.id));
  return union(now.records.recipe.changedSince(before.records.recipe), using && new Set(using));
}

export function useBook(catalogue: Catalogue, query: string): readonly BookEntry[] {
  const [{ all, some }] = useState(() => ({
    all: new KeptRows<BookRow, Catalogue>(),
    some: new KeptRows<BookRow, Catalogue>(),
  }));
  return useMemo(() => {
    const asked = new URLSearchParams(query);
    const [text, kind, by] = [normalise(asked.get("text") ?? ""), asked.get("kind"), asked.get("by") ?? "station"];
    const [status, tagged] = [asked.get("status"), asked.get("tag")];
    const [makes, takes] = [asked.get("makes"), asked.get("takes")];
    const of = makes || takes ? (byKey(catalogue, "item", makes || (takes as string))?.id ?? null) : null;
    const tag = tagged ? (byKey(catalogue, "tag", tagged)?.id ?? null) : null;
    const most = asked.get("level") ? Number(asked.get("level")) : null;
    const row = (recipe: Recipe): BookRow => ({ id: recipe.id, head: headOf(catalogue, recipe, by), recipe });
    const rules = {
      keep: (_: BookRow) => true,
      compare: byHead,
      changedSince: (before: Catalogue) => changedSince(before, catalogue),
      get(id: Id) {
        const recipe = catalogue.records.recipe.get(id);
        return recipe && row(recipe);
      },
      anew: () => [...catalogue.records.recipe.values()].map(row).sort(byHead),
    };
    const always = [by, catalogue.records.type];
    let rows = all.rows(catalogue, always, rules);
    if (text || kind || status || tagged || most !== null || makes || takes) {
      const items = text ? itemsNamed(catalogue, text) : null;
      const keep = ({ recipe }: BookRow) =>
        (!kind || recipe.kind === kind) &&
        (!(makes || takes) || (of !== null && (makes ? isMade(recipe, of) : isTaken(catalogue, recipe, of)))) &&
        (!status || recipe.status === status) &&
        (most === null || levelOf(catalogue, recipe) <= most) &&
        (!tagged || (tag !== null && isTagged(catalogue, recipe, tag))) &&
        (!items || normalisedName(recipe).includes(text) || recipe.lines.some((l) => l.item && items.has(l.item)));
      const every = rows;
      rows = some.rows(
        catalogue,
        [...always, query, ...(text || tagged || takes || most !== null ? [catalogue.records.item] : [])],
        {
          ...rules,
          keep,
          anew: () => every.filter(keep),
        },
      );
    }
    return underHeads(rows);
  }, [catalogue, query, all, some]);
}

const isMade = (recipe: Recipe, item: Id): boolean =>
  allLines(recipe).some((l) => l.role === "output" && l.item === item);
/** By its name, or as any item with a tag. */
function isTaken(catalogue: Catalogue, recipe: Recipe, item: Id): boolean {
  const tags = catalogue.records.item.get(item)?.tags ?? [];
  return allLines(recipe).some(
    (l) => l.role !== "output" && (l.any === undefined ? l.item === item : tags.includes(l.any)),
  );
}

/** What a recipe is for: what it makes, or what it takes apart. */
const subjectOf = (recipe: Recipe) =>
  recipe.lines.find((l) => l.role === (recipe.kind === "salvage" ? "ingredient" : "output"));
function isTagged(catalogue: Catalogue, recipe: Recipe, tag: Id): boolean {
  const item = subjectOf(recipe)?.item;
  return item !== undefined && (catalogue.records.item.get(item)?.tags.includes(tag) ?? false);
}
/** The level it asks for, and that of what it is for. */
function levelOf(catalogue: Catalogue, recipe: Recipe): number {
  const id = subjectOf(recipe)?.item;
  const item = id && catalogue.records.item.get(id);
  return Math.max(recipe.level ?? 0, item ? (held(catalogue, item, "level").value ?? 0) : 0);
}

/** Items whose names contain a normalised text. */
function itemsNamed(catalogue: Catalogue, text: string): ReadonlySet<Id> {
  const found = new Set<Id>();
  for (const item of catalogue.records.item.values()) if (normalisedName(item).includes(text)) found.add(item.id);
  return found;
}

function underHeads(rows: readonly BookRow[]): BookEntry[] {
  const entries: BookEntry[] = [];
  for (let from = 0; from < rows.length; ) {
    const { head } = rows[from];
    let to = from;
    while (to < rows.length && rows[to].head === head) to++;
    entries.push({ head, n: to - from });
    for (; from < to; from++) entries.push({ recipe: rows[from].recipe });
  }
  return entries;
}
