/**
 * Descriptions: a small Markdown. `**strong**`, `*emphasis*`, lines that begin with "- " as a list, an empty line between
 * paragraphs, `[text](prized)` in the colour of a rarity or stat, and `{vigour}` for a value of the item itself. Whatever
 * is none of these is text: nothing is ever lost, and nothing of it becomes markup of the page.
 */

export type Part =
  | { readonly is: "text"; readonly text: string }
  | { readonly is: "strong" | "emphasis"; readonly parts: readonly Part[] }
  | { readonly is: "coloured"; readonly by: string; readonly parts: readonly Part[] }
  | { readonly is: "value"; readonly name: string; readonly from: number; readonly to: number };
export type Block =
  | { readonly is: "paragraph"; readonly parts: readonly Part[] }
  | { readonly is: "list"; readonly items: readonly (readonly Part[])[] };

/** Marks may stand in each other so deep. */
const DEEPEST = 6;
const MARK =
  /\*\*(?=[^\s*])([\s\S]*?\S)\*\*(?!\*)|\*(?=\S)([^*]*?[^\s*])\*|\[([^[\]]+)\]\(([^()\s][^()]{0,60})\)|\{([^{}\n]{1,60})\}/g;

function partsOf(text: string, at: number, depth: number): Part[] {
  if (depth > DEEPEST) return [{ is: "text", text }];
  const parts: Part[] = [];
  let done = 0;
  const plain = (to: number) => {
    if (to > done) parts.push({ is: "text", text: text.slice(done, to) });
  };
  for (const match of text.matchAll(MARK)) {
    const [whole, strong, emphasis, coloured, by, value] = match;
    const from = match.index;
    plain(from);
    done = from + whole.length;
    if (strong !== undefined) parts.push({ is: "strong", parts: partsOf(strong, at + from + 2, depth + 1) });
    else if (emphasis !== undefined) parts.push({ is: "emphasis", parts: partsOf(emphasis, at + from + 1, depth + 1) });
    else if (coloured !== undefined)
      parts.push({ is: "coloured", by: by.trim(), parts: partsOf(coloured, at + from + 1, depth + 1) });
    else parts.push({ is: "value", name: value.trim(), from: at + from, to: at + done });
  }
  plain(text.length);
  return parts;
}

/** Blocks of a description, with positions of its values in the whole text. */
export function readDescription(text: string): Block[] {
  const blocks: Block[] = [];
  let paragraph: { text: string; at: number } | null = null;
  const end = () => {
    if (paragraph) blocks.push({ is: "paragraph", parts: partsOf(paragraph.text, paragraph.at, 0) });
    paragraph = null;
  };
  let at = 0;
  let list: Part[][] | null = null;
  for (const line of text.split("\n")) {
    const entry = /^\s*- (?=\S)/.exec(line);
    if (entry) {
      end();
      if (!list) {
        list = [];
        blocks.push({ is: "list", items: list });
      }
      list.push(partsOf(line.slice(entry[0].length), at + entry[0].length, 0));
    } else {
      list = null;
      if (line.trim() === "") end();
      else if (paragraph)
        paragraph = { at: paragraph.at, text: `${paragraph.text}\n${line}` } as { text: string; at: number };
      else paragraph = { text: line, at };
    }
    at += line.length + 1;
  }
  end();
  return blocks;
}

function* within(parts: readonly Part[]): Generator<Part> {
  for (const part of parts) {
    yield part;
    if ("parts" in part) yield* within(part.parts);
  }
}
/** Everything that stands in a description, however deep. */
export function* everyPart(text: string): Generator<Part> {
  for (const block of readDescription(text))
    if (block.is === "paragraph") yield* within(block.parts);
    else for (const item of block.items) yield* within(item);
}
