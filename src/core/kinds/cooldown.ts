/** A time that all items of a group share: using one makes the others wait. */
import { duration } from "../schema/duration";
import { defineKind } from "../schema/kind";
import { note } from "./shared";

export const cooldown = defineKind({
  name: "cooldown",
  section: "cooldowns",
  help: "Items that share a cooldown, such as Meal: after one is used, all of them wait.",
  fields: {
    ticks: duration({ label: "time", title: "Time", bundled: "time", width: 80 }),
    note,
  },
});
