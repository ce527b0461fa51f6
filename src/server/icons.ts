/** The item icons (game-icons.net, CC BY 3.0, see docs/dependencies.md), read from the package at first use. */
import { readFile } from "node:fs/promises";
import { join } from "node:path";

let loaded: Promise<Record<string, { body: string }>> | undefined;
const icons = () => {
  loaded ??= readFile(join(/* turbopackIgnore: true */ process.cwd(), "node_modules/@iconify-json/game-icons/icons.json"), "utf8").then((text) => (JSON.parse(text) as { icons: Record<string, { body: string }> }).icons);
  return loaded;
};

export async function icon(name: string): Promise<string | null> {
  const found = (await icons())[name];
  return found ? `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 512 512">${found.body}</svg>` : null;
}

export async function findIcons(query: string, most = 60): Promise<string[]> {
  const words = query.toLowerCase().split(/[\s-]+/).filter(Boolean);
  return Object.keys(await icons())
    .filter((name) => words.every((w) => name.includes(w)))
    .sort((a, b) => a.length - b.length)
    .slice(0, most);
}
