/** What the definition of a field makes of its values: how each is typed, shown and held to its form. */
import { notAmong } from "../schema/choice";
import { colour } from "../schema/colour";
import { duration } from "../schema/duration";
import { textProblem } from "../schema/characters";
import type { Field, FieldOptions, Surroundings, Typing } from "../schema/field";
import { flag } from "../schema/flag";
import { isId } from "../schema/id";
import { keyedMap } from "../schema/keyed-map";
import { MOST } from "../schema/limits";
import { normalise } from "../schema/names";
import { number } from "../schema/number";
import { typedNumber } from "../numbers/typed";
import { type OwnLink, type OwnValue, ownValue } from "../schema/own-value";
import { ref } from "../schema/ref";
import { text } from "../schema/text";
import { sayQuantity } from "../numbers/format";
import { type field, type Form, LINKABLE } from "./field";
import { aKind, kindWord } from "../schema/kind-word";

type Definition = (typeof field)["defaults"] & { readonly name: string };

const any = ownValue(LINKABLE);
const wide = { min: -MOST, max: MOST } as const;
const FILE = /^(?!\/)(?!.*(?:^|\/)\.\.?(?:\/|$))[^\\:*?"<>|]+$/;

/** A field of values of one form, which are stored as designers' values are. What is typed is held to its rules at once. */
function like(of: Field<never>, extra: Partial<Field<OwnValue>> = {}): Field<OwnValue> {
  const made = { ...any, ...of, ...extra } as unknown as Field<OwnValue>;
  return {
    ...made,
    pack: any.pack,
    unpack: any.unpack,
    stored: any.stored,
    parse(typed, typing) {
      const read = made.parse(typed, typing);
      let wrong: string | null = null;
      const fault = (_: string, message: string) => {
        wrong ??= message;
      };
      if ("value" in read) made.check(read.value, { has: typing.has, fault });
      return wrong === null ? read : { message: wrong };
    },
  };
}

/** One or several links of a kind; several are written with their amounts: "2 Coarse salt, Peat". */
function links(kind: string, several: boolean, options: FieldOptions): Field<OwnValue> {
  const one = ref(kind);
  const listed = (value: OwnValue): readonly OwnLink[] => (typeof value === "object" ? value : []);
  const write = ({ id, amount }: OwnLink, around: Surroundings): string => {
    const text = around.names(kind).text(id);
    const name = /[,;]|^\d/.test(text) ? around.names(kind).keyOf(id) : text;
    return several && amount !== 1 ? `${amount} ${name}` : name;
  };
  const linkTo = (id: OwnLink["id"], amount: number) => ({ value: { kind, id, amount } });
  const read = (part: string, typing: Typing): { readonly value: OwnLink } | { readonly message: string } => {
    // A name may itself begin with a number: what is one as a whole is not taken apart.
    const whole = one.parse(part, { ...typing, make: () => null });
    if ("value" in whole) return linkTo(whole.value, 1);
    const [, count, name] = (several && /^(\d[\d.]*)\s+(.+)$/.exec(part)) || ["", "1", part];
    const amount = typedNumber(count);
    if ("message" in amount) return amount;
    const found = one.parse(name, typing);
    return "message" in found ? found : linkTo(found.value, amount.value);
  };
  return {
    ...any,
    type: several ? "links" : "link",
    options,
    targets: [kind],
    completions: (around) => [...around.names(kind).names()],
    check(value, to) {
      const wrong = typeof value !== "object" || !Array.isArray(value) || value.some((l) => l?.kind !== kind);
      if (wrong) to.fault("", `Expected ${several ? "links" : "a link"} to ${kindWord(kind, true)}.`);
      else if (!several && (value.length !== 1 || value[0].amount !== 1))
        to.fault("", `Expected one ${kindWord(kind)}.`);
      else any.check(value, to);
    },
    format: (value, around) =>
      listed(value)
        .map((link) => write(link, around))
        .join(", "),
    parse(typed, typing) {
      const parts = several ? typed.split(/[,;]/).filter((part) => part.trim()) : [typed];
      const found = new Map<string, OwnLink>();
      for (const part of parts) {
        const link = read(part.trim(), typing);
        if ("message" in link) return link;
        found.set(link.value.id, link.value);
      }
      return found.size ? { value: [...found.values()] } : { message: `Enter the name of ${aKind(kind)}.` };
    },
    say: (value, around) =>
      listed(value)
        .map(
          ({ id, amount }) => `${several && amount !== 1 ? `${sayQuantity(amount)} ` : ""}${around.nameOf(kind, id)}`,
        )
        .join(", "),
  };
}

const FORM: { readonly [F in Form]: (of: Definition, options: FieldOptions) => Field<OwnValue> } = {
  text: (_, options) => like(text({ most: 200, ...options }) as never),
  "long text": (_, options) => like(text({ most: 4000, lines: true, ...options }) as never, { type: "long text" }),
  whole: (_, options) => like(number({ ...wide, whole: true, ...options }) as never),
  decimal: (_, options) => like(number({ ...wide, ...options }) as never),
  percent: (_, options) => like(number({ ...wide, percent: true, ...options }) as never),
  duration: (_, options) =>
    like(duration(options) as never, {
      format: (value, { ticksPerSecond }) => duration().say(value as number, { ticksPerSecond } as never),
    }),
  "yes or no": (_, options) => like(flag(options) as never),
  choice: ({ options: words }, options) =>
    like(text({ most: 60, ...options }) as never, {
      type: "choice",
      completions: () => words,
      parse(typed) {
        const wanted = normalise(typed);
        const found = words.find((w) => normalise(w) === wanted);
        if (wanted && found) return { value: found };
        return {
          message: words.length ? notAmong(typed, words) : "This choice has no options yet. Add them in Setup.",
        };
      },
    }),
  colour: (_, options) => like(colour("#7b8785", options) as never),
  link: ({ to }, options) => links(to, false, options),
  links: ({ to }, options) => links(to, true, options),
  file: (_, options) =>
    like(text({ most: 240, ...options }) as never, {
      check(value, to) {
        const message = textProblem(value, { max: 240, name: true }) ?? fileProblem(String(value));
        if (message) to.fault("", message);
      },
      parse: (typed) => {
        const message = fileProblem(typed);
        return message ? { message } : { value: typed };
      },
    }),
};
const fileProblem = (path: string): string | null =>
  FILE.test(path)
    ? null
    : `“${path}” isn't a path within the game's files. Enter one such as sounds/crock_open.ogg, with “/” between folders.`;

const known = new WeakMap<object, Field<OwnValue>>();
/** What a designers' field is: a field like any other, whose values are stored as what they are. */
export function fieldOfDefinition(of: Definition): Field<OwnValue> {
  let made = known.get(of);
  if (!made) {
    made = FORM[of.form](of, {
      label: of.name,
      title: of.name,
      unit: of.unit || undefined,
      help: of.help || undefined,
      width: WIDTH[of.form],
    });
    known.set(of, made);
  }
  return made;
}
const WIDTH: { readonly [F in Form]?: number } = {
  "long text": 220,
  text: 130,
  links: 160,
  link: 110,
  file: 170,
  colour: 96,
};

/** Values of the designers' fields, by field. */
export const own = (options: FieldOptions = {}) =>
  keyedMap("field", any, {
    ...options,
    label: "own fields",
    each: (around, id) => {
      const definition = around.record("field", id);
      return definition ? fieldOfDefinition(definition as unknown as Definition) : any;
    },
  });

export const isLinkTo = (value: unknown): value is readonly OwnLink[] =>
  Array.isArray(value) && value.every((link) => isId((link as OwnLink).id));
