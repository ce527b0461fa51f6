/** How often a use can be used: for ever, without a pause, against its group, nowhere, to no effect. */
import { setField } from "../catalogue/edit";
import { sayPercent } from "../numbers/format";
import type { CheckContext, Fix } from "./check";
import { perRecord, ref } from "./check";
import { cycleOf, openUse, say, usedBeside, nameOfUse, refOfUse, usesIn } from "./used";

const also = ({ catalogue }: CheckContext, _: unknown, edits: Parameters<typeof usedBeside>[1]) =>
  usedBeside(catalogue, edits);

/** A use that keeps its item, waits for nothing and does something: it can be used for ever at once. */
export const usableForEver = perRecord<"item">({
  id: "usable-for-ever",
  reads: [],
  per: ["item"],
  also,
  *at({ catalogue }, item) {
    for (const use of usesIn(catalogue, item)) {
      if (use.fate !== "kept" || !use.effects.length || cycleOf(catalogue, use) > 0) continue;
      if (use.effects.some(({ does }) => does.is === "take" || does.is === "charge")) continue;
      yield {
        subject: [ref(catalogue, "item", item.id), refOfUse(catalogue, use)],
        says: `${nameOfUse(item, use)} keeps the item and is ready again at once: it can be used for ever.`,
        evidence: { type: "names", names: [item.name, use.name] },
        fixes: [
          edit("Use it up", "fate", "used up"),
          edit(
            `Ready again in ${say(catalogue, 10 * catalogue.pantry.ticksPerSecond)}`,
            "wait",
            10 * catalogue.pantry.ticksPerSecond,
          ),
          ...openUse(catalogue, item, use),
        ],
      };
      function edit(says: string, field: string, to: string | number): Fix {
        return { says, do: "edit", edits: [setField(catalogue, "use", use.use.id, field, to)] };
      }
    }
  },
});

/** A condition that lasts at least until the use that applies it is ready again. */
export const alwaysOn = perRecord<"item">({
  id: "always-on",
  reads: [],
  per: ["item"],
  also,
  *at({ catalogue }, item) {
    for (const use of usesIn(catalogue, item))
      for (const { does, chance } of use.effects) {
        const condition = does.is === "apply" ? catalogue.records.condition.get(does.condition) : undefined;
        if (does.is !== "apply" || !condition || chance < 1) continue;
        const ticks = does.ticks ?? condition.ticks;
        const cycle = cycleOf(catalogue, use);
        if (ticks === null || ticks === 0) continue;
        // What is ignored while it stands begins anew only at the first time it is ready after it ended.
        const every = condition.twice === "ignore" && cycle > 0 ? Math.ceil(ticks / cycle) * cycle : cycle;
        const uptime = every > ticks ? ticks / every : 1;
        if (uptime < catalogue.pantry.uptimeCeiling) continue;
        const group = use.wait === null && use.group ? catalogue.records.cooldown.get(use.group) : undefined;
        const ready = cycle === 0 ? "at once" : `in ${say(catalogue, cycle)}${group ? ` with ${group.name}` : ""}`;
        yield {
          subject: [
            ref(catalogue, "item", item.id),
            refOfUse(catalogue, use),
            ref(catalogue, "condition", condition.id),
          ],
          says: `${condition.name} of ${nameOfUse(item, use)} lasts ${say(catalogue, ticks)} and it is ready again ${ready}: it is on ${sayPercent(Number(uptime.toFixed(4)))} of the time.`,
          evidence: {
            type: "amounts",
            unit: "s",
            rows: [
              { label: `${condition.name} lasts`, value: ticks / catalogue.pantry.ticksPerSecond },
              { label: "ready again in", value: cycle / catalogue.pantry.ticksPerSecond },
            ],
          },
          fixes: [
            {
              says: `Ready again in ${say(catalogue, 2 * ticks)}: on half of the time`,
              do: "edit",
              edits: [setField(catalogue, "use", use.use.id, "wait", 2 * ticks)],
            },
            ...openUse(catalogue, item, use),
            { says: `Open ${condition.name}`, do: "open", kind: "condition", id: condition.id },
          ],
        };
      }
  },
});

/** A use that waits another time than the group that its item waits with. */
export const cooldownOverridden = perRecord<"item">({
  id: "cooldown-overridden",
  reads: [],
  per: ["item"],
  also,
  *at({ catalogue }, item) {
    for (const use of usesIn(catalogue, item)) {
      const group = use.group === null ? undefined : catalogue.records.cooldown.get(use.group);
      if (use.wait === null || !group || use.wait === group.ticks) continue;
      yield {
        subject: [ref(catalogue, "item", item.id), refOfUse(catalogue, use)],
        with: [ref(catalogue, "cooldown", group.id)],
        says: `${nameOfUse(item, use)} is ready again in ${say(catalogue, use.wait)}; its group ${group.name} waits ${say(catalogue, group.ticks)}.`,
        evidence: {
          type: "amounts",
          unit: "s",
          rows: [
            { label: use.name, value: use.wait / catalogue.pantry.ticksPerSecond },
            { label: group.name, value: group.ticks / catalogue.pantry.ticksPerSecond },
          ],
        },
        fixes: [
          {
            says: `Wait as long as ${group.name}`,
            do: "edit",
            edits: [setField(catalogue, "use", use.use.id, "wait", use.chain.length > 1 ? group.ticks : null)],
          },
          ...openUse(catalogue, item, use),
        ],
      };
    }
  },
});

/** A use that does nothing. */
export const useWithoutEffect = perRecord<"item">({
  id: "use-without-effect",
  reads: [],
  per: ["item"],
  also,
  *at({ catalogue }, item) {
    for (const use of usesIn(catalogue, item)) {
      if (use.effects.length) continue;
      const left = use.leaves === null ? "" : `, but for leaving ${catalogue.records.item.get(use.leaves)?.name}`;
      if (left && use.fate === "used up") continue;
      yield {
        subject: [ref(catalogue, "item", item.id), refOfUse(catalogue, use)],
        says: `${nameOfUse(item, use)} has no effect${left}.`,
        evidence: { type: "names", names: [item.name, use.name] },
        fixes: openUse(catalogue, item, use),
      };
    }
  },
});

/** A use that no situation allows. */
export const useNowhere = perRecord<"item">({
  id: "use-nowhere",
  reads: [],
  per: ["item"],
  also,
  *at({ catalogue }, item) {
    for (const use of usesIn(catalogue, item)) {
      if (use.everywhere || use.situations.length) continue;
      yield {
        subject: [ref(catalogue, "item", item.id), refOfUse(catalogue, use)],
        says: `${nameOfUse(item, use)} is allowed nowhere: no situation is ticked.`,
        evidence: { type: "names", names: [item.name, use.name] },
        fixes: [
          {
            says: "Allow it everywhere",
            do: "edit",
            edits: [setField(catalogue, "use", use.use.id, "everywhere", true)],
          },
          ...openUse(catalogue, item, use),
        ],
      };
    }
  },
});
