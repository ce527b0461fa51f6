/** A named way to read the columns of a spreadsheet that is imported repeatedly. */
import { choice } from "../schema/choice";
import { defineKind } from "../schema/kind";
import { text } from "../schema/text";
import { HOLDERS } from "./field";
import { note } from "./shared";

export const mapping = defineKind({
  name: "mapping",
  section: "mappings",
  help: "How the columns of a spreadsheet are read, such as Sell into sell price. Saved and chosen during an import.",
  fields: {
    of: choice(HOLDERS, { label: "records of", title: "Records of", width: 90 }),
    columns: text({
      most: 20_000,
      lines: true,
      width: 420,
      help: "One line per column: its heading = the field it fills, such as Sell = sell.",
    }),
    decimal: choice([".", ","], { label: "decimal separator", title: "Decimal separator", width: 120 }),
    note,
  },
});
