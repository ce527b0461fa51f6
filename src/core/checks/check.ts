/** What a check is, and what it finds. A new check is one file beside this one and one line in index.ts. */
import type { Readings } from "../analysis/readings";
import { type Catalogue, recipesWith, recordAt } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/changes";
import type { Id, Kind, Line, Recipe } from "../catalogue/records";

export type Severity = "error" | "warning";

/** A record as findings name it: enough to link to it and to say it. */
export interface Ref {
  readonly kind: Kind;
  readonly id: Id;
  readonly key: string;
  readonly name: string;
}

/** What the views can draw and the command line prints. */
export type Evidence =
  | { readonly type: "loop"; readonly runs: readonly { readonly recipe: Ref; readonly times: string; readonly line: string }[]; readonly net: readonly { readonly item: Ref; readonly amount: string; readonly value: number }[]; readonly certain: boolean; readonly live: boolean; readonly seconds: number }
  | { readonly type: "circle"; readonly items: readonly Ref[]; readonly recipes: readonly { readonly recipe: Ref; readonly line: string }[] }
  | { readonly type: "cause"; readonly leaves: readonly Ref[]; readonly path: readonly Ref[] }
  | { readonly type: "amounts"; readonly unit: string; readonly rows: readonly { readonly label: string; readonly value: number }[] }
  | { readonly type: "lines"; readonly recipes: readonly { readonly recipe: Ref; readonly line: string }[] }
  | { readonly type: "names"; readonly names: readonly string[] };

/** A ready-made way to mend: edits, a new source to fill in, or a place that needs a hand. */
export type Fix = { readonly says: string } & (
  | { readonly do: "edit"; readonly edits: readonly Edit[] }
  | { readonly do: "source"; readonly item: Id }
  | { readonly do: "open"; readonly kind: Kind; readonly id: Id }
);

export interface Finding {
  readonly rule: string;
  readonly severity: Severity;
  readonly about: readonly Ref[];
  /** One sentence in plain words with its numbers. */
  readonly says: string;
  readonly evidence: Evidence;
  readonly fixes: readonly Fix[];
  /** Stays the same while unrelated edits and the numbers in the sentence change. */
  readonly fingerprint: string;
}

/** What a check yields; rule, severity and fingerprint follow from the check. */
export interface Found {
  readonly about: readonly Ref[];
  readonly says: string;
  readonly evidence: Evidence;
  readonly fixes: readonly Fix[];
}

export interface Scene {
  readonly catalogue: Catalogue;
  readonly readings: Readings;
}

export interface Check {
  readonly id: string;
  readonly title: string;
  readonly severity: Severity;
  find(scene: Scene): Iterable<Found>;
}

export function ref(catalogue: Catalogue, kind: Kind, id: Id): Ref {
  const record = recordAt(catalogue, kind, id);
  return { kind, id, key: record?.key ?? id, name: record?.name ?? `(gone: ${id})` };
}

export const itemRef = ({ catalogue, readings }: Scene, index: number): Ref => ref(catalogue, "item", readings.network.items[index]);

/** Recipes in use (not retired) with the item in one of the roles. */
export const usersOf = (catalogue: Catalogue, item: Id, roles: readonly Line["role"][]): Recipe[] =>
  recipesWith(catalogue, item, roles).filter((r) => r.status !== "retired");

export const recipeRef = (recipe: Recipe): Ref => ({ kind: "recipe", id: recipe.id, key: recipe.key, name: recipe.name });
