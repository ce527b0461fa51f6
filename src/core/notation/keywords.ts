/** The words that end a name in a recipe line: those of roles, of clauses, and of what an entry says. */
import { ALL_CLAUSES } from "../clauses/all";
import { WORDED } from "./roles";

const CLAUSE_WORDS = ALL_CLAUSES.map(({ word }) => word);
export const ROLE_WORDS: readonly string[] = WORDED.map((w) => w.word);
/** Words behind an entry; at its beginning they are part of its name. */
export const BEHIND_ENTRIES: ReadonlySet<string> = new Set(["kept", "whole", "ordered"]);
export const KEYWORDS: ReadonlySet<string> = new Set([...ROLE_WORDS, ...CLAUSE_WORDS, "lasting", ...BEHIND_ENTRIES]);

const words = [...ROLE_WORDS, ...ALL_CLAUSES.map(({ word, wording }) => wording ?? word)];
/** "at, using, in, fee, level or taught by". */
export const BEHIND = `${words.slice(0, -1).join(", ")} or ${words[words.length - 1]}`;
