/** Words that names are put together from. */
import { defineKind } from "../schema/kind";
import { words } from "../schema/words";
import { note } from "./shared";

export const wordlist = defineKind({
  name: "wordlist",
  plural: "word lists",
  section: "wordlists",
  help: "Words that names of a series are put together from: {Weather} takes one of the list called Weather.",
  fields: { words: words(60, { width: 420 }), note },
});
