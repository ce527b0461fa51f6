"use client";
/** The best set of items for weights of stats, within a cost, and the next best. */
import { useState } from "react";
import type { Item, TrialSubject } from "@/core/kinds/index";
import { sayCost, sayQuantity } from "@/core/numbers/format";
import type { Id } from "@/core/schema/id";
import { type BestSet, bestSet } from "@/core/trials/best-set";
import { Jar } from "../kit/jars";
import { Button } from "../kit/kit";
import { figuresOf, useLive } from "../pantry/provider";
import { Labelled, NumberInput } from "./parts";
import { round } from "./wear-totals";

export function Best({
  subject,
  level,
  onWear,
}: {
  readonly subject: TrialSubject;
  readonly level: number;
  readonly onWear: (items: readonly Item[]) => void;
}) {
  const { catalogue, model } = useLive();
  const [weights, setWeights] = useState<ReadonlyMap<Id, number>>(new Map());
  const [most, setMost] = useState(0);
  const [found, setFound] = useState<BestSet | { readonly message: string } | null>(null);
  const stats = [...catalogue.records.stat.values()].filter((s) => s.better !== "neither");
  const seek = () => {
    if (![...weights.values()].some((w) => w !== 0)) {
      setFound({ message: "Enter a weight for at least one stat first." });
      return;
    }
    const items = [...catalogue.records.item.values()].filter((i) => i.status !== "retired");
    const cost = (id: Id) => figuresOf(model, id).value ?? Number.POSITIVE_INFINITY;
    const wanted = { weights, level, most: most > 0 ? most : Number.POSITIVE_INFINITY };
    try {
      setFound(
        bestSet(
          catalogue,
          subject,
          items.filter((i) => Number.isFinite(cost(i.id))),
          wanted,
          cost,
        ),
      );
    } catch (thrown) {
      setFound({ message: (thrown as Error).message });
    }
  };
  const names = (ids: readonly Id[]) => ids.flatMap((id) => catalogue.records.item.get(id) ?? []);
  return (
    <section aria-label="Best set" className="pt-6">
      <h2 className="head pb-1">Best set for these weights, at level {level}</h2>
      <div className="flex flex-wrap items-end gap-3">
        {stats.map((stat) => (
          <div key={stat.id} className="w-24">
            <Labelled label={stat.name}>
              <NumberInput
                label={`Weight of ${stat.name}`}
                value={weights.get(stat.id) ?? 0}
                onDone={(n) => setWeights(new Map([...weights, [stat.id, n]]))}
              />
            </Labelled>
          </div>
        ))}
        <div className="w-28">
          <Labelled label="Maximum cost">
            <NumberInput label="Maximum cost" value={most} least={0} onDone={setMost} />
          </Labelled>
        </div>
        <Button look="solid" onClick={seek}>
          Find
        </Button>
      </div>
      <p className="pt-1 text-[12px] text-second">
        A weight is the value of one point; use a negative weight if lower is better. Maximum cost 0 means no limit.
        Only obtainable items count.
      </p>
      {found && "message" in found && <p className="pt-2 text-beet">{found.message}</p>}
      {found && "best" in found && (
        <div className="space-y-2 pt-3">
          {[found.best, found.next].map(
            (set, n) =>
              set && (
                <div key={n === 0 ? "best" : "next"} className="flex flex-wrap items-center gap-1.5">
                  <b className="w-24">{n === 0 ? "Best" : "Next"}</b>
                  <span className="w-40 text-second tabular-nums">
                    {sayQuantity(round(set.score))} points, costs {sayCost(set.cost)}
                  </span>
                  {set.items.length === 0 && <span className="text-second">nothing at all</span>}
                  {set.items.map((id, k) => (
                    <Jar key={`${id}${k}`} id={id} />
                  ))}
                  <Button look="quiet" onClick={() => onWear(names(set.items))}>
                    Wear this set
                  </Button>
                </div>
              ),
          )}
        </div>
      )}
    </section>
  );
}
