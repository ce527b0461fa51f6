/** What is planned in a tasting, as it stands in an address: known shapes only, whatever someone wrote there. */
import { around } from "@/core/catalogue/surroundings";
import type { Catalogue } from "@/core/catalogue/catalogue";
import { byKey } from "@/core/catalogue/keys";
import { formula } from "@/core/formulas/field";
import type { Id } from "@/core/schema/id";
import { parseTicks } from "@/core/numbers/ticks";
import { typedNumber } from "@/core/numbers/typed";
import type { HarmStep } from "@/core/trials/tasting";
import type { Planned } from "@/core/trials/play";

export const RULES = ["as soon as ready", "every", "at", "whenever"] as const;
/** A row as it is typed: an item's key, its use's key or "", a rule and what belongs to it. */
export interface PlanRow {
  readonly item: string;
  readonly use: string;
  readonly rule: (typeof RULES)[number];
  readonly value: string;
}
const MOST_ROWS = 30;
const encoded = (text: string): string => encodeURIComponent(text).replaceAll("~", "%7E");

export const writePlans = (rows: readonly PlanRow[]): string =>
  rows
    .map(({ item, use, rule, value }) => [item, use, String(RULES.indexOf(rule)), value].map(encoded).join("~"))
    .join("|");

export function readPlans(text: string): PlanRow[] {
  if (!text) return [];
  return text
    .split("|")
    .slice(0, MOST_ROWS)
    .flatMap((row): PlanRow[] => {
      try {
        const [item, use, rule, value = ""] = row.split("~").map(decodeURIComponent);
        const known = RULES[Number(rule)];
        return item && known ? [{ item, use: use ?? "", rule: known, value: value.slice(0, 600) }] : [];
      } catch {
        return [];
      }
    });
}

/** What a row comes to, or what is wrong with it. */
export function planOf(catalogue: Catalogue, row: PlanRow): Planned | { readonly message: string } {
  const item = byKey(catalogue, "item", row.item);
  if (!item) return { message: `There is no item “${row.item}”.` };
  const use = row.use ? (byKey(catalogue, "use", row.use)?.id ?? null) : null;
  const tps = catalogue.pantry.ticksPerSecond;
  const planned = (rule: Planned["rule"]): Planned => ({ item: item.id, use, rule });
  if (row.rule === "as soon as ready") return planned({ is: "ready" });
  if (row.rule === "every") {
    const ticks = parseTicks(row.value, tps, catalogue.numbers);
    return ticks ? planned({ is: "every", ticks, from: 0 }) : { message: "Enter a duration such as 30s." };
  }
  if (row.rule === "at") {
    const times = row.value
      .split(/[,;\s]+/)
      .filter(Boolean)
      .map((t) => parseTicks(t, tps, catalogue.numbers));
    return times.some((t) => t === null)
      ? { message: "Enter times such as 0s 30s 1m." }
      : planned({ is: "at", ticks: times.filter((t): t is number => t !== null) });
  }
  const read = formula("bearer").parse(row.value, { ...around(catalogue), make: () => null });
  if ("message" in read) return { message: read.message };
  return read.value === null
    ? { message: "Enter a formula such as Vigour < 30." }
    : planned({ is: "whenever", holds: read.value });
}

/** A pasted curve: a time and harm a second on each line; "2" alone is steady. */
export function readHarm(
  catalogue: Catalogue,
  resource: Id,
  text: string,
): readonly HarmStep[] | { readonly message: string } {
  const steps: HarmStep[] = [];
  for (const line of text
    .split(/[\n|]/)
    .map((l) => l.trim())
    .filter(Boolean)
    .slice(0, 1000)) {
    const parts = line.split(/[\s;:]+/);
    const { numbers, pantry } = catalogue;
    const amount = typedNumber(parts[parts.length - 1] ?? "", { format: numbers });
    const tick = parts.length > 1 ? parseTicks(parts[0], pantry.ticksPerSecond, numbers) : 0;
    if (parts.length > 2 || "message" in amount || tick === null)
      return { message: `“${line}” isn't damage. Enter 2 for 2 per second, or lines such as 30s 2.` };
    steps.push({ resource, tick, perSecond: amount.value });
  }
  return steps;
}
