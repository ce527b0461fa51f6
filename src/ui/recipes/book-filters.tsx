"use client";
/** What the recipe book shows: by words, kind, status, tag, level, and what is made or taken. */
import { useMemo, useState } from "react";
import { byKey } from "@/core/catalogue/keys";
import { namesOf } from "@/core/catalogue/surroundings";
import { STATUSES } from "@/core/kinds/shared";
import { RECIPE_KINDS } from "@/core/notation/line";
import { usePlaces } from "../frame/navigate";
import { useTyped } from "../frame/typed";
import { NameInput } from "../kit/name-input";
import { useLive } from "../pantry/provider";
import { SearchField } from "../kit/search-field";

export function BookFilters() {
  const { catalogue } = useLive();
  const places = usePlaces();
  const searched = useTyped(places, "text");
  const upTo = useTyped(places, "level", (text) => (/^\d+$/.test(text.trim()) ? text.trim() : null));
  return (
    <>
      <SearchField label="Search the book" placeholder="Search recipes" className="w-30!" {...searched} />
      <select
        aria-label="Group by"
        className="field w-auto!"
        value={places.query.get("by") ?? "station"}
        onChange={(e) => places.ask({ by: e.target.value }, true)}
      >
        {["station", "result"].map((b) => (
          <option key={b} value={b}>
            By {b}
          </option>
        ))}
      </select>
      <select
        aria-label="Kind"
        className="field w-auto!"
        value={places.query.get("kind") ?? ""}
        onChange={(e) => places.ask({ kind: e.target.value || null }, true)}
      >
        <option value="">Every kind</option>
        {RECIPE_KINDS.map((each) => (
          <option key={each}>{each}</option>
        ))}
      </select>
      <select
        aria-label="Status"
        className="field w-auto!"
        value={places.query.get("status") ?? ""}
        onChange={(e) => places.ask({ status: e.target.value || null }, true)}
      >
        <option value="">Every status</option>
        {STATUSES.filter((s) => s !== "stub").map((s) => (
          <option key={s}>{s}</option>
        ))}
      </select>
      <select
        aria-label="Tag"
        title="Tag of the result, or of the salvaged item"
        className="field w-auto! max-w-32!"
        value={places.query.get("tag") ?? ""}
        onChange={(e) => places.ask({ tag: e.target.value || null }, true)}
      >
        <option value="">Every tag</option>
        {[...catalogue.records.tag.values()].map((tag) => (
          <option key={tag.id} value={tag.key}>
            {tag.name}
          </option>
        ))}
      </select>
      <input
        aria-label="Up to level"
        placeholder="Up to level"
        inputMode="numeric"
        className="field num w-24!"
        {...upTo}
      />
      <OfItem />
    </>
  );
}

/** Recipes by what they make, or by what they take: one or the other, and said which. */
function OfItem() {
  const { catalogue } = useLive();
  const places = usePlaces();
  const [makes, takes] = [places.query.get("makes"), places.query.get("takes")];
  const [role, setRole] = useState<"makes" | "takes">(takes ? "takes" : "makes");
  const key = makes ?? takes;
  const item = key ? byKey(catalogue, "item", key) : undefined;
  const names = useMemo(() => [...catalogue.records.item.values()].map((i) => i.name), [catalogue.records.item]);
  const ask = (of: "makes" | "takes", wanted: string | null) =>
    places.ask({ makes: of === "makes" ? wanted : null, takes: of === "takes" ? wanted : null }, true);
  return (
    <span className="flex items-center gap-1">
      <select
        aria-label="Role of the item"
        className="field w-auto!"
        value={role}
        onChange={(e) => {
          const of = e.target.value as "makes" | "takes";
          setRole(of);
          if (key) ask(of, key);
        }}
      >
        <option value="makes">Product</option>
        <option value="takes">Ingredient</option>
      </select>
      <span className="w-36">
        <NameInput
          label="Recipes of which item"
          placeholder="any item"
          value={item?.name ?? ""}
          names={names}
          onDone={(name) => {
            const found = namesOf(catalogue, "item").find(name);
            const record = found.found === "one" ? catalogue.records.item.get(found.id) : undefined;
            ask(role, record?.key ?? null);
          }}
        />
      </span>
    </span>
  );
}
