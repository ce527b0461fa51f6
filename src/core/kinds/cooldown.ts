/** A time that all items of a group share: using one makes the others wait. */
import { duration } from "../schema/duration";
import { defineKind } from "../schema/kind";
import { note } from "./shared";

export const cooldown = defineKind({
  name: "cooldown",
  plural: "cooldowns",
  section: "cooldowns",
  help: "Groups that share a waiting time: after one of them is used, all of them wait.",
  fields: {
    ticks: duration({ label: "time", title: "Time", bundled: "time", width: 80 }),
    note,
  },
});
