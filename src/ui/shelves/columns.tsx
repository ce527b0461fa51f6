"use client";
/** The columns of the shelves: what the kind has, drawn as items are, and what is computed. */
import { held } from "@/core/catalogue/inheritance";
import type { Readings } from "@/core/catalogue/keep";
import { recordsWith } from "@/core/catalogue/references";
import type { Item } from "@/core/kinds/index";
import { sayCost } from "@/core/numbers/format";
import { saySeconds } from "@/core/numbers/ticks";
import type { Column } from "../grid/columns";
import { fieldColumns, type Looks, none } from "../grid/field-columns";
import { Grains, Icon } from "../kit/jars";
import { cx } from "../kit/kit";
import { marginOf, sayMargin } from "../pantry/margin";
import { figuresOf } from "../pantry/provider";
import type { Live } from "../pantry/store";

/** What cells are made of beside the item itself. */
export type ItemFacts = Pick<Live, "catalogue" | "model" | "troubled">;
type Facts = () => ItemFacts;

/** Fields that are drawn as people know them from items elsewhere. */
const looks = (facts: Facts): Looks<Item> => ({
  name: {
    title: "Item",
    width: 196,
    cell: (item) => {
      const { catalogue, troubled } = facts();
      const colour = item.type && catalogue.records.type.get(item.type)?.colour;
      return (
        <span className="flex min-w-0 items-center gap-2">
          <span aria-hidden className="h-[18px] w-1 shrink-0" style={{ background: colour || "var(--line)" }} />
          <span className="inline-flex" style={{ color: colour || "var(--third)" }}>
            <Icon name={held(catalogue, item, "icon").value} />
          </span>
          <span
            className={cx(
              "truncate font-semibold",
              item.status === "stub" && "text-beet italic",
              item.status === "retired" && "text-third line-through",
            )}
          >
            {item.name}
          </span>
          {troubled.has(item.id) && (
            <span
              role="img"
              aria-label="has findings"
              title="has findings"
              className="size-1.5 shrink-0 rounded-full bg-beet"
            />
          )}
        </span>
      );
    },
  },
  type: { width: 92 },
  rarity: {
    width: 70,
    cell: (item) => <Grains rarity={item.rarity} />,
    sort: (item) => (item.rarity && facts().catalogue.records.rarity.get(item.rarity)?.rank) || null,
  },
  status: {
    width: 70,
    cell: ({ status }) => (
      <span className={status === "stub" ? "text-beet" : status === "draft" ? "text-copper" : "text-second"}>
        {status}
      </span>
    ),
  },
  tags: { width: 130 },
  description: { width: 260 },
});

const countOf = (all: Iterable<unknown>): number => [...all].length;

/** What is computed for an item. */
interface ItemReading {
  readonly id: string;
  readonly title: string;
  readonly width: number;
  value(facts: ItemFacts, item: Item): number | null;
  say(value: number | null): string;
  /** Digits that a spreadsheet gets; absent: what is said. */
  readonly digits?: number;
  readonly bad?: (value: number) => boolean;
}
const READINGS: readonly ItemReading[] = [
  {
    id: "cost",
    title: "Cost",
    width: 70,
    value: ({ model }, { id }) => figuresOf(model, id).value,
    say: (value) => sayCost(value ?? Number.POSITIVE_INFINITY),
    digits: 4,
  },
  {
    id: "time",
    title: "Time",
    width: 92,
    value: ({ model }, { id }) => figuresOf(model, id).time,
    say: (value) => (value === null ? "–" : saySeconds(value)),
    digits: 1,
  },
  {
    id: "from",
    title: "From level",
    width: 76,
    value: ({ model }, { id }) => figuresOf(model, id).level,
    say: (value) => (value === null ? "–" : String(value)),
    digits: 0,
  },
  {
    id: "ways",
    title: "Recipes",
    width: 54,
    value: ({ catalogue }, { id }) =>
      countOf(recordsWith(catalogue, "recipe", id, ["output"])) +
      countOf(recordsWith(catalogue, "source", id, ["output"])),
    say: (value) => String(value ?? 0),
    digits: 0,
    bad: (value) => value === 0,
  },
  {
    id: "uses",
    title: "Uses",
    width: 54,
    value: ({ catalogue }, { id }) => countOf(recordsWith(catalogue, "recipe", id, ["ingredient", "tool", "station"])),
    say: (value) => String(value ?? 0),
    digits: 0,
  },
  {
    id: "findings",
    title: "Findings",
    width: 66,
    value: ({ troubled }, { id }) => troubled.get(id) ?? 0,
    say: (value) => String(value || "–"),
    digits: 0,
    bad: (value) => value > 0,
  },
  {
    id: "margin",
    title: "Margin",
    width: 68,
    value: ({ catalogue, model }, item) => marginOf(catalogue, model, item),
    say: sayMargin,
    bad: (value) => value < 0,
  },
];

/** What is computed, by the name of its column. */
export const readingsOf = (facts: ItemFacts): Readings =>
  new Map(READINGS.map(({ id, value }) => [id, (item: Item) => value(facts, item)]));

const readingColumn = (facts: Facts, { id, title, width, value, say, digits, bad }: ItemReading): Column<Item> => ({
  id,
  title,
  width,
  numeric: true,
  worked: true,
  sort: (item) => value(facts(), item),
  text(item) {
    const of = value(facts(), item);
    return digits === undefined ? say(of) : (of?.toFixed(digits) ?? "");
  },
  cell(item) {
    const of = value(facts(), item);
    const said = say(of);
    if (!said) return none;
    return <span className={of !== null && bad?.(of) ? "font-semibold text-beet" : "ink-worked"}>{said}</span>;
  },
});

/** In which order columns stand where no one chose another; those that are not named follow. */
const ORDER = ["name", "type", "rarity", "status", "tags", "level", "stack", "mass", "stats", "own"];
const LAST = ["cost", "time", "buy", "sell", "margin", "from", "ways", "uses", "findings"];
function placeOf({ id }: Column<Item>): number {
  const place = ORDER.indexOf(id.split(".")[0]);
  if (place >= 0) return place;
  const last = LAST.indexOf(id);
  return last >= 0 ? ORDER.length + last : ORDER.length + LAST.length;
}

/**
 * The columns of items. They stay the same while records change: what they show is read from `facts`, which always gives
 * what is known now.
 */
export function itemColumns(facts: Facts): Column<Item>[] {
  const fields = fieldColumns<Item>("item", () => facts().catalogue, looks(facts));
  const worked = READINGS.map((reading) => readingColumn(facts, reading));
  return [...fields, ...worked].sort((a, b) => placeOf(a) - placeOf(b));
}
