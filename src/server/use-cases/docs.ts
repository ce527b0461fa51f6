/** The pages of the docs that can be read in the program. */
import { readFile } from "node:fs/promises";
import { join } from "node:path";
import { marked } from "marked";

/** Files by the name in their address: nothing else is read. */
const PAGES: ReadonlyMap<string, string> = new Map([
  ["README", "README.md"],
  ...["notation", "formulas", "tables", "bundle", "words", "mathematics", "security", "performance"].map(
    (name) => [name, `docs/${name}.md`] as const,
  ),
]);

/** A page as HTML; null: there is none of this name. Links between pages lead to each other, all others are left out. */
export async function docsPage(name: string): Promise<string | null> {
  const file = PAGES.get(name);
  if (!file) return null;
  const root = /* turbopackIgnore: true */ process.env.SALTY_ROOT ?? process.cwd();
  const text = await readFile(join(root, file), "utf8");
  const html = await marked.parse(text.replace(/!\[[^\]]*\]\([^)]*\)/g, ""));
  return html.replace(/<a href="([^"]*)"[^>]*>([\s\S]*?)<\/a>/g, (_, href: string, inner: string) => {
    const page = /(?:^|\/)([A-Za-z]+)\.md(#[\w-]*)?$/.exec(href);
    if (page && PAGES.has(page[1])) return `<a href="/docs/${page[1]}${page[2] ?? ""}">${inner}</a>`;
    return href.startsWith("#") ? `<a href="${href}">${inner}</a>` : inner;
  });
}
