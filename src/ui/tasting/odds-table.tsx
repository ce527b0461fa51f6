"use client";
/** The contents of a container, one row each: exact chances and amounts, beside those of rolls. */
import { splitThing } from "@/core/network/box";
import { sayCost, sayPercent, sayQuantity } from "@/core/numbers/format";
import { type Rolled, SURE, type ThingOdds } from "@/core/trials/opening";
import { usePlaces } from "../frame/navigate";
import { Jar } from "../kit/jars";
import { cx } from "../kit/kit";

const round = (n: number) => Number(n.toFixed(4));
/** With the same number of decimals as what stands above and below. */
const inColumn = (n: number, places: number): string => n.toFixed(places);

interface Props {
  readonly things: readonly ThingOdds[];
  readonly rolled: Rolled | null;
  /** The amount that is asked for. */
  readonly wanted: number;
  /** Value units of one; null: it has none. */
  readonly worthOf: (thing: string) => number | null;
  readonly nameOf: (thing: string) => string;
}

export function OddsTable({ things, rolled, wanted, worthOf, nameOf }: Props) {
  const places = usePlaces();
  return (
    <table className="w-full">
      <thead>
        <tr className="text-right align-bottom">
          <th className="head py-1 text-left">Item</th>
          <th className="head pl-4">Chance of any</th>
          <th className="head pl-4">On average</th>
          <th className="head pl-4">Usual range</th>
          <th className="head pl-4">Value</th>
          {SURE.map((sure) => (
            <th
              key={sure}
              className="head w-20 pl-4 whitespace-normal"
              title={`Openings until the chance of at least ${wanted} is ${sayPercent(sure)}`}
            >
              {sayPercent(sure)} chance within
            </th>
          ))}
          {rolled && <th className="head pl-4">Rolled</th>}
          <th className="head w-32 pl-4 text-left">Amounts</th>
        </tr>
      </thead>
      <tbody>
        {things.map((o) => {
          const { kind, id } = splitThing(o.thing);
          const seen = rolled?.things.find((r) => r.thing === o.thing);
          const each = worthOf(o.thing);
          return (
            <tr key={o.thing} className="border-t border-hair text-right tabular-nums">
              <td className="py-1 text-left">
                {kind === "item" ? <Jar id={id} onOpen={places.openItem} /> : nameOf(o.thing)}
              </td>
              <td className="pl-4">{inColumn(o.any * 100, 2)}%</td>
              <td className="ink-worked pl-4">{inColumn(o.mean, 4)}</td>
              <td className="pl-4">
                {o.low === o.high ? sayQuantity(o.low) : `${sayQuantity(o.low)}–${sayQuantity(o.high)}`}
              </td>
              <td className="pl-4">{each === null ? "–" : sayCost(o.mean * each)}</td>
              {o.tries.map((n, k) => (
                <td key={SURE[k]} className="pl-4">
                  {n ?? "never"}
                </td>
              ))}
              {rolled && (
                <td className="pl-4 text-second">
                  {seen ? `${inColumn(seen.mean, 3)}, ${inColumn(seen.any * 100, 1)}%` : "–"}
                </td>
              )}
              <td className="pl-4">
                <Bars odds={o} />
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function Bars({ odds }: { readonly odds: ThingOdds }) {
  const top = Math.max(...odds.bars.map((b) => b.p), 1e-9);
  return (
    <span
      className="flex h-6 items-end gap-px"
      role="img"
      aria-label={odds.bars
        .slice(0, 12)
        .map((b) => `${sayQuantity(b.amount)}: ${sayPercent(round(b.p))}`)
        .join(", ")}
    >
      {odds.bars.slice(0, 24).map((b) => (
        <span
          key={b.amount}
          title={`${sayQuantity(b.amount)}: ${sayPercent(round(b.p))}`}
          className={cx("w-1.5", b.amount === 0 ? "bg-third" : "bg-kelp")}
          style={{ height: `${Math.max(4, (100 * b.p) / top)}%` }}
        />
      ))}
    </span>
  );
}
