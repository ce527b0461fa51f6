/** Reads a recipe line. Always returns everything it could make out, with a remark for whatever it could not. */
import { textProblem } from "../schema/characters";
import { LONGEST_NAME, MOST_LINES } from "../schema/limits";
import { CLAUSES, NOTHING_SAID, type Said } from "./clauses";
import { readMembers, readSide } from "./entries";
import { BEHIND, CLAUSE_WORDS } from "./keywords";
import type { ParsedLine, Words } from "./parsed";
import { LineReader } from "./reader";
import { ROLE_TABLE } from "./roles";

/**
 * Never throws; a line that can't be written has a remark of level "error" with its position. What it accepts, the
 * rules accept.
 */
export function parseLine(text: string, words: Words): ParsedLine {
  const r = new LineReader(text, words);
  const label = readLabel(r);
  const kind = readKind(r);
  readSide(r, "before", kind === "salvage" ? "what is salvaged" : undefined);
  if (r.peek()?.kind === "arrow") {
    r.at++;
    readSide(r, "behind");
  } else r.report("error", r.here(), "Expected -> and what comes out.", ["->"]);
  const said = readClauses(r);
  if (kind === "salvage" && !r.entries.some((e) => e.role === "ingredient") && !r.failed())
    r.report("error", r.here(), "Salvage needs the item it takes apart.", []);
  if (r.entries.length > MOST_LINES)
    r.report(
      "error",
      r.entries[MOST_LINES].span,
      `${r.entries.length} entries; at most ${MOST_LINES} fit in a recipe.`,
      [],
    );
  r.sayMeant();
  const issues = r.issues.sort((a, b) => a.from - b.from);
  return { kind, label, entries: r.entries, ...said, issues, ok: !r.failed() };
}

function readLabel(r: LineReader): string | null {
  const arrow = r.tokens.findIndex((t) => t.kind === "arrow");
  const colon = r.tokens.findIndex((t) => t.kind === "colon" || t.kind === "open");
  if (colon < 0 || r.tokens[colon].kind === "open" || (arrow >= 0 && colon > arrow)) return null;
  const parts = r.tokens.slice(0, colon);
  r.take(colon);
  r.at++;
  if (parts.length === 0) {
    r.report("error", r.tokens[colon], "Expected the recipe's name before the colon.", []);
    return null;
  }
  const span = { from: parts[0].from, to: parts[parts.length - 1].to };
  const quoted = parts.length === 1 && parts[0].kind === "quoted";
  const label = quoted ? parts[0].text.trim() : r.text.slice(span.from, span.to).replace(/\s+/g, " ");
  const says = label ? textProblem(label, { max: LONGEST_NAME, name: true }) : "A name is needed before the colon.";
  if (says) r.report("error", span, says, []);
  // An entry before a colon is more likely a slip than a name.
  else if (!quoted && (parts[0].kind !== "word" || parts.some((t) => t.kind !== "word" && t.kind !== "number")))
    r.report(
      "error",
      span,
      "Before the colon stands the recipe's name. If this is one, put it in quotes; if not, take the colon out.",
      [`"${label.replace(/["\\]/g, "\\$&")}"`],
    );
  return label;
}

function readKind(r: LineReader): "craft" | "salvage" {
  const token = r.peek();
  const word = token?.kind === "word" ? token.text.toLowerCase() : "";
  if (word !== "salvage" && word !== "craft") return "craft";
  r.at++;
  return word;
}

/** What stands behind the outputs: roles with a word of their own, and clauses. */
function readClauses(r: LineReader): Said {
  const said = { ...NOTHING_SAID };
  const given = new Set<string>();
  for (let token = r.peek(); token; token = r.peek()) {
    const role = ROLE_TABLE.find(({ stands }) => typeof stands === "object" && r.word(stands.word));
    const word = role ? undefined : CLAUSE_WORDS.find((each) => r.word(each));
    if (role) readMembers(r, role);
    else if (word) {
      const clause = CLAUSES[word];
      if (given.has(word)) r.report("error", token, `${clause.what} is given twice. Keep one.`, []);
      const read = clause.read(r, token);
      if (read) given.add(word);
      Object.assign(said, read);
    } else if (token.kind === "arrow") {
      r.report("error", token, "A second ->. A line has one; write a line for each recipe.", []);
      r.at++;
      r.skipTo(null);
    } else if (r.word("lasting"))
      r.report("error", token, "Only a tool can be “lasting”: write it right behind the tool's name.", []);
    else r.skipTo(`Expected ${BEHIND}`);
  }
  return said;
}
