/** "level 12": the level that a character needs. */
import { MOST_LEVEL } from "../schema/limits";
import { number } from "../schema/number";
import { clause, readWhole } from "./clause";

const rules = { min: 0, max: MOST_LEVEL, whole: true, optional: true, width: 54 } as const;

export const level = clause({
  word: "level",
  what: "The level",
  fields: { level: number({ ...rules, title: "Level", help: "Level a character needs, such as 5." }) },
  ofVariant: { level: number(rules) },
  none: "0",
  placeholder: "any",
  read(r) {
    const least = readWhole(r, 0, MOST_LEVEL, "a level", "12");
    return least === null ? null : { level: least };
  },
  write: ({ level: least }) => (least === null ? null : String(least)),
  draw: ({ level: least }) => `level ${least}`,
  run({ level: least }, terms) {
    terms.level = least ?? 0;
  },
  better: (a, b) => (b.level ?? 0) - (a.level ?? 0),
});
