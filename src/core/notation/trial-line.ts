/**
 * A trial as lines, one step each: `use Tonic every 5m`, `wait 20m`, `expect Vigour >= 10 throughout`. What is written is
 * read back as the same; what can't be read is told with its line and place.
 */
import type { Surroundings } from "../schema/field";
import type { Id } from "../schema/id";
import type { LineIssue } from "./parsed";
import { form, part, type Piece, PieceReader, PieceWriter, Refused, trimmed } from "./pieces";

export interface StepParts {
  readonly does: { readonly is: string } & { readonly [name: string]: unknown };
  readonly holds: string | null;
  readonly refused: boolean;
}
type Does = StepParts["does"];

interface StepRule {
  readonly is: readonly string[];
  /** What it looks like, for whoever types one. */
  readonly such: string;
  readonly form: RegExp;
  read(
    r: PieceReader,
    piece: (group: number) => Piece,
    has: (group: number) => boolean,
  ): { readonly does: Does; readonly holds?: string | null };
  write(step: StepParts, w: PieceWriter): string;
}
const id = (does: Does, name: string): Id => does[name] as Id;
/** `within 1h`, `by 10m`: until when something may come to hold. */
const UNTIL = "(?: (within|by) (\\d\\S*))?";
const until = (r: PieceReader, word: Piece, time: Piece, has: boolean) => {
  return has ? { [word.text.toLowerCase()]: r.time(time) } : {};
};
const untilText = ({ within, by }: Does, w: PieceWriter): string =>
  within !== undefined ? ` within ${w.time(within as number)}` : by !== undefined ? ` by ${w.time(by as number)}` : "";

const as = (does: Does, w: PieceWriter): string => (does.use ? ` as ${w.name("use", id(does, "use"))}` : "");

/** `VERB 3 Name`; the number is 1 where it is not written. */
const counted = (is: string, verb: string, kind: string, member: string): StepRule => ({
  is: [is],
  such: `${verb} 3 …`,
  form: form(`${verb} (?:(\\d\\S*) )?(.+)`),
  read: (r, piece, has) => ({
    does: { is, [kind]: r.name(kind, piece(2)), [member]: has(1) ? r.number(piece(1)) : 1 },
  }),
  write: ({ does }, w) => `${verb} ${does[member] === 1 ? "" : `${does[member]} `}${w.name(kind, id(does, kind))}`,
});

/** `buy 3 Rope from Chandler`, `sell 3 Rope to Chandler`; without a shop it is the best one. */
const traded = (verb: "buy" | "sell", at: "from" | "to"): StepRule => ({
  is: [verb],
  such: `${verb} 3 Rope ${at} Chandler`,
  form: form(`${verb} (?:(\\d\\S*) )?(.+?)(?: ${at} (.+))?`),
  read: (r, piece, has) => ({
    does: {
      is: verb,
      item: r.name("item", piece(2)),
      amount: has(1) ? r.number(piece(1)) : 1,
      source: has(3) ? r.name("source", piece(3)) : null,
    },
  }),
  write: ({ does }, w) =>
    `${verb} ${does.amount === 1 ? "" : `${does.amount} `}${w.name("item", id(does, "item"))}${does.source ? ` ${at} ${w.name("source", id(does, "source"))}` : ""}`,
});

/** Every step, in the order in which its form is looked for. */
const STEPS: readonly StepRule[] = [
  {
    is: ["use every"],
    such: "use Tonic every 5m",
    form: form("use (.+?) every (\\d\\S*)(?: as (.+))?"),
    read: (r, piece, has) => ({
      does: {
        is: "use every",
        item: r.name("item", piece(1)),
        use: has(3) ? r.name("use", piece(3)) : null,
        every: r.time(piece(2)),
      },
    }),
    write: ({ does }, w) =>
      `use ${w.name("item", id(does, "item"))} every ${w.time(does.every as number)}${as(does, w)}`,
  },
  {
    is: ["use whenever"],
    such: "use Tonic whenever Vigour < 50",
    form: form("use (.+?) (?:whenever (.+?)|(as soon as ready))(?: as (.+))?"),
    read: (r, piece, has) => ({
      does: { is: "use whenever", item: r.name("item", piece(1)), use: has(4) ? r.name("use", piece(4)) : null },
      holds: has(2) ? r.formulaIn("bearer", piece(2)) : null,
    }),
    write: ({ does, holds }, w) =>
      `use ${w.name("item", id(does, "item"))} ${holds === null ? "as soon as ready" : `whenever ${w.formulaIn("bearer", holds)}`}${as(does, w)}`,
  },
  {
    is: ["use"],
    such: "use Tonic",
    form: form("use (?:(\\d+) )?(.+?)(?: as (.+))?"),
    read: (r, piece, has) => ({
      does: {
        is: "use",
        item: r.name("item", piece(2)),
        use: has(3) ? r.name("use", piece(3)) : null,
        times: has(1) ? r.whole(piece(1)) : 1,
      },
    }),
    write: ({ does }, w) =>
      `use ${does.times === 1 ? "" : `${does.times} `}${w.name("item", id(does, "item"))}${as(does, w)}`,
  },
  {
    is: ["wait"],
    such: "wait 20m",
    form: form("wait (\\d.*)"),
    read: (r, piece) => ({ does: { is: "wait", ticks: r.time(piece(1)) } }),
    write: ({ does }, w) => `wait ${w.time(does.ticks as number)}`,
  },
  {
    is: ["be"],
    such: "context Aboard",
    form: form("(?:no context|be (nowhere in particular)|(?:context|be) (.+))"),
    read: (r, piece, has) => ({ does: { is: "be", situation: has(2) ? r.name("situation", piece(2)) : null } }),
    write: ({ does }, w) =>
      does.situation === null ? "no context" : `context ${w.name("situation", id(does, "situation"))}`,
  },
  {
    is: ["stop"],
    such: "stop Tonic",
    form: form("stop (.+)"),
    read: (r, piece) => ({ does: { is: "stop", item: r.name("item", piece(1)) } }),
    write: ({ does }, w) => `stop ${w.name("item", id(does, "item"))}`,
  },
  {
    is: ["harm"],
    such: "damage Vigour 2 per second",
    form: form("(?:damage|harm) (.+?) ([-−]?\\d\\S*)(?: (?:per|a) second)?"),
    read: (r, piece) => ({ does: { is: "harm", resource: r.name("resource", piece(1)), amount: r.number(piece(2)) } }),
    write: ({ does }, w) => `damage ${w.name("resource", id(does, "resource"))} ${does.amount} per second`,
  },
  {
    is: ["wear"],
    such: "wear Oilskin coat",
    form: form("wear (.+)"),
    read: (r, piece) => ({ does: { is: "wear", item: r.name("item", piece(1)) } }),
    write: ({ does }, w) => `wear ${w.name("item", id(does, "item"))}`,
  },
  {
    is: ["take off"],
    such: "take off Oilskin coat",
    form: form("take off (.+)"),
    read: (r, piece) => ({ does: { is: "take off", item: r.name("item", piece(1)) } }),
    write: ({ does }, w) => `take off ${w.name("item", id(does, "item"))}`,
  },
  counted("get", "get", "item", "amount"),
  counted("drop", "drop", "item", "amount"),
  {
    is: ["make", "make item"],
    such: "make 3 Tonic",
    form: form("make (?:(\\d\\S*) )?(.+)"),
    // Where no recipe has that name, one that makes the item of that name is looked for.
    read(r, piece, has) {
      const item = r.find("recipe", piece(2)) ? null : r.find("item", piece(2));
      const amount = has(1) ? r.number(piece(1)) : 1;
      return {
        does: item
          ? { is: "make item", item, amount }
          : { is: "make", recipe: r.name("recipe", piece(2)), times: amount },
      };
    },
    write: ({ does }, w) => {
      const [n, kind] = does.is === "make" ? [does.times, "recipe"] : [does.amount, "item"];
      return `make ${n === 1 ? "" : `${n} `}${w.name(kind as string, id(does, kind as string))}`;
    },
  },
  traded("buy", "from"),
  traded("sell", "to"),
  counted("split", "split", "item", "amount"),
  {
    is: ["merge"],
    such: "merge Rope",
    form: form("merge (.+)"),
    read: (r, piece) => ({ does: { is: "merge", item: r.name("item", piece(1)) } }),
    write: ({ does }, w) => `merge ${w.name("item", id(does, "item"))}`,
  },
  counted("run", "run", "source", "times"),
  {
    is: ["swap"],
    such: "swap 1 and 3",
    form: form("swap (\\d+) and (\\d+)"),
    read: (r, piece) => ({ does: { is: "swap", one: r.whole(piece(1)), other: r.whole(piece(2)) } }),
    write: ({ does }) => `swap ${does.one} and ${does.other}`,
  },
  {
    is: ["move"],
    such: "move 1 to slot 5",
    form: form("move (\\d+) to slot (\\d+)"),
    read: (r, piece) => ({ does: { is: "move", one: r.whole(piece(1)), slot: r.whole(piece(2)) } }),
    write: ({ does }) => `move ${does.one} to slot ${does.slot}`,
  },
  {
    is: ["unload"],
    such: "unload",
    form: form("unload"),
    read: () => ({ does: { is: "unload" } }),
    write: () => "unload",
  },
  {
    is: ["expect item"],
    such: "expect to have 3 Rope",
    form: form(`expect to have (?:(\\d\\S*) )?(.+?)(?: (in the bag|stored|anywhere))?${UNTIL}`),
    read: (r, piece, has) => ({
      does: {
        is: "expect item",
        item: r.name("item", piece(2)),
        amount: has(1) ? r.number(piece(1)) : 1,
        where: has(3) ? piece(3).text.toLowerCase() : "in the bag",
        ...until(r, piece(4), piece(5), has(5)),
      },
    }),
    write: ({ does }, w) =>
      `expect to have ${does.amount === 1 ? "" : `${does.amount} `}${w.name("item", id(does, "item"))}${does.where === "in the bag" ? "" : ` ${does.where}`}${untilText(does, w)}`,
  },
  {
    is: ["expect condition"],
    such: "expect the condition Warm",
    form: form(`expect (?:the|(no)) condition (.+?)${UNTIL}`),
    read: (r, piece, has) => ({
      does: {
        is: "expect condition",
        condition: r.name("condition", piece(2)),
        absent: has(1),
        ...until(r, piece(3), piece(4), has(4)),
      },
    }),
    write: ({ does }, w) =>
      `expect ${does.absent ? "no" : "the"} condition ${w.name("condition", id(does, "condition"))}${untilText(does, w)}`,
  },
  {
    is: ["expect"],
    such: "expect Vigour >= 10 within 5m",
    form: form(`expect (.+?)${UNTIL}( throughout)?`),
    read: (r, piece, has) => ({
      does: { is: "expect", when: has(4) ? "throughout" : "now", ...until(r, piece(2), piece(3), has(3)) },
      holds: r.formulaIn("bearer", piece(1)),
    }),
    write: ({ does, holds }, w) =>
      `expect ${holds === null ? "1" : w.formulaIn("bearer", holds)}${untilText(does, w)}${does.when === "throughout" ? " throughout" : ""}`,
  },
];
const BY_SORT = new Map(STEPS.flatMap((rule) => rule.is.map((is) => [is, rule] as const)));

const LONGEST_LINE = 700;
/** Most lines of one trial, empty ones and comments among them. */
const MOST_LINES = 1000;

/** What is wrong stands with the places within the whole text. */
export interface ParsedTrial {
  readonly steps: readonly StepParts[] | null;
  readonly issues: readonly LineIssue[];
}

export function parseSteps(text: string, around: Surroundings): ParsedTrial {
  const r = new PieceReader(around, () => null);
  const steps: StepParts[] = [];
  let from = 0;
  const lines = text.split("\n");
  if (lines.length > MOST_LINES)
    r.tell(`${lines.length} lines; the maximum for a trial is ${MOST_LINES}.`, { text, from: 0 });
  for (const line of lines.slice(0, MOST_LINES)) {
    const at = trimmed({ text: line, from });
    from += line.length + 1;
    if (!at.text || at.text.startsWith("//")) continue;
    try {
      steps.push(readStep(r, at));
    } catch (thrown) {
      if (!(thrown instanceof Refused)) throw thrown;
      r.tell(thrown.message, thrown.at, thrown.suggestions);
    }
  }
  return { steps: r.issues.some((i) => i.severity === "error") ? null : steps, issues: r.issues };
}

function readStep(r: PieceReader, line: Piece): StepParts {
  if (line.text.length > LONGEST_LINE) throw new Refused(`A step has at most ${LONGEST_LINE} characters.`, line);
  const refused = /^refused:\s*(.+)$/dis.exec(line.text);
  const at = refused ? part(line, refused, 1) : line;
  for (const rule of STEPS) {
    const match = rule.form.exec(at.text);
    if (!match) continue;
    const { does, holds = null } = rule.read(
      r,
      (k) => part(at, match, k),
      (k) => match[k] !== undefined,
    );
    return { does, holds, refused: refused !== null };
  }
  const verb = at.text.split(/\s/)[0].toLowerCase();
  const same = STEPS.filter(({ such }) => such.startsWith(verb));
  const such = (same.length ? same : STEPS).map((rule) => rule.such);
  throw new Refused(`“${at.text}” isn't a step. Examples: ${such.join("; ")}.`, at, same.length ? such : []);
}

export function formatStep(step: StepParts, around: Surroundings): string {
  const text = BY_SORT.get(step.does.is)?.write(step, new PieceWriter(around)) ?? step.does.is;
  return step.refused ? `refused: ${text}` : text;
}
export const formatSteps = (steps: readonly StepParts[], around: Surroundings): string =>
  steps.map((step) => formatStep(step, around)).join("\n");
