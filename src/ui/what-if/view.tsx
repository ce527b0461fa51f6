"use client";
/** What-if: scenarios that are kept, or the one that is open with what it changes and what that does. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { nameOf } from "@/core/catalogue/catalogue";
import { comparedCosts } from "@/core/engine/effects";
import type { Scenario } from "@/core/kinds/index";
import { count, sayCost } from "@/core/numbers/format";
import { editsIn } from "@/core/schema/edits";
import type { Id } from "@/core/schema/id";
import { storedEdits } from "@/core/what-if/scenario";
import { usePlaces } from "../frame/navigate";
import { Button, Empty } from "../kit/kit";
import { useBase, useStore, useView } from "../pantry/provider";
import { EffectsPanel } from "./effects";
import { TriedPanel } from "./tried";

export function WhatIfView() {
  const scenario = useView((v) => v.scenario);
  return (
    <div className="flex min-h-0 flex-1 overflow-hidden bg-salt">
      {scenario ? (
        <>
          <TriedPanel scenario={scenario} />
          <EffectsPanel scenario={scenario} />
        </>
      ) : (
        <Scenarios />
      )}
    </div>
  );
}

/** Scenarios that are compared at once. */
const MOST_COMPARED = 3;

function Scenarios() {
  const store = useStore();
  const { catalogue } = useBase();
  const [chosen, setChosen] = useState<readonly Id[]>([]);
  const kept = [...catalogue.records.scenario.values()].sort((a, b) => (a.name < b.name ? -1 : 1));
  const compared = kept.filter(({ id }) => chosen.includes(id));
  const { left } = store;
  const begin = (
    <Button look="solid" onClick={() => store.enterScenario()}>
      New scenario
    </Button>
  );
  if (!kept.length && !left)
    return (
      <Empty title="No scenarios yet" action={begin}>
        A scenario tries changes without making them: a price, a quantity, a new recipe. Everyone else sees the pantry
        as it is. To try one value, type it in any field and press Alt+Enter.
      </Empty>
    );
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
    <section aria-label="Scenarios" tabIndex={0} className="min-w-0 flex-1 overflow-auto px-5 py-4">
      <div className="flex items-center gap-2 pb-3">
        {begin}
        {left && (
          <Button onClick={() => store.enterScenario(left)}>
            Continue {left.name || "the last one"} ({count(left.edits.length, "edit")})
          </Button>
        )}
        <span className="text-second">To try one value, type it in any field and press Alt+Enter.</span>
      </div>
      {kept.length > 0 && (
        <ul className="max-w-3xl">
          {kept.map((scenario) => (
            <Kept
              key={scenario.id}
              scenario={scenario}
              isChosen={chosen.includes(scenario.id)}
              canChoose={chosen.length < MOST_COMPARED}
              onChoose={(on) => setChosen(on ? [...chosen, scenario.id] : chosen.filter((id) => id !== scenario.id))}
            />
          ))}
        </ul>
      )}
      {compared.length > 1 ? (
        <ComparedScenarios scenarios={compared} />
      ) : (
        kept.length > 1 && <p className="pt-3 text-second">Choose two or three to compare them.</p>
      )}
    </section>
  );
}

function Kept({
  scenario,
  isChosen,
  canChoose,
  onChoose,
}: {
  readonly scenario: Scenario;
  readonly isChosen: boolean;
  readonly canChoose: boolean;
  readonly onChoose: (on: boolean) => void;
}) {
  const store = useStore();
  const { catalogue } = useBase();
  const edits = storedEdits(catalogue, scenario.edits);
  return (
    <li className="flex items-center gap-3 border-b border-hair py-1">
      <input
        type="checkbox"
        aria-label={`Compare ${scenario.name}`}
        checked={isChosen}
        disabled={!isChosen && !canChoose}
        onChange={(e) => onChoose(e.target.checked)}
      />
      <button
        type="button"
        disabled={!edits}
        className="min-w-0 truncate text-left font-semibold hover:underline"
        onClick={() => edits && store.enterScenario({ id: scenario.id, name: scenario.name, edits })}
      >
        {scenario.name}
      </button>
      <span className="min-w-0 flex-1 truncate text-second">{scenario.note}</span>
      <span className="whitespace-nowrap text-second">
        {edits ? count(editsIn(scenario.edits).length, "edit") : "can't be read"}
      </span>
      <Button
        look="quiet"
        aria-label={`Delete ${scenario.name}`}
        onClick={() => void store.deleteScenario(scenario.id)}
      >
        Delete
      </Button>
    </li>
  );
}

/** Rows of the comparison that are listed. */
const MOST_ROWS = 200;

function ComparedScenarios({ scenarios }: { readonly scenarios: readonly Scenario[] }) {
  const store = useStore();
  const places = usePlaces();
  const { catalogue, model } = useBase();
  const { data, error } = useQuery({
    queryKey: ["scenarios", store.key, catalogue.revision, scenarios.map(({ id }) => id)],
    queryFn: () =>
      Promise.all(
        scenarios.map(async ({ edits, name }) => {
          const read = storedEdits(catalogue, edits);
          if (!read?.length) return [];
          const got = await store.api.whatIf(read);
          if (!got.ok) throw new Error(`${name}: ${got.problem.detail}`);
          return got.value.ripple.figures;
        }),
      ),
  });
  if (error) return <p className="pt-3 text-beet">{error.message} Open the scenario to update or drop the edit.</p>;
  if (!data) return <p className="pt-3 text-second">Comparing.</p>;
  const rows = comparedCosts(model, data);
  return (
    <section aria-label="Comparison" className="max-w-3xl pt-5">
      <h2 className="head pb-1">
        Costs that differ {rows.length > 0 && <span className="font-normal">{rows.length}</span>}
      </h2>
      {!rows.length ? (
        <p className="text-second">Every item costs the same in all of them.</p>
      ) : (
        <table className="w-full">
          <thead>
            <tr>
              <th className="head py-1 text-left">Item</th>
              <th className="head py-1 text-right">Now</th>
              {scenarios.map(({ id, name }) => (
                <th key={id} className="head max-w-40 truncate py-1 pl-3 text-right">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.slice(0, MOST_ROWS).map(({ id, now, costs }) => (
              <tr key={id} className="border-t border-hair">
                <td className="py-0.5">
                  <button type="button" className="hover:underline" onClick={() => places.openItem(id)}>
                    {nameOf(catalogue, "item", id)}
                  </button>
                </td>
                <td className="num py-0.5 text-right">{sayWorth(now)}</td>
                {costs.map((cost, k) => (
                  <td key={scenarios[k].id} className="ink-worked py-0.5 pl-3 text-right">
                    {sayWorth(cost)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {rows.length > MOST_ROWS && <p className="pt-1 text-second">and {rows.length - MOST_ROWS} more</p>}
    </section>
  );
}

const sayWorth = (value: number | null): string => (value === null ? "unobtainable" : sayCost(value));
