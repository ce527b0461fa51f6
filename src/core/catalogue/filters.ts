/**
 * Conditions on columns, and how they stand in an address: `sell between 10..20; description missing`. A column is named
 * by the key of what it is about ("stats.vigour"), so that an address says the same to everyone.
 */
import { definition, isKind, type Kind } from "../kinds/index";
import { normalise } from "../schema/names";
import { typedNumber } from "../numbers/typed";
import { pathOf } from "../schema/record";
import { type Catalogue, recordAt } from "./catalogue";
import { byKey } from "./keys";
import type { Id } from "../schema/id";

/** A cell as conditions see it. */
export interface Seen {
  /** As it is shown; "" for nothing. */
  readonly text: string;
  readonly number: number | null;
  /** Written on the record, inherited, or nowhere; worked-out values count as inherited by no one: "worked". */
  readonly from: "own" | "inherited" | "none" | "worked";
  /** Whether something above says it too. */
  readonly over: boolean;
  /** Whether it lies outside of what its field, stat or type allows. */
  readonly out: boolean;
}

interface Test {
  readonly message: string;
  readonly takes: "text" | "words" | "number" | "range" | "nothing";
  /** Reads what was typed once; a sentence where that can't be. */
  ready(typed: string): ((cell: Seen) => boolean) | { readonly message: string };
}
const number = (of: (cell: number, typed: number) => boolean): Test["ready"] => {
  return (typed) => {
    const read = typedNumber(typed);
    return "message" in read ? read : (cell) => cell.number !== null && of(cell.number, read.value);
  };
};
const plain = (of: (cell: Seen) => boolean): Test => ({ message: "", takes: "nothing", ready: () => of });

export const TESTS = {
  has: {
    message: "contains",
    takes: "text",
    ready(typed) {
      const wanted = normalise(typed);
      return (cell) => normalise(cell.text).includes(wanted);
    },
  },
  is: {
    message: "is one of",
    takes: "words",
    ready(typed) {
      const wanted = new Set(typed.split(",").map(normalise).filter(Boolean));
      // A list of names is one of them where it holds one of them.
      return (cell) =>
        wanted.has(normalise(cell.text)) || cell.text.split(",").some((part) => wanted.has(normalise(part)));
    },
  },
  least: { message: "is at least", takes: "number", ready: number((cell, typed) => cell >= typed) },
  most: { message: "is at most", takes: "number", ready: number((cell, typed) => cell <= typed) },
  between: {
    message: "is between",
    takes: "range",
    ready(typed) {
      const ends = typed.split("..").map((part) => typedNumber(part));
      if (ends.length !== 2) return { message: `“${typed}” isn't a range. Enter two numbers such as 10..20.` };
      const [low, high] = ends;
      if ("message" in low) return low;
      if ("message" in high) return high;
      return (cell) => cell.number !== null && cell.number >= low.value && cell.number <= high.value;
    },
  },
  missing: { ...plain((cell) => cell.from === "none" || cell.text === ""), message: "is empty" },
  said: { ...plain((cell) => cell.from !== "none" && cell.text !== ""), message: "has a value" },
  inherited: { ...plain((cell) => cell.from === "inherited"), message: "is inherited" },
  overridden: { ...plain((cell) => cell.from === "own" && cell.over), message: "is overridden" },
  out: { ...plain((cell) => cell.out), message: "is out of range" },
} as const satisfies { readonly [test: string]: Test };
export type TestName = keyof typeof TESTS;
export const testOf = (name: TestName): Test => TESTS[name];
const isTest = (name: string): name is TestName => Object.hasOwn(TESTS, name);

export interface Condition {
  /** "sell", "stats.vigour", "cost". */
  readonly column: string;
  readonly test: TestName;
  readonly value: string;
}

/** Most conditions of one filter. */
const MOST = 20;

/** As an address says them. */
export const formatConditions = (conditions: readonly Condition[]): string =>
  conditions
    .map(({ column, test, value }) => [column, test, value.replace(/[;\\]/g, "\\$&")].filter(Boolean).join(" "))
    .join("; ");

/** What an address says; what can't be read is left out. */
export function readConditions(text: string): Condition[] {
  const parts = text.match(/(?:\\.|[^;\\])+/gs) ?? [];
  return parts.slice(0, MOST).flatMap((part): Condition[] => {
    const [, column, test, value = ""] = /^\s*(\S+) +(\S+)(?: +(.*?))?\s*$/s.exec(part) ?? [];
    if (!column || !isTest(test)) return [];
    return [{ column, test, value: testOf(test).takes === "nothing" ? "" : value.replace(/\\(.)/gs, "$1") }];
  });
}

/** The same path with the key of what it is about in the place of its id: "stats.vigour". */
export function keyedPath(catalogue: Catalogue, kind: Kind, path: string): string {
  const at = pathOf(definition(kind), path);
  const of = at?.part && at.field.parts?.kind;
  const record = of && isKind(of) ? recordAt(catalogue, of, at.part as Id) : undefined;
  return at && record ? `${at.name}.${record.key}` : path;
}

/** Back from a key to an id; as it is where there is no such thing. */
export function pathByKey(catalogue: Catalogue, kind: Kind, keyed: string): string {
  const dot = keyed.indexOf(".");
  if (dot < 0) return keyed;
  const { fields } = definition(kind);
  const name = keyed.slice(0, dot);
  const parts = Object.hasOwn(fields, name) ? fields[name].parts : undefined;
  const record = parts && isKind(parts.kind) ? byKey(catalogue, parts.kind, keyed.slice(dot + 1)) : undefined;
  return record ? `${name}.${record.id}` : keyed;
}
