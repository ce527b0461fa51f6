/** What stands in a network as a thing of its own: an item, by its id, or any item with a tag. */
import type { Named } from "../notation/line";
import type { Surroundings } from "../schema/field";
import type { Id } from "../schema/id";

/** Never stored: ids of tags are marked, so that they are never taken for items. */
export type Node = Id;

const MARK = "#";
export const nodeOfTag = (tag: Id): Node => `${MARK}${tag}` as Node;
export const nodeOf = ({ item, any }: Named): Node => (any === undefined ? item : nodeOfTag(any));
/** "River eel", "any fish". */
export function sayNode(around: Pick<Surroundings, "nameOf">, node: Node): string {
  const tag = tagOf(node);
  return tag === null ? around.nameOf("item", node) : `any ${around.nameOf("tag", tag)}`;
}
/** The tag of a node; null: it is an item. */
export const tagOf = (node: Node): Id | null => (node.startsWith(MARK) ? (node.slice(MARK.length) as Id) : null);
