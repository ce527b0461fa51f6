/** An effect that only the game itself can carry out: its name and what it is given. */
import { choice } from "../schema/choice";
import { defineKind } from "../schema/kind";
import { list } from "../schema/group";
import { text } from "../schema/text";
import { note } from "./shared";

export const PARAMETER_FORMS = ["whole", "decimal", "yes or no", "text", "item"] as const;

export const signal = defineKind({
  name: "signal",
  plural: "signals",
  section: "signals",
  help: "Effects that only the game itself carries out, with what it is told: ring the tide bell, call the ferry.",
  fields: {
    parameters: list(
      { called: text({ most: 40, required: true }), form: choice(PARAMETER_FORMS) },
      { most: 12, noun: "parameter", width: 220, title: "Is told" },
    ),
    note,
  },
});
