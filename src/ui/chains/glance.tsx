"use client";
/** Before an item is chosen: the whole pantry at a glance. Everything in it leads on into a chain or a check. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import type { Glance as Found } from "@/core/analysis/glance";
import { nameOf } from "@/core/catalogue/catalogue";
import { count } from "@/core/numbers/format";
import type { Id } from "@/core/schema/id";
import { usePlaces } from "../frame/navigate";
import { Button, Empty } from "../kit/kit";
import { useLive, useStore, useStamp } from "../pantry/provider";

export function Glance({ asked, onPick }: { asked: string | null; onPick: (id: Id) => void }) {
  const { catalogue } = useLive();
  const store = useStore();
  const places = usePlaces();
  const stamp = useStamp();
  const { data, isError } = useQuery({
    queryKey: ["glance", store.key, stamp],
    placeholderData: keepPreviousData,
    queryFn: () => store.api.glance(),
  });
  if (!catalogue.records.item.size)
    return (
      <Empty
        title="No items yet"
        action={
          <Button look="solid" onClick={() => places.go("shelves", { new: "1" })}>
            New item
          </Button>
        }
      >
        Chains show what an item is made of and what it is used for. Add items on the Shelves first.
      </Empty>
    );
  const names = (of: readonly Id[], all: number) => (
    <span className="flex flex-wrap gap-x-2.5">
      {of.map((id) => (
        <button key={id} type="button" className="min-h-6 min-w-6 text-left hover:underline" onClick={() => onPick(id)}>
          {nameOf(catalogue, "item", id)}
        </button>
      ))}
      {all > of.length && <span className="text-second">and {all - of.length} more</span>}
    </span>
  );
  const most = Math.max(1, ...(data?.tiers.map((t) => t.count) ?? []));
  return (
    <section aria-label="Pantry overview" className="min-h-0 flex-1 overflow-auto bg-salt px-5 py-4">
      {asked && <p className="pb-3 text-beet">There is no item with the key “{asked.slice(0, 60)}”. Choose another.</p>}
      <p className="text-second">Choose an item above, or start here.</p>
      {isError && <p className="pt-3 text-beet">The overview could not be computed. Reload the page.</p>}
      {!data && !isError && <p className="pt-3 text-second">Computing…</p>}
      {data && (
        <div className="grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] gap-x-8">
          <div>
            <Head>By number of steps from gathered materials</Head>
            <table className="w-full">
              <tbody>
                {data.tiers.map((tier) => (
                  <tr key={tier.steps ?? "none"} className="border-t border-hair align-top">
                    <th scope="row" className="w-24 py-1.5 pr-3 text-left font-semibold whitespace-nowrap">
                      {sayTier(tier)}
                    </th>
                    <td className="w-28 py-1.5 pr-3">
                      <span className="flex items-center gap-2">
                        <span
                          aria-hidden
                          className={tier.steps === null ? "h-3 rounded-xs bg-beet" : "h-3 rounded-xs bg-kelp"}
                          style={{ width: `${Math.max(2, (tier.count / most) * 64)}px` }}
                        />
                        <span className="num">{tier.count}</span>
                      </span>
                    </td>
                    <td className="py-1.5">{names(tier.items, tier.count)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <div>
            <Head>Most depended on</Head>
            {data.pillars.length === 0 && <p className="text-second">No item depends on a single other one.</p>}
            <ul>
              {data.pillars.map(({ item, lost }) => (
                <li key={item} className="flex justify-between gap-3 border-t border-hair py-1">
                  <button type="button" className="min-h-6 truncate hover:underline" onClick={() => onPick(item)}>
                    {nameOf(catalogue, "item", item)}
                  </button>
                  <span className="text-second whitespace-nowrap">{count(lost, "item")} need it</span>
                </li>
              ))}
            </ul>
            <Head>Loops</Head>
            <Loops loops={data.loops} onOpen={() => places.go("checks", {})} />
            <Head>Dead ends</Head>
            {data.deadEnds.count === 0 ? (
              <p className="text-second">Every item is used or sold.</p>
            ) : (
              <p>
                <button
                  type="button"
                  className="min-h-6 font-semibold hover:underline"
                  onClick={() => places.go("checks", { rule: "dead-end" })}
                >
                  {count(data.deadEnds.count, "item")}
                </button>{" "}
                with no recipe, use or price: {names(data.deadEnds.items, data.deadEnds.count)}
              </p>
            )}
            <Head>Disconnected groups</Head>
            {data.islands.length === 0 ? (
              <p className="text-second">Everything is connected.</p>
            ) : (
              <ul>
                {data.islands.map((island) => (
                  <li key={island.items.join()} className="border-t border-hair py-1">
                    {names(island.items, island.count)}
                  </li>
                ))}
              </ul>
            )}
          </div>
        </div>
      )}
    </section>
  );
}

const Head = ({ children }: { children: ReactNode }) => <h2 className="head pt-4 pb-1">{children}</h2>;

const sayTier = ({ steps }: Found["tiers"][number]): string =>
  steps === null ? "unobtainable" : steps === 0 ? "gathered" : count(steps, "step");

function Loops({ loops, onOpen }: { loops: Found["loops"]; onOpen: () => void }) {
  const said = [
    [loops.gaining, "that gain"],
    [loops.even, "that break even"],
    [loops.stuck, "that can't start"],
  ] as const;
  if (said.every(([n]) => n === 0)) return <p className="text-second">None.</p>;
  return (
    <p>
      <button type="button" className="min-h-6 font-semibold hover:underline" onClick={onOpen}>
        {said
          .filter(([n]) => n > 0)
          .map(([n, text]) => `${n} ${text}`)
          .join(", ")}
      </button>
    </p>
  );
}
