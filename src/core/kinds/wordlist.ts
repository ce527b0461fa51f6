/** A list of words for the names of a series. */
import { defineKind } from "../schema/kind";
import { words } from "../schema/words";
import { note } from "./shared";

export const wordlist = defineKind({
  name: "wordlist",
  section: "wordlists",
  help: "Words for the names of a series, such as Weather: {Weather} takes one word from it.",
  fields: { words: words(60, { width: 420 }), note },
});
