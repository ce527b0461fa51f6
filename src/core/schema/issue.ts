/** Something that is wrong with what someone gave, or worth knowing about it. */
export interface Issue {
  /** Where: a field ("sell", "stats.…"), a place in a file ("items[3].sell", "line 2, column 7"), a member of a body. */
  readonly path: string;
  /** Why, and what would work. */
  readonly message: string;
  /** An error keeps it from being taken; a warning and a note do not. */
  readonly severity: "error" | "warning" | "note";
  /** Texts that would fit in its place. */
  readonly suggestions: readonly string[];
}

export const issue = (
  path: string,
  message: string,
  { severity = "error", suggestions = [] }: Partial<Pick<Issue, "severity" | "suggestions">> = {},
): Issue => ({ path, message, severity, suggestions });
