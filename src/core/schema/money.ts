/** A field that holds a price: in value units, or in the currency that another field names. */
import { cell, type Field, type FieldOptions, type Members } from "./field";
import type { Id } from "./id";
import { isPlain, type Json } from "./json";
import { MOST } from "./limits";
import { number, numberColumn } from "./number";

interface Rules extends FieldOptions {
  /** The field that names the currency; it has `bundled: null`, for both are one member of a bundle. */
  readonly currency?: string;
}

const rules = { min: 0, max: MOST };

export function money(options: Rules & { readonly optional: true }): Field<number | null>;
export function money(options?: Rules): Field<number>;
export function money({ currency, optional, ...options }: Rules & { optional?: boolean } = {}): Field<number | null> {
  const amount: Field<number | null> = optional
    ? number({ ...rules, ...options, optional })
    : number({ ...rules, ...options });
  return {
    ...amount,
    type: "money",
    stored: (name, shape) => cell(numberColumn(name, rules, optional === true), shape),
    ...(currency ? { members: withCurrency(currency) } : {}),
  };
}

/** An amount with its currency as one member: a number of value units, or { "amount": 2, "currency": "shells" }. */
const withCurrency =
  (currency: string): ((name: string) => Members) =>
  (name) => ({
    called: name,
    names: [name],
    out(record, to) {
      const [value, paid] = [record[name] as number, record[currency] as Id | null];
      if (!value && !paid) return {};
      return { [name]: { amount: value, ...(paid ? { currency: to.keyOf("currency", paid) } : {}) } };
    },
    in(row, place, from) {
      const value: Json = row[name];
      if (typeof value === "number") return { [name]: value, [currency]: null };
      if (!isPlain(value) || typeof value.amount !== "number") {
        from.fault(`${place}.${name}`, 'Expected a number of value units, or { "amount": 2, "currency": "shells" }.');
        return {};
      }
      const known = ["amount", "currency"];
      for (const member of Object.keys(value))
        if (!known.includes(member)) from.unknown(`${place}.${name}`, member, known);
      const paid = value.currency as Json | undefined;
      return {
        [name]: value.amount,
        [currency]:
          paid === undefined || paid === null ? null : from.reference("currency", paid, `${place}.${name}.currency`),
      };
    },
    schema: (defs) => ({
      [name]: defs.define("money", () => ({
        oneOf: [
          { type: "number", minimum: 0, maximum: MOST, description: "Value units." },
          {
            type: "object",
            required: ["amount"],
            additionalProperties: false,
            properties: {
              amount: { type: "number", minimum: 0, maximum: MOST },
              currency: { type: ["string", "null"] },
            },
          },
        ],
      })),
    }),
  });
