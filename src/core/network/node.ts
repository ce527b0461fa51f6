/** What stands in a network as a thing of its own: an item, by its id; any item with a tag; or a second of heat. */
import type { Named } from "../notation/line";
import type { Surroundings } from "../schema/field";
import type { Id } from "../schema/id";

/** Never stored: ids of tags are marked, so that they are never taken for items. */
export type Node = Id;

const [TAG, HEAT] = ["#", "^"];
/** Stands for whatever burns. */
const WHATEVER = "000000000000" as Id;

export const nodeOfTag = (tag: Id): Node => `${TAG}${tag}` as Node;
/** A second of heat: from what has a tag, or (null) from whatever burns. */
export const nodeOfHeat = (fuel: Id | null): Node => `${HEAT}${fuel ?? WHATEVER}` as Node;
export const nodeOf = ({ item, any }: Named): Node => (any === undefined ? item : nodeOfTag(any));
/** "River eel", "any fish", "seconds of heat". */
export function sayNode(around: Pick<Surroundings, "nameOf">, node: Node): string {
  const [tag, fuel] = [tagOf(node), fuelOf(node)];
  if (fuel !== undefined) return fuel === null ? HEAT_NAME : `${HEAT_NAME} from any ${around.nameOf("tag", fuel)}`;
  return tag === null ? around.nameOf("item", node) : `any ${around.nameOf("tag", tag)}`;
}
export const HEAT_NAME = "seconds of heat";
/** The tag of a node that is any item with it; null: it is something else. */
export const tagOf = (node: Node): Id | null => (node.startsWith(TAG) ? (node.slice(TAG.length) as Id) : null);
/** The tag of what burns for a node that is heat, null: whatever does; undefined: it is something else. */
export function fuelOf(node: Node): Id | null | undefined {
  if (!node.startsWith(HEAT)) return undefined;
  const id = node.slice(HEAT.length) as Id;
  return id === WHATEVER ? null : id;
}
export const isItem = (node: Node): boolean => tagOf(node) === null && fuelOf(node) === undefined;

/** What ids of nodes are told apart by: an item and a tag may have the same. */
const [ITEMS, TAGS, HEATS] = [0, 1, 2];
export function splitNode(node: Node): { readonly id: Id; readonly group: number } {
  const group = node.startsWith(TAG) ? TAGS : node.startsWith(HEAT) ? HEATS : ITEMS;
  return { id: group === ITEMS ? node : (node.slice(1) as Id), group };
}
export const joinedNode = (id: Id, group: number): Node =>
  group === ITEMS ? id : (`${group === TAGS ? TAG : HEAT}${id}` as Node);
