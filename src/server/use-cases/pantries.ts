/** Making and ending pantries. */
import { PANTRY_DEFAULTS, type Pantry } from "../../core/kinds/index";
import { textProblem } from "../../core/schema/characters";
import { type Id, newId } from "../../core/schema/id";
import { keyFrom } from "../../core/schema/names";
import type { PantryHead } from "../../store/load";

export interface Pantries {
  pantries(): Promise<readonly PantryHead[]>;
  /** @returns false where its key is taken */
  makePantry(pantry: Pantry): Promise<boolean>;
  /** @returns false where someone else did already */
  deletePantry(pantry: Id): Promise<boolean>;
}

export type NewPantry =
  | { readonly is: "made"; readonly key: string; readonly name: string }
  | { readonly is: "no name"; readonly message: string }
  | { readonly is: "taken"; readonly key: string };

/** A new pantry with the default settings; its key is made of its name. */
export async function newPantry(host: Pantries, name: string): Promise<NewPantry> {
  const message =
    textProblem(name, { max: 120, name: true }) ?? (name.trim() ? null : "Enter a name with at least one letter.");
  if (message) return { is: "no name", message };
  const made = keyFrom(name, "pantry");
  const taken = new Set((await host.pantries()).map((p) => p.key));
  // Without a letter that can be written in a key they are numbered; a name that is there already is a slip.
  let key = made;
  if (made === "pantry" && name.trim().toLowerCase() !== "pantry")
    for (let n = 2; taken.has(key); n++) key = `${made}_${n}`;
  if (taken.has(key) || !(await host.makePantry({ id: newId(), key, name: name.trim(), ...PANTRY_DEFAULTS })))
    return { is: "taken", key };
  return { is: "made", key, name: name.trim() };
}

export type EndedPantry =
  | { readonly is: "deleted"; readonly key: string }
  | { readonly is: "gone" }
  | { readonly is: "another name"; readonly name: string };

/** Deletes a pantry for good. @param typed  its name, as someone typed it to confirm */
export async function endPantry(host: Pantries, pantry: Id, typed: string): Promise<EndedPantry> {
  const head = (await host.pantries()).find((p) => p.id === pantry);
  if (!head) return { is: "gone" };
  if (typed.trim() !== head.name.trim()) return { is: "another name", name: head.name };
  await host.deletePantry(pantry);
  return { is: "deleted", key: head.key };
}
