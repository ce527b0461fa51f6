/** Which series an item belongs to. */
import type { Catalogue } from "../catalogue/catalogue";
import type { RecordOf } from "../kinds/index";
import type { Id } from "../schema/id";

export type Series = RecordOf<"series">;

/** The series that an item is of, as its first or as a step. */
export const seriesOf = (catalogue: Catalogue, item: Id): Series | undefined =>
  [...catalogue.records.series.values()].find((s) => s.first === item || s.steps.some((step) => step.item === item));
