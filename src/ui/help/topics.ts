/** What the help panel says: keys of each view, the languages people type with examples, and the words of the screen. */
import type { ViewName } from "../views";

export interface HelpEntry {
  /** A key, a line that can be typed, or a word. */
  readonly what: string;
  readonly means: string;
}
export interface Topic {
  readonly title: string;
  /** Views to which it belongs; absent: all of them. */
  readonly views?: readonly ViewName[];
  /** What its entries are written in, for the test that reads every example. */
  readonly language?: "recipe" | "use" | "trial" | "formula";
  /** The page of the docs with all of it. */
  readonly docs?: string;
  readonly entries: readonly HelpEntry[];
}

const entries = (of: Readonly<Record<string, string>>): readonly HelpEntry[] =>
  Object.entries(of).map(([what, means]) => ({ what, means }));

const GRID = entries({
  "Arrow keys, Tab": "move between cells; with Ctrl to the edge",
  "Enter or F2": "edit the cell; in a read-only cell, open the record",
  Type: "replace the value",
  Space: "open the record, or switch yes and no",
  Delete: "clear the selected cells",
  "Shift + arrows": "select a range",
  "Ctrl C, Ctrl X, Ctrl V": "copy, cut and paste, also from a spreadsheet",
  "Ctrl D": "fill the first row down; with Shift, continue the series",
  "Alt + down arrow": "open the menu of the column",
  "Ctrl F": "search",
});

export const TOPICS: readonly Topic[] = [
  {
    title: "Keys everywhere",
    entries: entries({
      "Ctrl K": "search records and commands",
      "Ctrl Z, Ctrl Shift Z": "undo and redo your changes",
      "Alt Enter": "in a field: try the value in a scenario instead of saving it",
      F8: "leave the scenario, or go back to the last one",
      "?": "open this help",
      Escape: "close what is open, or discard what you typed",
    }),
  },
  { title: "Keys in this view", views: ["shelves", "setup", "costs"], entries: GRID },
  {
    title: "Keys in this view",
    views: ["recipes"],
    entries: entries({
      "Up and down arrows": "move between recipes",
      "Space, Shift, Ctrl": "select several recipes",
      "Ctrl A": "select all recipes shown",
      "Ctrl Enter": "save the line",
      Tab: "accept the suggested name",
    }),
  },
  {
    title: "Keys in this view",
    views: ["chains"],
    entries: entries({
      "Arrow keys": "move along the chain",
      Enter: "show the chain of the selected item",
      "1 to 9": "switch to an alternative",
      F: "collapse or expand what is behind an item",
      O: "open the sheet",
      Home: "return to the item",
      "+, −, 0": "zoom in, zoom out, fit to the window",
    }),
  },
  {
    title: "Keys in this view",
    views: ["checks"],
    entries: entries({
      "Up and down arrows": "move between findings",
      "Right arrow, left arrow": "expand or collapse a group",
      Enter: "expand or collapse the selected group",
    }),
  },
  {
    title: "Decide about findings",
    views: ["checks"],
    entries: entries({
      "Accept…":
        "moves a finding out of the open ones, with a reason: for good, until a day or a revision, or until it gets worse",
      "Assign…": "says who looks after a finding, such as Wren; group or filter by person",
      "Fix 6…": "applies the fixes of a group as one change, with each value before and after",
      "New and gone": "compares with your last visit, a revision, or a point saved in the Log",
      "Setup, Checks": "turns a check off, or makes it an error, a warning or a note here",
    }),
  },
  {
    title: "Keys in this view",
    views: ["tasting"],
    entries: entries({
      "Ctrl Enter": "save the steps of a trial",
      "Arrow keys": "move a use along the time line",
      Delete: "remove a use from the time line, or an item from the grid",
    }),
  },
  {
    title: "On an item's sheet",
    entries: entries({
      T: "try the item out in Tasting",
      C: "show the chain of the item",
      U: "show where the item is used",
      "Alt PageUp, Alt PageDown": "open the previous or next item of the Shelves",
    }),
  },
  {
    title: "Recipe lines",
    language: "recipe",
    docs: "notation",
    entries: entries({
      "2 River eel + 1 Coarse salt -> 2 Smoked eel": "ingredients, an arrow, results",
      "3 Hemp yarn -> 1 Rope at Ropewalk using Knotting board in 40s": "station, tool and time",
      "1 Gull egg -> 1 Tallow 40%": "a result with a chance",
      "3 any fish + 1 Stone crock -> 1 Fish paste": "any item with a tag",
      "1 Sprat -> 2..3 Fish oil": "a range of amounts",
      "salvage Rope -> 2 Oakum": "what an item returns when it is salvaged",
      "combine Beach flint + Brass scrap -> 1 Lamp black": "two items used on each other",
      "pattern [Rope, Rope; Tar, -] -> 1 Rope ladder": "a pattern in a grid, rows separated by “;”",
      "2 Rope -> 1 Hammock | using Sail palm in 20s": "a variant after “|”, with only what differs",
      "2 Rope -> 1 Hammock fee 2 shells level 5": "a fee and a required level",
      "1 Clay -> 1 Brick burning 60s batch 6": "heat, and up to six at once",
    }),
  },
  {
    title: "Use lines",
    language: "use",
    docs: "formulas",
    entries: entries({
      "Eat: restores 42 Vigour, used up": "a name, a colon, effects and conditions separated by commas",
      "Eat: restores 42 Vigour, cooldown 20s, used up": "ready again after 20 seconds",
      "Eat: Warm 30s, used up": "applies a condition for 30 seconds",
      "Brew: restores 25% of Vigour every 2s for 30s": "a share of the maximum, over time",
      "Sip: costs 5 Breath, restores Vigour by 10 + 2 * user level": "a cost, and a formula as the amount",
      "Open: draws 3 from Wreck finds, 10% gives Rope": "a drop table, and a chance",
      "Light: use time 2s, lasts 20 uses": "a delay, and durability",
      "Eat: restores 10 Vigour, only Aboard + At rest": "only in these contexts",
      "Eat: restores 10 Vigour, needs level 3, not while Soaked": "required level and forbidden condition",
      "Eat: restores 10 Vigour, refused when it would do nothing": "kept if it has no effect",
    }),
  },
  {
    title: "Trial steps",
    views: ["tasting", "setup"],
    language: "trial",
    docs: "formulas",
    entries: entries({
      "use Eel pie every 5m": "use an item again and again",
      "use Eel pie whenever Breath < 20": "use it when a formula is true",
      "get 5 Peat brick": "add items to the bag",
      "make 3 Rope": "craft, with what is in the bag",
      "buy 3 Rope from Chandler: rope": "buy in a shop",
      "wear Oilskin coat": "put on equipment",
      "context Aboard": "change the context",
      "damage Vigour 2 per second": "lose a resource over time",
      "wait 20m": "let time pass",
      "expect Breath >= 10 throughout": "must be true until the end",
      "expect to have 3 Rope within 1h": "must become true within an hour",
      "refused: use Eel pie": "the step must be refused",
    }),
  },
  {
    title: "Formulas",
    language: "formula",
    docs: "formulas",
    entries: entries({
      "10 + 2 * level": "numbers, names and + - * /",
      "min(50, Breath / 2)": "min, max, round, floor, ceil, clamp, if and more",
      "if(level >= 10, 20, 10)": "a condition, the value if true, the value if false",
    }),
  },
  {
    title: "Words",
    docs: "words",
    entries: entries({
      Pantry: "one shared item database",
      Setup: "types, fields, stats and everything else items are made of",
      Shelves: "all items in a grid",
      Chains: "from base materials to an item, and on to what it is used for",
      Tasting: "trying items out on test characters",
      Tideline: "the strip at the bottom: findings, and what the last change did",
      "Jar label": "the small label of an item: icon, name and the colour of its type",
      "Salt grains": "the rarity of an item, one grain to five",
      Stub: "an item that a recipe names but that has no definition yet",
      Salvage: "taking an item apart",
      "Dead end": "an item without a recipe, buyer, use, slot or stats",
      Unobtainable: "an item that players cannot get",
      Container: "what an item comes in, returned when it is used up",
      "Drop table": "random drops, such as those of a crate",
      Trial: "steps and expected results, run after every change",
    }),
  },
];

/** The topics of a view whose entries contain all words of a search. */
export function topicsFor(view: ViewName, search: string): readonly Topic[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  return TOPICS.filter((topic) => words.length > 0 || !topic.views || topic.views.includes(view))
    .map((topic) => ({
      ...topic,
      entries: topic.entries.filter(({ what, means }) => {
        const text = `${topic.title} ${what} ${means}`.toLowerCase();
        return words.every((word) => text.includes(word));
      }),
    }))
    .filter((topic) => topic.entries.length > 0);
}
