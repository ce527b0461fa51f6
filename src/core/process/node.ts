/**
 * What stands in a network as a thing of its own: an item, by its id; any item with a tag, by what it comes in; or a
 * second of heat.
 */
import type { LineTarget } from "../notation/line";
import type { Surroundings } from "../schema/field";
import { half, type Id, idFrom, RANKS } from "../schema/id";

/** Never stored: ids of tags are marked, so that they are never taken for items. */
export type Node = Id;

const [TAG, HEAT, IN] = ["#", "^", "@"];
/** Stands for whatever burns. */
const WHATEVER = "000000000000" as Id;

/** Any item with a tag that comes in a vessel, which comes back when it is used up; null: those that come in none. */
export const nodeOfTag = (tag: Id, vessel: Id | null = null): Node =>
  `${TAG}${tag}${vessel === null ? "" : `${IN}${vessel}`}` as Node;
/** A second of heat: from what has a tag, or (null) from whatever burns. */
export const nodeOfHeat = (fuel: Id | null): Node => `${HEAT}${fuel ?? WHATEVER}` as Node;
export const nodeOf = ({ item, any }: LineTarget): Node => (any === undefined ? item : nodeOfTag(any));
/** "River eel", "any fish", "seconds of heat". */
export function sayNode(around: Pick<Surroundings, "nameOf">, node: Node): string {
  const [tag, fuel] = [tagOf(node), fuelOf(node)];
  if (fuel !== undefined) return fuel === null ? HEAT_NAME : `${HEAT_NAME} from any ${around.nameOf("tag", fuel)}`;
  if (tag === null) return around.nameOf("item", node);
  const vessel = vesselIn(node);
  return `any ${around.nameOf("tag", tag)}${vessel === null ? "" : ` in ${around.nameOf("item", vessel)}`}`;
}
export const HEAT_NAME = "seconds of heat";
/** The tag of a node that is any item with it; null: it is something else. */
export const tagOf = (node: Node): Id | null => (node.startsWith(TAG) ? (node.slice(1, 13) as Id) : null);
/** What any item with a tag comes in; null: it comes in nothing, or is no such node. */
export const vesselIn = (node: Node): Id | null => (node[13] === IN ? (node.slice(14) as Id) : null);
/** The tag of what burns for a node that is heat, null: whatever does; undefined: it is something else. */
export function fuelOf(node: Node): Id | null | undefined {
  if (!node.startsWith(HEAT)) return undefined;
  const id = node.slice(HEAT.length) as Id;
  return id === WHATEVER ? null : id;
}
export const isItem = (node: Node): boolean => tagOf(node) === null && fuelOf(node) === undefined;

/** What ids of nodes are told apart by: an item and a tag may have the same. */
const [ITEMS, TAGS, HEATS, TAGS_IN] = [0, 1, 2, 3];
/** Of a tag and a vessel the id is made of both: whoever numbers it keeps what it is. */
export function splitNode(node: Node): { readonly id: Id; readonly group: number } {
  const vessel = vesselIn(node);
  if (vessel !== null) return { id: joined(node.slice(1, 13), vessel), group: TAGS_IN };
  const group = node.startsWith(TAG) ? TAGS : node.startsWith(HEAT) ? HEATS : ITEMS;
  return { id: group === ITEMS ? node : (node.slice(1) as Id), group };
}
/** @returns null: its id does not say what it is */
export const joinedNode = (id: Id, group: number): Node | null =>
  group === TAGS_IN ? null : group === ITEMS ? id : (`${group === TAGS ? TAG : HEAT}${id}` as Node);

const joined = (tag: string, vessel: string): Id =>
  idFrom((half(tag, 0) + 7 * half(vessel, 6)) % RANKS, (half(tag, 6) + 11 * half(vessel, 0)) % RANKS);
