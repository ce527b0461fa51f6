/** Stations: how long a run takes there, what may burn there, and what comes out twice. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Item } from "../kinds/index";
import { type Line, line } from "../notation/line";
import type { Id } from "../schema/id";
import { membersOf } from "./members";
import { anySays, traitOf } from "./traits";

/** Most stations with a tag that count each for itself. */
const MOST_STATIONS = 24;

/** What the stations of a run do to it. */
export interface Effects {
  /** Times its time. */
  readonly pace: number;
  /** Chance that all that comes out comes once more. */
  readonly extra: number;
  /** Tag of what may burn there; null: whatever burns. */
  readonly fuel: Id | null;
  /** The station that it is, where the recipe says any with a tag. */
  readonly named: Item | null;
}
export interface AtStation extends Effects {
  readonly lines: readonly Line[];
}
const PLAIN = { pace: 1, extra: 0, fuel: null, named: null } as const;

/** The stations at which a way can be gone and that make a difference, and all the others together. */
export function stationsOf(catalogue: Catalogue, lines: readonly Line[]): AtStation[] {
  if (!anySays(catalogue, "pace", "extra", "fuel")) return [{ lines, ...PLAIN }];
  const stations = lines.filter((l) => l.role === "station");
  let fixed: Effects = PLAIN;
  for (const { item } of stations) {
    const there = item === undefined ? undefined : catalogue.records.item.get(item);
    if (there) fixed = joined(fixed, sayOf(catalogue, there));
  }
  const asked = stations.find((l) => l.any !== undefined);
  if (asked?.any === undefined) return [{ lines, ...fixed }];
  const found: AtStation[] = [];
  let others = false;
  for (const item of membersOf(catalogue, asked.any)) {
    const message = sayOf(catalogue, item);
    const plain = message.pace === 1 && message.extra === 0 && message.fuel === null;
    if (plain || found.length === MOST_STATIONS) others = true;
    else
      found.push({
        ...joined(fixed, message),
        lines: lines.map((l) => (l === asked ? line("station", item.id) : l)),
        named: item,
      });
  }
  found.sort((a, b) => ((a.named as Item).id < (b.named as Item).id ? -1 : 1));
  return others || !found.length ? [{ lines, ...fixed }, ...found] : found;
}
const sayOf = (catalogue: Catalogue, item: Item): Effects => ({
  pace: traitOf(catalogue, item, "pace") ?? 1,
  extra: traitOf(catalogue, item, "extra") ?? 0,
  fuel: traitOf(catalogue, item, "fuel"),
  named: null,
});
/** Two stations at once: times multiply, and the larger chance of more counts. */
const joined = (a: Effects, b: Effects): Effects => ({
  pace: a.pace * b.pace,
  extra: Math.max(a.extra, b.extra),
  fuel: a.fuel ?? b.fuel,
  named: a.named ?? b.named,
});
