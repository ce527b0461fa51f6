/** Kinds whose records stand below one another, such as types. */
import { type AnyRecord, definition, type ItemType, type Kind, KINDS } from "../kinds/index";
import type { Id } from "../schema/id";
import { type Catalogue, recordAt, recordsOf } from "./catalogue";
import type { Index } from "./persistent-map";

export interface Tree {
  /** The field that names the record above. */
  readonly field: string;
  /** Most records of a branch. */
  readonly most: number;
}

/** The tree that the records of a kind make, if they make one. */
export const treeOf = (kind: Kind): Tree | undefined => TREES.get(kind);
const TREES: ReadonlyMap<Kind, Tree> = new Map(
  KINDS.flatMap((kind) =>
    Object.entries(definition(kind).fields).flatMap(([field, { options }]): [Kind, Tree][] => {
      const { tree } = options as { readonly tree?: number };
      return tree === undefined ? [] : [[kind, { field, most: tree }]];
    }),
  ),
);
export const parentOf = (record: AnyRecord, field: string): Id | null =>
  (record as unknown as Readonly<Record<string, Id | null>>)[field];

function* branch(catalogue: Catalogue, kind: Kind, { field }: Tree, from: AnyRecord | undefined): Generator<AnyRecord> {
  for (let at = from; at; ) {
    yield at;
    const above = parentOf(at, field);
    at = above === null ? undefined : recordAt(catalogue, kind, above);
  }
}

/**
 * What is found out about types, by their ids and for as long as no type changes: every field of every item asks the types
 * above it.
 */
export const rememberedOfTypes = <T>(): Index<ItemType, Map<Id, T>> => ({
  lasting: true,
  build: () => new Map(),
  follow: () => new Map(),
});
const LINEAGES = rememberedOfTypes<readonly ItemType[]>();
const NONE: readonly ItemType[] = [];

/** The type and its ancestors, nearest first. Stops at a loop, which the rules refuse anyway. */
export function lineage(catalogue: Catalogue, type: Id | null): readonly ItemType[] {
  if (type === null) return NONE;
  const known = catalogue.records.type.index(LINEAGES);
  let path = known.get(type);
  if (!path) {
    const found = new Set<ItemType>();
    for (const at of branch(catalogue, "type", treeOf("type") as Tree, catalogue.records.type.get(type))) {
      if (found.has(at as ItemType)) break;
      found.add(at as ItemType);
    }
    path = [...found];
    known.set(type, path);
  }
  return path;
}

/** So many records that stand wrong are enough to say so. */
const MOST_FOUND = 1_000;

/**
 * Records that lie on or under a circle of parents, and those of which a branch has more records than the tree takes.
 * One pass.
 */
export function tooDeep(catalogue: Catalogue, kind: Kind, tree: Tree): Map<Id, "circle" | "deep"> {
  const depth = new Map<Id, number>();
  const found = new Map<Id, "circle" | "deep">();
  for (const record of recordsOf(catalogue, kind).values()) {
    const path = new Set<AnyRecord>();
    let end: AnyRecord | undefined;
    for (const at of branch(catalogue, kind, tree, record)) {
      end = at;
      if (depth.has(at.id) || path.has(at)) break;
      path.add(at);
      end = undefined;
    }
    const circle = end !== undefined && path.has(end);
    let above = circle ? Number.POSITIVE_INFINITY : end ? (depth.get(end.id) as number) : 0;
    for (const each of [...path].reverse()) depth.set(each.id, ++above);
    if (above <= tree.most || found.size > MOST_FOUND) continue;
    const why = above === Number.POSITIVE_INFINITY ? "circle" : "deep";
    // Whatever stands above a record that is too deep makes it so.
    const wrong = why === "circle" ? path : branch(catalogue, kind, tree, record);
    for (const { id } of wrong) if (!found.has(id)) found.set(id, why);
  }
  return found;
}
