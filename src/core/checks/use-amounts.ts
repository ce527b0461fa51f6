/** What uses restore and drain, against who has the resource, how much of it there can be, and what players are told. */
import { heldStat } from "../catalogue/inheritance";
import type { Effect } from "../catalogue/uses";
import { sayPercent, sayQuantity } from "../numbers/format";
import { normalise } from "../schema/names";
import type { Body } from "../trials/body";
import { type CheckContext, perRecord, ref } from "./check";
import { amountFor, most, openUse, say, standing, usedBeside, nameOfUse, refOfUse, usesIn } from "./used";

const also = ({ catalogue }: CheckContext, _: unknown, edits: Parameters<typeof usedBeside>[1]) =>
  usedBeside(catalogue, edits);
type Points = Extract<Effect["does"], { readonly is: "restore" | "drain" }>;
const pointsOf = ({ does }: Effect): Points | null => (does.is === "restore" || does.is === "drain" ? does : null);

/** A use that restores or drains what no subject has. */
export const resourceNobodyHas = perRecord<"item">({
  id: "resource-nobody-has",
  reads: [],
  per: ["item"],
  also,
  *at({ catalogue }, item) {
    for (const use of usesIn(catalogue, item))
      for (const effect of use.effects) {
        const resource = catalogue.records.resource.get(pointsOf(effect)?.resource as never);
        const { bodies } = standing(catalogue);
        if (!resource || !bodies.length || bodies.some((b) => b.pool(resource.id))) continue;
        yield {
          subject: [ref(catalogue, "item", item.id), refOfUse(catalogue, use), ref(catalogue, "resource", resource.id)],
          says: `${nameOfUse(item, use)} ${effect.does.is}s ${resource.name}, which no subject has.`,
          evidence: { type: "names", names: [item.name, resource.name] },
          fixes: [
            ...openUse(catalogue, item, use),
            ...[...catalogue.records.subject.values()].slice(0, 2).map((s) => ({
              says: `Open ${s.name} and give it ${resource.name}`,
              do: "open" as const,
              kind: "subject" as const,
              id: s.id,
            })),
          ],
        };
      }
  },
});

/** Points of an effect for a body: all of its pulses, and what one of them is. */
function pointsFor(
  catalogue: CheckContext["catalogue"],
  effect: Effect,
  item: Parameters<typeof amountFor>[2],
  body: Body,
) {
  const does = pointsOf(effect) as Points;
  const amount = amountFor(catalogue, effect, item, body) * (does.share ? body.most(does.resource) : 1);
  if (does.lasting === null) return { one: amount, all: amount, pulses: 1 };
  const every = Math.max(1, does.every ?? catalogue.pantry.ticksPerSecond);
  const pulses = Math.floor(does.lasting / every);
  return { one: amount, all: amount * pulses, pulses };
}

/** A use that restores more than any subject can hold. */
export const restoresTooMuch = perRecord<"item">({
  id: "restores-too-much",
  reads: [],
  per: ["item"],
  also,
  *at({ catalogue }, item) {
    for (const use of usesIn(catalogue, item))
      for (const effect of use.effects) {
        const does = pointsOf(effect);
        const resource = does?.is === "restore" ? catalogue.records.resource.get(does.resource) : undefined;
        if (!does || !resource) continue;
        const bodies = standing(catalogue).bodies.filter((b) => b.pool(resource.id));
        const room = (b: Body) => b.most(resource.id) - resource.min;
        // Who holds most of it wastes least.
        const best = most(bodies, (b) => room(b) - pointsFor(catalogue, effect, item, b).all);
        if (!best || best.value >= 0) continue;
        const { all } = pointsFor(catalogue, effect, item, best.of);
        const wasted = (all - room(best.of)) / all;
        yield {
          subject: [ref(catalogue, "item", item.id), refOfUse(catalogue, use), ref(catalogue, "resource", resource.id)],
          says: `${nameOfUse(item, use)} restores ${sayQuantity(all)} ${resource.name}; nobody holds more than ${sayQuantity(room(best.of))} (${best.of.subject.name}): ${sayPercent(Number(wasted.toFixed(4)))} is always wasted.`,
          evidence: {
            type: "amounts",
            unit: resource.unit,
            rows: [
              { label: "restores", value: all },
              { label: `${best.of.subject.name} holds`, value: room(best.of) },
            ],
          },
          fixes: openUse(catalogue, item, use),
        };
      }
  },
});

/** An effect that changes nothing whoever uses it: no points, no time, no chance, or pulses that never come. */
export const neverMatters = perRecord<"item">({
  id: "never-matters",
  reads: [],
  per: ["item"],
  also,
  *at({ catalogue }, item) {
    const { bodies } = standing(catalogue);
    for (const use of usesIn(catalogue, item))
      for (const [k, effect] of use.effects.entries()) {
        const why = whyNot(effect);
        if (!why) continue;
        yield {
          subject: [ref(catalogue, "item", item.id), refOfUse(catalogue, use)],
          says: `Effect ${k + 1} of ${nameOfUse(item, use)} can never matter: ${why}.`,
          evidence: { type: "names", names: [item.name, use.name] },
          fixes: openUse(catalogue, item, use),
        };
      }

    function whyNot(effect: Effect): string | null {
      if (effect.chance === 0) return "its chance is 0%";
      const does = pointsOf(effect);
      if (effect.does.is === "apply") {
        const condition = catalogue.records.condition.get(effect.does.condition);
        const ticks = effect.does.ticks ?? condition?.ticks ?? null;
        return condition && ticks === 0 ? `${condition.name} lasts no time` : null;
      }
      if (!does) return null;
      const name = catalogue.records.resource.get(does.resource)?.name ?? "";
      if (does.lasting !== null && does.lasting < (does.every ?? catalogue.pantry.ticksPerSecond))
        return `it goes on for ${say(catalogue, does.lasting)} and comes every ${say(catalogue, does.every ?? catalogue.pantry.ticksPerSecond)}`;
      const having = bodies.filter((b) => b.pool(does.resource));
      if (!having.length) return null;
      if (having.every((b) => pointsFor(catalogue, effect, item, b).all <= 0))
        return `it ${does.is}s ${sayQuantity(pointsFor(catalogue, effect, item, having[0]).all)} ${name}`;
      if (having.every((b) => b.most(does.resource) <= (b.pool(does.resource)?.of.min ?? 0)))
        return `nobody can hold any ${name}`;
      return null;
    }
  },
});

/** A stat or a description that tells players another number than the use restores. */
export const displayDiffers = perRecord<"item">({
  id: "display-differs",
  reads: [],
  per: ["item"],
  also,
  *at({ catalogue }, item) {
    for (const use of usesIn(catalogue, item))
      for (const effect of use.effects) {
        const does = pointsOf(effect);
        const resource = does && catalogue.records.resource.get(does.resource);
        // What hangs on who uses it is no one number.
        if (!does || !resource || does.share || /"(user|target) /.test(effect.amount ?? "")) continue;
        const [body] = standing(catalogue).bodies;
        if (!body) continue;
        const { one, all } = pointsFor(catalogue, effect, item, body);
        const told = said(resource.name);
        const wrong = told.find(({ value }) => value !== one && value !== all);
        if (!wrong) continue;
        yield {
          subject: [ref(catalogue, "item", item.id), refOfUse(catalogue, use), ref(catalogue, "resource", resource.id)],
          says: `${wrong.where} of ${item.name} says ${sayQuantity(wrong.value)} ${resource.name}; ${use.name} ${does.is}s ${sayQuantity(all)}.`,
          evidence: {
            type: "amounts",
            unit: resource.unit,
            rows: [
              { label: wrong.where, value: wrong.value },
              { label: use.name, value: all },
            ],
          },
          fixes: openUse(catalogue, item, use),
        };
      }

    function said(name: string): { where: string; value: number }[] {
      const found: { where: string; value: number }[] = [];
      for (const stat of catalogue.records.stat.values()) {
        if (normalise(stat.name) !== normalise(name)) continue;
        const { value } = heldStat(catalogue, item, stat.id);
        if (value !== null) found.push({ where: `The stat ${stat.name}`, value });
      }
      const text = item.description.replace(/[*_]/g, "");
      const named = new RegExp(
        `(\\d+(?:\\.\\d+)?)\\s+(?:points of\\s+)?${name.replace(/[^\p{L}\p{N}\s]/gu, ".")}\\b`,
        "iu",
      );
      const match = named.exec(text);
      if (match) found.push({ where: "The description", value: Number(match[1]) });
      return found;
    }
  },
});
