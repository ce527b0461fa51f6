/**
 * A value of a field that the designers define. It says by itself what it is (text, number, yes or no, links to records),
 * so that it can be stored, packed and looked through without the field's definition; whether it fits that one is asked
 * where the definition is known.
 */
import { shown, textProblem } from "./characters";
import { type Column, type Field, plain, snake, type TableShape } from "./field";
import type { Id } from "./id";
import { isPlain, type Json } from "./json";
import { MOST_LISTED, MOST_TICKS } from "./limits";
import { numberProblem } from "./number";
import { refProblem } from "./ref";
import { aKind } from "./kind-word";

/** One of the records that a value links to, and how many of it. */
export interface OwnLink {
  readonly kind: string;
  readonly id: Id;
  readonly amount: number;
}
export type OwnValue = string | number | boolean | readonly OwnLink[];

export const LONGEST_OWN_TEXT = 4000;
const amounts = { min: 0, max: 1e9 };
/** The largest number is the longest duration. */
const numbers = { min: -MOST_TICKS, max: MOST_TICKS };
const LINK = ["kind", "id", "amount"];

/** @param kinds  what it may link to; each has a column that the database holds to its table */
export function ownValue(kinds: readonly string[]): Field<OwnValue> {
  const links = (value: OwnValue): readonly OwnLink[] => (typeof value === "object" ? value : []);
  const linkProblem = (link: unknown, has: (kind: string, id: Id) => boolean): string | null => {
    if (!isPlain(link) || Object.keys(link).some((name) => !LINK.includes(name)))
      return `Expected a link: an object with ${LINK.join(", ")}.`;
    if (!kinds.includes(link.kind as string))
      return `${shown(link.kind)} isn't a kind it can link to. Use ${kinds.join(", ")}.`;
    const amount = numberProblem(link.amount, amounts);
    return amount ?? refProblem({ has, fault: () => undefined }, link.kind as string, link.id);
  };
  return {
    ...plain,
    type: "own",
    options: {},
    initial: "",
    bundleInitial: "",
    depth: 2,
    targets: kinds,
    check(value, to) {
      if (typeof value === "string") {
        const message = textProblem(value, { max: LONGEST_OWN_TEXT, lines: true });
        if (message) to.fault("", message);
        else if (value === "") to.fault("", "An empty text isn't a value. Leave it out.");
      } else if (typeof value === "number") {
        const message = numberProblem(value, numbers);
        if (message) to.fault("", message);
      } else if (Array.isArray(value)) {
        if (!value.length) to.fault("", "An empty list isn't a value. Leave it out.");
        if (value.length > MOST_LISTED) return to.fault("", `${value.length} links; the maximum is ${MOST_LISTED}.`);
        for (const [k, link] of value.entries()) {
          const message = linkProblem(link, to.has);
          if (message) to.fault(String(k + 1), message);
        }
      } else if (typeof value !== "boolean") to.fault("", "Expected text, a number, yes or no, or a list of links.");
    },
    references(value, to) {
      for (const { kind, id } of links(value)) to(kind, id);
    },
    relink: (value, kind, from, to) =>
      typeof value === "object"
        ? value.map((link) => (link.kind === kind && link.id === from ? { ...link, id: to } : link))
        : value,
    toBundle: (value, to) =>
      typeof value === "object"
        ? value.map(({ kind, id, amount }) => ({ [kind]: to.keyOf(kind, id), ...(amount === 1 ? {} : { amount }) }))
        : value,
    fromBundle(value, place, from) {
      if (!Array.isArray(value)) return value;
      return value.map((link: Json, k): OwnLink => {
        const at = `${place}[${k}]`;
        const kind = isPlain(link) ? kinds.find((name) => Object.hasOwn(link, name)) : undefined;
        if (!isPlain(link) || !kind) {
          from.fault(
            at,
            `Expected an object such as { "item": "salt", "amount": 2 }; it may link to: ${kinds.join(", ")}.`,
          );
          return { kind: "", id: "" as Id, amount: 1 };
        }
        for (const name of Object.keys(link))
          if (name !== kind && name !== "amount") from.unknown(at, name, [kind, "amount"]);
        const id = from.reference(kind, link[kind] as Json, `${at}.${kind}`) ?? ("" as Id);
        return { kind, id, amount: (link.amount ?? 1) as number };
      });
    },
    schema: (defs) =>
      defs.define("ownValue", () => ({
        description: "The value of a field of your own. Durations are numbers of ticks.",
        oneOf: [
          { type: "string", minLength: 1, maxLength: LONGEST_OWN_TEXT },
          { type: "number" },
          { type: "boolean" },
          {
            type: "array",
            minItems: 1,
            maxItems: MOST_LISTED,
            items: {
              type: "object",
              additionalProperties: false,
              minProperties: 1,
              properties: {
                ...Object.fromEntries(
                  kinds.map((kind) => [kind, { type: "string", description: `Key of ${aKind(kind)}.` }]),
                ),
                amount: { type: "number", minimum: 0, maximum: 1e9, default: 1 },
              },
            },
          },
        ],
      })),
    // As itself: what a person types and reads follows from the definition of its field.
    format: (value) =>
      typeof value === "object"
        ? JSON.stringify(value)
        : typeof value === "string"
          ? JSON.stringify(value)
          : String(value),
    parse(text) {
      try {
        const value = JSON.parse(text) as OwnValue;
        if (value !== null && (typeof value !== "object" || Array.isArray(value))) return { value };
      } catch {
        // It is told below.
      }
      return { message: `“${text}” isn't a value of a field.` };
    },
    say: (value, around) =>
      typeof value === "object"
        ? value.map(({ kind, id }) => around.nameOf(kind, id)).join(", ")
        : typeof value === "boolean"
          ? value
            ? "yes"
            : "no"
          : String(value),
    pack(value, to) {
      if (typeof value !== "object") {
        to.whole(0);
        to.value(value);
        return;
      }
      to.whole(value.length + 1);
      for (const { kind, id, amount } of value) {
        to.whole(kinds.indexOf(kind));
        to.id(id);
        to.value(amount);
      }
    },
    unpack(from) {
      const several = from.whole();
      if (!several) return from.value() as OwnValue;
      const links: OwnLink[] = [];
      for (let left = several - 1; left > 0; left--)
        links.push({ kind: kinds[from.whole()], id: from.id() as Id, amount: from.value() as number });
      return links;
    },
    stored(name, shape) {
      const prefix = snake(name);
      const column = (of: Omit<Column, "nullable">) => shape.columns.push({ ...of, nullable: true }) - 1;
      const text = column({ name: `${prefix}_text`, type: "text" });
      const number = column({ name: `${prefix}_number`, type: "double precision" });
      const flag = column({ name: `${prefix}_flag`, type: "boolean" });
      const table: TableShape = {
        name: "link",
        columns: [
          { name: "position", type: "integer", nullable: false },
          { name: "amount", type: "double precision", nullable: false },
          ...kinds.map(
            (kind): Column => ({ name: `to_${kind}_id`, type: "text", length: 12, nullable: true, to: kind }),
          ),
        ],
        parts: [],
        key: "position",
        order: "position",
      };
      const at = shape.parts.push(table) - 1;
      return {
        write(value, row) {
          row.values[text] = typeof value === "string" ? value : null;
          row.values[number] = typeof value === "number" ? value : null;
          row.values[flag] = typeof value === "boolean" ? value : null;
          row.parts[at] = links(value).map(({ kind, id, amount }, position) => ({
            values: [position, amount, ...kinds.map((each) => (each === kind ? id : null))],
            parts: [],
          }));
        },
        read(row) {
          const plainly = row.values[text] ?? row.values[number] ?? row.values[flag];
          if (plainly !== null && plainly !== undefined) return plainly as OwnValue;
          return (row.parts[at] ?? []).map(({ values: [, amount, ...ids] }): OwnLink => {
            const k = ids.findIndex((id) => id !== null);
            return { kind: kinds[k], id: ids[k] as Id, amount: amount as number };
          });
        },
      };
    },
  };
}
