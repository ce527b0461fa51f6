"use client";
/** Salvage for all items, or those of a type: what each would give back, looked at before it is written as one change. */
import { useMemo, useState } from "react";
import { around, namesOf } from "@/core/catalogue/surroundings";
import { itemsBelow } from "@/core/catalogue/types";
import { ROUNDINGS, type Rounding } from "@/core/kinds/payback";
import { keepRule, type SalvageRule, suggestSalvage, writeSuggested } from "@/core/analysis/suggested-salvage";
import { formatGiven, formatUnnamed } from "@/core/notation/format";
import { count, sayCost, sayPercent } from "@/core/numbers/format";
import { typedNumber } from "@/core/numbers/typed";
import type { Item } from "@/core/kinds/index";
import type { Id } from "@/core/schema/id";
import { Jar } from "../kit/jars";
import { Button } from "../kit/kit";
import { NameInput } from "../kit/name-input";
import { DialogFrame, Scrolled } from "../kit/dialog-frame";
import { figuresOf, useLive, useStore } from "../pantry/provider";

/** Rows that are looked at; all are written. */
const SHOWN = 300;

/** @param item  for this one alone */
export function SuggestSalvage({ item: only, onClose }: { item?: Item; onClose: () => void }) {
  const { catalogue, model } = useLive();
  const store = useStore();
  const [type, setType] = useState("");
  const [typed, setTyped] = useState("40");
  const [rounding, setRounding] = useState<Rounding>("down");
  const [least, setLeast] = useState("0");
  const [tool, setTool] = useState("");
  const [into, setInto] = useState("");
  const [replace, setReplace] = useState(false);
  const [keep, setKeep] = useState(false);
  const [message, setMessage] = useState("");
  const { numbers } = catalogue;
  const [share, lowest] = [typedNumber(typed, { format: numbers, unit: "%" }), typedNumber(least, { format: numbers })];
  const percent = "value" in share ? share.value : null;
  const floor = "value" in lowest ? lowest.value : null;
  const names = namesOf(catalogue, "item");
  const using = names.find(tool);
  const giving = names.find(into);
  const wrong =
    "message" in share
      ? share.message
      : share.value <= 0 || share.value > 100
        ? "Enter a share above 0 and up to 100%."
        : "message" in lowest
          ? lowest.message
          : lowest.value < 0 || !Number.isInteger(lowest.value)
            ? "Enter a whole number from 0."
            : tool && using.found !== "one"
              ? `“${tool}” isn't an item of this pantry.`
              : into && giving.found !== "one"
                ? `“${into}” isn't an item of this pantry.`
                : null;
  const rule: SalvageRule | null = wrong
    ? null
    : {
        share: (percent as number) / 100,
        rounding,
        least: floor as number,
        tool: tool && using.found === "one" ? using.id : null,
        into: into && giving.found === "one" ? giving.id : null,
        replace,
      };
  const ruled = JSON.stringify(rule);
  const all = useMemo(() => {
    const asked = JSON.parse(ruled) as SalvageRule | null;
    if (!asked) return [];
    const { item } = catalogue.records;
    const items = only
      ? [only]
      : type
        ? [...itemsBelow(catalogue, new Set([type as Id]))].map((id) => item.get(id))
        : [...item.values()];
    return suggestSalvage(
      catalogue,
      items.flatMap((i) => i ?? []),
      asked,
      (id) => figuresOf(model, id).by,
      (id) => figuresOf(model, id).value ?? null,
    );
  }, [catalogue, model, only, type, ruled]);
  const ready = all.filter((s) => s.skipped === null);
  const write = async () => {
    if (!rule) return;
    const answer = await store.submit(
      [...writeSuggested(catalogue, ready, rule), ...(keep && type ? keepRule(catalogue, type as Id, rule) : [])],
      `Salvage of ${sayPercent(rule.share)} for ${count(ready.length, "item")}`,
    );
    if (answer.ok) onClose();
    else setMessage("Nothing was saved, because someone else changed one of these first. Check again.");
  };
  const here = around(catalogue);
  const worth = (gives: (typeof all)[number]["gives"], of: Id): string => {
    const cost = figuresOf(model, of).value;
    const back = gives.reduce((sum, l) => sum + l.max * l.chance * (figuresOf(model, l.item).value ?? Number.NaN), 0);
    return cost && Number.isFinite(back) ? `${sayCost(back)}, ${sayPercent(Number((back / cost).toFixed(3)))}` : "–";
  };
  return (
    <DialogFrame
      width="wide"
      title="Suggest salvage"
      description="Each item returns a share of the ingredients of its cheapest recipe. Items without a recipe return value by cost. Nothing is saved until you choose Save."
      onClose={onClose}
      foot={
        <>
          <Button look="solid" disabled={(!ready.length && !(keep && type)) || !!wrong} onClick={() => void write()}>
            Save {count(ready.length, "salvage")}
          </Button>
          <Button onClick={onClose}>Close</Button>
          <span className="text-second">{count(all.length - ready.length, "item is", "items are")} skipped.</span>
          {(wrong ?? message) && (
            <span role="alert" className="text-beet">
              {wrong ?? message}
            </span>
          )}
        </>
      }
    >
      <div className="flex min-h-0 flex-1 flex-col gap-3 p-5">
        <div className="flex flex-wrap items-end gap-3">
          {!only && (
            <label>
              <span className="head block pb-0.5">Items of the type</span>
              <select className="field w-40!" value={type} onChange={(e) => setType(e.target.value)}>
                <option value="">every type</option>
                {[...catalogue.records.type.values()].map((t) => (
                  <option key={t.id} value={t.id}>
                    {t.name}
                  </option>
                ))}
              </select>
            </label>
          )}
          <label>
            <span className="head block pb-0.5">Give back, %</span>
            <input className="field w-24! text-right" value={typed} onChange={(e) => setTyped(e.target.value)} />
          </label>
          <label>
            <span className="head block pb-0.5">Rounding</span>
            <select className="field w-32!" value={rounding} onChange={(e) => setRounding(e.target.value as Rounding)}>
              {ROUNDINGS.map((r) => (
                <option key={r}>{r}</option>
              ))}
            </select>
          </label>
          <label>
            <span className="head block pb-0.5">Minimum</span>
            <input className="field w-20! text-right" value={least} onChange={(e) => setLeast(e.target.value)} />
          </label>
          <span className="w-44">
            <span className="head block pb-0.5">Tool</span>
            <NameInput label="Tool" placeholder="no tool" value={tool} names={[...names.names()]} onDone={setTool} />
          </span>
          <span className="w-44">
            <span className="head block pb-0.5">Without a recipe</span>
            <NameInput
              label="Without a recipe"
              placeholder="nothing"
              value={into}
              names={[...names.names()]}
              onDone={setInto}
            />
          </span>
          <label className="flex items-center gap-1.5 pb-1.5">
            <input type="checkbox" checked={replace} onChange={(e) => setReplace(e.target.checked)} />
            replace existing salvage
          </label>
          {type && (
            <label className="flex items-center gap-1.5 pb-1.5" title="A check then reports salvage that differs.">
              <input type="checkbox" checked={keep} onChange={(e) => setKeep(e.target.checked)} />
              save as the salvage rule of the type
            </label>
          )}
        </div>
        <Scrolled label="Preview" className="rounded-sm border border-line">
          {all.length === 0 ? (
            <p className="px-3 py-4 text-second">
              No recipe makes {only ? "it" : "any of these items"}. Choose above what items without a recipe return.
            </p>
          ) : (
            <table className="w-full">
              <thead>
                <tr className="text-left">
                  {["Item", "Made by", "Returns", "Value, share of cost"].map((h) => (
                    <th key={h} className="head px-2 py-1.5">
                      {h}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {all.slice(0, SHOWN).map((s) => (
                  <tr key={s.item.id} className="border-t border-hair align-top">
                    <td className="px-2 py-1">
                      <Jar id={s.item.id} />
                    </td>
                    <td className="px-2 py-1 text-second">
                      {s.made ? formatUnnamed(here, s.made) : "no recipe: by cost"}
                    </td>
                    <td className="min-w-60 px-2 py-1">
                      {s.skipped ? <span className="text-second">{s.skipped}</span> : formatGiven(here, s.gives)}
                      {!s.skipped && s.there && (
                        <span className="block text-copper">replaces {formatUnnamed(here, s.there)}</span>
                      )}
                    </td>
                    <td className="px-2 py-1 text-right whitespace-nowrap tabular-nums">
                      {s.skipped ? "" : <span className="ink-worked">{worth(s.gives, s.item.id)}</span>}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {all.length > SHOWN && <p className="px-3 py-2 text-second">and {all.length - SHOWN} more</p>}
        </Scrolled>
      </div>
    </DialogFrame>
  );
}
