/** What is told of a bundle: issues, each of which keeps it from being taken, and notes. */
import { cut } from "../schema/characters";
import { type Issue, issue } from "../schema/issue";
import { nearest } from "../schema/names";

/** Most problems, and most notes, that are told of one bundle. */
const TOLD = 500;

export class Report {
  readonly issues: Issue[] = [];
  readonly notes: Issue[] = [];

  get failed(): boolean {
    return this.issues.length > 0;
  }

  error = (path: string, message: string, suggestions: readonly string[] = []): void => {
    if (this.issues.length < TOLD) this.issues.push(issue(path, message, { suggestions }));
    else if (this.issues.length === TOLD)
      this.issues.push(issue("file", "There are more errors than shown. Fix these first."));
  };

  note = (path: string, message: string, suggestions: readonly string[] = []): void => {
    if (this.notes.length < TOLD) this.notes.push(issue(path, message, { severity: "note", suggestions }));
    else if (this.notes.length === TOLD)
      this.notes.push(issue("file", "There are more notes than shown.", { severity: "note" }));
  };

  /** A member that is not known at a place. */
  unknown = (place: string, name: string, known: readonly string[]): void => {
    const offers = nearest(name, known);
    const at = cut(name, 60);
    this.error(
      place ? `${place}.${at}` : at,
      `Unknown field.${offers.length ? ` Did you mean ${offers.join(" or ")}?` : ` Known here: ${known.join(", ")}.`}`,
      offers,
    );
  };
}
