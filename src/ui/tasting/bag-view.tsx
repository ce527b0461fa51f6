"use client";
/** The bag as it is: its stacks and empty slots, what is worn and stored, and beside it how its owner is. */
import { type ReactNode, useState } from "react";
import { usesOf } from "@/core/catalogue/uses";
import type { Item, Trial } from "@/core/kinds/index";
import { count, sayQuantity } from "@/core/numbers/format";
import { formatTicks } from "@/core/numbers/ticks";
import type { Play } from "@/core/trials/play";
import { isEmptySlot } from "@/core/trials/bag";
import { slotOf } from "@/core/trials/worn";
import { usePlaces } from "../frame/navigate";
import { Jar } from "../kit/jars";
import { Button, cx } from "../kit/kit";
import { useLive } from "../pantry/provider";
import { WithCard } from "../sheet/hover-card";

type Does = Trial["steps"][number]["does"];
/** Most empty slots that are drawn. */
const DRAWN = 60;

export function BagView({ play, amount, act }: { play: Play; amount: number; act: (step: Does) => void }) {
  const { catalogue } = useLive();
  const places = usePlaces();
  const { bag, user } = play;
  const { slots, mass } = bag.load;
  const [moving, setMoving] = useState<number | null>(null);
  /** Takes a stack up, puts it down again, or changes its place with the one that was taken up. */
  const swapWith = (k: number) => {
    if (moving !== null && moving !== k) act({ is: "swap", one: moving + 1, other: k + 1 });
    setMoving(moving === null ? k : null);
  };
  const moveTo = (slot: number) => {
    if (moving !== null) act({ is: "move", one: moving + 1, slot });
    setMoving(null);
  };
  const empty = bag.limits.slots === null ? 0 : Math.max(0, bag.limits.slots - slots);
  const emptySlots = (first: number, many: number) =>
    Array.from({ length: Math.min(many, DRAWN) }, (_, k) => (
      <EmptySlot key={first + k} slot={first + k} moves={moving !== null} onMove={() => moveTo(first + k)} />
    ));
  // Each place with the slot at which it begins, and the number of its stack.
  let [slot, number] = [1, 0];
  const laid = bag.places.map((stack) => {
    const place = { stack, slot, k: isEmptySlot(stack) ? -1 : number };
    slot += stack.slots;
    if (place.k >= 0) number++;
    return place;
  });
  const behind = bag.limits.slots === null ? 0 : Math.max(0, bag.limits.slots + 1 - slot);
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1 pt-3">
        <Gauge label="Slots" value={slots} most={bag.limits.slots} />
        <Gauge label="Carries" value={mass} most={bag.limits.mass} unit=" kg" />
        <span className="text-second">
          {[...bag.money]
            .filter(([, n]) => n > 0)
            .map(([id, n]) => `${sayQuantity(n)} ${catalogue.records.currency.get(id)?.name}`)
            .join(", ") || "no money"}
          , after {formatTicks(play.tick, catalogue.pantry.ticksPerSecond)}
        </span>
      </div>
      <ul aria-label="Stacks" className="grid grid-cols-[repeat(auto-fill,minmax(190px,1fr))] gap-1.5 pt-3">
        {laid.map(({ stack, slot, k }) => {
          if (k < 0)
            return (
              <li key={`empty${slot}`} className="flex flex-wrap content-start gap-1 p-1.5">
                {emptySlots(slot, stack.slots)}
              </li>
            );
          const item = catalogue.records.item.get(stack.item);
          const uses = item ? usesOf(catalogue, item) : [];
          return (
            <li
              key={slot}
              className={cx(
                "rounded-sm border border-hair bg-shade p-1.5",
                moving === k && "outline-2 -outline-offset-2 outline-kelp",
              )}
              draggable
              onDragStart={() => setMoving(k)}
              onDragEnd={() => setMoving(null)}
              onDragOver={(e) => e.preventDefault()}
              onDrop={(e) => {
                e.preventDefault();
                swapWith(k);
              }}
            >
              <Carded item={item}>
                <Jar
                  id={stack.item}
                  amount={
                    stack.slots > 1
                      ? `${sayQuantity(stack.slots)} × ${sayQuantity(stack.count)}`
                      : sayQuantity(stack.count)
                  }
                  onOpen={places.openItem}
                />
              </Carded>
              <span className="flex flex-wrap pt-0.5 [&_button]:h-6 [&_button]:px-1.5">
                {uses.slice(0, 2).map((u) => (
                  <Button
                    key={u.use.id}
                    look="quiet"
                    onClick={() => act({ is: "use", item: stack.item, use: u.use.id, times: 1 })}
                  >
                    {u.name}
                  </Button>
                ))}
                {item && slotOf(catalogue, item) !== null && (
                  <Button look="quiet" onClick={() => act({ is: "wear", item: stack.item })}>
                    Wear
                  </Button>
                )}
                <Button
                  look="quiet"
                  disabled={stack.count < 2}
                  onClick={() => act({ is: "split", item: stack.item, amount: Math.floor(stack.count / 2) })}
                >
                  Split
                </Button>
                <Button
                  look="quiet"
                  disabled={!bag.stacks.some((other, n) => n !== k && other.item === stack.item)}
                  onClick={() => act({ is: "merge", item: stack.item })}
                >
                  Merge
                </Button>
                {(bag.stacks.length > 1 || empty > 0) && (
                  <Button look="quiet" aria-pressed={moving === k} onClick={() => swapWith(k)}>
                    {moving === null || moving === k ? "Move" : "Swap"}
                  </Button>
                )}
                <Button
                  look="quiet"
                  onClick={() => act({ is: "drop", item: stack.item, amount: Math.min(amount, stack.count) })}
                >
                  Drop
                </Button>
              </span>
            </li>
          );
        })}
        {bag.stacks.length === 0 && <li className="text-second">The bag is empty. Add items on the left.</li>}
      </ul>
      {empty > 0 && (
        <p className="flex flex-wrap items-center gap-1 pt-2 text-second">
          {emptySlots(slot, behind)}
          <span className="pl-1">{count(empty, "empty slot")}</span>
        </p>
      )}
      {user.worn.length > 0 && (
        <p className="flex flex-wrap items-center gap-1.5 pt-3">
          <span className="head">Worn</span>
          {user.worn.map((item) => (
            <span key={item.id} className="flex items-center">
              <Jar id={item.id} onOpen={places.openItem} />
              <Button look="quiet" className="px-1.5!" onClick={() => act({ is: "take off", item: item.id })}>
                Take off
              </Button>
            </span>
          ))}
        </p>
      )}
      {bag.stored.size > 0 && (
        <p className="flex flex-wrap items-center gap-1.5 pt-3">
          <span className="head">Stored</span>
          {[...bag.stored].map(([id, n]) => (
            <Jar key={id} id={id} amount={sayQuantity(n)} />
          ))}
        </p>
      )}
    </>
  );
}

/** A slot in which nothing lies; what is being moved can be put there. */
function EmptySlot({ slot, moves, onMove }: { slot: number; moves: boolean; onMove: () => void }) {
  return (
    <button
      type="button"
      aria-label={`Slot ${slot}, empty`}
      title={moves ? `Put it into slot ${slot}` : `Slot ${slot}`}
      disabled={!moves}
      className={cx("size-6 rounded-sm border border-dashed border-line", moves && "border-kelp hover:bg-pick")}
      onClick={onMove}
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        onMove();
      }}
    />
  );
}

const Carded = ({ item, children }: { item: Item | undefined; children: ReactNode }) =>
  item ? <WithCard item={item}>{children}</WithCard> : children;

/** Resources, conditions and stats of whoever carries the bag. */
export function Condition({ play }: { play: Play }) {
  const { catalogue } = useLive();
  const { user } = play;
  const tps = catalogue.pantry.ticksPerSecond;
  const stats = [...user.steps.keys()].flatMap((id) => {
    const stat = catalogue.records.stat.get(id);
    return stat ? [{ stat, value: user.stat(id) }] : [];
  });
  return (
    <section aria-label={`State of ${user.subject.name}`} className="w-[230px] shrink-0 space-y-3 pt-3">
      {user.pools.map(({ of, most }) => (
        <Gauge key={of.id} label={of.name} value={user.resource(of.id)} most={most} stacked />
      ))}
      {user.pools.length === 0 && <p className="text-second">{user.subject.name} has no resources.</p>}
      {user.conditions.length > 0 && (
        <ul aria-label="Conditions" className="space-y-0.5">
          {user.conditions.map(({ of, layers, until }) => (
            <li key={of.id} className="flex justify-between gap-2">
              <span className="font-semibold">
                {of.name}
                {layers > 1 && ` × ${layers}`}
              </span>
              <span className="text-second tabular-nums">
                {Number.isFinite(until) ? `${formatTicks(until - play.tick, tps)} left` : "until cleared"}
              </span>
            </li>
          ))}
        </ul>
      )}
      {stats.length > 0 && (
        <dl aria-label="Stats" className="space-y-0.5">
          {stats.map(({ stat, value }) => (
            <div key={stat.id} className="flex justify-between gap-2">
              <dt className="text-second">{stat.name}</dt>
              <dd className="tabular-nums">{sayQuantity(Math.round(value * 1000) / 1000)}</dd>
            </div>
          ))}
        </dl>
      )}
    </section>
  );
}

function Gauge({
  label,
  value,
  most,
  unit = "",
  stacked,
}: {
  readonly label: string;
  readonly value: number;
  readonly most: number | null;
  readonly unit?: string;
  /** Its numbers above its bar, which takes the whole width. */
  readonly stacked?: boolean;
}) {
  const share = most ? Math.min(1, value / most) : 0;
  const numbers = (
    <span className="tabular-nums">
      {sayQuantity(Math.round(value * 100) / 100)}
      {most === null ? "" : ` of ${sayQuantity(Math.round(most * 100) / 100)}`}
      {unit}
    </span>
  );
  return (
    <span className={cx(stacked ? "block" : "flex items-center gap-2")}>
      <span className={cx(stacked && "flex justify-between pb-0.5")}>
        <span className="head">{label}</span>
        {stacked && numbers}
      </span>
      <span className={cx("rounded-sm bg-hair", stacked ? "block h-2" : "inline-block h-2 w-28")}>
        <span
          className={cx("block h-full rounded-sm", !stacked && share > 0.95 ? "bg-copper" : "bg-kelp")}
          style={{ width: `${share * 100}%` }}
        />
      </span>
      {!stacked && numbers}
    </span>
  );
}
