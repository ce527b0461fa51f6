/** What is told of a bundle: faults, each of which keeps it from being taken, and notes. */
import { cut } from "../schema/characters";
import { nearest } from "../schema/names";

export interface Problem {
  /** Where in the file: "recipes[3].outputs[0].item", "line 12, column 4". */
  readonly place: string;
  readonly says: string;
}

/** Most problems, and most notes, that are told of one bundle. */
const TOLD = 500;

export class Report {
  readonly problems: Problem[] = [];
  readonly notes: Problem[] = [];

  get failed(): boolean {
    return this.problems.length > 0;
  }

  fault = (place: string, says: string): void => {
    if (this.problems.length < TOLD) this.problems.push({ place, says });
    else if (this.problems.length === TOLD)
      this.problems.push({ place: "file", says: "There is more than is told here. Mend this first." });
  };

  note = (place: string, says: string): void => {
    if (this.notes.length < TOLD) this.notes.push({ place, says });
    else if (this.notes.length === TOLD)
      this.notes.push({ place: "file", says: "There are more notes than are told here." });
  };

  /** A member that is not known at a place. */
  unknown = (place: string, name: string, known: readonly string[]): void => {
    const offers = nearest(name, known);
    const at = cut(name, 60);
    this.fault(
      place ? `${place}.${at}` : at,
      `Unknown field.${offers.length ? ` Did you mean ${offers.join(" or ")}?` : ` Known here: ${known.join(", ")}.`}`,
    );
  };
}
