/** The shelves as somebody likes to see them, under a name, for everybody: which columns, which order, what is kept. */
import { defineKind } from "../schema/kind";
import { text } from "../schema/text";
import { note } from "./shared";

export const view = defineKind({
  name: "view",
  plural: "views",
  section: "views",
  table: "saved_view",
  help: "The shelves as somebody likes to see them. They are made on the shelves, and opened there by name.",
  fields: {
    query: text({ most: 2000, label: "filters", title: "Filters", width: 260 }),
    columns: text({
      most: 4000,
      title: "Columns",
      width: 260,
      help: "Each with its width where that is not as usual.",
    }),
    order: text({ most: 400, title: "Order", width: 120 }),
    note,
  },
});
