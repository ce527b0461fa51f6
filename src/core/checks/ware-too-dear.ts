import { levelOfRun } from "../analysis/progression";
import { levels, reach, value } from "../analysis/registry";
import { type Catalogue, recordAt } from "../catalogue/catalogue";
import type { Index } from "../catalogue/persistent-map";
import type { Recipe, Source } from "../kinds/index";
import { allLines } from "../kinds/ways";
import type { Line } from "../notation/line";
import type { Id } from "../schema/id";
import { processAt } from "../network/compile";
import { MEMBER, SALVAGE } from "../network/network";
import { sayCost, sayQuantity } from "../numbers/format";
import { perRecord, ref } from "./check";

/** Shops by what they sell. */
const SHOPS: Index<Source, ReadonlyMap<Id, readonly Id[]>> = {
  build(sources) {
    const shops = new Map<Id, Id[]>();
    for (const { id, wares } of sources.values())
      for (const { item } of wares) {
        const there = shops.get(item);
        if (there) there.push(id);
        else shops.set(item, [id]);
      }
    return shops;
  },
  follow(shops, before, changes) {
    for (const [id, source] of changes) {
      const [was, is] = [before.get(id)?.wares ?? [], source?.wares ?? []];
      if (was !== is && was.length + is.length > 0) return null;
    }
    return shops;
  },
};
const shopsOf = ({ records }: Catalogue): ReadonlyMap<Id, readonly Id[]> => records.source.index(SHOPS);

/**
 * What a shop asks a great deal more for than the item takes by another way that is open no later: before anybody can
 * afford it, no one needs it.
 */
export const wareTooDear = perRecord<"source">({
  id: "ware-too-dear",
  reads: [value, levels, reach],
  per: ["source"],
  may: ({ wares }) => wares.length > 0,
  // What a ware is became cheaper or dearer another way, or that way opens at another level.
  *also({ catalogue, readings: { compiled } }, delta, edits) {
    const shops = shopsOf(catalogue);
    if (!shops.size) return;
    const { consumers, outs } = compiled.network;
    const touched = new Set<Id>();
    const touch = (i: number) => {
      const id = compiled.idOf(i);
      if (id !== null && shops.has(id)) touched.add(id);
    };
    for (const i of delta.of(value).keys()) touch(i);
    for (const i of [...delta.of(value).keys(), ...delta.of(levels)]) {
      touch(i);
      for (let k = consumers.start[i]; k < consumers.end[i]; k++)
        for (let p = consumers.to[k], m = outs.start[p]; m < outs.end[p]; m++) touch(outs.to[m]);
    }
    for (const edit of edits) {
      if (edit.kind === "currency") for (const id of shops.keys()) touched.add(id);
      if (edit.kind !== "recipe" && edit.kind !== "source") continue;
      const now = edit.op === "set" ? recordAt(catalogue, edit.kind, edit.id) : edit.record;
      const then = edit.op === "set" && edit.field === "lines" ? edit.from : [];
      const { lines = [], variants = [] } = (now ?? {}) as Partial<Recipe>;
      for (const { item } of [...allLines({ lines, variants }), ...(then as unknown as readonly Line[])])
        if (item && shops.has(item)) touched.add(item);
    }
    for (const id of touched) yield* shops.get(id) ?? [];
  },
  *at({ catalogue, readings }, source) {
    const { compiled, network } = readings;
    const { producers, flags } = network;
    const times = catalogue.pantry.wareTimes;
    for (const ware of source.wares) {
      const i = compiled.numberOf(ware.item);
      const currency = ware.currency ?? source.currency;
      const worth = currency === null ? 1 : (catalogue.records.currency.get(currency)?.worth ?? 1);
      const asked = (ware.price * worth) / ware.amount;
      if (i === undefined || !(asked > 0) || !Number.isFinite(asked)) continue;
      const from = Math.max(source.level ?? 0, ware.level ?? 0);
      let best: { readonly p: number; readonly cost: number; readonly level: number } | null = null;
      for (let k = producers.start[i]; k < producers.end[i]; k++) {
        const p = producers.to[k];
        if (flags[p] & (SALVAGE | MEMBER) || !readings.reach.fires(p) || readings.endless.limits.has(p)) continue;
        const cost = readings.value.runCost(p) / network.yieldOf(p, i);
        if (!(cost * times < asked * (1 - 1e-9)) || (best && cost >= best.cost)) continue;
        const level = levelOfRun(readings, p);
        if (level <= from) best = { p, cost, level };
      }
      if (!best) continue;
      const { kind, record } = processAt(compiled, best.p);
      const name = catalogue.records.item.get(ware.item)?.name ?? "";
      const known = kind === "recipe" || kind === "source" ? kind : null;
      yield {
        subject: [ref(catalogue, "source", source.id), ref(catalogue, "item", ware.item)],
        message: `${source.name} sells ${name} for ${sayCost(asked)}${from > 0 ? ` from level ${from}` : ""}; ${record.name} costs ${sayCost(best.cost)}${best.level > 0 ? ` from level ${best.level}` : ""}, ${sayQuantity(Number((asked / best.cost).toFixed(1)))} times less.`,
        evidence: {
          type: "amounts",
          unit: "value",
          rows: [
            { label: source.name, value: asked },
            { label: record.name, value: best.cost },
          ],
        },
        size: asked / best.cost,
        fixes: [
          { message: `Open ${source.name}`, do: "open", kind: "source", id: source.id },
          ...(known ? [{ message: `Open ${record.name}`, do: "open" as const, kind: known, id: record.id }] : []),
        ],
      };
    }
  },
});
