/** Bounds of what a pantry holds: sizes and amounts, not matters of taste. */

/** Largest amount, price or value. */
export const MOST = 1e9;
/** Least quantity or chance above nothing. */
export const LEAST = 1e-9;
/** Most of what a player waits for, in ticks. */
export const MOST_TICKS = 1e12;
/** Most of a chance: 100 is 10000%. */
export const MOST_CHANCE = 100;
/** Most lines of one recipe or source. */
export const MOST_LINES = 200;
/** Most entries of one list of references, or of one keyed map. */
export const MOST_LISTED = 200;
/** Most records of a tree from its root down to its last leaf. */
export const MOST_DEPTH = 32;
/** Most tables that one recipe or source draws from. */
export const MOST_TABLES = 20;
/** Most runs of a recipe that go at once. */
export const MOST_BATCH = 10_000;
/** Most variants of one recipe. */
export const MOST_VARIANTS = 40;
/** Most runs of one draw. */
export const MOST_TIMES = 1000;
/** Highest level of a character, and most that anything asks for. */
export const MOST_LEVEL = 1000;
/** Largest weight of a draw. */
export const MOST_WEIGHT = 1e6;
/** Most edits of one change that comes over the network; a bundle may hold more. */
export const MOST_EDITS = 50_000;
/** Most characters of a name, and of a key. */
export const LONGEST_NAME = 120;
export const LONGEST_KEY = 90;
