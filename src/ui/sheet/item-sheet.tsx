"use client";
/**
 * One item, one sheet, always in the same order: what it is, how it is made, what it makes, where it is found, what it
 * is worth, what is wrong, who changed it.
 */
import { useRef } from "react";
import type { Id } from "@/core/schema/id";
import { fieldsOfItem, statsOfItem } from "@/core/catalogue/fields";
import { heldStat, hasValueAt } from "@/core/catalogue/inheritance";
import { definition, type Item } from "@/core/kinds/index";
import { FindingLines } from "../checks/finding-lines";
import { labelOf } from "../grid/field-columns";
import { Inline, plain } from "../kit/inline";
import { cx } from "../kit/kit";
import { HistoryOf } from "../log/history";
import { marginOf, sayMargin } from "../pantry/margin";
import { useLive } from "../pantry/provider";
import { useWrite } from "../pantry/use-write";
import { UsesSection } from "../uses/lazily";
import { CostSection } from "./cost-section";
import { DescriptionEditor } from "./described";
import { FieldRow, FieldValue, Row } from "./field-row";
import { type EmptyField, FoldedFields } from "./folded-fields";
import { ItemHead } from "./item-head";
import { ItemWays, waysOf } from "./item-ways";
import { OwnFields } from "./own-fields";
import { Section } from "./section";
import { SheetEdge, useSheetWidth } from "./width";

export function ItemSheet({ item, onClose }: { item: Item; onClose: () => void }) {
  const { catalogue, model, judged } = useLive();
  const write = useWrite();
  const [width, setWidth] = useSheetWidth();
  const get = useRef<HTMLDivElement>(null);
  const use = useRef<HTMLDivElement>(null);
  const type = item.type ? catalogue.records.type.get(item.type) : undefined;
  const { made, salvages } = waysOf(catalogue, item);
  // What is wrong with the item, and with the ways to make it and to take it apart.
  const own = new Set<Id>([item.id, ...made.map((r) => r.id), ...salvages.map((r) => r.id)]);
  const findings = judged.open.filter((f) => f.about.some((r) => own.has(r.id)));
  const margin = marginOf(catalogue, model, item);
  // Those its type takes, and what it says or inherits beside them.
  const measured = statsOfItem(catalogue, item);
  const stats = [...catalogue.records.stat.values()].filter(
    ({ id }) => !measured || measured.has(id) || heldStat(catalogue, item, id).from !== "none",
  );
  const hasValue = (path: string): boolean => ALWAYS.includes(path) || hasValueAt(catalogue, "item", item, path);
  const empty: readonly EmptyField[] = [
    ...[...SHORT, ...WIDE].map((path) => {
      const field = definition("item").fields[path];
      return { path, label: labelOf(path, field), help: field.options.help };
    }),
    ...stats.map(({ id, name: label }) => ({ path: `stats.${id}`, label })),
    ...fieldsOfItem(catalogue, item).map(({ id, name: label, help }) => ({ path: `own.${id}`, label, help })),
  ].filter(({ path }) => !hasValue(path));
  return (
    <aside
      aria-label={`Item ${item.name}`}
      className="relative flex shrink-0 flex-col overflow-hidden border-t-4 border-l border-l-line bg-salt"
      style={{ borderTopColor: type?.colour ?? "var(--line)", width }}
    >
      <SheetEdge width={width} onWidth={setWidth} />
      <ItemHead item={item} colour={type?.colour} get={get} use={use} onClose={onClose} />
      {/** biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard */}
      {/** biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element */}
      <div tabIndex={0} role="region" aria-label="Sheet" className="min-h-0 flex-1 overflow-auto px-4 pb-6">
        {findings.length > 0 && (
          <FindingLines findings={findings} className="mt-3 rounded-sm bg-beet-wash px-2.5 py-1.5" />
        )}
        <Section title="What it is">
          <div className="pb-2">
            <DescriptionEditor item={item} />
          </div>
          <div className="two-columns">
            {SHORT.filter(hasValue).map((path) => (
              <FieldRow key={path} kind="item" record={item} path={path} />
            ))}
          </div>
          {WIDE.filter(hasValue).map((path) => (
            <FieldRow key={path} kind="item" record={item} path={path} />
          ))}
        </Section>
        {(catalogue.records.stat.size === 0 || stats.some(({ id }) => hasValue(`stats.${id}`))) && (
          <Section title="Stats">
            {catalogue.records.stat.size === 0 && (
              <p className="text-second">No stats in this pantry yet. Create them in Setup.</p>
            )}
            <div className="two-columns">
              {stats
                .filter(({ id }) => hasValue(`stats.${id}`))
                .map(({ id, name: stat, unit }) => (
                  <Row key={id} label={unit ? `${stat}, ${unit}` : stat}>
                    <FieldValue kind="item" record={item} path={`stats.${id}`} label={stat} />
                  </Row>
                ))}
            </div>
          </Section>
        )}
        <OwnFields kind="item" record={item} folds />
        <FoldedFields kind="item" record={item} of={empty} />
        <UsesSection owner={item} />
        <CostSection id={item.id} />
        {margin !== null && (
          <p className="pt-1 text-second">
            Sells at{" "}
            <span className={cx("font-semibold", margin < 0 ? "text-beet" : "text-kelp")}>{sayMargin(margin)}</span>{" "}
            over its cost.
          </p>
        )}
        <ItemWays item={item} get={get} use={use} />
        <Section title="Note to colleagues">
          <Inline
            label="Note"
            held={plain(item.note)}
            show={item.note || "No note"}
            text={item.note}
            long
            onWrite={(t) => write("item", item.id, "note", t)}
          />
        </Section>
        <HistoryOf id={item.id} />
      </div>
    </aside>
  );
}

/** Fields that have a place of their own on the sheet. */
const PLACED = ["key", "name", "icon", "stats", "own", "description", "note"];
const FIELDS = Object.entries(definition("item").fields).filter(([name]) => !PLACED.includes(name));
/** Shown even if they are empty. */
const ALWAYS: readonly string[] = ["type", "rarity", "tags", "level", "status"];
/** Two beside each other, but for lists. */
const SHORT = FIELDS.filter(([, { depth }]) => depth === 0).map(([name]) => name);
const WIDE = FIELDS.filter(([, { depth }]) => depth > 0).map(([name]) => name);
