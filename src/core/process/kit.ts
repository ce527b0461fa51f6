/** What a source drops of a character: its starting kit and its money. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Kind, Source } from "../kinds/index";
import { type ItemLine, line } from "../notation/line";
import type { Id } from "../schema/id";

type Drops = Pick<Source, "lines" | "kit">;

/** The lines of a source, and behind them one for each item of the kit that it drops. */
export function givenLines({ lines, kit }: Drops, { records }: Catalogue): Source["lines"] {
  const dropped = kit === null ? undefined : records.subject.get(kit);
  if (!dropped) return lines;
  const more = Object.entries(dropped.kit).flatMap(([id, n]): ItemLine[] =>
    n > 0 ? [line("output", id as Id, n)] : [],
  );
  return more.length ? [...lines, ...more] : lines;
}
/** The money of the character whose kit a source drops. */
export function kitMoney({ kit }: Drops, { records }: Catalogue): readonly (readonly [Id, number])[] {
  const dropped = kit === null ? undefined : records.subject.get(kit);
  return dropped ? (Object.entries(dropped.money) as [Id, number][]).filter(([, n]) => n > 0) : [];
}

/** Sources that drop the kit of a character that was edited. */
export function* besideKit(next: Catalogue, touched: ReadonlyMap<Kind, ReadonlySet<Id>>): Generator<Id> {
  const subjects = touched.get("subject");
  if (subjects) for (const { id, kit } of next.records.source.values()) if (kit !== null && subjects.has(kit)) yield id;
}
