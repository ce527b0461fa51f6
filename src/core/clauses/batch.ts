/** "batch 12": how many runs go at once, in the time and the heat of one. */
import { MOST_BATCH } from "../schema/limits";
import { number } from "../schema/number";
import { clause, readWhole } from "./clause";

const rules = { max: MOST_BATCH, whole: true, optional: true } as const;

export const batch = clause({
  word: "batch",
  what: "The batch",
  fields: {
    batch: number({
      min: 2,
      ...rules,
      title: "Batch",
      width: 60,
      help: "How many are made at once in the time and heat of one, such as 6. If empty, one at a time.",
    }),
  },
  ofVariant: { batch: number({ min: 1, ...rules }) },
  none: "1",
  placeholder: "1",
  read(r, word) {
    const size = readWhole(r, 1, MOST_BATCH, "how many are made at once", "12");
    if (size === 1 && !r.variant) {
      const span = { from: word.from, to: r.tokens[r.at - 1].to };
      r.report("note", span, "A batch of 1 is the default and is left out.");
      return { batch: null };
    }
    return size === null ? null : { batch: size };
  },
  write: ({ batch: size }) => (size === null || size === 1 ? null : String(size)),
  draw: ({ batch: size }) => `up to ${size} at once`,
  run({ batch: size }, terms) {
    terms.batch = size ?? 1;
  },
  better: (a, b) => (a.batch ?? 1) - (b.batch ?? 1),
});
