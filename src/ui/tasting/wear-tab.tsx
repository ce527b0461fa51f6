"use client";
/** Wear: a test character's slots, every total with where it comes from, candidates beside it, and the best set for some weights. */
import { X } from "lucide-react";
import { setField } from "@/core/catalogue/edit";
import { byKey } from "@/core/catalogue/keys";
import type { Item } from "@/core/kinds/index";
import { sayQuantity } from "@/core/numbers/format";
import { Reckoner } from "@/core/trials/reckon";
import { puttingOn, roomOf, slotOf, totals, wearProblem } from "@/core/trials/worn";
import { Jar } from "../kit/jars";
import { Button } from "../kit/kit";
import { NoCharacters } from "./no-characters";
import { useLive, useStore } from "../pantry/provider";
import { usePlaces } from "../frame/navigate";
import { Best } from "./best-set";
import { ItemInput, useSubject } from "./parts";
import { Totals } from "./wear-totals";

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
