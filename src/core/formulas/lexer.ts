/** The signs, words and numbers of a formula with their positions. */

export interface Lexeme {
  readonly kind: "number" | "word" | "quoted" | "sign" | "strange";
  /** Without its quotes and escapes for a quoted name. */
  readonly text: string;
  /** Positions, half open, in UTF-16 units. */
  readonly from: number;
  readonly to: number;
}

const LEXEME =
  /\s*(?:(?<number>(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)|(?<word>[\p{L}_][\p{L}\p{N}_'’-]*(?<![-]))|"(?<quoted>(?:[^"\\]|\\.)*)"|(?<sign><=|>=|!=|[-+*/<>=(),])|(?<strange>\S))/gsuy;
const KINDS = ["number", "word", "quoted", "sign", "strange"] as const;

/** Every character is part of a lexeme but the spaces between them; what is no sign of the language is "strange". */
export function lex(text: string): Lexeme[] {
  const found: Lexeme[] = [];
  for (const match of text.matchAll(LEXEME)) {
    const groups = match.groups as { readonly [kind: string]: string | undefined };
    const kind = KINDS.find((k) => groups[k] !== undefined) as Lexeme["kind"];
    const written = groups[kind] as string;
    const to = match.index + match[0].length;
    const length = kind === "quoted" ? written.length + 2 : written.length;
    // The sign people type for a product or a difference.
    const plain =
      kind === "strange"
        ? ({ "×": "*", "·": "*", "−": "-", "÷": "/", "≤": "<=", "≥": ">=", "≠": "!=" } as { [sign: string]: string })[
            written
          ]
        : undefined;
    found.push({
      kind: plain ? "sign" : kind,
      text:
        plain ??
        (kind === "quoted"
          ? written.replace(/\\(.)/gs, "$1")
          : kind === "word" && /^(and|or|not)$/i.test(written)
            ? written.toLowerCase()
            : written),
      from: to - length,
      to,
    });
  }
  return found;
}
