/** Values of fields as people read them. */
import { definition, type Subject } from "../kinds/index";
import { fieldAt, pathOf } from "../schema/record";
import type { Catalogue } from "./catalogue";
import type { Value } from "./edit";
import { around } from "./surroundings";

/** One value of a field as people read it. */
export function sayValue(catalogue: Catalogue, kind: Subject, path: string, value: Value): string {
  if (value === null || value === "") return "nothing";
  const at = pathOf(definition(kind), path);
  if (!at) return String(value);
  const here = around(catalogue);
  return fieldAt(at, here).say(value, here);
}
