/** What one run of a recipe or source gives by chance, with the tables that it draws from. */
import { aboutNormal, type Giving, givenBy, type Moments } from "../analysis/outcomes";
import { Budget, TooMany } from "../budget/budget";
import type { Catalogue } from "../catalogue/catalogue";
import type { Recipe } from "../kinds/index";
import { boxOfLines, splitThing, type DrawnKey, thingsIn } from "../network/box";
import type { Line } from "../notation/line";
import { seeded } from "../numbers/seeded";
import type { Id } from "../schema/id";
import { distributionOf, roller } from "./chance-box";

/** Rolls from which it is told about how much comes, where amounts can't be told apart; and most of their steps. */
const ROLLS = 4_000;
const ROLL_STEPS = 4_000_000;

/** @param level  of the character who runs it: tables may give something else from a level on */
export function givenWith(
  { records: { table } }: Catalogue,
  lines: readonly Line[],
  tables: Recipe["tables"],
  level: number,
): Giving {
  const plain = givenBy(lines);
  if (!tables.length) return plain;
  const box = boxOfLines(lines, tables);
  const thing = (item: string): DrawnKey => `item:${item}`;
  const drawn = thingsIn(boxOfLines([], tables), table, level).flatMap((each): Id[] => {
    const { kind, id } = splitThing(each);
    return kind === "item" ? [id] : [];
  });
  let rolled: ReadonlyMap<Id, Moments> | null = null;
  return {
    items: [...new Set([...plain.items, ...drawn])],
    perRun: (item, steps) => distributionOf(box, thing(item), table, level, steps),
    estimated(item, runs) {
      rolled ??= momentsOf([...new Set([...plain.items, ...drawn])]);
      return aboutNormal(item, runs, rolled.get(item) ?? { mean: 0, variance: 0, none: 1, most: 0 });
    },
  };

  /** By rolling it; where even that takes too many steps, by the rolls that there were. */
  function momentsOf(items: readonly Id[]): ReadonlyMap<Id, Moments> {
    const random = seeded(1);
    const into = new Float64Array(items.length);
    const [sum, squares, none, most] = [0, 1, 2, 3].map(() => new Float64Array(items.length));
    let n = 0;
    try {
      const roll = roller(box, table, level, items.map(thing), new Budget(ROLL_STEPS));
      for (; n < ROLLS; n++) {
        into.fill(0);
        roll(random, into);
        into.forEach((x, k) => {
          sum[k] += x;
          squares[k] += x * x;
          if (x === 0) none[k]++;
          if (x > most[k]) most[k] = x;
        });
      }
    } catch (error) {
      if (!(error instanceof TooMany)) throw error;
    }
    const of = (k: number): Moments => {
      const mean = n ? sum[k] / n : 0;
      return {
        mean,
        variance: n ? Math.max(0, squares[k] / n - mean * mean) : 0,
        none: n ? none[k] / n : 1,
        most: most[k],
      };
    };
    return new Map(items.map((item, k) => [item, of(k)]));
  }
}
