/** Values that no one expects, and JSON in which some stand where others should. */
import { below, pick, type Random } from "./rounds";

export type Json = null | boolean | number | string | Json[] | { [name: string]: Json };

/** Own members of these names, as only a parser makes them. */
const OWN = [
  '{"__proto__":{"a":1}}',
  '{"constructor":{"prototype":1}}',
  '{"toString":1}',
  '{"valueOf":null,"length":-1}',
  '{"then":1}',
  '{"hasOwnProperty":0}',
];
const NAMES = [
  "constructor",
  "__proto__",
  "toString",
  "valueOf",
  "hasOwnProperty",
  "length",
  "id",
  "pantry",
  "pantry_id",
  "position",
  "recipe",
  "?",
  "??",
  '"; drop table pantry; --',
  "a.b",
  "stats.constructor",
  "stats.",
  "",
  "\u0000",
  "then",
];
const TEXTS = [
  "",
  " ",
  "\u0000",
  "a\u0000b",
  "\ud800",
  "a\udc00",
  "\u202e",
  "\u200b",
  "\u200d",
  "a\u200db",
  "e\u0301",
  "\ufeffx",
  "\ufffe",
  "\u2028",
  "a\nb",
  "👩‍🍳",
  "海盐",
  "x".repeat(121),
  "😀".repeat(60),
  "y".repeat(5000),
  "'; select 1; --",
  "{1}",
  "%00",
  "../../etc/passwd",
  "<script>",
  "1e999",
  "NaN",
  "null",
  "0",
  "-> -> ->",
  "{|}",
  '"',
];
const NUMBERS = [
  0,
  -0,
  1,
  -1,
  0.1,
  1.5,
  1e-9,
  1e-10,
  1e-300,
  5e-324,
  65_537,
  1e9,
  1e9 + 1,
  1e12,
  1e13,
  2 ** 31,
  2 ** 53,
  1e308,
  123456.789012345,
];

export function hostile(random: Random, depth = 3): Json {
  switch (below(random, depth > 0 ? 9 : 6)) {
    case 0:
      return pick(random, [null, true, false]);
    case 1:
    case 2:
      return pick(random, NUMBERS);
    case 3:
    case 4:
      return pick(random, TEXTS);
    case 5:
      return pick(random, NAMES);
    case 6:
      return Array.from({ length: below(random, 4) }, () => hostile(random, depth - 1));
    case 7:
      return JSON.parse(pick(random, OWN)) as Json;
    default:
      return Object.fromEntries(
        Array.from({ length: below(random, 4) }, () => [
          pick(
            random,
            NAMES.filter((n) => n !== "__proto__"),
          ),
          hostile(random, depth - 1),
        ]),
      );
  }
}

type Place = { readonly of: Json[] | { [name: string]: Json }; readonly at: string | number };
function places(value: Json, found: Place[] = []): Place[] {
  if (typeof value !== "object" || value === null) return found;
  for (const at of Array.isArray(value) ? value.keys() : Object.keys(value)) {
    found.push({ of: value as Place["of"], at });
    places((value as never)[at], found);
  }
  return found;
}

/** The same JSON with one to three places changed: another value, none, a second one, a new member, two swapped. */
export function mutated(random: Random, json: Json): Json {
  const whole = { root: JSON.parse(JSON.stringify(json)) as Json };
  for (let n = 1 + below(random, 3); n > 0; n--) {
    const all = places(whole);
    if (!all.length) return null;
    const { of, at } = pick(random, all);
    const here = of as { [name: string]: Json };
    switch (below(random, 6)) {
      case 0:
        if (Array.isArray(of)) of.splice(at as number, 1);
        else delete here[at];
        break;
      case 1:
        if (Array.isArray(of)) of.push(here[at]);
        else
          Object.defineProperty(here, pick(random, NAMES), {
            value: hostile(random),
            enumerable: true,
            configurable: true,
            writable: true,
          });
        break;
      case 2: {
        const other = pick(random, all);
        (other.of as { [name: string]: Json })[other.at] =
          here[at] === whole.root ? null : (JSON.parse(JSON.stringify(here[at] ?? null)) as Json);
        break;
      }
      default:
        here[at] = hostile(random);
    }
  }
  return whole.root ?? null;
}
