/** Containers, which come back when what is in them is used up. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Line } from "../notation/line";
import type { Id } from "../schema/id";
import { vesselOf } from "./traits";

/** Whether a line uses up what it takes, so that its container comes back: in full, or as far as it wears out. */
export const empties = ({ role, uses, whole }: Pick<Line, "role" | "uses" | "whole">): boolean =>
  !whole && (role === "ingredient" || (role === "tool" && uses !== null));

/** The container that comes back of an item that a line uses up; null: none. */
export const containerOf = (catalogue: Catalogue, line: Pick<Line, "role" | "uses" | "whole">, item: Id): Id | null =>
  empties(line) ? vesselOf(catalogue, item) : null;
