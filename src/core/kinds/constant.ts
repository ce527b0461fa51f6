/** A number that formulas share: defined once and changed in one place. */
import { defineKind } from "../schema/kind";
import { MOST } from "../schema/limits";
import { number } from "../schema/number";
import { text } from "../schema/text";
import { note } from "./shared";

export const constant = defineKind({
  name: "constant",
  section: "constants",
  help: "Numbers that formulas share, such as Swell. Change one here and every formula follows.",
  fields: {
    value: number({ min: -MOST, max: MOST, width: 80 }),
    unit: text({ most: 20, width: 70 }),
    note,
  },
});
