/** What a format of files is: rows with their places in, rows out. A new format is one file that makes one of these. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Kind } from "../kinds/index";
import type { JsonObject } from "../schema/json";
import type { ReadPicture } from "./pictures";
import type { Report } from "./report";

/** A record as a file says it: members as in a bundle, and where it stands. */
export interface Row {
  readonly row: JsonObject;
  readonly place: string;
}

export interface Rows {
  /** Settings of the pantry, where the file says any. */
  readonly settings: Row | null;
  readonly records: ReadonlyMap<Kind, readonly Row[]>;
  /** Pictures that come along. */
  readonly pictures: readonly ReadPicture[];
}

export interface Format {
  readonly name: string;
  readonly mediaType: string;
  /** Of its files, without the point. */
  readonly extension: string;
  /** @returns null where nothing can be made of the text; why is reported in any case */
  read(text: string, report: Report): Rows | null;
  /** The pantry part by part; the same for the same catalogue. */
  write(catalogue: Catalogue): Iterable<string>;
}
