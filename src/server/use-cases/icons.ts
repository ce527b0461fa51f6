/** The item icons (game-icons.net, CC BY 3.0, see docs/dependencies.md), read from the package at first use. */
import { readFile } from "node:fs/promises";
import { join } from "node:path";
import type { EntityManager } from "@mikro-orm/postgresql";
import { OWN_PICTURE } from "../../core/pictures/own-picture";
import type { Id } from "../../core/schema/id";
import { missingPictures } from "../../store/pictures";

let loaded: Promise<ReadonlyMap<string, string>> | undefined;
/** Bodies by name, in a map: a name from outside is looked up in nothing that has names of its own. */
const icons = () => {
  loaded ??= readFile(
    join(
      /* turbopackIgnore: true */ process.env.SALTY_ROOT ?? process.cwd(),
      "node_modules/@iconify-json/game-icons/icons.json",
    ),
    "utf8",
  ).then((text) => {
    const all = (JSON.parse(text) as { icons: Record<string, { body: string }> }).icons;
    return new Map(Object.entries(all).map(([name, { body }]) => [name, body]));
  });
  return loaded;
};

export async function icon(name: string): Promise<string | null> {
  const body = (await icons()).get(name);
  return body === undefined ? null : `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 512 512">${body}</svg>`;
}

/** The inner SVG of icons by name; unknown names are left out. */
export async function iconBodies(names: readonly string[]): Promise<Readonly<Record<string, string>>> {
  const all = await icons();
  return Object.fromEntries(names.flatMap((name) => (all.has(name) ? [[name, all.get(name) as string]] : [])));
}

/** Those of some names that no icon and no picture of a pantry has. */
export const strangeIcons = async (em: EntityManager, pantry: Id, names: readonly string[]): Promise<string[]> =>
  names.length
    ? [
        ...(await unknownIcons(names.filter((name) => !OWN_PICTURE.test(name)))),
        ...(await missingPictures(
          em,
          pantry,
          names.filter((name) => OWN_PICTURE.test(name)),
        )),
      ]
    : [];

/** Those of some names that no icon has. */
export async function unknownIcons(names: readonly string[]): Promise<string[]> {
  const known = await icons();
  return [...new Set(names)].filter((name) => !known.has(name));
}

/** @param query  words; more than a hundred characters of them are not looked for */
export async function findIcons(query: string, most = 60): Promise<string[]> {
  const words = query
    .slice(0, 100)
    .toLowerCase()
    .split(/[\s-]+/)
    .filter(Boolean);
  return [...(await icons()).keys()]
    .filter((name) => words.every((w) => name.includes(w)))
    .sort((a, b) => a.length - b.length)
    .slice(0, most);
}
