/** An effect that the game itself carries out: its name and its parameters. */
import { choice } from "../schema/choice";
import { defineKind } from "../schema/kind";
import { list } from "../schema/group";
import { text } from "../schema/text";
import { note } from "./shared";

export const PARAMETER_FORMS = ["whole", "decimal", "yes or no", "text", "item"] as const;

export const signal = defineKind({
  name: "signal",
  section: "signals",
  help: "Effects that the game itself carries out, such as Ring the tide bell, with the values they receive.",
  fields: {
    parameters: list(
      { called: text({ most: 40, required: true, label: "name" }), form: choice(PARAMETER_FORMS) },
      { most: 12, noun: "parameter", width: 220, title: "Parameters" },
    ),
    note,
  },
});
