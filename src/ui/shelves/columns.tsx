"use client";
/** The columns of the shelves: what an item says itself, what it inherits, what is worked out. */
import type { Catalogue } from "@/core/catalogue/catalogue";
import { held, heldStat, type InheritedField } from "@/core/catalogue/inheritance";
import type { Id } from "@/core/schema/id";
import type { Item, Stat } from "@/core/kinds/index";
import { STATUSES } from "@/core/kinds/shared";
import type { ReadModel } from "@/core/engine/read-model";
import { sayCost, sayQuantity } from "@/core/numbers/format";
import { saySeconds } from "@/core/numbers/ticks";
import type { Column } from "../grid/columns";
import { cx, Grains, Icon } from "../kit/kit";
import { figuresOf } from "../pantry/provider";
import type { Live } from "../pantry/store";

/** Margin of the sell price over the least cost; null where one is missing. */
export function marginOf(catalogue: Catalogue, model: ReadModel, item: Item): number | null {
  const price = held(catalogue, item, "sell").value;
  const cost = figuresOf(model, item.id).value;
  return price === null || price === 0 || cost === null || cost === 0 ? null : price / cost - 1;
}

export const sayMargin = (margin: number | null): string =>
  margin === null ? "" : `${margin < 0 ? "−" : "+"}${sayQuantity(Math.abs(Math.round(margin * 100)))}%`;

const none = <span className="text-third">–</span>;

/** What cells are made of beside the item itself. */
export type ItemFacts = Pick<Live, "catalogue" | "model" | "troubled">;

/**
 * The columns of items. They stay the same while records change: what they show is read from `facts`, which always gives
 * what is known now.
 * @param stats  in the order of their columns
 */
export function itemColumns(facts: () => ItemFacts, stats: Iterable<Stat>): Column<Item>[] {
  const open = (
    field: InheritedField,
    title: string,
    width: number,
    say: (v: number) => string = sayQuantity,
  ): Column<Item> => ({
    id: field,
    title,
    width,
    numeric: true,
    edit: {},
    text: (i) => String(held(facts().catalogue, i, field).value ?? ""),
    sort: (i) => held(facts().catalogue, i, field).value as number | null,
    cell: (i) => {
      const { value, from, type } = held(facts().catalogue, i, field);
      if (value === null) return none;
      return (
        <span
          className={from === "inherited" ? "ink-inherited" : "ink-own"}
          title={type ? `inherited from ${type.name}` : undefined}
        >
          {say(value as number)}
        </span>
      );
    },
  });
  const names = (kind: "type" | "rarity" | "tag") =>
    [...(facts().catalogue.records[kind] as ReadonlyMap<Id, { name: string }>).values()].map((r) => r.name);
  const name = (kind: "type" | "rarity", id: Id | null) => (id && facts().catalogue.records[kind].get(id)?.name) || "";
  return [
    {
      id: "name",
      title: "Item",
      width: 196,
      edit: {},
      text: (i) => i.name,
      sort: (i) => i.name.toLowerCase(),
      cell: (i) => (
        <span className="flex min-w-0 items-center gap-2">
          <span
            aria-hidden
            className="h-[18px] w-1 shrink-0"
            style={{ background: (i.type && facts().catalogue.records.type.get(i.type)?.colour) || "var(--line)" }}
          />
          <span
            className="inline-flex"
            style={{ color: (i.type && facts().catalogue.records.type.get(i.type)?.colour) || "var(--third)" }}
          >
            <Icon name={held(facts().catalogue, i, "icon").value} />
          </span>
          <span
            className={cx(
              "truncate font-semibold",
              i.status === "stub" && "text-beet italic",
              i.status === "retired" && "text-third line-through",
            )}
          >
            {i.name}
          </span>
          {(facts().troubled.get(i.id) ?? 0) > 0 && (
            <span
              role="img"
              aria-label="has findings"
              title="has findings"
              className="size-1.5 shrink-0 rounded-full bg-beet"
            />
          )}
        </span>
      ),
    },
    {
      id: "type",
      title: "Type",
      width: 92,
      edit: { names: () => names("type") },
      text: (i) => name("type", i.type),
      sort: (i) => name("type", i.type) || null,
      cell: (i) => (i.type ? <span className="truncate">{name("type", i.type)}</span> : none),
    },
    {
      id: "rarity",
      title: "Rarity",
      width: 70,
      edit: { names: () => names("rarity") },
      text: (i) => name("rarity", i.rarity),
      sort: (i) => (i.rarity && facts().catalogue.records.rarity.get(i.rarity)?.rank) || null,
      cell: (i) => <Grains rarity={i.rarity} />,
    },
    {
      id: "status",
      title: "Status",
      width: 70,
      edit: { names: () => STATUSES },
      text: (i) => i.status,
      sort: (i) => i.status,
      cell: (i) => (
        <span className={i.status === "stub" ? "text-beet" : i.status === "draft" ? "text-copper" : "text-second"}>
          {i.status}
        </span>
      ),
    },
    {
      id: "tags",
      title: "Tags",
      width: 130,
      edit: {},
      text: (i) => i.tags.map((t) => facts().catalogue.records.tag.get(t)?.name ?? "").join(", "),
      sort: (i) => i.tags.map((t) => facts().catalogue.records.tag.get(t)?.name ?? "").join(", ") || null,
      cell: (i) =>
        i.tags.length ? (
          <span className="truncate text-second">
            {i.tags.map((t) => facts().catalogue.records.tag.get(t)?.name ?? "").join(", ")}
          </span>
        ) : (
          none
        ),
    },
    open("level", "Level", 52),
    open("stack", "Stack", 54),
    open("mass", "Mass kg", 64),
    ...[...stats].map(
      (stat): Column<Item> => ({
        id: `stats.${stat.id}`,
        title: stat.unit ? `${stat.name} ${stat.unit}` : stat.name,
        width: 66,
        numeric: true,
        edit: {},
        text: (i) => String(heldStat(facts().catalogue, i, stat.id).value ?? ""),
        sort: (i) => heldStat(facts().catalogue, i, stat.id).value,
        cell: (i) => {
          const { value, from, type } = heldStat(facts().catalogue, i, stat.id);
          return value === null ? (
            none
          ) : (
            <span
              className={from === "inherited" ? "ink-inherited" : "ink-own"}
              title={type ? `inherited from ${type.name}` : undefined}
            >
              {sayQuantity(value)}
            </span>
          );
        },
      }),
    ),
    {
      id: "cost",
      title: "Cost",
      width: 70,
      numeric: true,
      worked: true,
      text: (i) => String(figuresOf(facts().model, i.id).value?.toFixed(4) ?? ""),
      sort: (i) => figuresOf(facts().model, i.id).value,
      cell: (i) => (
        <span className="ink-worked">{sayCost(figuresOf(facts().model, i.id).value ?? Number.POSITIVE_INFINITY)}</span>
      ),
    },
    {
      id: "time",
      title: "Time",
      width: 92,
      numeric: true,
      worked: true,
      text: (i) => String(figuresOf(facts().model, i.id).time?.toFixed(1) ?? ""),
      sort: (i) => figuresOf(facts().model, i.id).time,
      cell: (i) => (
        <span className="ink-worked">
          {figuresOf(facts().model, i.id).time === null ? "—" : saySeconds(figuresOf(facts().model, i.id).time ?? 0)}
        </span>
      ),
    },
    open("buy", "Buy", 62, sayCost),
    open("sell", "Sell", 62, sayCost),
    {
      id: "margin",
      title: "Margin",
      width: 68,
      numeric: true,
      worked: true,
      text: (i) => sayMargin(marginOf(facts().catalogue, facts().model, i)),
      sort: (i) => marginOf(facts().catalogue, facts().model, i),
      cell: (i) => {
        const margin = marginOf(facts().catalogue, facts().model, i);
        return (
          <span className={margin !== null && margin < 0 ? "font-semibold text-beet" : "ink-worked"}>
            {sayMargin(margin)}
          </span>
        );
      },
    },
  ];
}
