/** What someone decided about findings: that they are accepted, or who looks after them. */
import { isRule } from "../checklist/index";
import { choice } from "../schema/choice";
import { defineKind } from "../schema/kind";
import { number } from "../schema/number";
import { ref } from "../schema/ref";
import { subjects } from "../schema/subjects";
import { text } from "../schema/text";

/** Records that one finding may be about, at most, for a decision about it alone. */
export const MOST_SUBJECTS = 200;
const DAY = /^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/;
/** Whether a text is a day that exists, as YYYY-MM-DD. */
export const isDay = (day: string): boolean => {
  const time = DAY.test(day) ? Date.parse(`${day}T00:00:00Z`) : Number.NaN;
  return !Number.isNaN(time) && new Date(time).toISOString().startsWith(day);
};

/** @param kinds  kinds of the records that findings are about */
export const decisionAbout = (kinds: readonly string[]) =>
  defineKind({
    name: "decision",
    section: "decisions",
    help: "Findings that are accepted or assigned to someone, such as Dead ends among Ornaments. Made and changed in Checks.",
    fields: {
      what: choice(["accepted", "assigned"], { label: "decision", title: "Decision", width: 86 }),
      rule: text({
        most: 40,
        label: "check",
        title: "Check",
        width: 130,
        help: "The id of a check, such as dead-end.",
      }),
      scope: choice(["finding", "type", "tag"], {
        label: "applies to",
        title: "Applies to",
        width: 100,
        words: { finding: "one finding", type: "items of a type", tag: "items with a tag" },
        help: "One finding, or all findings of the check about items of a type or with a tag, such as Fare.",
      }),
      about: subjects(kinds, MOST_SUBJECTS, { label: "records", title: "Records", width: 160 }),
      nth: number({
        min: 1,
        max: 100_000,
        whole: true,
        initial: 1,
        label: "number",
        title: "Number",
        width: 70,
        help: "Which one, if the check reports several about the same records, such as 2.",
      }),
      type: ref("type", { optional: true, label: "type", title: "Type", width: 110 }),
      tag: ref("tag", { optional: true, label: "tag", title: "Tag", width: 110 }),
      person: text({
        most: 80,
        label: "person",
        title: "Person",
        width: 110,
        help: "Who accepted it, or who looks after it, such as Wren.",
      }),
      reason: text({ most: 2000, lines: true, label: "reason", title: "Reason", width: 220 }),
      untilDay: text({
        most: 10,
        label: "until (day)",
        title: "Until (day)",
        width: 96,
        help: "The last day it holds, such as 2026-12-31. If empty, no limit.",
      }),
      untilRevision: number({
        min: 0,
        max: 2 ** 31 - 1,
        whole: true,
        optional: true,
        label: "until (revision)",
        title: "Until (revision)",
        width: 110,
        help: "The last revision it holds for, such as 240. If empty, no limit.",
      }),
      atMost: number({
        min: 0,
        max: 1e15,
        optional: true,
        label: "worst accepted value",
        title: "Worst accepted",
        width: 110,
        help: "The finding is back when its number is worse than this, such as 1.5. If empty, no limit.",
      }),
    },
    rules({ rule, scope, type, tag, untilDay }, fault) {
      if (!isRule(rule)) fault("rule", `No check is called “${rule}”. Use the id of one, such as dead-end.`);
      if (scope === "type" && type === null) fault("type", "Choose the type whose items it applies to.");
      if (scope === "tag" && tag === null) fault("tag", "Choose the tag whose items it applies to.");
      if (untilDay !== "" && !isDay(untilDay))
        fault("untilDay", `“${untilDay}” isn't a day. Use year-month-day, such as 2026-12-31.`);
    },
  });
