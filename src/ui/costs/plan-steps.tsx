"use client";
/** A plan: its steps, requirements, leftovers and purchases. */
import type { Item } from "@/core/kinds/index";
import type { WrittenPlan } from "@/core/analysis/plan-written";
import { isItem, type Node } from "@/core/process/node";
import { count, sayCost, sayQuantity } from "@/core/numbers/format";
import { saySeconds } from "@/core/numbers/ticks";
import { usePlaces } from "../frame/navigate";
import { cx } from "../kit/kit";

/** Items and how many of each. */
export type Basket = readonly (readonly [Item, number])[];

export function Written({
  plan,
  make,
  sure,
  name,
}: {
  plan: WrittenPlan;
  make: Basket;
  sure: string;
  name: (node: Node) => string;
}) {
  const places = usePlaces();
  const amounts = (of: WrittenPlan["left"]) => of.map(([node, n]) => `${sayQuantity(n)} ${name(node)}`).join(", ");
  const several = (title: string, of: WrittenPlan["left"], note?: string) =>
    of.length > 0 && (
      <section aria-label={title} className="break-inside-avoid">
        <h3 className="head pt-4 pb-1">{title}</h3>
        <ul className="columns-2 gap-8 xl:columns-3">
          {of.map(([node, n]) => (
            <li key={node} className="flex justify-between gap-2 border-b border-hair py-0.5">
              <NodeName node={node} name={name} />
              <span className="num">{sayQuantity(n)}</span>
            </li>
          ))}
        </ul>
        {note && <p className="pt-1 text-[12px] text-second">{note}</p>}
      </section>
    );
  return (
    <>
      <h2 className="text-[17px]">
        {make.map(([item, n]) => `${sayQuantity(n)} ${item.name}`).join(", ")}:{" "}
        <span className="ink-worked">{sayCost(plan.value)}</span> in value,{" "}
        <span className="ink-worked">{saySeconds(plan.seconds)}</span>
      </h2>
      <p className="text-second">
        {sure ? `Each step gives enough with ${Number(sure) * 100}% confidence.` : "Chances count as their average."}{" "}
        {plan.best ? "This is the cheapest plan with whole runs." : "Runs are rounded up once per item."}
      </p>
      {several("Gather and buy", plan.shopping)}
      {plan.needed.length > 0 && (
        <p className="pt-3">
          <span className="head">Required tools and stations: </span>
          {amounts(plan.needed)}.
        </p>
      )}
      {several("Taken from stock", plan.taken)}
      <h3 className="head pt-4 pb-1">Steps in order</h3>
      <table className="w-full">
        <thead>
          <tr className="text-left">
            {["Step", "Runs", "What", "Takes", "Gives", "Time"].map((h) => (
              <th key={h} className={cx("head pr-3 pb-1", (h === "Runs" || h === "Time") && "text-right")}>
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {plan.steps.map((step, k) => (
            <tr key={`${k} ${step.id} ${step.name}`} className="border-t border-hair align-top">
              <td className="num py-1 pr-3 text-third">{k + 1}</td>
              <td className="num py-1 pr-3 text-right font-semibold">{sayQuantity(step.runs)}</td>
              <td className="py-1 pr-3">
                {step.kind === "recipe" || step.kind === "source" ? (
                  <button
                    type="button"
                    className="text-left font-semibold hover:underline"
                    onClick={() => places.open(step.kind, step.id)}
                  >
                    {step.name}
                  </button>
                ) : (
                  <span className="font-semibold">{step.name}</span>
                )}
                {step.turns && <span className="block text-second">in {step.turns} batches</span>}
              </td>
              <td className="py-1 pr-3 text-second">{amounts(step.takes)}</td>
              <td className="py-1 pr-3">{amounts(step.gives)}</td>
              <td className="num py-1 text-right whitespace-nowrap">{step.seconds ? saySeconds(step.seconds) : ""}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {several("Leftovers", plan.left)}
      {plan.busy.length > 0 && (
        <section aria-label="Stations">
          <h3 className="head pt-4 pb-1">Time at stations</h3>
          <ul className="max-w-100">
            {plan.busy.map(([node, seconds]) => (
              <li key={node} className="flex justify-between gap-2 border-b border-hair py-0.5">
                <NodeName node={node} name={name} />
                <span className="num">{saySeconds(seconds)}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      <p className="pt-3 text-[12px] text-second">{count(plan.steps.length, "step")}.</p>
    </>
  );
}

function NodeName({ node, name }: { node: Node; name: (node: Node) => string }) {
  const places = usePlaces();
  return isItem(node) ? (
    <button type="button" className="truncate hover:underline" onClick={() => places.openItem(node)}>
      {name(node)}
    </button>
  ) : (
    <span className="truncate">{name(node)}</span>
  );
}
