"use client";
/** Chains: from base materials to one item and on to what it is used for. A reading: nothing is placed by hand. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { byKey } from "@/core/catalogue/keys";
import { around, namesOf } from "@/core/catalogue/surroundings";
import { foldedAway } from "@/core/chains/folding";
import type { Weighing } from "@/core/chains/layout";
import type { Ask, ChainNode } from "@/core/chains/chain";
import { isItem, type Node, sayNode } from "@/core/process/node";
import { count, sayCost, sayQuantity } from "@/core/numbers/format";
import { saySeconds } from "@/core/numbers/ticks";
import { usePlaces } from "../frame/navigate";
import { ChoiceButtons } from "../kit/choice-buttons";
import { ViewHead } from "../frame/view-head";
import { Button, Empty } from "../kit/kit";
import { NameInput } from "../kit/name-input";
import { useLive, useStamp, useStore } from "../pantry/provider";
import { Glance } from "./glance";
import { ChainPanel } from "./panel";
import { Stage } from "./stage";
import { TakeOut } from "./take-out";
import { useLayout } from "./use-layout";

const MOST = ["40", "80", "300", "1000"];
const ONWARD = ["0", "1", "2", "20"];
const WAY = "|";

export function ChainsView() {
  const { catalogue } = useLive();
  const store = useStore();
  const places = usePlaces();
  const asked = places.query.get("of");
  const item = (asked ? byKey(catalogue, "item", asked) : undefined) ?? undefined;
  const by = places.query.get("by") === "time" ? "time" : "value";
  const weighing: Weighing = ((w) => (w === "amount" || w === "even" ? w : "cost"))(places.query.get("ribbons"));
  const ways = (places.query.get("ways") ?? "").split(WAY).filter(Boolean);
  const onward = ONWARD.includes(places.query.get("onward") ?? "") ? (places.query.get("onward") as string) : "1";
  const most = MOST.includes(places.query.get("most") ?? "") ? (places.query.get("most") as string) : "80";
  const [picked, setPicked] = useState<Node | null>(null);
  const [folds, setFolds] = useState<{ of: string; nodes: ReadonlySet<Node> }>({ of: "", nodes: new Set() });
  const folded = folds.of === item?.id ? folds.nodes : NONE;

  const of: Ask = { measure: by, ways, onward: Number(onward), most: Number(most) };
  const stamp = useStamp();
  const { data, isError } = useQuery({
    queryKey: ["chain", store.key, item?.id, of, stamp],
    enabled: item !== undefined,
    placeholderData: keepPreviousData,
    queryFn: () => store.api.chain(item?.id as never, of),
  });
  const chain = useMemo(() => (data ? foldedAway(data, folded) : null), [data, folded]);
  const { drawn, failed } = useLayout(chain, weighing);

  const names = namesOf(catalogue, "item");
  const follow = (node: Node) => {
    if (!isItem(node)) return;
    setPicked(null);
    places.ask({ of: catalogue.records.item.get(node)?.key ?? null, ways: null });
  };
  const switchTo = (thing: ChainNode, key: string | null) => {
    const own = new Set([thing.way, ...thing.others].map((w) => w?.key));
    const rest = ways.filter((w) => !own.has(w));
    places.ask({ ways: [...rest, ...(key ? [key] : [])].join(WAY) || null });
  };
  const fold = (node: Node) => {
    const next = new Set(folded);
    if (!next.delete(node)) next.add(node);
    setFolds({ of: item?.id ?? "", nodes: next });
  };
  const say = (n: number) => (by === "value" ? sayCost(n) : saySeconds(n));
  const named = {
    name: (node: Node) => sayNode(around(catalogue), node),
    cost: (t: ChainNode) => (t.cost === null ? "unobtainable" : say(t.cost)),
    amount: (t: ChainNode) => (t.amount === null || t.node === chain?.item ? "" : `${sayQuantity(t.amount)} ×`),
  };
  const thing = drawn?.chain.things.find((t) => t.node === (picked ?? item?.id));
  return (
    <>
      <ViewHead title="Chains">
        <span className="w-60">
          <NameInput
            label="Item"
            placeholder="Name of an item"
            value={item?.name ?? ""}
            names={[...names.names()]}
            onDone={(name) => {
              const found = names.find(name);
              if (found.found === "one") follow(found.id);
            }}
          />
        </span>
      </ViewHead>
      {!item ? (
        <Glance asked={asked} onPick={follow} />
      ) : (
        <>
          <div className="flex shrink-0 flex-wrap items-center gap-1.5 border-b border-line bg-shade px-3.5 py-1.5">
            <ChoiceButtons
              label="Costs in"
              value={by}
              of={[
                ["value", "Value"],
                ["time", "Time"],
              ]}
              onPick={(measure) => places.ask({ by: measure }, true)}
            />
            <span className="head ml-3">Ribbons</span>
            <ChoiceButtons
              label="Ribbons"
              value={weighing}
              of={[
                ["cost", by === "value" ? "Cost" : "Time"],
                ["amount", "Amount"],
                ["even", "Even"],
              ]}
              onPick={(ribbons) => places.ask({ ribbons }, true)}
            />
            <Choice
              label="Used in"
              value={onward}
              of={[
                ["0", "nothing"],
                ["1", "one column"],
                ["2", "two columns"],
                ["20", "everything"],
              ]}
              onPick={(v) => places.ask({ onward: v }, true)}
            />
            <Choice
              label="Maximum"
              value={most}
              of={MOST.map((n) => [n, n])}
              onPick={(v) => places.ask({ most: v }, true)}
            />
            {ways.length > 0 && (
              <Button look="quiet" onClick={() => places.ask({ ways: null })}>
                Use the cheapest recipes
              </Button>
            )}
            {folded.size > 0 && (
              <Button look="quiet" onClick={() => setFolds({ of: item.id, nodes: NONE })}>
                Expand all
              </Button>
            )}
            <span className="ml-auto">{drawn && <TakeOut drawn={drawn} named={named} name={item.key} />}</span>
          </div>
          <div className="flex min-h-0 flex-1">
            {isError || failed ? (
              <Empty title="This chain could not be computed">Choose another item, or reload the page.</Empty>
            ) : drawn ? (
              <Stage
                drawn={drawn}
                named={named}
                picked={thing?.node ?? item.id}
                folded={folded}
                onPick={setPicked}
                onFollow={follow}
                onFold={fold}
                onOpen={(node) => isItem(node) && places.openItem(node)}
                onWay={(t, n) => t.others[n] && switchTo(t, t.others[n].key)}
                told={`${count(drawn.chain.things.length, "item")}${drawn.chain.folded ? `, ${drawn.chain.folded} collapsed` : ""}`}
              />
            ) : (
              <p className="p-6 text-second">Computing…</p>
            )}
            {drawn && thing && (
              <ChainPanel
                chain={drawn.chain}
                thing={thing}
                named={named}
                say={say}
                switched={ways}
                folded={folded.has(thing.node)}
                onSwitch={(key) => switchTo(thing, key)}
                onFollow={() => follow(thing.node)}
                onFold={() => fold(thing.node)}
              />
            )}
          </div>
        </>
      )}
    </>
  );
}
const NONE: ReadonlySet<Node> = new Set();

function Choice({
  label,
  value,
  of,
  onPick,
}: {
  label: string;
  value: string;
  of: readonly (readonly string[])[];
  onPick: (value: string) => void;
}) {
  return (
    <label className="ml-3 flex items-center gap-1.5">
      <span className="head">{label}</span>
      <select className="field w-auto!" value={value} onChange={(e) => onPick(e.target.value)}>
        {of.map(([v, text]) => (
          <option key={v} value={v}>
            {text}
          </option>
        ))}
      </select>
    </label>
  );
}
