/** How the columns of a table that people read again and again are understood, under a name. */
import { choice } from "../schema/choice";
import { defineKind } from "../schema/kind";
import { text } from "../schema/text";
import { HOLDERS } from "./field";
import { note } from "./shared";

export const mapping = defineKind({
  name: "mapping",
  plural: "mappings",
  section: "mappings",
  help: "How the columns of a table are read. They are made where tables are brought in, and found there by name.",
  fields: {
    of: choice(HOLDERS, { label: "records of", title: "Records of", width: 90 }),
    columns: text({
      most: 20_000,
      lines: true,
      width: 420,
      help: "A line for each: the head of the column = what it is read into.",
    }),
    decimal: choice([".", ","], { label: "sign before decimals", title: "Decimals", width: 70 }),
    note,
  },
});
