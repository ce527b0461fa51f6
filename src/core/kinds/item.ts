/** An item of the game. */
import { defineKind } from "../schema/kind";
import { ref, refs } from "../schema/ref";
import { text } from "../schema/text";
import { inheritable, note, status } from "./shared";

export const item = defineKind({
  name: "item",
  section: "items",
  help: "Everything players find, make, use and sell, such as Smoked eel.",
  fields: {
    type: ref("type", { optional: true }),
    rarity: ref("rarity", { optional: true }),
    tags: refs("tag"),
    ...inheritable,
    description: text({ most: 4000, lines: true }),
    status,
    note,
  },
  fromName: { status: "stub" },
});
