"use client";
/** What a type asks of its items: which fields, or which stats, with what they have until they say otherwise. */
import { Plus, X } from "lucide-react";
import { demandOn, fieldsOfKind, hasField } from "@/core/catalogue/fields";
import { setField } from "@/core/catalogue/edit";
import { heldAt } from "@/core/catalogue/inheritance";
import { around } from "@/core/catalogue/surroundings";
import { lineage } from "@/core/catalogue/tree";
import { definition, type ItemType } from "@/core/kinds/index";
import type { Id } from "@/core/schema/id";
import { fieldAt, pathOf } from "@/core/schema/record";
import { shownAs } from "../grid/field-columns";
import { Inline } from "../kit/inline";
import { cx } from "../kit/kit";
import { useLive, useStore } from "../pantry/provider";
import { FieldValue } from "../sheet/field-row";
import { Section } from "../sheet/section";

type Which = "takes" | "measures";
type Demand = ItemType[Which][string];
const NOTHING: Demand = { required: null, min: null, max: null };
const WORDS = {
  takes: { title: "Fields of its items", holds: "own", one: "field", add: "Add a field to its items" },
  measures: { title: "Stats of its items", holds: "stats", one: "stat", add: "Add a stat to its items" },
} as const;
const GRID =
  "grid grid-cols-[minmax(110px,1fr)_minmax(110px,1.2fr)_92px_72px_72px_minmax(90px,1fr)_24px] items-center gap-x-3";

export function Demands({ type, which }: { readonly type: ItemType; readonly which: Which }) {
  const { catalogue } = useLive();
  const store = useStore();
  const { title, holds, one, add } = WORDS[which];
  const all: readonly { readonly id: Id; readonly name: string; readonly unit: string }[] =
    which === "takes"
      ? fieldsOfKind(catalogue, "item")
      : [...catalogue.records.stat.values()].sort((a, b) => a.name.localeCompare(b.name));
  const above = lineage(catalogue, type.parent);
  const standing = all.filter(
    ({ id }) =>
      demandOn(catalogue, type, which, id).type !== null ||
      heldAt(catalogue, "type", type, `${holds}.${id}`).here.from !== "none" ||
      (which === "takes" && isEverywhere(id)),
  );
  const others = all.filter((each) => !standing.includes(each));
  const put = (id: Id, demand: Demand | null) =>
    void store.submit([setField(catalogue, "type", type.id, `${which}.${id}`, demand)]);
  const bounded = which === "measures" && above.concat(type).some((t) => Object.keys(t.measures).length > 0);
  return (
    <Section
      title={title}
      aside={which === "measures" ? (bounded ? "only these" : "any, because none is listed") : undefined}
    >
      {all.length === 0 && (
        <p className="text-second">
          No {one}s in this pantry yet. Add them under {one === "field" ? "Fields" : "Stats"} in Setup.
        </p>
      )}
      {standing.length > 0 && (
        <div className={cx(GRID, "border-b border-hair pb-0.5 text-[12px] text-second")}>
          <span>{one === "field" ? "Field" : "Stat"}</span>
          <span className="text-right">Default</span>
          <span>Required</span>
          <span className="text-right">Minimum</span>
          <span className="text-right">Maximum</span>
          <span />
          <span />
        </div>
      )}
      {standing.map(({ id, name, unit }) => line(id, unit ? `${name}, ${unit}` : name))}
      {others.length > 0 && (
        <label className="mt-1.5 flex items-center gap-2 text-second">
          <Plus size={14} aria-hidden />
          <select
            aria-label={add}
            className="field w-56!"
            value=""
            onChange={(e) => e.target.value && put(e.target.value as Id, NOTHING)}
          >
            <option value="">{add}</option>
            {others.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
      )}
    </Section>
  );

  function isEverywhere(id: Id): boolean {
    const field = catalogue.records.field.get(id);
    return field !== undefined && hasField(catalogue, type, field);
  }

  /** One field or stat: what stands until an item says otherwise, and what may. */
  function line(id: Id, name: string) {
    const own = Object.hasOwn(type[which], id) ? type[which][id] : null;
    const asked = demandOn(catalogue, type, which, id);
    const path = `${holds}.${id}`;
    const { here, above: over } = heldAt(catalogue, "type", type, path);
    const at = pathOf(definition("type"), path);
    const field = at && fieldAt(at, around(catalogue));
    const where = own
      ? above.some((t) => Object.hasOwn(t[which], id))
        ? `overrides ${asked.type === type ? above.find((t) => Object.hasOwn(t[which], id))?.name : asked.type?.name}`
        : "added here"
      : here.from === "own"
        ? over.from === "inherited" && field
          ? `instead of ${shownAs(field, over.value, around(catalogue))} from ${over.type?.name}`
          : ""
        : asked.type
          ? `from ${asked.type.name}`
          : here.from === "inherited"
            ? `from ${here.type?.name}`
            : "on every item";
    const part = (named: "min" | "max", label: string) => {
      const value = asked[named];
      const mine = own?.[named] ?? null;
      if (!field?.numeric) return <span />;
      const text = value === null ? "" : shownAs(field, value, around(catalogue));
      return (
        <Inline
          label={`${label} of ${name}`}
          numeric
          held={{
            value,
            from: value === null ? "none" : mine === null ? "inherited" : "own",
            type: asked.type ?? undefined,
          }}
          show={text}
          text={text}
          onWrite={async (typed) => {
            const read =
              typed === "" ? { value: null } : field.parse(typed, { ...around(catalogue), make: () => null });
            if ("message" in read) return read.message;
            put(id, { ...(own ?? NOTHING), [named]: read.value as number | null });
            return null;
          }}
        />
      );
    };
    return (
      <div key={id} className={cx(GRID, "min-h-7 border-b border-dotted border-line")}>
        <span className="truncate" title={name}>
          {name}
        </span>
        <span className="min-w-0 text-right">
          <FieldValue kind="type" record={type} path={path} label={name} />
        </span>
        <select
          aria-label={`${name}: required`}
          className={cx("rounded-sm bg-transparent px-1 hover:bg-pick", own?.required == null && "ink-inherited")}
          value={own?.required == null ? "" : own.required ? "yes" : "no"}
          onChange={(e) =>
            put(id, { ...(own ?? NOTHING), required: e.target.value === "" ? null : e.target.value === "yes" })
          }
        >
          <option value="">{own?.required == null ? (asked.required ? "yes" : "no") : "inherited"}</option>
          <option value="yes">yes</option>
          <option value="no">no</option>
        </select>
        {part("min", "Minimum")}
        {part("max", "Maximum")}
        <span className="truncate text-second" title={where}>
          {where}
        </span>
        {own ? (
          <button
            type="button"
            aria-label={`Remove ${name} here`}
            title="Remove here"
            className="grid size-6 place-items-center text-third hover:text-ink"
            onClick={() => put(id, null)}
          >
            <X size={12} aria-hidden />
          </button>
        ) : (
          <span />
        )}
      </div>
    );
  }
}
