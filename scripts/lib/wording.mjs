/** Looks for phrases that nobody says, in the texts of the program and in the docs for its users. */
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { ALLOWED, PHRASES } from "./phrases.mjs";
import { root } from "./setup.mjs";
import { sourceFiles, textsOf } from "./texts.mjs";

/** What users read; the other pages are for contributors. */
const PAGES = ["README.md", "docs/tables.md", "docs/notation.md", "docs/bundle.md"];
/** Where texts are names of the game, not words of the program. */
const NAMES = /^src\/demo\/|^src\/store\/(?:sql|tables|entities|difference)/;

/** @returns {{place: string, text: string, better: string}[]} */
export function badPhrases() {
  const texts = [
    ...sourceFiles("src")
      .filter((file) => !NAMES.test(file))
      .flatMap((file) =>
        textsOf(file).map(({ line, text }) => ({ place: `${file}:${line}`, text: withoutCode(text) })),
      ),
    ...PAGES.flatMap((page) =>
      readFileSync(join(root, page), "utf8")
        .split("\n")
        .map((line, k) => ({ place: `${page}:${k + 1}`, text: line.replace(/`[^`]*`/g, "") })),
    ),
  ];
  return texts.flatMap(({ place, text }) =>
    ALLOWED.some((allowed) => allowed.test(text))
      ? []
      : PHRASES.filter(([phrase]) => phrase.test(text)).map(([, better]) => ({ place, text, better })),
  );
}

/** What stands in braces is code. */
function withoutCode(text) {
  let rest = text;
  for (let before = ""; before !== rest; ) {
    before = rest;
    rest = rest.replace(/\{[^{}]*\}/g, "");
  }
  return rest.replace(/\$?\{[^{}]*$/, "");
}
