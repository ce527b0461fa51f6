"use client";
/** Wear: a subject's slots, every total with where it comes from, candidates beside it, and the best set for some weights. */
import { X } from "lucide-react";
import { useState } from "react";
import { setField } from "@/core/catalogue/edit";
import { byKey } from "@/core/catalogue/keys";
import type { Item, TrialSubject } from "@/core/kinds/index";
import { sayCost, sayQuantity } from "@/core/numbers/format";
import type { Id } from "@/core/schema/id";
import { type BestSet, bestSet } from "@/core/trials/best-set";
import { Reckoner } from "@/core/trials/reckon";
import { puttingOn, roomOf, slotOf, type Total, totals, wearProblem } from "@/core/trials/worn";
import { Jar } from "../kit/jars";
import { Button, cx } from "../kit/kit";
import { NoCharacters } from "./no-characters";
import { figuresOf, useLive, useStore } from "../pantry/provider";
import { usePlaces } from "../frame/navigate";
import { ItemInput, Labelled, NumberInput, useSubject } from "./parts";

const round = (n: number) => Math.round(n * 1000) / 1000;

export function WearTab() {
  const { catalogue } = useLive();
  const store = useStore();
  const places = usePlaces();
  const { subject, level, controls } = useSubject();
  const given = places.query.get("worn");
  const keys = given === null ? null : given.split(",").filter(Boolean).slice(0, 60);
  const worn = (keys ? keys.map((key) => byKey(catalogue, "item", key)?.id) : (subject?.worn ?? [])).flatMap(
    (id) => (id && catalogue.records.item.get(id)) || [],
  );
  const setWorn = (next: readonly Item[]) => places.ask({ worn: next.map((i) => i.key).join(","), try: null }, true);
  const tried = byKey(catalogue, "item", places.query.get("try") ?? "");
  if (!subject) return <NoCharacters />;
  const reckoner = new Reckoner(catalogue);
  const now = totals(reckoner, subject, worn, level);
  const wrong = worn.flatMap(
    (item, k) =>
      wearProblem(
        catalogue,
        subject,
        item,
        worn.filter((_, n) => n < k),
        level,
      ) ?? [],
  );
  const after = tried ? puttingOn(catalogue, subject, tried, worn, level) : null;
  const then = after?.message === null ? totals(reckoner, subject, after.worn, level) : null;
  const slots = subject.slots.flatMap((id) => catalogue.records.slot.get(id) ?? []).sort((a, b) => a.order - b.order);
  const room = roomOf(catalogue, worn);
  const sameOutfit = worn.map((i) => i.id).join() === subject.worn.join();
  const keep = async () => {
    const edit = setField(
      catalogue,
      "subject",
      subject.id,
      "worn",
      worn.map((i) => i.id),
    );
    if ((await store.submit([edit])).ok) places.ask({ worn: null }, true);
  };
  return (
    <div className="flex min-h-0 flex-1">
      <section
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
        tabIndex={0}
        aria-label="Equipment"
        className="w-[380px] shrink-0 space-y-3 overflow-auto border-r border-line bg-salt p-3.5"
      >
        {controls}
        {slots.length === 0 && <p className="text-second">{subject.name} has no slots. Add them in Setup.</p>}
        {slots.map((slot) => {
          const here = worn.filter((i) => slotOf(catalogue, i) === slot.id);
          const candidates = new Set(
            [...catalogue.records.item.values()]
              .filter((i) => i.status !== "retired" && slotOf(catalogue, i) === slot.id)
              .map((i) => i.id),
          );
          return (
            <div key={slot.id} className="border-l-2 border-hair pl-2.5">
              <h2 className="head">
                {slot.name}{" "}
                {slot.places > 1 && (
                  <span className="font-normal">
                    {here.length} of {slot.places}
                  </span>
                )}
              </h2>
              <ul className="flex flex-wrap gap-1 py-1">
                {here.map((item, k) => (
                  <li key={`${item.id}${k}`} className="flex items-center">
                    <Jar id={item.id} onOpen={places.openItem} />
                    <Button
                      look="quiet"
                      className="px-1.5!"
                      aria-label={`Take off ${item.name}`}
                      onClick={() => setWorn(without(worn, item))}
                    >
                      <X size={13} aria-hidden />
                    </Button>
                  </li>
                ))}
                {here.length === 0 && <li className="text-third">Empty</li>}
              </ul>
              <div className="flex gap-1.5">
                <ItemInput
                  label={`Put on ${slot.name}`}
                  among={candidates}
                  onTake={(id) => {
                    const item = catalogue.records.item.get(id);
                    if (!item) return;
                    const next = puttingOn(catalogue, subject, item, worn, level);
                    setWorn(next.message === null ? next.worn : [...worn, item]);
                  }}
                />
                <select
                  aria-label={`Try on ${slot.name}`}
                  className="field w-36!"
                  value={tried && slotOf(catalogue, tried) === slot.id ? tried.key : ""}
                  onChange={(e) => places.ask({ try: e.target.value || null }, true)}
                >
                  <option value="">Try another</option>
                  {[...candidates].map((id) => {
                    const item = catalogue.records.item.get(id) as Item;
                    return (
                      <option key={id} value={item.key}>
                        {item.name}
                      </option>
                    );
                  })}
                </select>
              </div>
            </div>
          );
        })}
        {given !== null && !sameOutfit && (
          <div className="flex flex-wrap items-center gap-1.5">
            <Button onClick={() => void keep()} disabled={wrong.length > 0}>
              Save as {subject.name}'s outfit
            </Button>
            <Button look="quiet" onClick={() => places.ask({ worn: null, try: null }, true)}>
              Reset to the outfit
            </Button>
          </div>
        )}
        <p className="text-second">
          Equipment adds {room.slots} bag slots and {sayQuantity(room.mass)} kg to carry.
        </p>
        {wrong.map((message) => (
          <p key={message} className="text-beet">
            {message}
          </p>
        ))}
      </section>
      <section
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
        tabIndex={0}
        aria-label="Totals"
        className="min-w-0 flex-1 overflow-auto bg-salt px-4 pb-6"
      >
        {tried && (
          <div className="flex flex-wrap items-center gap-2 pt-3">
            <span className="text-second">Trying</span>
            <Jar id={tried.id} onOpen={places.openItem} />
            {after?.message === null && after.off.length ? (
              <span className="text-second">instead of {after.off.map((i) => i.name).join(", ")}</span>
            ) : null}
            {after?.message === null ? (
              <Button look="solid" onClick={() => setWorn(after.worn)}>
                Put it on
              </Button>
            ) : (
              <span className="font-semibold text-beet">{after?.message}</span>
            )}
            <Button look="quiet" onClick={() => places.ask({ try: null }, true)}>
              Cancel
            </Button>
          </div>
        )}
        <Totals now={now} then={then} />
        <Best subject={subject} level={level} onWear={setWorn} />
      </section>
    </div>
  );
}

const without = (worn: readonly Item[], item: Item): Item[] => {
  const at = worn.indexOf(item);
  return worn.filter((_, k) => k !== at);
};

function Totals({ now, then }: { readonly now: ReadonlyMap<Id, Total>; readonly then: ReadonlyMap<Id, Total> | null }) {
  const { catalogue } = useLive();
  const stats = [...catalogue.records.stat.values()].filter((s) => now.has(s.id) || then?.has(s.id));
  if (!stats.length)
    return <p className="pt-3 text-second">No stats yet: neither the character nor its equipment has any.</p>;
  return (
    <table className="mt-3 w-full">
      <thead>
        <tr className="text-left">
          <th className="head py-1">Stat</th>
          <th className="head w-24 text-right">Now</th>
          {then && <th className="head w-24 text-right">Then</th>}
          {then && <th className="head w-40 pl-3">Change</th>}
          <th className="head pl-5">Sources</th>
        </tr>
      </thead>
      <tbody>
        {stats.map((stat) => {
          const [a, b] = [now.get(stat.id), then?.get(stat.id)];
          const delta = round((b?.value ?? 0) - (a?.value ?? 0));
          const better = stat.better === "neither" || delta === 0 ? null : delta > 0 === (stat.better === "higher");
          return (
            <tr key={stat.id} className="border-t border-hair">
              <td className="py-1">
                {stat.name}
                {stat.unit && <span className="text-second">, {stat.unit}</span>}
              </td>
              <td className="text-right font-semibold tabular-nums">{a ? sayQuantity(round(a.value)) : "–"}</td>
              {then && (
                <td className="text-right font-semibold tabular-nums">{b ? sayQuantity(round(b.value)) : "–"}</td>
              )}
              {then && (
                <td className={cx("pl-3", better === true && "text-kelp", better === false && "text-beet")}>
                  {delta === 0
                    ? "same"
                    : `${delta > 0 ? "+" : "−"}${sayQuantity(Math.abs(delta))}${better === null ? "" : better ? " better" : " worse"}`}
                </td>
              )}
              <td className="pl-5 text-second">
                {(b ?? a)?.shares
                  .map((s) => `${s.name} ${sayQuantity(round(s.value))}`)
                  .join({ sum: " + ", product: " × ", highest: " or ", lowest: " or " }[stat.combine])}
                {stat.combine === "highest" || stat.combine === "lowest" ? `, the ${stat.combine}` : ""}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function Best({
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
