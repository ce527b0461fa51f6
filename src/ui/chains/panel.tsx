"use client";
/** Details of one item of a chain, and the alternative ways to make it. */
import type { Chain, ChainNode, ChainAlternative } from "@/core/chains/chain";
import type { NodeWords } from "@/core/chains/written";
import { written } from "@/core/checks/written";
import { recordAt } from "@/core/catalogue/catalogue";
import { isItem } from "@/core/process/node";
import { sayMove, sayPercent, sayQuantity } from "@/core/numbers/format";
import { usePlaces } from "../frame/navigate";
import { Button } from "../kit/kit";
import { useLive } from "../pantry/provider";

interface Props {
  readonly chain: Chain;
  readonly thing: ChainNode;
  readonly named: NodeWords;
  readonly say: (n: number) => string;
  readonly switched: readonly string[];
  readonly folded: boolean;
  readonly onSwitch: (key: string | null) => void;
  readonly onFollow: () => void;
  readonly onFold: () => void;
}

export function ChainPanel({ chain, thing, named, say, switched, folded, onSwitch, onFollow, onFold }: Props) {
  const places = usePlaces();
  const { catalogue } = useLive();
  const itself = isItem(thing.node);
  const line = (way: ChainAlternative): string => {
    const record = recordAt(catalogue, way.by.kind, way.by.id);
    return record
      ? written(catalogue, { kind: way.by.kind, id: way.by.id, key: record.key, name: way.name })
      : way.name;
  };
  const chosen = thing.way && switched.includes(thing.way.key);
  return (
    <aside aria-label="Details" className="w-[320px] shrink-0 overflow-auto border-l border-line bg-salt p-4">
      <h2 className="pb-1 text-[17px]">{named.name(thing.node)}</h2>
      <p className="text-second">
        {thing.cost === null
          ? "It is unobtainable."
          : `One ${chain.measure === "value" ? "costs" : "takes"} ${say(thing.cost)}.`}{" "}
        {thing.node === chain.item
          ? chain.cost !== null && Math.abs(chain.cost - (thing.cost ?? 0)) > 1e-9 * chain.cost
            ? `With the recipes shown, ${say(chain.cost)}.`
            : ""
          : thing.kept
            ? "It is required but not used up."
            : thing.onward
              ? "It uses the item."
              : thing.amount !== null
                ? `${sayQuantity(thing.amount)} go into one ${named.name(chain.item)}${thing.share !== null && chain.cost ? `, ${sayPercent(Number((thing.share / chain.cost).toFixed(3)))} of its ${chain.measure === "value" ? "cost" : "time"}` : ""}.`
                : ""}
      </p>
      {thing.causes.length > 0 && (
        <p className="pt-1 text-beet">Missing: {thing.causes.map((node) => named.name(node)).join(", ")}.</p>
      )}
      <div className="flex flex-wrap gap-1.5 pt-3">
        {itself && <Button onClick={() => places.openItem(thing.node)}>Open sheet</Button>}
        {itself && thing.node !== chain.item && <Button onClick={onFollow}>Show its chain</Button>}
        {thing.node !== chain.item && <Button onClick={onFold}>{folded ? "Expand" : "Collapse"}</Button>}
      </div>
      <h3 className="head pt-5 pb-1">Recipe shown</h3>
      {thing.way ? (
        <div className="rounded-sm border-l-3 border-kelp bg-shade px-2.5 py-2">
          <button
            type="button"
            className="font-semibold hover:underline"
            onClick={() => places.open(thing.way?.by.kind as never, thing.way?.by.id as never)}
          >
            {thing.way.name}
          </button>
          <p className="text-second">{line(thing.way)}</p>
          {chosen && (
            <Button look="quiet" onClick={() => onSwitch(null)}>
              Use the cheapest
            </Button>
          )}
        </div>
      ) : (
        <p className="text-second">Nothing makes, gathers or sells it.</p>
      )}
      {thing.others.length > 0 && (
        <>
          <h3 className="head pt-5 pb-1">Alternatives</h3>
          <ol className="space-y-2">
            {thing.others.map((way, k) => (
              <li key={way.key} className="border-b border-hair pb-2">
                <div className="flex items-center gap-2">
                  <span className="min-w-0 flex-1 truncate font-semibold">{way.name}</span>
                  <span className={way.cost === null ? "text-beet" : "ink-worked"}>
                    {way.cost === null ? "not possible" : say(way.cost)}
                  </span>
                </div>
                <p className="text-second">{line(way)}</p>
                <div className="flex items-center gap-2 pt-1">
                  <Button disabled={way.cost === null} onClick={() => onSwitch(way.key)}>
                    Use this {k < 9 && <kbd className="ml-1 font-normal text-second">{k + 1}</kbd>}
                  </Button>
                  {way.cost !== null && thing.way?.cost != null && thing.way.cost > 0 && (
                    <span className="text-second">{sayMove(thing.way.cost, way.cost)} each</span>
                  )}
                </div>
                {chain.refused.includes(way.key) && (
                  <p role="alert" className="pt-1 text-beet">
                    This alternative can't be shown: it would create a loop that can't start.
                  </p>
                )}
              </li>
            ))}
          </ol>
        </>
      )}
    </aside>
  );
}
