"use client";
/** The plan: a basket and the stock; what to gather and buy, what to run in which order, and the leftovers. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Copy, Printer, X } from "lucide-react";
import { useState } from "react";
import { type AskedPlan, sayNoPlan, type WrittenPlan } from "@/core/analysis/plan-written";
import { byKey } from "@/core/catalogue/keys";
import { around, namesOf } from "@/core/catalogue/surroundings";
import { type Node, sayNode } from "@/core/process/node";
import { wantedBy } from "@/core/editing/wanted";
import { NumberInput } from "../forms/field-input";
import { usePlaces } from "../frame/navigate";
import { ChoiceButtons } from "../kit/choice-buttons";
import { Button, Empty } from "../kit/kit";
import { NameInput } from "../kit/name-input";
import { useLive, useStamp, useStore } from "../pantry/provider";
import { type Basket, Written } from "./plan-steps";

/** In the address: "smoked_eel*20|rope*2". */
const TIMES = "*";
const AND = "|";
const SURE = ["", "0.5", "0.9", "0.99"];

export function PlanView() {
  const { catalogue } = useLive();
  const store = useStore();
  const places = usePlaces();
  const [copied, setCopied] = useState(false);
  const read = (name: string): Basket =>
    (places.query.get(name) ?? "").split(AND).flatMap((part) => {
      const [key, n] = part.split(TIMES);
      const item = key ? byKey(catalogue, "item", key) : undefined;
      return item ? [[item, Number(n) > 0 ? Number(n) : 1] as const] : [];
    });
  const [make, stock] = [read("make"), read("stock")];
  const by = places.query.get("by") === "time" ? "time" : "value";
  const sure = SURE.includes(places.query.get("sure") ?? "") ? (places.query.get("sure") ?? "") : "";
  const write = (name: string, basket: Basket) =>
    places.ask({ [name]: basket.map(([item, n]) => `${item.key}${TIMES}${n}`).join(AND) || null }, true);
  const of: AskedPlan = {
    make: make.map(([item, n]) => [item.id, n] as const),
    stock: stock.map(([item, n]) => [item.id, n] as const),
    measure: by,
    ...(sure ? { confidence: Number(sure) } : {}),
  };
  const stamp = useStamp();
  const { data, isError } = useQuery({
    queryKey: ["plan", store.key, of, stamp],
    enabled: make.length > 0,
    placeholderData: keepPreviousData,
    queryFn: () => store.api.plan(of),
  });
  const plan = make.length ? data : undefined;
  const name = (node: Node) => sayNode(around(catalogue), node);
  const copy = async (of: WrittenPlan) => {
    await navigator.clipboard.writeText(asTable(of, name));
    setCopied(true);
    setTimeout(() => setCopied(false), 2_000);
  };
  return (
    <div className="flex min-h-0 flex-1 overflow-hidden bg-salt">
      <div className="w-80 shrink-0 space-y-4 overflow-auto border-r border-line bg-shade p-3.5 print:hidden">
        <Amounts title="Basket" label="Make" basket={make} onBasket={(b) => write("make", b)} />
        <Amounts title="In stock" label="Stock" basket={stock} onBasket={(b) => write("stock", b)} />
        <ChoiceButtons
          label="Best by"
          value={by}
          of={[
            ["value", "Cheapest"],
            ["time", "Fastest"],
          ]}
          onPick={(each) => places.ask({ by: each }, true)}
        />
        <label className="block">
          <span className="head block pb-0.5">Confidence</span>
          <select className="field" value={sure} onChange={(e) => places.ask({ sure: e.target.value || null }, true)}>
            <option value="">enough on average</option>
            {SURE.slice(1).map((s) => (
              <option key={s} value={s}>
                enough with {Number(s) * 100}% confidence
              </option>
            ))}
          </select>
        </label>
        {plan && !("no" in plan) && (
          <div className="flex gap-1.5">
            <Button onClick={() => void copy(plan)}>
              <Copy size={14} aria-hidden /> {copied ? "Copied" : "Copy as table"}
            </Button>
            <Button onClick={() => window.print()}>
              <Printer size={14} aria-hidden /> Print
            </Button>
          </div>
        )}
      </div>
      {/** biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard */}
      <section aria-label="Plan" tabIndex={0} className="min-w-0 flex-1 overflow-auto px-5 py-4">
        {!make.length ? (
          <Empty title="The basket is empty">
            Add items and amounts. The plan lists what to gather and buy, which recipes to run in which order, and the
            leftovers.
          </Empty>
        ) : isError ? (
          <p className="text-beet">The plan could not be computed. Reload the page.</p>
        ) : !plan ? (
          <p className="text-second">Computing…</p>
        ) : "no" in plan ? (
          <p className="text-beet">{sayNoPlan(name(plan.item), plan.no)}</p>
        ) : (
          <Written plan={plan} make={make} sure={sure} name={name} />
        )}
      </section>
    </div>
  );
}

const WANTED = { min: 1e-6, max: 1e6 } as const;

/** Items with amounts. */
function Amounts({
  title,
  label,
  basket,
  onBasket,
}: {
  title: string;
  label: string;
  basket: Basket;
  onBasket: (basket: Basket) => void;
}) {
  const { catalogue } = useLive();
  const names = namesOf(catalogue, "item");
  return (
    <section aria-label={title}>
      <h2 className="head pb-1">{title}</h2>
      <ul className="space-y-1">
        {basket.map(([item, n], k) => (
          <li key={item.id} className="flex items-center gap-1.5">
            <span className="w-16 shrink-0">
              <NumberInput
                narrow
                label={`${label}: amount of ${item.name}`}
                value={n}
                rules={WANTED}
                className="num"
                onDone={(typed) =>
                  typed !== null && onBasket(basket.map((each, m) => (m === k ? ([item, typed] as const) : each)))
                }
              />
            </span>
            <span className="min-w-0 flex-1 truncate">{item.name}</span>
            <Button
              look="quiet"
              className="px-1!"
              aria-label={`Remove ${item.name} from ${title.toLowerCase()}`}
              onClick={() => onBasket(basket.filter((_, m) => m !== k))}
            >
              <X size={14} aria-hidden />
            </Button>
          </li>
        ))}
      </ul>
      <div className="pt-1">
        <NameInput
          label={`Add to ${title.toLowerCase()}`}
          placeholder="add an item"
          value=""
          names={[...names.names()]}
          clearAfter
          onDone={(typed) => {
            if (!typed) return null;
            const wanted = wantedBy(catalogue, typed);
            if ("message" in wanted) return wanted.message;
            const others = basket.filter(([there]) => there.id !== wanted.item.id);
            onBasket([...others, [wanted.item, wanted.amount] as const]);
            return null;
          }}
        />
      </div>
    </section>
  );
}

/** Tabs between cells, for a spreadsheet. */
function asTable(plan: WrittenPlan, name: (node: Node) => string): string {
  const amounts = (of: WrittenPlan["left"]) =>
    of.map(([node, n]) => `${Number(n.toFixed(6))} ${name(node)}`).join(", ");
  const rows = [
    ["Step", "Runs", "What", "Takes", "Gives", "Seconds"],
    ...plan.steps.map((s, k) => [k + 1, s.runs, s.name, amounts(s.takes), amounts(s.gives), s.seconds]),
    [],
    ["Gather and buy"],
    ...plan.shopping.map(([node, n]) => [name(node), Number(n.toFixed(6))]),
    [],
    ["Leftovers"],
    ...plan.left.map(([node, n]) => [name(node), Number(n.toFixed(6))]),
  ];
  return rows.map((row) => row.join("\t")).join("\n");
}
