/** What a recipe line says, and what is wrong with it or worth knowing. */
import type { NumberFormat } from "../numbers/decimal";
import type { Names, Surroundings } from "../schema/field";
import type { Id } from "../schema/id";
import type { Issue } from "../schema/issue";
import type { Span } from "./lexer";
import type { ClauseStatement } from "../clauses/all";
import type { Bonus, Draw, FromTable, Grid, RecipeKind } from "./line";
import type { Role } from "./roles";

/** What is said of a part of a line; what it suggests would fit in place of the span. */
export interface LineIssue extends Issue, Span {}

export interface ParsedEntry {
  readonly role: Role;
  /** As typed, or the record's own name where it was found. */
  readonly name: string;
  /** null: not in the pantry, writing the line makes it a stub; or it is any item with a tag. */
  readonly item: Id | null;
  /** The tag of which it is any item; null: not in the pantry, writing the line makes it. Absent: it names an item. */
  readonly any?: Id | null;
  readonly min: number;
  readonly max: number;
  readonly chance: number;
  readonly uses: number | null;
  readonly draw?: Draw;
  readonly bonus?: Bonus;
  readonly whole?: boolean;
  readonly cells?: number;
  readonly span: Span;
}

export interface ParsedLine extends ClauseStatement {
  readonly kind: RecipeKind;
  readonly label: string | null;
  readonly entries: readonly ParsedEntry[];
  readonly tables: readonly FromTable[];
  readonly grid: Grid;
  readonly variants: readonly ParsedVariant[];
  readonly issues: readonly LineIssue[];
  /** True when no remark is an error. */
  readonly ok: boolean;
}

/** What of another way is said. */
export interface ParsedVariant {
  readonly label: string | null;
  readonly entries: readonly ParsedEntry[];
  readonly said: Partial<ClauseStatement>;
}

export interface Words {
  readonly items: Names;
  readonly currencies: Names;
  readonly tags: Names;
  readonly tables: Names;
  readonly stats: Names;
  readonly ticksPerSecond: number;
  /** How whoever types the line writes numbers. */
  readonly numbers?: NumberFormat;
  /** Names of items near one that was typed; none once they have cost as much as they are worth. */
  readonly near: (typed: string) => readonly string[];
}

/** So many names are compared with what was typed before near ones are no longer looked for. */
const PATIENCE = 300_000;

/** The words a line may use, of the records around it. */
export function words(around: Pick<Surroundings, "names" | "numbers" | "ticksPerSecond">): Words {
  const [items, currencies, tags, tables, stats] = (["item", "currency", "tag", "table", "stat"] as const).map((kind) =>
    around.names(kind),
  );
  let left = PATIENCE;
  const near = (typed: string): readonly string[] => {
    if (left <= 0) return [];
    left -= items.size;
    return items.near(typed);
  };
  const { ticksPerSecond, numbers } = around;
  return { items, currencies, tags, tables, stats, ticksPerSecond, numbers, near };
}
