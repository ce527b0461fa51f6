/**
 * A pantry and its log as the database gives them: texts that cross to other processes as they are, and what is made of
 * them there. Nothing here loads what speaks to the database: an engine's process does not.
 */
import { type Catalogue, catalogueOf } from "../core/catalogue/catalogue";
import type { LoggedChange } from "../core/history/log";
import { definition, type Kind, type Pantry } from "../core/kinds/index";
import { recordsFrom } from "./tables";

/** A whole pantry at one revision: of each kind its rows and those of its parts, each a JSON list of lists. */
export interface PantryTexts {
  readonly revision: number;
  readonly pantry: Pantry;
  readonly kinds: { readonly [K in Kind]: { readonly rows: string; readonly parts: readonly string[] } };
}

export function catalogueFrom({ revision, pantry, kinds }: PantryTexts): Catalogue {
  return catalogueOf(revision, pantry, (kind) => {
    const { rows, parts } = kinds[kind];
    return recordsFrom(
      definition(kind),
      JSON.parse(rows),
      parts.map((part) => JSON.parse(part)),
    );
  });
}

/** A change of the log whose edits (of a large one the first), and what they moved, are JSON still. */
export type LoggedText = Omit<LoggedChange, "edits" | "moved"> & {
  readonly edits: string;
  readonly moved: string | null;
};
