/** "fee 2 shells": what is paid for a run. */
import { exactNumber } from "../numbers/decimal";
import { shown } from "../schema/characters";
import type { Id } from "../schema/id";
import { MOST } from "../schema/limits";
import { money } from "../schema/money";
import { nearest } from "../schema/names";
import { ref } from "../schema/ref";
import { clause, type Reading } from "./clause";

const currency = { optional: true, label: "fee currency" } as const;

export const fee = clause({
  word: "fee",
  what: "The fee",
  fields: {
    fee: money({ title: "Fee", currency: "feeCurrency" }),
    feeCurrency: ref("currency", { ...currency, within: "fee" }),
  },
  ofVariant: { fee: money({ optional: true }), feeCurrency: ref("currency", currency) },
  none: "0",
  placeholder: "0",
  read(r) {
    const paid = readFee(r);
    return paid && { fee: paid.amount, feeCurrency: paid.currency };
  },
  write({ fee: amount, feeCurrency }, around) {
    if (!amount && !feeCurrency) return null;
    return feeCurrency ? `${amount} ${around.names("currency").written(feeCurrency)}` : String(amount);
  },
  draw: ({ fee: amount, feeCurrency }, around) =>
    `fee ${amount}${feeCurrency ? ` ${around.nameOf("currency", feeCurrency)}` : ""}`,
  run({ fee: amount, feeCurrency }, terms) {
    terms.price = amount;
    terms.currency = feeCurrency;
  },
  better: (a, b) => b.fee - a.fee,
});

function readFee(r: Reading): { amount: number; currency: Id | null } | null {
  const { from } = r.tokens[r.at - 1];
  const token = r.peek();
  if (token?.kind !== "number") {
    r.report("error", token ?? r.here(), "Expected an amount and a currency, such as fee 2 shells.", []);
    return null;
  }
  r.at++;
  const first = r.peek();
  let end = r.at;
  let typed = "";
  if (first?.kind === "quoted") {
    typed = first.text;
    end++;
  } else {
    while (r.tokens[end] && r.tokens[end].kind === "word" && !r.isKeyword(r.tokens[end])) end++;
    typed = end > r.at ? r.typed(r.at, end - 1) : "";
  }
  const span = end > r.at ? { from: r.tokens[r.at].from, to: r.tokens[end - 1].to } : r.here();
  r.at = end;
  const amount = exactNumber(token.text);
  if (amount === null || amount > MOST) {
    r.report("error", token, `A fee is at most ${MOST}, with at most 15 digits.`, []);
    return null;
  }
  if (!typed && amount === 0 && !r.variant) r.report("note", { from, to: token.to }, "A fee of 0 is left out.", []);
  if (!typed) return { amount, currency: null };
  const found = r.words.currencies.find(typed);
  // "2 shell" and "1 shells" for each other, but not "shellss" for either.
  const singular =
    found.found === "one" || !/[^s]s$/i.test(typed) ? found : r.words.currencies.find(typed.slice(0, -1));
  const plural = singular.found === "one" ? singular : r.words.currencies.find(`${typed}s`);
  if (plural.found === "one") return { amount, currency: plural.id };
  const names = [...r.words.currencies.names()].slice(0, 8);
  r.report(
    "error",
    span,
    `${shown(typed)} is not a currency of this pantry. There ${names.length ? `are: ${names.join(", ")}` : "are none yet"}. Without a currency a fee counts in value units.`,
    [...new Set(nearest(typed, names).concat(names))].slice(0, 3),
  );
  return null;
}
