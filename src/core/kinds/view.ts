/** A saved view of the shelves, shared by everyone: its columns, its order and its filters. */
import { defineKind } from "../schema/kind";
import { text } from "../schema/text";
import { note } from "./shared";

export const view = defineKind({
  name: "view",
  section: "views",
  table: "saved_view",
  help: "Saved filters, columns and sorting of the Shelves, such as Sold too low. Saved and opened there.",
  fields: {
    query: text({ most: 2000, label: "filters", title: "Filters", width: 260 }),
    columns: text({
      most: 4000,
      title: "Columns",
      width: 260,
      help: "Columns in order, each with its width if it was changed, such as name:220.",
    }),
    order: text({ most: 400, title: "Order", width: 120 }),
    note,
  },
});
