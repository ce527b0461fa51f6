/** The words that end a name in a recipe line: those of roles, of clauses, and of what an entry says. */
import { WORDED } from "./roles";

/** Words of clauses, with what is said where one is expected. Each has its entry in clauses.ts. */
export const CLAUSE_WORDS = ["in", "burning", "batch", "fee", "level", "taught"] as const;
export type ClauseWord = (typeof CLAUSE_WORDS)[number];
const FULL: Partial<Record<string, string>> = { taught: "taught by" };

export const ROLE_WORDS: readonly string[] = WORDED.map((w) => w.word);
/** Words behind an entry; at its beginning they are part of its name. */
export const BEHIND_ENTRIES: ReadonlySet<string> = new Set(["kept", "whole", "ordered"]);
export const KEYWORDS: ReadonlySet<string> = new Set([...ROLE_WORDS, ...CLAUSE_WORDS, "lasting", ...BEHIND_ENTRIES]);

const words = [...ROLE_WORDS, ...CLAUSE_WORDS].map((word) => FULL[word] ?? word);
/** "at, using, in, fee, level or taught by". */
export const BEHIND = `${words.slice(0, -1).join(", ")} or ${words[words.length - 1]}`;
