/**
 * The clauses of a recipe, in the order in which its line writes them. The line, its form, the record, its variants, the
 * bundle and its schema, and the terms of a run follow from this list (all.ts).
 */
import { batch } from "./batch";
import { fee } from "./fee";
import { heat } from "./heat";
import { level } from "./level";
import { taught } from "./taught";
import { time } from "./time";

export const CLAUSES = [time, heat, batch, fee, level, taught] as const;
