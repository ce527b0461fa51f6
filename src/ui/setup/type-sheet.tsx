"use client";
/** What a type says, takes from the types above it, and says otherwise than they. */
import type { ReactNode } from "react";
import { hasValueAt, heldAt } from "@/core/catalogue/inheritance";
import { itemsOfType } from "@/core/catalogue/types";
import { around } from "@/core/catalogue/surroundings";
import { lineage } from "@/core/catalogue/tree";
import { definition, type ItemType } from "@/core/kinds/index";
import { fieldAt, pathOf } from "@/core/schema/record";
import { usePlaces } from "../frame/navigate";
import { labelOf, shownAs } from "../grid/field-columns";
import { Jar } from "../kit/jars";
import { Button } from "../kit/kit";
import { useLive } from "../pantry/provider";
import { FieldRow } from "../sheet/field-row";
import { FoldedFields } from "../sheet/folded-fields";
import { Section } from "../sheet/section";
import { UsesSection } from "../uses/lazily";
import { OwnFields } from "../sheet/own-fields";
import { Demands } from "./demands";

const FIELDS = Object.entries(definition("type").fields);
/** What a type is itself; the rest is what its items have. */
const OWN = FIELDS.filter(([, { options }]) => !options.inheritable).map(([name]) => name);
const GIVEN = FIELDS.filter(([, { options, parts }]) => options.inheritable && !parts).map(([name]) => name);
/** Shown even if they are empty. */
const ALWAYS = ["name", "parent", "colour"];
/** Items that are shown to be opened beside it. */
const SHOWN = 24;

export function TypeSheet({ type, action }: { readonly type: ItemType; readonly action: ReactNode }) {
  const { catalogue } = useLive();
  const places = usePlaces();
  const above = lineage(catalogue, type.parent);
  const items = [...itemsOfType(catalogue, type.id)];
  const has = (path: string) => ALWAYS.includes(path) || hasValueAt(catalogue, "type", type, path);
  const empty = [...OWN, ...GIVEN]
    .filter((path) => !has(path))
    .map((path) => {
      const field = definition("type").fields[path];
      return { path, label: labelOf(path, field), help: field.options.help };
    });
  return (
    <div className="flex min-w-0 flex-1 flex-col border-t-4 bg-salt" style={{ borderTopColor: type.colour }}>
      <header className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-hair px-5 py-2">
        <h2 className="text-[19px] leading-6">{type.name}</h2>
        <p className="min-w-0 flex-1 truncate text-second">
          {above.length ? `under ${above.map((t) => t.name).join(", under ")}` : "has no parent type"}
        </p>
        <Button onClick={() => places.go("shelves", { type: type.key, new: "1" })}>New item of this type</Button>
        {action}
      </header>
      {/** biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element */}
      <div
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
        tabIndex={0}
        role="region"
        aria-label={`Type ${type.name}`}
        className="min-h-0 flex-1 overflow-auto px-5 pb-6"
      >
        <Section title="The type">
          <div className="two-columns">
            {OWN.filter(has).map((path) => (
              <FieldRow key={path} kind="type" record={type} path={path} />
            ))}
          </div>
        </Section>
        <Section title="Defaults of its items" aside="inherited unless overridden">
          {GIVEN.filter(has).map((path) => (
            <Given key={path} type={type} path={path} />
          ))}
          {!GIVEN.some(has) && <p className="text-second">No defaults yet, such as a stack limit or a sell price.</p>}
          <FoldedFields kind="type" record={type} of={empty} />
        </Section>
        <Demands type={type} which="takes" />
        <Demands type={type} which="measures" />
        <OwnFields kind="type" record={type} />
        <UsesSection owner={type} />
        <Section title="Items of this type" aside={items.length ? "open one to see its values" : undefined}>
          {items.length === 0 && (
            <p className="text-second">No items yet. Set the type of an item on the Shelves or on its sheet.</p>
          )}
          <div className="flex flex-wrap gap-1.5">
            {items.slice(0, SHOWN).map((id) => (
              <Jar key={id} id={id} onOpen={() => places.openItem(id)} />
            ))}
            {items.length > SHOWN && <span className="text-second">and {items.length - SHOWN} more</span>}
          </div>
        </Section>
      </div>
    </div>
  );
}

/** A value with where it stands in the tree: said here, instead of what, or taken from where. */
function Given({ type, path }: { readonly type: ItemType; readonly path: string }) {
  const { catalogue } = useLive();
  const { here, above } = heldAt(catalogue, "type", type, path);
  const at = pathOf(definition("type"), path);
  const field = at && fieldAt(at, around(catalogue));
  const instead =
    above.from === "none" || !field
      ? "added here"
      : `instead of ${shownAs(field, above.value, around(catalogue))} from ${above.type?.name}`;
  return (
    <div className="flex flex-wrap items-center gap-x-5">
      <div className="min-w-50 flex-1">
        <FieldRow kind="type" record={type} path={path} />
      </div>
      <span className="w-48 truncate text-second">
        {here.from === "own" ? instead : here.from === "inherited" ? `from ${here.type?.name}` : ""}
      </span>
    </div>
  );
}
