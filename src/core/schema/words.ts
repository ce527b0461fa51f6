/** A field that holds a list of short words in an order: the options of a choice. */
import { several } from "./bytes";
import { type Column, type Field, type FieldOptions, plain, snake } from "./field";
import { textProblem } from "./characters";
import { MOST_LISTED } from "./limits";
import { normalise } from "./names";

const NONE: readonly string[] = [];

/** @param longest  most characters of one word; a comma or semicolon may not stand in it */
export function words(longest: number, options: FieldOptions = {}): Field<readonly string[]> {
  const problem = (word: unknown): string | null =>
    textProblem(word, { max: longest, name: true }) ??
    (word === "" || (word as string).trim() !== word
      ? "Enter a word without spaces around it."
      : /[,;]/.test(word as string)
        ? "A word can't contain a comma or semicolon."
        : null);
  return {
    ...plain,
    type: "words",
    options,
    initial: NONE,
    bundleInitial: NONE,
    depth: 1,
    check(value, to) {
      if (!Array.isArray(value)) return to.fault("", "Expected a list of words.");
      if (value.length > MOST_LISTED) return to.fault("", `${value.length} words; the maximum is ${MOST_LISTED}.`);
      const seen = new Set<string>();
      for (const [k, word] of value.entries()) {
        const message = problem(word);
        if (message) to.fault(String(k + 1), message);
        else if (seen.has(normalise(word))) to.fault(String(k + 1), `The list contains “${word}” twice.`);
        else seen.add(normalise(word));
      }
    },
    toBundle: (value) => (value.length ? [...value] : undefined),
    fromBundle(value, place, from) {
      if (Array.isArray(value)) return value;
      from.fault(place, "Expected a list of words.");
      return NONE;
    },
    schema: () => ({
      type: "array",
      maxItems: MOST_LISTED,
      items: { type: "string", minLength: 1, maxLength: longest },
    }),
    format: (value) => value.join(", "),
    parse(typed) {
      const found = new Map<string, string>();
      for (const part of typed.split(/[,;]/)) {
        const word = part.trim();
        const message = word && problem(word);
        if (message) return { message };
        if (word && !found.has(normalise(word))) found.set(normalise(word), word);
      }
      return { value: [...found.values()] };
    },
    say: (value) => value.join(", ") || "nothing",
    pack(value, to) {
      to.whole(value.length);
      for (const word of value) to.text(word);
    },
    unpack: (from) => several(from, () => from.text()),
    stored(name, shape) {
      const columns: Column[] = [
        { name: "position", type: "integer", nullable: false },
        { name: "word", type: "text", length: longest, nullable: false },
      ];
      const table = { name: snake(name).replace(/s$/, ""), columns, parts: [], key: "position", order: "position" };
      const at = shape.parts.push(table) - 1;
      return {
        write(value, row) {
          row.parts[at] = value.map((word, position) => ({ values: [position, word], parts: [] }));
        },
        read: (row) => row.parts[at].map(({ values }) => values[1] as string),
      };
    },
  };
}
