/** What uses restore and drain, against who has the resource, how much of it there can be, and what players are told. */
import { shownText } from "../cards/values";
import type { Catalogue } from "../catalogue/catalogue";
import { heldStat } from "../catalogue/inheritance";
import { type Effect, type HeldUse, timesOf } from "../catalogue/uses";
import type { Item, Resource } from "../kinds/index";
import { sayPercent, sayQuantity } from "../numbers/format";
import { normalise } from "../schema/names";
import type { Body } from "../trials/body";
import { ref } from "./check";
import { aboutUse, amountFor, most, nameOfUse, openUse, perUse, say, standing } from "./used";

type Points = Extract<Effect["does"], { readonly is: "restore" | "drain" | "cost" }>;
const pointsOf = ({ does }: Effect): Points | null =>
  does.is === "restore" || does.is === "drain" || does.is === "cost" ? does : null;
const timesIn = (catalogue: Catalogue, does: Points): number =>
  does.is === "cost" ? 1 : timesOf(does, catalogue.pantry.ticksPerSecond);

/** The effects of a use that restore or drain something. */
function* pointsIn(
  catalogue: Catalogue,
  use: HeldUse,
): Generator<{ readonly effect: Effect; readonly does: Points; readonly resource: Resource }> {
  for (const effect of use.effects) {
    const does = pointsOf(effect);
    const resource = does && catalogue.records.resource.get(does.resource);
    if (does && resource) yield { effect, does, resource };
  }
}

/** Points of an effect for a body: of one of its pulses, and of all. */
function pointsFor(catalogue: Catalogue, effect: Effect, does: Points, item: Item, body: Body) {
  const one = amountFor(catalogue, effect, item, body) * (does.share ? body.most(does.resource) : 1);
  return { one, all: one * timesIn(catalogue, does) };
}

/** A use that restores or drains what no subject has. */
export const resourceNobodyHas = perUse("resource-nobody-has", function* ({ catalogue }, item, use) {
  const { bodies } = standing(catalogue);
  for (const { does, resource } of pointsIn(catalogue, use)) {
    if (!bodies.length || bodies.some((b) => b.pool(resource.id))) continue;
    yield {
      subject: aboutUse(catalogue, item, use, ref(catalogue, "resource", resource.id)),
      message: `${nameOfUse(item, use)} ${does.is}s ${resource.name}, which no test character has.`,
      evidence: { type: "names", names: [item.name, resource.name] },
      fixes: [
        ...openUse(catalogue, item, use),
        ...[...catalogue.records.subject.values()].slice(0, 2).map((s) => ({
          message: `Open ${s.name} and add ${resource.name}`,
          do: "open" as const,
          kind: "subject" as const,
          id: s.id,
        })),
      ],
    };
  }
});

/** A use that restores more than any subject can hold. */
export const restoresTooMuch = perUse("restores-too-much", function* ({ catalogue }, item, use) {
  for (const { effect, does, resource } of pointsIn(catalogue, use)) {
    if (does.is !== "restore") continue;
    const bodies = standing(catalogue).bodies.filter((b) => b.pool(resource.id));
    const room = (b: Body) => b.most(resource.id) - resource.min;
    // Who holds most of it wastes least.
    const best = most(bodies, (b) => room(b) - pointsFor(catalogue, effect, does, item, b).all);
    if (!best || best.value >= 0) continue;
    const { all } = pointsFor(catalogue, effect, does, item, best.of);
    const wasted = (all - room(best.of)) / all;
    yield {
      subject: aboutUse(catalogue, item, use, ref(catalogue, "resource", resource.id)),
      message: `${nameOfUse(item, use)} restores ${sayQuantity(all)} ${resource.name}, but ${best.of.subject.name} holds at most ${sayQuantity(room(best.of))}: ${sayPercent(Number(wasted.toFixed(4)))} is wasted.`,
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
});

/** An effect that changes nothing whoever uses it: no points, no time, no chance, or pulses that never come. */
export const neverMatters = perUse("never-matters", function* ({ catalogue }, item, use) {
  for (const [k, effect] of use.effects.entries()) {
    const why = whyNot(catalogue, effect, item);
    if (why)
      yield {
        subject: aboutUse(catalogue, item, use),
        message: `Effect ${k + 1} of ${nameOfUse(item, use)} never does anything: ${why}.`,
        evidence: { type: "names", names: [item.name, use.name] },
        fixes: openUse(catalogue, item, use),
      };
  }
});
function whyNot(catalogue: Catalogue, effect: Effect, item: Item): string | null {
  if (effect.chance === 0) return "its chance is 0%";
  if (effect.does.is === "apply") {
    const condition = catalogue.records.condition.get(effect.does.condition);
    return condition && (effect.does.ticks ?? condition.ticks) === 0 ? `${condition.name} has a duration of 0` : null;
  }
  const does = pointsOf(effect);
  if (!does) return null;
  if (does.is !== "cost" && does.lasting !== null && timesIn(catalogue, does) === 0) {
    const first = does.first ?? does.every ?? catalogue.pantry.ticksPerSecond;
    return `it lasts ${say(catalogue, does.lasting)}, but starts after ${say(catalogue, first)}`;
  }
  const name = catalogue.records.resource.get(does.resource)?.name ?? "";
  const having = standing(catalogue).bodies.filter((b) => b.pool(does.resource));
  if (!having.length) return null;
  const points = having.map((b) => pointsFor(catalogue, effect, does, item, b).all);
  if (points.every((all) => all <= 0)) return `it ${does.is}s ${sayQuantity(points[0])} ${name}`;
  const room = having.some((b) => b.most(does.resource) > (b.pool(does.resource)?.of.min ?? 0));
  return room ? null : `no test character can hold any ${name}`;
}

/** A stat or a description that tells players another number than the use restores. */
export const displayDiffers = perUse("display-differs", function* ({ catalogue }, item, use) {
  const [body] = standing(catalogue).bodies;
  if (!body) return;
  for (const { effect, does, resource } of pointsIn(catalogue, use)) {
    // What hangs on who uses it is no one number.
    if (does.share || /"(user|target) /.test(effect.amount ?? "")) continue;
    const { one, all } = pointsFor(catalogue, effect, does, item, body);
    const wrong = toldOf(catalogue, item, resource.name).find(({ value }) => value !== one && value !== all);
    if (!wrong) continue;
    yield {
      subject: aboutUse(catalogue, item, use, ref(catalogue, "resource", resource.id)),
      message: `${wrong.where} of ${item.name} says ${sayQuantity(wrong.value)} ${resource.name}; ${use.name} ${does.is}s ${sayQuantity(all)}.`,
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
});
/** What stats and the description of an item say of a resource. */
function toldOf(catalogue: Catalogue, item: Item, name: string): { where: string; value: number }[] {
  const told = [...catalogue.records.stat.values()].flatMap((stat) => {
    const value = normalise(stat.name) === normalise(name) ? heldStat(catalogue, item, stat.id).value : null;
    return value === null ? [] : [{ where: `The stat ${stat.name}`, value }];
  });
  const plain = name.replace(/[^\p{L}\p{N}\s]/gu, ".");
  // What stands in braces is read as a player reads it: a stat of any name may tell the number.
  const text = shownText(catalogue, item).replace(/[*_]/g, "");
  const match = new RegExp(`(\\d+(?:\\.\\d+)?)\\s+(?:points of\\s+)?${plain}(?![\\p{L}\\p{N}])`, "iu").exec(text);
  return match ? [...told, { where: "The description", value: Number(match[1]) }] : told;
}
