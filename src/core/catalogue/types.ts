/** The items of each type, kept up to date from change to change. */
import type { Item } from "../kinds/index";
import type { Id } from "../schema/id";
import type { Catalogue } from "./catalogue";
import { IdSet } from "./ids";
import { buildBy, type Collecting, type Index } from "./persistent-map";
import { lineage } from "./tree";

type Members = Map<Id | null, IdSet>;

function join(members: Members, item: Item): void {
  let those = members.get(item.type);
  if (!those) {
    those = new IdSet();
    members.set(item.type, those);
  }
  those.add(item.id);
}

function collectMembers(): Collecting<Item, Members> {
  const members: Members = new Map();
  return { add: (item) => join(members, item), done: () => members };
}
/** The items of each type. */
export const MEMBERS: Index<Item, Members> = {
  build: buildBy(collectMembers),
  collect: collectMembers,
  follow(members, before, changes) {
    for (const [id, item] of changes) {
      const was = before.get(id);
      if (was && was.type !== item?.type) members.get(was.type)?.delete(id);
      if (item) join(members, item);
    }
    return members;
  },
};
const NOBODY = new IdSet();

/** Items of exactly this type; null: of none. */
export const itemsOfType = (catalogue: Catalogue, type: Id | null): Iterable<Id> & { readonly size: number } =>
  catalogue.records.item.index(MEMBERS).get(type) ?? NOBODY;

/** Items of some types and of all types under them. */
export function* itemsBelow(catalogue: Catalogue, types: ReadonlySet<Id>): Generator<Id> {
  for (const { id } of catalogue.records.type.values())
    if (types.has(id) || lineage(catalogue, id).some((above) => types.has(above.id))) yield* itemsOfType(catalogue, id);
}

/** A type as it stands in the tree. */
export interface TypeNode {
  readonly id: Id;
  /** 1 for what stands under nothing. */
  readonly level: number;
  readonly children: readonly TypeNode[];
  /** Items of it and of all types under it. */
  readonly items: number;
}

/** The types under one another, by name. Types that lie on a circle of parents, which the rules refuse, are left out. */
export function typeTree(catalogue: Catalogue): readonly TypeNode[] {
  const under = new Map<Id | null, { id: Id; name: string }[]>();
  for (const type of catalogue.records.type.values()) {
    const parent = type.parent !== null && catalogue.records.type.has(type.parent) ? type.parent : null;
    under.set(parent, [...(under.get(parent) ?? []), type]);
  }
  const nodes = (parent: Id | null, level: number): TypeNode[] =>
    (under.get(parent) ?? [])
      .sort((a, b) => a.name.localeCompare(b.name))
      .map(({ id }) => {
        const children = nodes(id, level + 1);
        const items = children.reduce((n, c) => n + c.items, itemsOfType(catalogue, id).size);
        return { id, level, children, items };
      });
  return nodes(null, 1);
}
