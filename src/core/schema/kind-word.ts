/** The word for a kind of record that a person reads, where it is not the kind's own name. */

const WORDS: { readonly [kind: string]: readonly [one: string, many: string] } = {
  cooldown: ["cooldown group", "cooldown groups"],
  currency: ["currency", "currencies"],
  exclusion: ["exclusive group", "exclusive groups"],
  mapping: ["import mapping", "import mappings"],
  pantry: ["pantry", "pantries"],
  payback: ["salvage rule", "salvage rules"],
  point: ["saved point", "saved points"],
  rarity: ["rarity", "rarities"],
  series: ["series", "series"],
  severity: ["severity", "severities"],
  situation: ["context", "contexts"],
  subject: ["test character", "test characters"],
  table: ["drop table", "drop tables"],
  view: ["saved view", "saved views"],
  wordlist: ["word list", "word lists"],
};

/** @param many  the plural */
export const kindWord = (kind: string, many = false): string =>
  Object.hasOwn(WORDS, kind) ? WORDS[kind][many ? 1 : 0] : many ? `${kind}s` : kind;

/** "an item", "a drop table" */
export const aKind = (kind: string): string =>
  `${/^[aeiou](?!se)/.test(kindWord(kind)) ? "an" : "a"} ${kindWord(kind)}`;
