/** What formulas may name, by where they stand: "user Grip", "item Vigour", "most Stamina", "level". */
import type { Names, Surroundings } from "../schema/field";
import type { Id } from "../schema/id";
import type { Lexicon } from "./formula";
import { COUNT, readUnit, type Unit } from "./units";

interface Scoped {
  /** Characters, as they are named before what they have; "" where there is but one. */
  readonly who: readonly string[];
  /** What of a character may be named; its level always. */
  readonly of: readonly ("stat" | "resource" | "most")[];
  /** Whether an item is at hand, with its stats, fields, level, mass and prices. */
  readonly item: boolean;
}
export const SCOPES = {
  /** What a use does: who uses it, whom it acts on, the item. */
  use: { who: ["user", "target"], of: ["stat", "resource", "most"], item: true },
  /** What a condition does to whoever has it. */
  bearer: { who: [""], of: ["stat", "resource", "most"], item: false },
  /** The most and the start of a resource. */
  stats: { who: [""], of: ["stat"], item: false },
  /** What comes back of it in a second. */
  recovery: { who: [""], of: ["stat", "most"], item: false },
  /** A stat of a subject. */
  level: { who: [""], of: [], item: false },
} as const satisfies { readonly [scope: string]: Scoped };
export type Scope = keyof typeof SCOPES;

/** Kinds of records that formulas name. */
export const NAMED_KINDS = ["stat", "resource", "field", "constant"] as const;
type NamedKind = (typeof NAMED_KINDS)[number];
/** What an item has besides, with its unit. */
const OF_ITEM: { readonly [name: string]: string } = {
  level: "",
  mass: "kg",
  "buy price": "value",
  "sell price": "value",
};

/** A name taken apart. */
export interface Variable {
  readonly who: string;
  readonly most: boolean;
  /** null: what the character or item has without a record, by its name. */
  readonly kind: NamedKind | null;
  readonly id: Id | null;
  readonly plain: string;
}
const WRITTEN =
  /^(?:(user|target|item) )?(?:(most) )?(?:(stat|resource|field|constant):([0-9a-z]{12})|(level|mass|buy price|sell price))$/;

/** From the name of a formula as it is kept; null where it is none. */
export function variableOf(token: string): Variable | null {
  const match = WRITTEN.exec(token);
  if (!match) return null;
  const [, who = "", most, kind, id, plain = ""] = match;
  return { who, most: most !== undefined, kind: (kind as NamedKind) ?? null, id: (id as Id) ?? null, plain };
}
const joined = (...words: readonly (string | false)[]): string => words.filter(Boolean).join(" ");

/** Whether a name may stand in a scope at all. */
export function allowed(scope: Scope, { who, most, kind, plain }: Variable): boolean {
  const { who: all, of, item }: Scoped = SCOPES[scope];
  if (kind === "constant") return who === "" && !most;
  if (who === "item" || (kind === "field" && item)) return item && !most && kind !== "resource" && who === "item";
  if (!all.includes(who) || kind === "field") return false;
  if (kind === null) return plain === "level" && !most;
  if (kind === "stat") return !most && of.includes("stat");
  return of.includes(most ? "most" : "resource");
}

/** The names of texts as they are kept. */
export const keptNames = (scope: Scope): Lexicon => ({
  find(token) {
    const variable = variableOf(token);
    return variable && allowed(scope, variable) ? { name: token } : null;
  },
  near: () => [],
});

const NUMERIC = ["whole", "decimal", "percent", "duration"];
interface FieldLike {
  readonly of: string;
  readonly form: string;
  readonly unit: string;
}
const isUsable = (around: Surroundings, kind: NamedKind, id: Id): boolean => {
  if (kind !== "field") return true;
  const field = around.record("field", id) as FieldLike | undefined;
  return field?.of === "item" && NUMERIC.includes(field.form);
};

/** The names that people type, in a scope. */
export function typedNames(scope: Scope, around: Surroundings): Lexicon {
  const { who: all, item }: Scoped = SCOPES[scope];
  const whos = [...all, ...(item ? ["item"] : []), ""];
  const found = (typed: string): string[] => {
    const tokens = new Set<string>();
    const words = typed.trim().split(/\s+/);
    const first = words[0].toLowerCase();
    const readings: [string[], readonly string[]][] = [[words, whos]];
    if (first !== "" && whos.includes(first)) readings.push([words.slice(1), [first]]);
    for (const [rest, who] of readings) {
      look(rest, who, false);
      if (rest[0]?.toLowerCase() === "most") look(rest.slice(1), who, true);
    }
    return [...tokens];

    function look(rest: readonly string[], who: readonly string[], most: boolean): void {
      const name = rest.join(" ");
      const put = (kind: NamedKind | null, id: Id | null, plain: string) => {
        for (const each of who) {
          const variable = { who: each, most, kind, id, plain };
          if (allowed(scope, variable)) tokens.add(joined(each, most && "most", kind ? `${kind}:${id}` : plain));
        }
      };
      const plain = Object.keys(OF_ITEM).find((each) => each === name.toLowerCase());
      if (plain) put(null, null, plain);
      for (const kind of NAMED_KINDS) {
        const names = around.names(kind);
        const said = rest[0]?.toLowerCase() === kind ? [name, rest.slice(1).join(" ")] : [name];
        for (const id of said.flatMap((each) => idsOf(names, each))) if (isUsable(around, kind, id)) put(kind, id, "");
      }
    }
  };
  return {
    find(typed) {
      const tokens = found(typed);
      if (!tokens.length) return null;
      return tokens.length === 1
        ? { name: tokens[0] }
        : { several: tokens.map((token) => nameOfVariable(token, around, found)) };
    },
    near(typed) {
      const words = typed.trim().split(/\s+/);
      const [who, rest] =
        words.length > 1 && whos.includes(words[0].toLowerCase()) ? [words[0], words.slice(1)] : ["", words];
      const kinds = NAMED_KINDS.filter((kind) =>
        whos.some((w) => allowed(scope, { who: w, most: false, kind, id: null, plain: "" })),
      );
      return kinds
        .flatMap((kind) => around.names(kind).near(rest.join(" ")))
        .map((name) => joined(who, name))
        .slice(0, 3);
    },
  };
}
function idsOf(names: Names, typed: string): Id[] {
  if (!typed) return [];
  const found = names.find(typed);
  return found.found === "one" ? [found.id] : [];
}

/** A name as people type it: as short as it is clear. */
function nameOfVariable(token: string, around: Surroundings, found: (typed: string) => string[]): string {
  const variable = variableOf(token);
  if (!variable) return token;
  const { who, most, kind, id, plain } = variable;
  const names = kind && around.names(kind);
  const called = names && id ? [around.nameOf(kind, id), names.keyOf(id)] : [plain];
  const prefix = [who, most && "most"];
  const candidates = called.flatMap((name) => [
    joined(...prefix, name),
    ...(kind ? [joined(...prefix, kind, name)] : []),
  ]);
  return candidates.find((name) => found(name).join() === token) ?? candidates[candidates.length - 1];
}

/** How people write the names of a scope. */
export function writtenNames(scope: Scope, around: Surroundings): (token: string) => string {
  const lexicon = typedNames(scope, around);
  const found = (typed: string): string[] => {
    const one = lexicon.find(typed);
    return one && "name" in one ? [one.name] : [];
  };
  return (token) => nameOfVariable(token, around, found);
}

/** Every name that fits a scope, as people write it; for completion. */
export function namesIn(scope: Scope, around: Surroundings): string[] {
  const { who: all, of, item }: Scoped = SCOPES[scope];
  const tokens: string[] = [];
  const each = (kind: NamedKind, prefix: string) => {
    for (const name of around.names(kind).names()) {
      const found = around.names(kind).find(name);
      if (found.found === "one" && isUsable(around, kind, found.id)) tokens.push(joined(prefix, `${kind}:${found.id}`));
    }
  };
  for (const who of all) {
    tokens.push(joined(who, "level"));
    if (of.includes("stat")) each("stat", who);
    if (of.includes("resource")) each("resource", who);
    if (of.includes("most")) each("resource", joined(who, "most"));
  }
  if (item) {
    for (const plain of Object.keys(OF_ITEM)) tokens.push(`item ${plain}`);
    each("stat", "item");
    each("field", "item");
  }
  each("constant", "");
  const write = writtenNames(scope, around);
  return [...new Set(tokens.map(write))];
}

/** What the value of a name is counted in. */
export function unitOfVariable(token: string, around: Surroundings): Unit {
  const variable = variableOf(token);
  if (!variable) return COUNT;
  const { kind, id, plain } = variable;
  if (!kind || !id) return readUnit(OF_ITEM[plain] ?? "");
  const record = around.record(kind, id) as FieldLike | undefined;
  if (kind === "field" && record?.form === "duration") return readUnit("s");
  return readUnit(record?.unit ?? "");
}
