"use client";
/** The same record as the line above it, as a form: each field writes back into the line. */
import { type Catalogue, nameOf } from "@/core/catalogue/catalogue";
import { vesselOf } from "@/core/process/traits";
import { around, namesOf } from "@/core/catalogue/surroundings";
import { X } from "lucide-react";
import type { Id } from "@/core/schema/id";
import { MOST, MOST_CHANCE, MOST_WEIGHT } from "@/core/schema/limits";
import { type Role, roleRule, ROLES } from "@/core/notation/roles";
import { formatParsed } from "@/core/notation/format";
import type { ParsedEntry, ParsedLine } from "@/core/notation/parsed";
import { count, sayQuantity } from "@/core/numbers/format";
import { add, fromNumber, fromPercent, subtract, toNumber, toPercent } from "@/core/numbers/fraction";
import { asKind } from "@/core/editing/arrange";
import { RECIPE_KINDS } from "@/core/notation/line";
import { NumberInput } from "../forms/field-input";
import { Button } from "../kit/kit";
import { NameInput } from "../kit/name-input";
import { useCatalogue } from "../pantry/provider";
import { ClauseInputs } from "./clause-inputs";
import { PatternEditor } from "./pattern-editor";
import { VariantsForm } from "./variants-form";
import { AddLine, BonusFields, Labelled, Text } from "./form-parts";

const AMOUNT = { min: 0, max: MOST } as const;

export function RecipeForm({ parsed, onText }: { parsed: ParsedLine; onText: (text: string) => void }) {
  const catalogue = useCatalogue();
  if (!parsed.ok) return <p className="text-second">The form appears when the line has no errors.</p>;
  const write = (part: Partial<ParsedLine>) => onText(formatParsed(around(catalogue), { ...parsed, ...part }));
  const put = (at: number, part: Partial<ParsedEntry>) =>
    write({ entries: parsed.entries.map((e, i) => (i === at ? { ...e, ...part } : e)) });
  const names = [...catalogue.records.item.values()].map((i) => i.name);
  const everything = [...names, ...[...catalogue.records.tag.values()].map((t) => `any ${t.name}`)];
  const stats = [...catalogue.records.stat.values()];
  const rest = { span: { from: 0, to: 0 }, min: 1, max: 1, chance: 1, uses: null };
  return (
    <div className="space-y-3">
      <div className="grid grid-cols-[1fr_96px] gap-2">
        <Labelled label="Name">
          <Text
            value={parsed.label ?? ""}
            placeholder="named after its result"
            onDone={(t) => write({ label: t || null })}
          />
        </Labelled>
        <Labelled label="Kind">
          <select
            className="field"
            value={parsed.kind}
            onChange={(e) => write(asKind(parsed, e.target.value as ParsedLine["kind"]))}
          >
            {RECIPE_KINDS.map((kind) => (
              <option key={kind}>{kind}</option>
            ))}
          </select>
        </Labelled>
      </div>
      <ClauseInputs said={parsed} onSaid={write} />
      {parsed.kind === "pattern" && (
        <PatternEditor parsed={parsed} onPlaces={write} named={(typed) => named(catalogue, "ingredient", typed)} />
      )}
      {parsed.kind === "combine" && (
        <fieldset className="flex flex-wrap items-center gap-3">
          <legend className="head pb-1">Order</legend>
          {[
            { message: "either may come first", mirrored: true },
            { message: "the first on the second only", mirrored: false },
          ].map(({ message, mirrored }) => (
            <label key={message} className="flex items-center gap-1.5">
              <input
                type="radio"
                name="order"
                checked={parsed.grid.mirrored === mirrored}
                onChange={() => write({ grid: { ...parsed.grid, mirrored } })}
              />
              {message}
            </label>
          ))}
        </fieldset>
      )}
      <table className="w-full">
        <thead>
          <tr className="text-left">
            {["Role", "Item", "From", "To", parsed.entries.some((e) => e.draw) ? "%, weight" : "Chance %", "Lasts"].map(
              (h) => (
                <th key={h} className="head pb-1 pr-2">
                  {h}
                </th>
              ),
            )}
            <th>
              <span className="sr-only">Remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {parsed.entries.map((e, i) =>
            e.cells ? null : (
              <tr key={`${i}${e.role}${e.name}`}>
                <td className="w-28 pr-2 pb-1">
                  <select
                    aria-label="Role"
                    className="field min-w-26"
                    value={e.role}
                    onChange={(x) => {
                      const role = x.target.value as Role;
                      const { wears, draws, chance } = roleRule(role);
                      put(i, {
                        role,
                        ...(wears ? {} : { uses: null }),
                        ...(draws ? {} : { draw: undefined, bonus: undefined }),
                        ...(chance ? {} : { chance: 1 }),
                      });
                    }}
                  >
                    {ROLES.map((r) => (
                      <option key={r}>{r}</option>
                    ))}
                  </select>
                </td>
                <td className="pr-2 pb-1">
                  <NameInput
                    label="Item"
                    value={e.any === undefined ? e.name : `any ${e.name}`}
                    names={roleRule(e.role).any ? everything : names}
                    onDone={(name) => name && put(i, named(catalogue, e.role, name))}
                  />
                  {roleRule(e.role).emptied && e.item && vesselOf(catalogue, e.item) && (
                    <label
                      className="flex items-center gap-1 pt-0.5 text-[12px] text-second"
                      title="Its container is returned unless it is taken whole."
                    >
                      <input
                        type="checkbox"
                        checked={!e.whole}
                        onChange={(x) => put(i, { whole: x.target.checked ? undefined : true })}
                      />
                      {nameOf(catalogue, "item", vesselOf(catalogue, e.item) as Id)} container returned
                    </label>
                  )}
                  {e.bonus && <BonusFields stats={stats} bonus={e.bonus} onBonus={(bonus) => put(i, { bonus })} />}
                </td>
                <td className="w-20 pr-2 pb-1">
                  <NumberInput
                    narrow
                    label="From"
                    value={e.min}
                    rules={AMOUNT}
                    onDone={(min) => min !== null && put(i, { min, max: e.min === e.max ? min : e.max })}
                  />
                </td>
                <td className="w-20 pr-2 pb-1">
                  <NumberInput
                    narrow
                    label="To"
                    value={e.max}
                    rules={AMOUNT}
                    onDone={(max) => max !== null && put(i, { max })}
                  />
                </td>
                <td className="w-20 pr-2 pb-1">
                  {e.draw ? (
                    <NumberInput
                      narrow
                      label="Weight"
                      value={e.draw.weight}
                      rules={{ min: 0, max: MOST_WEIGHT, places: 6 }}
                      onDone={(weight) => weight !== null && write({ entries: weigh(parsed.entries, i, weight) })}
                    />
                  ) : roleRule(e.role).chance ? (
                    <NumberInput
                      narrow
                      label="Chance in percent"
                      value={toPercent(e.chance)}
                      rules={{ min: 0, max: MOST_CHANCE * 100 }}
                      unit="%"
                      onDone={(c) => c !== null && put(i, { chance: fromPercent(c) })}
                    />
                  ) : null}
                </td>
                <td className="w-20 pr-2 pb-1">
                  {roleRule(e.role).wears ? (
                    <NumberInput
                      narrow
                      label="Runs it lasts"
                      value={e.uses}
                      rules={{ min: 1, max: MOST, whole: true }}
                      empty={null}
                      placeholder="unlimited"
                      onDone={(uses) => put(i, { uses })}
                    />
                  ) : null}
                  {roleRule(e.role).bonus && !e.draw && !e.bonus && stats.length > 0 && (
                    <Button
                      look="quiet"
                      className="px-1! text-[12px] font-normal!"
                      title="Chance depends on a stat of the maker"
                      onClick={() => put(i, { bonus: { share: 0.01, stat: stats[0].id } })}
                    >
                      add a stat
                    </Button>
                  )}
                  {e.draw && (
                    <span className="text-[12px] whitespace-nowrap text-second">
                      of {sayQuantity(e.draw.of)}, {count(e.draw.times, "draw")}
                    </span>
                  )}
                </td>
                <td className="w-8 pb-1">
                  <Button
                    look="quiet"
                    aria-label={`Remove ${e.name}`}
                    className="px-1!"
                    onClick={() => write({ entries: weigh(parsed.entries, i, 0).filter((_, k) => k !== i) })}
                  >
                    <X size={14} aria-hidden />
                  </Button>
                </td>
              </tr>
            ),
          )}
        </tbody>
      </table>
      <div className="flex flex-wrap gap-1.5">
        {ROLES.filter((role) => parsed.kind !== "combine" || role !== "ingredient").map((role) => (
          <AddLine
            key={role}
            role={role}
            names={roleRule(role).any ? everything : names}
            onAdd={(name) =>
              write({ entries: [...parsed.entries, { ...rest, role, ...named(catalogue, role, name) }] })
            }
          />
        ))}
      </div>
      <VariantsForm parsed={parsed} onVariants={(variants) => write({ variants })} />
    </div>
  );
}

/** How much surer each point of a stat of the maker makes it. */
function named(catalogue: Catalogue, role: Role, typed: string): Pick<ParsedEntry, "name" | "item" | "any"> {
  const item = namesOf(catalogue, "item").find(typed);
  if (item.found === "one") return { name: item.name, item: item.id, any: undefined };
  const tag = roleRule(role).any ? /^any\s+(.+)$/i.exec(typed)?.[1] : undefined;
  if (!tag) return { name: typed, item: null, any: undefined };
  const found = namesOf(catalogue, "tag").find(tag);
  return { name: found.found === "one" ? found.name : tag, item: null, any: found.found === "one" ? found.id : null };
}

/** The entries with another weight for one of them; the weight of nothing stays. */
function weigh(entries: readonly ParsedEntry[], at: number, weight: number): ParsedEntry[] {
  const drawn = entries[at].draw;
  if (!drawn) return [...entries];
  const of = toNumber(add(subtract(fromNumber(drawn.of), fromNumber(drawn.weight)), fromNumber(weight)));
  return entries.map((e, i) =>
    e.draw?.group === drawn.group ? { ...e, draw: { ...e.draw, of, weight: i === at ? weight : e.draw.weight } } : e,
  );
}
