/** How serious the findings of one check are in this pantry; its key is that of the check. */
import { isRuleKey, severityWords } from "../checklist/index";
import { choice } from "../schema/choice";
import { defineKind } from "../schema/kind";
import { note } from "./shared";

export const severity = defineKind({
  name: "severity",
  section: "severities",
  help: "Checks that are off, or more or less serious here than by default, such as No description as a note.",
  fields: {
    severity: choice(severityWords, {
      initial: "note",
      bundleInitial: "note",
      label: "severity",
      title: "Severity",
      width: 90,
      help: "How serious its findings are, such as note. If off, the check isn't run.",
    }),
    note,
  },
  rules(record, fault) {
    const { key } = record as unknown as { readonly key: string };
    if (!isRuleKey(key)) fault("key", `No check is called “${key}”. Use the id of one with “_”, such as dead_end.`);
  },
});
