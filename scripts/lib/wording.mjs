/** Looks for phrases that no one says, in the texts of the program and in the docs for its users. */
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { ALLOWED, IN_COMMENTS, PHRASES } from "./phrases.mjs";
import { root } from "./setup.mjs";
import { sourceFiles, textsOf } from "./texts.mjs";

/** Pages of users and contributors. Words, dependencies and performance are lists. */
const PAGES = [
  "README.md",
  ...["architecture", "bundle", "formulas", "mathematics", "notation", "security", "tables"].map(
    (page) => `docs/${page}.md`,
  ),
];
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
  const found = (all, phrases) =>
    all.flatMap(({ place, text }) =>
      ALLOWED.some((allowed) => allowed.test(text))
        ? []
        : phrases.filter(([phrase]) => phrase.test(text)).map(([, better]) => ({ place, text, better })),
    );
  return [...found(texts, PHRASES), ...found(comments(), IN_COMMENTS)];
}

/** Lines of comments, and the names of tests. */
function comments() {
  return ["src", "e2e", "bench", "fuzz"].flatMap((folder) =>
    sourceFiles(folder, true)
      .filter((file) => !NAMES.test(file))
      .flatMap((file) =>
        readFileSync(join(root, file), "utf8")
          .split("\n")
          .map((text, k) => ({ place: `${file}:${k + 1}`, text }))
          .filter(({ text }) => /^\s*(?:\/\*|\*|\/\/)|^\s*(?:it|test|describe)\(/.test(text)),
      ),
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
