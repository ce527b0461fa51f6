/**
 * Phrases that nobody says, each with the better wording. `npm run check` fails on them in every text of the program and
 * in the docs for users. Add one when you have to correct it twice.
 */
export const PHRASES = [
  [/\bbring(?:ing)? in\b|\bbrought in\b/i, "import"],
  [/\btake out\b|\btaken out\b/i, "export (a file), remove (a part)"],
  [/\bmend(?:ed|s|ing)?\b/i, "fix"],
  [/\banew\b/i, "again"],
  [/\bfor ever\b/i, "unlimited, always"],
  [/\breckon(?:ed|s)?\b/i, "compute"],
  [/\bworked out\b/i, "computed"],
  [/\bcan't be had\b|\bout of reach\b|\bwithin reach\b/i, "unobtainable, obtainable"],
  [/\bgood for nothing\b/i, "dead end"],
  [/\bin vain\b/i, "without effect"],
  [/\bno way in\b/i, "can't start"],
  [/\bsays otherwise\b|\bsay otherwise\b/i, "overrides"],
  [/\bput back\b/i, "reset, discard"],
  [/\btaken back\b|\btook back\b|\btake it back\b/i, "undone, undo"],
  [/\bcalled off\b|\bcall it off\b/i, "cancelled, cancel"],
  [/\bgive up\b/i, "discard"],
  [/\bmust be said\b|\bis to be said\b/i, "is required"],
  [/\bsomebody else\b/i, "someone else"],
  [/\bsomebody\b/i, "someone"],
  [/\beverybody\b/i, "everyone"],
  [/\bnobody\b/i, "rephrase with a subject: no one, can't be …"],
  [/\bbeside it\b|\bbeside each other\b/i, "next to it, side by side"],
  [/\bhangs? on\b|\bhangs? together\b/i, "depends on, is connected"],
  [/\bas long as one likes\b|\bas often as one likes\b/i, "no limit"],
  [/\bstands? (?:twice|here|there|in its place)\b/i, "appears twice, is here"],
  [/\bnothing would be another\b/i, "nothing would change"],
  [/\bwhat is wrong\b/i, "findings, problem"],
  [/\bto look at\b/i, "warnings"],
  [/\bthe other way round\b/i, "reversed"],
  [/\bin the meantime\b|\bmeanwhile\b/i, "first, in between"],
  [/\d\S* a second\b/i, "per second"],
  [/\bsubjects?\b/i, "test character"],
  [/\bvessels?\b/i, "container"],
  [/\bsituations?\b/i, "context"],
  [/\bpaybacks?\b/i, "salvage rule"],
  [/\bis no (?:key|number|time|range|colour|fraction|workbook|picture|step)\b/i, "isn't a …"],
  [/\bso many\b/i, "that many, a number of"],
  [/^Nothing: /, "If empty, …"],
];

/** Also in comments and in the names of tests. */
export const IN_COMMENTS = [
  [/\bsomebody\b/i, "someone"],
  [/\beverybody\b/i, "everyone"],
  [/\bnobody\b/i, "no one"],
  [/\bmend(?:ed|s|ing)?\b/i, "fix"],
  [/\bfor ever\b/i, "forever"],
  [/\bworked out\b/i, "computed"],
];

/** Texts in which a phrase is right: names of the demo, identifiers, and quotations of what older versions wrote. */
export const ALLOWED = [
  /in vain saying|not in vain|even in vain|said for|ready in/,
  /^(?:subject|situation|vessel|payback)s?$/,
  /Vessel|sound vessel/,
];
