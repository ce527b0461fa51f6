/** "taught by Smoker's notes": the item that teaches a recipe, which must be owned once and is kept. */
import { ref } from "../schema/ref";
import { clause } from "./clause";

const item = { optional: true, label: "teaching item" } as const;

export const taught = clause({
  word: "taught",
  wording: "taught by",
  what: "What teaches it",
  fields: {
    taughtBy: ref("item", {
      ...item,
      title: "Taught by",
      help: "The item that teaches this recipe, such as Ebb almanac. A player must own it once and keeps it.",
    }),
  },
  ofVariant: { taughtBy: ref("item", item) },
  items: ["taughtBy"],
  none: null,
  placeholder: "known from the start",
  read(r) {
    if (!r.word("by")) r.report("error", r.here(), "Expected “by” and the item that teaches it.", ["by"]);
    const found = r.itemName("the item that teaches it");
    return found && { taughtBy: found };
  },
  write: ({ taughtBy }, _, name) => (taughtBy ? `by ${name(taughtBy)}` : null),
  draw: ({ taughtBy }) => `taught by ${taughtBy?.name}`,
  run({ taughtBy }, terms) {
    terms.teacher = taughtBy;
  },
});
