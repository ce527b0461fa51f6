/** What sources are to the network: a run, and each ware of a shop. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Source } from "../kinds/index";
import { line } from "../notation/line";
import { givenLines } from "../process/kit";
import { linesFor, makerOf } from "../process/maker";
import { offersOf, runsInWorld, runsOut } from "../process/wares";
import { flows, type ProcessSpec } from "./process";
import { drawnFrom, levelsFrom } from "./recipe-processes";

/** One process for a run, or for each level at which its tables give something else; and one for each ware. */
export function sourceProcesses(source: Source, catalogue: Catalogue): readonly ProcessSpec[] {
  const { tables, wares, ticks, price, currency } = source;
  const lines = linesFor(givenLines(source, catalogue), makerOf(catalogue));
  const from = source.level ?? 0;
  const runs = runsInWorld(source);
  const often = runs === null ? {} : { limit: runs };
  const base = { sort: "source", needs: [], price, currency, ticks, ...often } as const;
  const whole = tables.length
    ? levelsFrom(catalogue, tables, from).map(
        (level): ProcessSpec => ({
          ...base,
          lines: [...flows(lines), ...drawnFrom(catalogue, tables, level)],
          level,
        }),
      )
    : lines.length || !wares.length
      ? [{ ...base, lines: flows(lines), level: from }]
      : [];
  if (!wares.length) return whole;
  return [
    ...whole,
    ...offersOf(source).map(
      (offer): ProcessSpec => ({
        ...base,
        lines: [line("output", offer.item, offer.amount)],
        ware: true,
        price: offer.price,
        ...(runsOut(offer.ware) ? { limit: offer.ware.stock as number } : {}),
        currency: offer.currency,
        level: offer.level,
      }),
    ),
  ];
}
