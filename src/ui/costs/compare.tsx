"use client";
/** Two items' costs next to each other, down to base materials. */
import { X } from "lucide-react";
import { compareCosts } from "@/core/analysis/compare-costs";
import { byKey } from "@/core/catalogue/keys";
import { nameOf } from "@/core/catalogue/catalogue";
import { around, namesOf } from "@/core/catalogue/surroundings";
import type { Item } from "@/core/kinds/index";
import { sayCost, sayQuantity } from "@/core/numbers/format";
import { usePlaces } from "../frame/navigate";
import { Button } from "../kit/kit";
import { NameInput } from "../kit/name-input";
import { useCatalogue } from "../pantry/provider";
import { useItemCosts } from "../sheet/cost-section";

export function CompareCosts({ item }: { readonly item: Item }) {
  const catalogue = useCatalogue();
  const places = usePlaces();
  const key = places.query.get("with");
  const other = key ? byKey(catalogue, "item", key) : undefined;
  const choose = (name: string) => {
    const found = namesOf(catalogue, "item").find(name);
    if (found.found === "one") {
      places.ask({ with: catalogue.records.item.get(found.id)?.key ?? null }, true);
      return null;
    }
    return found.found === "none"
      ? `There is no item called “${name}”.`
      : `${found.keys.length} items are called “${name}”. Enter the key of one: ${found.keys.join(", ")}.`;
  };
  return (
    <section aria-label="Compare costs">
      <h3 className="head pt-5 pb-1">Compare with</h3>
      <div className="flex items-center gap-1.5">
        <NameInput
          key={other?.id ?? ""}
          label="Item to compare with"
          value={other?.name ?? ""}
          names={[...around(catalogue).names("item").names()]}
          placeholder="Rope"
          onDone={choose}
        />
        {key && (
          <Button
            look="quiet"
            className="px-1.5!"
            aria-label="Stop comparing"
            onClick={() => places.ask({ with: null }, true)}
          >
            <X size={14} aria-hidden />
          </Button>
        )}
      </div>
      {key && !other && <p className="pt-1 text-beet">There is no item with the key “{key}”.</p>}
      {other && <Compared one={item} other={other} />}
    </section>
  );
}

function Compared({ one, other }: { readonly one: Item; readonly other: Item }) {
  const catalogue = useCatalogue();
  const [{ data: of }, { data: beside }] = [useItemCosts(one.id), useItemCosts(other.id)];
  if (!of || !beside) return null;
  const parts = compareCosts(of, beside);
  if (!parts) {
    const gone = of.value ? other : one;
    return <p className="pt-1 text-second">{gone.name} is unobtainable, so it has no cost.</p>;
  }
  const sum = (side: "one" | "other") => parts.reduce((total, part) => total + part[side].cost, 0);
  const cell = ({ quantity, cost }: { readonly quantity: number; readonly cost: number }, isWork: boolean) =>
    cost === 0 && quantity === 0 ? (
      <span className="text-third">–</span>
    ) : (
      <>
        <span className="pr-1.5 text-second">{isWork ? "" : sayQuantity(quantity)}</span>
        <span className="ink-worked">{sayCost(cost)}</span>
      </>
    );
  return (
    <table className="mt-1.5 w-full">
      <thead>
        <tr className="text-left">
          <th className="head py-1">Base material</th>
          <th className="head w-28 truncate text-right">{one.name}</th>
          <th className="head w-28 truncate text-right">{other.name}</th>
        </tr>
      </thead>
      <tbody>
        {parts.map((part) => (
          <tr key={part.item ?? "work"} className="border-t border-hair">
            <td className="max-w-32 truncate py-0.5">
              {part.item ? nameOf(catalogue, "item", part.item) : "time and fees of recipes"}
            </td>
            <td className="num py-0.5 text-right whitespace-nowrap">{cell(part.one, part.item === null)}</td>
            <td className="num py-0.5 text-right whitespace-nowrap">{cell(part.other, part.item === null)}</td>
          </tr>
        ))}
        <tr className="border-t border-line font-semibold">
          <td className="py-0.5">in total</td>
          <td className="ink-worked py-0.5 text-right">{sayCost(sum("one"))}</td>
          <td className="ink-worked py-0.5 text-right">{sayCost(sum("other"))}</td>
        </tr>
      </tbody>
    </table>
  );
}
