"use client";
/** What a scenario does: costs and margins before and after, findings that come and go. */
import { nameOf } from "@/core/catalogue/catalogue";
import { ruleTitle } from "@/core/checklist";
import type { Finding } from "@/core/checks/check";
import { sayCost, sayMove } from "@/core/numbers/format";
import type { Id } from "@/core/schema/id";
import { usePlaces } from "../frame/navigate";
import { cx, Dot, Empty } from "../kit/kit";
import { marginOf, sayMargin } from "../pantry/margin";
import { figuresOf, useBase, useLive } from "../pantry/provider";
import type { OpenScenario } from "../pantry/store";

const MOST_ROWS = 200;
const INF = Number.POSITIVE_INFINITY;

export function EffectsPanel({ scenario: { edits, effects, current, stopped } }: { readonly scenario: OpenScenario }) {
  const base = useBase();
  const live = useLive();
  if (stopped !== null) return <Empty title="No effects">{stopped}</Empty>;
  if (!edits.length)
    return (
      <Empty title="Nothing is tried yet">
        Choose a number on the left, or change anything in any view. The effects on costs, margins and findings appear
        here.
      </Empty>
    );
  if (!effects) return <Empty title="Computing">The effects of these edits appear in a moment.</Empty>;
  const items = movedItems(
    effects.costs.map(({ id }) => id),
    edits.flatMap((e) => (e.op === "set" && e.kind === "item" ? [e.id] : [])),
  );
  const rows = items.flatMap((id) => {
    const [before, after] = [base, live].map(({ catalogue, model }) => {
      const item = catalogue.records.item.get(id);
      return { cost: figuresOf(model, id).value, margin: item ? marginOf(catalogue, model, item) : null };
    });
    const sameCost = before.cost === after.cost;
    return sameCost && before.margin === after.margin ? [] : [{ id, before, after, sameCost }];
  });
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
    <section aria-label="Effects" tabIndex={0} className="min-w-0 flex-1 overflow-auto px-5 py-4">
      {!rows.length && <p className={cx(!current && "text-third")}>No cost or margin changes.</p>}
      {rows.length > 0 && (
        <table className="w-full" aria-label="Costs and margins">
          <thead>
            <tr>
              <th className="head py-1 text-left">Item</th>
              {["Cost now", "What if", "Change", "Margin now", "What if"].map((title, k) => (
                <th key={k} className="head py-1 pl-3 text-right whitespace-nowrap">
                  {title}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.slice(0, MOST_ROWS).map(({ id, before, after, sameCost }) => (
              <Row key={id} id={id} before={before} after={after} sameCost={sameCost} />
            ))}
          </tbody>
        </table>
      )}
      {rows.length > MOST_ROWS && <p className="pt-1 text-second">and {rows.length - MOST_ROWS} more</p>}
      <div className="grid grid-cols-2 gap-6 pt-5">
        <Findings title="New findings" of={effects.opened} none="No new findings." />
        <Findings title="Resolved findings" of={effects.closed} none="No finding is resolved." />
      </div>
    </section>
  );
}

/** Items whose cost moves, the largest move first, then those whose own numbers are tried. */
const movedItems = (costs: readonly Id[], edited: readonly Id[]): Id[] => [...new Set([...costs, ...edited])];

interface Side {
  readonly cost: number | null;
  readonly margin: number | null;
}
function Row({ id, before, after, sameCost }: { id: Id; before: Side; after: Side; sameCost: boolean }) {
  const places = usePlaces();
  const { catalogue } = useLive();
  const worth = (cost: number | null) => (cost === null ? "unobtainable" : sayCost(cost));
  const dearer = (after.cost ?? INF) > (before.cost ?? INF);
  return (
    <tr className="border-t border-hair">
      <td className="max-w-56 truncate py-0.5">
        <button type="button" className="hover:underline" onClick={() => places.openItem(id)}>
          {nameOf(catalogue, "item", id)}
        </button>
      </td>
      <td className="num py-0.5 pl-3 text-right">{worth(before.cost)}</td>
      <td className="ink-worked py-0.5 pl-3 text-right">{worth(after.cost)}</td>
      <td
        className={cx(
          "num py-0.5 pl-3 text-right whitespace-nowrap",
          !sameCost && (dearer ? "text-copper" : "text-kelp"),
        )}
      >
        {sameCost ? "–" : sayMove(before.cost ?? INF, after.cost ?? INF)}
      </td>
      <td className="num py-0.5 pl-3 text-right">{sayMargin(before.margin) || "–"}</td>
      <td className="ink-worked py-0.5 pl-3 text-right">{sayMargin(after.margin) || "–"}</td>
    </tr>
  );
}

function Findings({ title, of, none }: { title: string; of: readonly Finding[]; none: string }) {
  const places = usePlaces();
  return (
    <section aria-label={title} className="min-w-0">
      <h2 className="head pb-0.5">
        {title} {of.length > 0 && <span className="font-normal">{of.length}</span>}
      </h2>
      {!of.length && <p className="text-second">{none}</p>}
      <ul>
        {of.slice(0, MOST_ROWS).map((finding) => (
          <li key={finding.fingerprint} className="border-b border-hair">
            <button
              type="button"
              title={finding.message}
              className="flex w-full items-center gap-2 py-0.5 text-left hover:underline"
              onClick={() => {
                const [about] = finding.about;
                if (about) places.open(about.kind, about.id);
              }}
            >
              <Dot severity={finding.severity} />
              <span className="truncate">
                <b>{ruleTitle(finding.rule)}:</b> {finding.message}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
