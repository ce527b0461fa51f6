/** How often a use can be used: forever, without a pause, against its group, nowhere, to no effect. */
import { setField } from "../catalogue/edit";
import { saidIn } from "../catalogue/uses";
import { list, sayPercent } from "../numbers/format";
import { type Fix, ref } from "./check";
import { aboutUse, cycleOf, nameOfUse, openUse, perUse, say } from "./used";

/** A use that keeps its item, waits for nothing and does something: it can be used forever at once. */
export const usableForEver = perUse("usable-for-ever", function* ({ catalogue }, item, use) {
  if (use.fate !== "kept" || !use.effects.length || cycleOf(catalogue, use) > 0) return;
  if (use.effects.some(({ does }) => does.is === "take" || does.is === "charge")) return;
  const edit = (message: string, field: string, to: string | number): Fix => ({
    message,
    do: "edit",
    edits: [setField(catalogue, "use", use.use.id, field, to)],
  });
  const pause = 10 * catalogue.pantry.ticksPerSecond;
  yield {
    subject: aboutUse(catalogue, item, use),
    message: `${nameOfUse(item, use)} keeps the item and has no cooldown, so it can be used without limit.`,
    evidence: { type: "names", names: [item.name, use.name] },
    fixes: [
      edit("Use up the item", "fate", "used up"),
      edit(`Set the cooldown to ${say(catalogue, pause)}`, "wait", pause),
      ...openUse(catalogue, item, use),
    ],
  };
});

/** A condition that lasts at least until the use that applies it is ready again. */
export const alwaysOn = perUse("always-on", function* ({ catalogue }, item, use) {
  const seconds = (ticks: number) => ticks / catalogue.pantry.ticksPerSecond;
  for (const { does, chance } of use.effects) {
    const condition = does.is === "apply" ? catalogue.records.condition.get(does.condition) : undefined;
    if (does.is !== "apply" || !condition || chance < 1) continue;
    const ticks = does.ticks ?? condition.ticks;
    const cycle = cycleOf(catalogue, use);
    if (ticks === null || ticks === 0) continue;
    // What is ignored while it stands begins again only at the first time it is ready after it ended.
    const every = condition.twice === "ignore" && cycle > 0 ? Math.ceil(ticks / cycle) * cycle : cycle;
    const uptime = every > ticks ? ticks / every : 1;
    if (uptime < catalogue.pantry.uptimeCeiling) continue;
    const group = use.wait === null && use.group ? catalogue.records.cooldown.get(use.group) : undefined;
    const ready = cycle === 0 ? "at once" : `every ${say(catalogue, cycle)}${group ? ` with ${group.name}` : ""}`;
    yield {
      subject: aboutUse(catalogue, item, use, ref(catalogue, "condition", condition.id)),
      message: `${nameOfUse(item, use)} keeps ${condition.name} active ${sayPercent(Number(uptime.toFixed(4)))} of the time: it lasts ${say(catalogue, ticks)} and repeats ${ready}.`,
      evidence: {
        type: "amounts",
        unit: "s",
        rows: [
          { label: `${condition.name} lasts`, value: seconds(ticks) },
          { label: "cooldown", value: seconds(cycle) },
        ],
      },
      fixes: [
        {
          message: `Set the cooldown to ${say(catalogue, 2 * ticks)}, for half of the time`,
          do: "edit",
          edits: [setField(catalogue, "use", use.use.id, "wait", 2 * ticks)],
        },
        ...openUse(catalogue, item, use),
        { message: `Open ${condition.name}`, do: "open", kind: "condition", id: condition.id },
      ],
    };
  }
});

/** A use that waits another time than the group that its item waits with. */
export const cooldownOverridden = perUse("cooldown-overridden", function* ({ catalogue }, item, use) {
  const group = use.group === null ? undefined : catalogue.records.cooldown.get(use.group);
  if (use.wait === null || !group || use.wait === group.ticks) return;
  const seconds = (ticks: number) => ticks / catalogue.pantry.ticksPerSecond;
  yield {
    subject: aboutUse(catalogue, item, use),
    with: [ref(catalogue, "cooldown", group.id)],
    message: `${nameOfUse(item, use)} has a cooldown of ${say(catalogue, use.wait)}, but its group ${group.name} has ${say(catalogue, group.ticks)}.`,
    evidence: {
      type: "amounts",
      unit: "s",
      rows: [
        { label: use.name, value: seconds(use.wait) },
        { label: group.name, value: seconds(group.ticks) },
      ],
    },
    fixes: [
      {
        message: `Use the cooldown of ${group.name}`,
        do: "edit",
        edits: [setField(catalogue, "use", use.use.id, "wait", use.chain.length > 1 ? group.ticks : null)],
      },
      ...openUse(catalogue, item, use),
    ],
  };
});

/** What can be refused because it would change nothing: all of it is lost on whoever is full, or knows it already. */
const MAY_BE_VAIN: ReadonlySet<string> = new Set(["restore", "clear", "clear all", "teach"]);
const PAID: ReadonlySet<string> = new Set(["take", "charge", "cost"]);

/** A use that only restores and uses its item up, also where nothing is to be restored. */
export const usedUpInVain = perUse("used-up-in-vain", function* ({ catalogue }, item, use) {
  if (use.fate !== "used up" || use.guarded || saidIn(use.chain, "guarded")) return;
  const effects = use.effects.filter(({ does }) => !PAID.has(does.is));
  const restored = effects.flatMap(({ does }) =>
    does.is === "restore" ? [catalogue.records.resource.get(does.resource)?.name ?? ""] : [],
  );
  if (!restored.length || !effects.every(({ does }) => MAY_BE_VAIN.has(does.is))) return;
  yield {
    subject: aboutUse(catalogue, item, use),
    message: `${nameOfUse(item, use)} is used up even when ${list([...new Set(restored)])} ${new Set(restored).size > 1 ? "are" : "is"} full.`,
    evidence: { type: "names", names: [item.name, use.name] },
    fixes: [
      {
        message: "Refuse it when it would do nothing",
        do: "edit",
        edits: [setField(catalogue, "use", use.use.id, "guarded", true)],
      },
      {
        message: "Keep it as it is",
        do: "edit",
        edits: [setField(catalogue, "use", use.use.id, "guarded", false)],
      },
      ...openUse(catalogue, item, use),
    ],
  };
});

/** A use that does nothing. */
export const useWithoutEffect = perUse("use-without-effect", function* ({ catalogue }, item, use) {
  // What is used up to leave something does that.
  if (use.effects.length || (use.leaves !== null && use.fate === "used up")) return;
  const left = use.leaves === null ? "" : `, except leaving ${catalogue.records.item.get(use.leaves)?.name}`;
  yield {
    subject: aboutUse(catalogue, item, use),
    message: `${nameOfUse(item, use)} has no effect${left}.`,
    evidence: { type: "names", names: [item.name, use.name] },
    fixes: openUse(catalogue, item, use),
  };
});

/** A use that no situation allows. */
export const useNowhere = perUse("use-nowhere", function* ({ catalogue }, item, use) {
  if (use.everywhere || use.situations.length) return;
  yield {
    subject: aboutUse(catalogue, item, use),
    message: `${nameOfUse(item, use)} is never allowed: it has no context.`,
    evidence: { type: "names", names: [item.name, use.name] },
    fixes: [
      {
        message: "Allow it everywhere",
        do: "edit",
        edits: [setField(catalogue, "use", use.use.id, "everywhere", true)],
      },
      ...openUse(catalogue, item, use),
    ],
  };
});
