"use client";
/** A description as a player reads it, and where it is written: what is wrong with it is said while typing. */
import { Fragment, type ReactNode, useRef, useState } from "react";
import { type Part, readDescription } from "@/core/cards/description";
import { colourNamed, faultsOf, placeholders, valueNamed } from "@/core/cards/values";
import type { Catalogue } from "@/core/catalogue/catalogue";
import { heldAt } from "@/core/catalogue/inheritance";
import type { Item } from "@/core/kinds/index";
import { Button } from "../kit/kit";
import { useLive } from "../pantry/provider";
import { useWrite } from "../pantry/use-write";
import { wordsOf } from "../kit/refusal";

export function Described({ item, text = item.description }: { readonly item: Item; readonly text?: string }) {
  const { catalogue } = useLive();
  return (
    <div className="space-y-1.5">
      {readDescription(text).map((block, k) =>
        block.is === "list" ? (
          <ul key={k} className="list-disc pl-5">
            {block.items.map((parts, at) => (
              <li key={at}>{drawn(parts, catalogue, item)}</li>
            ))}
          </ul>
        ) : (
          <p key={k} className="whitespace-pre-line">
            {drawn(block.parts, catalogue, item)}
          </p>
        ),
      )}
    </div>
  );
}

const drawn = (parts: readonly Part[], catalogue: Catalogue, item: Item): ReactNode =>
  parts.map((part, k) => <Fragment key={k}>{one(part, catalogue, item)}</Fragment>);

function one(part: Part, catalogue: Catalogue, item: Item): ReactNode {
  if (part.is === "text") return part.text;
  if (part.is === "strong") return <strong>{drawn(part.parts, catalogue, item)}</strong>;
  if (part.is === "emphasis") return <em>{drawn(part.parts, catalogue, item)}</em>;
  if (part.is === "coloured") {
    const colour = colourNamed(catalogue, part.by);
    // A rarity's colour is not for small text alone: the words are underlined in it.
    return (
      <span className="font-semibold" style={colour ? { borderBottom: `2px solid ${colour}` } : undefined}>
        {drawn(part.parts, catalogue, item)}
      </span>
    );
  }
  if (part.is !== "value") return null;
  const value = valueNamed(catalogue, item, part.name);
  if ("text" in value) return <span className="ink-worked font-semibold">{value.text}</span>;
  return (
    <span className="text-beet underline decoration-wavy" title={value.message}>
      {`{${part.name}}`}
    </span>
  );
}

export function DescriptionEditor({ item }: { readonly item: Item }) {
  const { catalogue } = useLive();
  const write = useWrite();
  const [draft, setDraft] = useState<string | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const area = useRef<HTMLTextAreaElement>(null);
  if (draft === null)
    return (
      <>
        <button
          type="button"
          aria-label={`Description: ${item.description || "nothing"}. Edit`}
          className="w-full rounded-sm px-1 py-0.5 text-left hover:bg-pick"
          onClick={() => setDraft(item.description)}
        >
          {item.description ? <Described item={item} /> : <span className="text-third">No description yet</span>}
        </button>
        {message && (
          <p role="alert" className="text-beet">
            {message}
          </p>
        )}
      </>
    );
  const faults = faultsOf(catalogue, item, draft);
  const said = placeholders(catalogue, item).filter(
    ({ path }) => heldAt(catalogue, "item", item, path).here.from !== "none",
  );
  /** The name that is being typed between braces. */
  const typing = /\{([^{}\n]*)$/.exec(draft.slice(0, area.current?.selectionStart ?? draft.length))?.[1];
  const offers = (typing ? said.filter((p) => p.name.startsWith(typing.toLowerCase())) : said).slice(0, 14);
  const insert = (name: string) => {
    const at = area.current?.selectionStart ?? draft.length;
    const from = typing === undefined ? at : at - typing.length - 1;
    const rest = draft.slice(at).replace(/^\}/, "");
    setDraft(`${draft.slice(0, from)}{${name}}${rest}`);
    area.current?.focus();
  };
  const done = async (text: string) => {
    setDraft(null);
    const refused = text.trim() === item.description ? null : await write("item", item.id, "description", text.trim());
    setMessage(refused && wordsOf(refused));
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: a group without the looks of a fieldset
    <div
      role="group"
      aria-label="Description"
      className="flex flex-col gap-1.5"
      onBlur={(e) => !e.currentTarget.contains(e.relatedTarget as Node | null) && void done(draft)}
    >
      <textarea
        ref={area}
        aria-label="Description text"
        // biome-ignore lint/a11y/noAutofocus: it appears because someone asked to type here
        autoFocus
        className="field min-h-24"
        value={draft}
        onChange={(e) => setDraft(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === "Escape") setDraft(null);
          else if (e.key === "Enter" && (e.ctrlKey || e.metaKey)) void done(draft);
          else if (e.key === "Tab" && typing && offers.length) {
            e.preventDefault();
            insert(offers[0].name);
          }
        }}
      />
      <div className="flex flex-wrap items-center gap-1">
        <span className="text-[12px] text-second">
          {typing ? "Tab inserts the first:" : "**strong**, *stressed*, - list, [words](rarity), and values:"}
        </span>
        {offers.map(({ name }) => (
          <Button key={name} className="h-6! px-1.5!" onClick={() => insert(name)}>
            {`{${name}}`}
          </Button>
        ))}
      </div>
      {faults.map((fault) => (
        <p key={fault.name} role="alert" className="text-beet">
          {fault.message}
        </p>
      ))}
    </div>
  );
}
