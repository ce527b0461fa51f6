/** Entries of a line: quantity, name, chance, wear; and draws among them. */
import { exactNumber } from "../numbers/decimal";
import { add, compare, fromNumber, fromPercent, sign, toNumber, toPercent, ZERO } from "../numbers/fraction";
import type { Id } from "../schema/id";
import { LEAST, MOST, MOST_CHANCE, MOST_TIMES } from "../schema/limits";
import { nearest } from "../schema/names";
import { BEHIND } from "./keywords";
import { quote } from "./book";
import { isKeyword, type Token } from "./lexer";
import { type Bonus, isWeight } from "./line";
import { knownFrom, longestKnown, readAny, readName } from "./names-in-line";
import type { LineReader } from "./reader";
import { type Role, ROLE_TABLE, type RoleRule, roleRule } from "./roles";

const ENDS: ReadonlySet<Token["kind"]> = new Set(["plus", "comma", "arrow", "bar", "close", "opengrid", "closegrid"]);
const AMOUNTS: ReadonlySet<Token["kind"]> = new Set(["number", "range", "times"]);

/** A plus, or the comma of those who write lists with commas, before another entry. */
export function joins(r: LineReader): boolean {
  const { kind } = r.peek() ?? {};
  const next = r.tokens[r.at + 1];
  const ends = !next || next.kind === "arrow" || isKeyword(next);
  if (kind !== "plus" && (kind !== "comma" || ends)) return false;
  r.at++;
  return true;
}

/** Entries of one role joined by "+", behind its word. */
export function readMembers(r: LineReader, role: RoleRule): void {
  const token = r.here();
  const after = r.tokens[r.at + 1];
  if (r.word("nothing")) {
    if (!after || ENDS.has(after.kind) || isKeyword(after)) {
      const message = r.variant
        ? "A variant can't drop what its recipe needs. Write the recipe without it and add it in a variant."
        : "If nothing is needed, leave it out.";
      r.report("error", token, message);
      return;
    }
    r.at--;
  }
  for (;;) {
    readEntry(r, role, role.wanted);
    if (!joins(r)) return;
  }
}

/** Entries joined by "+" on one side of the arrow, up to an arrow, a keyword or the end. */
export function readSide(r: LineReader, side: "before" | "behind", wanted?: string): void {
  const role = ROLE_TABLE.find((each) => each.stands === side) as RoleRule;
  const token = r.peek();
  const after = r.tokens[r.at + 1];
  if (
    token?.kind === "word" &&
    token.text.toLowerCase() === "nothing" &&
    (!after || after.kind === "arrow" || isKeyword(after))
  ) {
    r.at++;
    return;
  }
  for (;;) {
    if (!readDraw(r, role) && !readTable(r, role)) readEntry(r, role, wanted ?? role.wanted);
    const last = r.entries[r.entries.length - 1];
    if (side === "before" && last?.role === "tool")
      r.report("note", last.span, `${last.name} is kept, so it is read as a tool: using ${last.name}.`);
    if (!joins(r)) break;
  }
  r.skipTo(side === "before" ? "Expected + or ->" : `Expected +, ${BEHIND}`);
}

/** `3 draws { 5: 2 Rope | 1: nothing }`; false where none begins here. */
function readDraw(r: LineReader, role: RoleRule): boolean {
  const counted = r.peek()?.kind === "number";
  const word = r.tokens[r.at + (counted ? 1 : 0)];
  if (word?.kind !== "word" || !/^draws?$/i.test(word.text) || r.tokens[r.at + (counted ? 2 : 1)]?.kind !== "open")
    return false;
  const start = r.peek() as Token;
  const times = counted ? Number(start.text) : 1;
  if (!Number.isInteger(times) || times < 1 || times > MOST_TIMES)
    r.report("error", start, "Expected the number of draws: a whole number from 1 to 1000.", ["1"]);
  r.at += counted ? 3 : 2;
  const group = ++r.draws;
  const first = r.entries.length;
  let of = ZERO;
  let nothing = ZERO;
  for (;;) {
    const weight = readWeight(r);
    of = add(of, fromNumber(weight));
    const token = r.peek();
    const after = r.tokens[r.at + 1];
    if (
      token?.kind === "word" &&
      token.text.toLowerCase() === "nothing" &&
      (!after || after.kind === "bar" || after.kind === "close")
    ) {
      r.at++;
      nothing = add(nothing, fromNumber(weight));
    } else {
      const before = r.entries.length;
      readEntry(r, role, "what can be drawn, or nothing");
      const entry = r.entries[before];
      if (entry && (entry.chance !== 1 || entry.bonus))
        r.report("error", entry.span, "Drawn entries have a weight, not a chance. Change the weight.", []);
      if (entry) {
        const { bonus: _, ...drawn } = entry;
        r.entries[before] = { ...drawn, draw: { group, times, weight, of: 0 } };
      }
    }
    if (r.peek()?.kind !== "bar") break;
    r.at++;
  }
  if (r.peek()?.kind === "close") r.at++;
  else r.report("error", r.here(), "Expected | and the next alternative, or } to end the draw.", ["}"]);
  const span = { from: start.from, to: r.tokens[r.at - 1].to };
  if (!role.draws) r.report("error", span, "Only outputs can be drawn.", []);
  if (compare(nothing, fromNumber(1e6)) > 0)
    r.report("error", span, "The weights of nothing can add up to at most 1000000.", []);
  if (sign(of) <= 0) r.report("error", span, "A draw needs a weight above 0.", []);
  if (r.entries.length === first && !r.failed()) r.report("error", span, "A draw needs at least one entry.", []);
  for (let k = first; k < r.entries.length; k++) {
    const { draw } = r.entries[k];
    if (draw) r.entries[k] = { ...r.entries[k], draw: { ...draw, of: toNumber(of) } };
  }
  return true;
}

/** `2 table Wreck finds`; false where none begins here. An item may be called "Table cloth": the longer name counts. */
function readTable(r: LineReader, role: RoleRule): boolean {
  const from = r.at;
  const start = r.here();
  const counted = r.peek()?.kind === "number";
  if (counted) r.at++;
  const word = r.peek();
  const isTable = word?.kind === "word" && word.text.toLowerCase() === "table";
  const item = isTable ? longestKnown(r) : null;
  r.at++;
  const next = r.peek();
  const quoted = next?.kind === "quoted" ? r.words.tables.find(next.text) : null;
  const known = !isTable
    ? null
    : quoted
      ? quoted.found === "one"
        ? { count: 1, id: quoted.id, name: quoted.name }
        : null
      : longestKnown(r, r.words.tables);
  const length = known ? known.count + 1 : 0;
  // Without a table of that name it may be an item that is new, where there are no tables at all.
  const alone = !next || (next.kind !== "word" && next.kind !== "quoted") || isKeyword(next);
  const isItem = item !== null && item.count > length && (item.count > 1 || alone);
  if (!isTable || isItem || (!known && (!r.words.tables.size || !role.draws))) {
    r.at = from;
    return false;
  }
  if (!known) {
    const names = [...r.words.tables.names()].slice(0, 4);
    r.report("error", next ?? r.here(), `Expected the name of a drop table. There are: ${names.join(", ")}.`, names);
    if (next && (next.kind === "word" || next.kind === "quoted") && !isKeyword(next)) r.at++;
    return true;
  }
  r.take(known.count);
  const span = { from: start.from, to: r.tokens[r.at - 1].to };
  if (item?.count === length)
    r.report(
      "error",
      span,
      `“${item.name}” is an item, and “${known.name}” is a drop table. Put the item in quotes, or enter the key of the table.`,
      [quote(item.name), `table ${r.words.tables.keyOf(known.id)}`],
    );
  const times = counted ? Number(r.tokens[from].text) : 1;
  if (!Number.isInteger(times) || times < 1 || times > MOST_TIMES)
    r.report("error", r.tokens[from], "Expected the number of draws from the table: a whole number from 1 to 1000.", [
      "1",
    ]);
  if (!role.draws) r.report("error", span, "Only outputs can be drawn from a table.");
  r.tables.push({ table: known.id, times });
  return true;
}

function readWeight(r: LineReader): number {
  const token = r.peek();
  if (token?.kind === "number" && r.tokens[r.at + 1]?.kind === "colon") {
    r.at += 2;
    const weight = exactNumber(token.text);
    if (isWeight(weight)) return weight;
    r.report("error", token, "A weight is at most 1000000, with at most six decimal places.", []);
    return 0;
  }
  r.report("error", token ?? r.here(), "Expected a weight and a colon, such as 5:", ["1:"]);
  return 0;
}

export function readEntry(r: LineReader, role: RoleRule, wanted: string): void {
  const start = r.peek();
  if (!start || start.kind === "plus" || ENDS.has(start.kind) || start.kind === "colon") {
    r.report("error", r.here(), `Expected ${wanted}.`, []);
    return;
  }
  const given = r.at;
  let [min, max] = readQuantity(r);
  const counted = r.at > given;
  const at = r.here();
  const any = readAny(r);
  const name = any === undefined ? readName(r, wanted) : any;
  if (!name) return;
  if (any && !role.any)
    r.report(
      "error",
      { from: at.from, to: r.tokens[r.at - 1].to },
      "Only inputs can be any item with a tag. Name the output.",
      [],
    );
  // "Rope x5"
  const behind = r.peek();
  if (behind?.kind === "times") {
    if (counted) r.report("error", behind, "The amount appears twice. Keep one.", [""]);
    r.at++;
    [min, max] = amountOf(r, behind);
  }
  let chance = 1;
  let uses: number | null = null;
  const next = r.peek();
  if (next?.kind === "percent") {
    r.at++;
    const percent = exactNumber(next.text.slice(0, -1));
    if (percent === null || percent > MOST_CHANCE * 100)
      r.report(
        "error",
        next,
        `A chance is at most 100%, such as 40%. Values above ${MOST_CHANCE * 100}% or with more than 15 digits can't be stored.`,
        ["100%"],
      );
    else chance = fromPercent(percent);
    if (chance > 0 && chance < LEAST) r.report("error", next, "This chance is too small.", []);
    if (!role.chance) r.report("error", next, `A ${role.name} can't have a chance. Remove it.`, [""]);
    else if (chance > 1 || (chance === 0 && !bonusAt(r)))
      r.report("warning", next, `A chance is above 0% and at most 100%. A check will report ${next.text}.`, []);
  }
  const bonus = readBonus(r, role, chance, next?.kind === "percent");
  let [kept, whole] = [false, false];
  for (let word = r.peek(); word; word = r.peek()) {
    if (r.word("kept")) {
      if (role.name === "ingredient" && chance === 1) kept = true;
      else r.report("error", word, "Only certain inputs can be kept.", [""]);
    } else if (r.word("whole")) {
      if (role.emptied && !any) whole = true;
      else r.report("error", word, "Only a named ingredient can be taken whole, with its container.", [""]);
    } else if (r.word("lasting")) uses = readUses(r, kept ? roleRule("tool") : role);
    else break;
  }
  if (kept && whole) {
    r.report(
      "error",
      { from: start.from, to: r.tokens[r.at - 1].to },
      "Kept inputs aren't taken, so leave out “whole”.",
    );
    whole = false;
  }
  r.entries.push({
    role: kept ? "tool" : (role.name as Role),
    ...(bonus ? { bonus } : {}),
    ...(whole ? { whole } : {}),
    name: name.name,
    ...(any ? { item: null, any: name.id } : { item: name.id }),
    min,
    max,
    chance,
    uses,
    span: { from: start.from, to: r.tokens[r.at - 1].to },
  });
}

/** Whether "plus 2% per" stands here, or "minus", or a sign. @returns how many tokens make the sign and the share */
function bonusAt(r: LineReader): { readonly count: number; readonly percent: string; readonly meant: boolean } | null {
  const [sign, share] = [r.tokens[r.at], r.tokens[r.at + 1]];
  if (sign?.kind === "percent" && /^[-+−]/.test(sign.text)) return { count: 1, percent: sign.text, meant: true };
  if (share?.kind !== "percent") return null;
  const word = sign.text.toLowerCase();
  const per = r.tokens[r.at + 2];
  if (sign.kind === "word" && (word === "plus" || word === "minus" || /^[-−]$/.test(word)))
    return { count: 2, percent: `${word === "plus" ? "" : "-"}${share.text}`, meant: word.length === 1 };
  return sign.kind === "plus" && per?.kind === "word" && per.text.toLowerCase() === "per"
    ? { count: 2, percent: share.text, meant: true }
    : null;
}

/** `plus 2% per Deftness`: how much surer each point of the maker's stat makes it. */
function readBonus(r: LineReader, role: RoleRule, chance: number, hasChance: boolean): Bonus | null {
  const start = r.here();
  const found = bonusAt(r);
  if (!found) {
    if (r.peek()?.kind !== "word" || r.peek()?.text.toLowerCase() !== "per" || !hasChance) return null;
    r.at++;
    r.report("error", start, "“per” follows a chance and what each point adds: 5% plus 2% per Deftness.");
    r.skipTo(null);
    return null;
  }
  r.at += found.count;
  const percent = exactNumber(found.percent.replace(/^[-+−]|%$/g, "").replace("%", ""));
  const share = percent === null ? 0 : fromPercent(percent) * (/^[-−]/.test(found.percent) ? -1 : 1);
  const span = { from: start.from, to: r.tokens[r.at - 1].to };
  if (!(Math.abs(share) >= LEAST && Math.abs(share) <= 1))
    r.report("error", span, "Each point of a stat can add more than 0% and at most 100%, such as plus 2%.", [
      "plus 2%",
    ]);
  if (!r.word("per")) {
    r.report("error", r.here(), "Expected “per” and a stat, such as plus 2% per Deftness.", ["per"]);
    return null;
  }
  const stat = readStat(r);
  if (stat && found.meant)
    r.report("note", span, `This is read as ${share < 0 ? "minus" : "plus"} ${Math.abs(toPercent(share))}%.`);
  if (!role.bonus) r.report("error", span, "Only outputs can depend on a stat of the maker. Remove it.", [""]);
  if (stat && share > 0 && chance >= 1)
    r.report(
      "warning",
      span,
      "It always happens, so a stat can't raise it. Enter the chance without the stat, such as 5% plus 2%.",
    );
  return stat && { share, stat };
}

function readStat(r: LineReader): Id | null {
  const token = r.peek();
  const known = longestKnown(r, r.words.stats);
  if (known) {
    r.take(known.count);
    return known.id;
  }
  const quoted = token?.kind === "quoted" ? r.words.stats.find(token.text) : null;
  if (quoted?.found === "one") {
    r.at++;
    return quoted.id;
  }
  const names = [...r.words.stats.names()].slice(0, 8);
  const typed = token?.kind === "word" || token?.kind === "quoted" ? token.text : "";
  r.report(
    "error",
    token ?? r.here(),
    `Expected a stat after “per”. There ${names.length ? `are: ${names.join(", ")}` : "are none yet: create one in Setup"}.`,
    [...new Set(nearest(typed, names).concat(names))].slice(0, 3),
  );
  if (typed && token && !isKeyword(token)) r.at++;
  return null;
}

function readQuantity(r: LineReader): [number, number] {
  const token = r.peek();
  if (!token || !AMOUNTS.has(token.kind)) return [1, 1];
  const after = r.tokens[r.at + 1];
  if (!after || ENDS.has(after.kind)) return [1, 1];
  const known = longestKnown(r);
  if (known && (known.count > 1 || token.kind === "times") && !knownFrom(r, r.at + 1)) return [1, 1];
  r.at++;
  return amountOf(r, token);
}

function amountOf(r: LineReader, token: Token): [number, number] {
  const [min, max = min] = token.text.split("..").map(exactNumber);
  if (min === null || max === null || min > MOST || max > MOST) {
    r.report("error", token, `A quantity is at most ${MOST}, with at most 15 digits.`, []);
    return [1, 1];
  }
  if ([min, max].some((n) => n > 0 && n < LEAST))
    r.report("error", token, `This is too small. Use 0, or at least ${LEAST.toFixed(9)}.`, []);
  if (min > max)
    r.report("warning", token, `The range is reversed and will be reported by a check. Use ${max}..${min}.`, [
      `${max}..${min}`,
    ]);
  else if (max === 0)
    r.report("warning", token, "A quantity of 0 does nothing and will be reported by a check.", ["1"]);
  return [min, max];
}

function readUses(r: LineReader, role: RoleRule): number | null {
  const token = r.peek();
  const value = Number(token?.text);
  if (token?.kind !== "number" || !Number.isInteger(value) || value < 1 || value > MOST) {
    r.report("error", token ?? r.here(), "Expected the number of runs the tool lasts, such as lasting 50.", ["50"]);
    if (token && (token.kind === "word" || token.kind === "number") && !isKeyword(token)) r.at++;
    return null;
  }
  r.at++;
  if (!r.word("uses")) r.word("runs");
  if (role.wears) return value;
  r.report("error", token, "Only a tool (after “using”) wears out.", []);
  return null;
}
