"use client";
/** A text of one of our languages: typed with completion of names; Tab takes what is offered, arrows choose. */
import { type KeyboardEvent, useId, useLayoutEffect, useMemo, useRef, useState } from "react";
import { recordsOf } from "@/core/catalogue/catalogue";
import { namesIn, type Scope } from "@/core/formulas/scope";
import { around } from "@/core/catalogue/surroundings";
import type { Kind } from "@/core/kinds/index";
import { quote } from "@/core/notation/book";
import { endingAt } from "@/core/notation/ending";
import { normalise } from "@/core/schema/names";
import { cx } from "../kit/kit";
import { NameList } from "../kit/name-list";
import { useLive } from "../pantry/provider";

interface Props {
  readonly label: string;
  readonly text: string;
  readonly onText: (text: string) => void;
  /** Kinds whose names may stand in it, and the scope of its formulas. */
  readonly kinds: readonly Kind[];
  readonly scope: Scope;
  readonly words: readonly string[];
  /** Several lines; else Enter writes it. */
  readonly lines?: boolean;
  readonly placeholder?: string;
  readonly autoFocus?: boolean;
  readonly onWrite: () => void;
  readonly onEscape: () => void;
  readonly className?: string;
}

export function LineInput({
  label,
  text,
  onText,
  kinds,
  scope,
  words,
  lines,
  placeholder,
  autoFocus,
  onWrite,
  onEscape,
  className,
}: Props) {
  const { catalogue } = useLive();
  const input = useRef<HTMLTextAreaElement>(null);
  const [cursor, setCursor] = useState<number | null>(null);
  const [picked, setPicked] = useState(0);
  const listId = useId();
  const caret = useRef<number | null>(null);
  // Set before the next key arrives, as in recipe lines.
  useLayoutEffect(() => {
    const at = caret.current;
    if (at === null) return;
    caret.current = null;
    input.current?.setSelectionRange(at, at);
  });
  // Only while somebody types: most lines are only read.
  const typing = cursor !== null;
  const names = useMemo(() => {
    if (!typing) return [];
    const all = [
      ...words,
      ...kinds.flatMap((kind) => [...recordsOf(catalogue, kind).values()].map((r) => r.name)),
      ...namesIn(scope, around(catalogue)),
    ];
    return [...new Set(all)].map((name) => [name, normalise(name)] as const);
  }, [typing, catalogue, kinds, scope, words]);
  const offer = cursor === null ? null : endingAt(text, cursor, names);
  const take = (name: string) => {
    if (!offer) return;
    const written = /[,:"()]/.test(name) && !words.includes(name) ? quote(name) : name;
    onText(`${text.slice(0, offer.from)}${written}${text.slice(offer.to)}`);
    caret.current = offer.from + written.length;
    setCursor(null);
  };
  const press = (e: KeyboardEvent) => {
    if (offer && (e.key === "ArrowDown" || e.key === "ArrowUp"))
      setPicked((picked + (e.key === "ArrowDown" ? 1 : -1) + offer.names.length) % offer.names.length);
    else if (offer && e.key === "Tab" && !e.shiftKey) take(offer.names[Math.min(picked, offer.names.length - 1)]);
    else if (e.key === "Enter" && offer && picked > 0) take(offer.names[picked]);
    else if (e.key === "Enter" && (!lines || e.ctrlKey || e.metaKey)) onWrite();
    else if (e.key === "Escape") {
      if (offer) setCursor(null);
      else onEscape();
    } else return;
    e.preventDefault();
  };
  return (
    <div className="relative">
      <textarea
        ref={input}
        aria-label={label}
        aria-autocomplete="list"
        aria-controls={offer ? listId : undefined}
        aria-activedescendant={offer ? `${listId}-${picked}` : undefined}
        rows={1}
        spellCheck={false}
        // biome-ignore lint/a11y/noAutofocus: it opens because somebody asked for it
        autoFocus={autoFocus}
        className={cx("field field-sizing-content py-1! font-medium", !lines && "resize-none", className)}
        placeholder={placeholder}
        value={text}
        onChange={(e) => {
          onText(lines ? e.target.value : e.target.value.replace(/\n/g, " "));
          setCursor(e.target.selectionStart);
          setPicked(0);
        }}
        onKeyDown={press}
        onBlur={() => setCursor(null)}
      />
      {offer && (
        <NameList
          id={listId}
          label="Names"
          names={offer.names}
          picked={picked}
          onTake={take}
          hint="Tab"
          className="w-64"
        />
      )}
    </div>
  );
}

const USE_WORDS = [
  "restores",
  "drains",
  "clears",
  "clears all bad",
  "raises",
  "lowers",
  "draws",
  "gives",
  "takes",
  "pays",
  "charges",
  "teaches",
  "signals",
  "ready in",
  "used up",
  "kept",
  "lasts",
  "leaves",
  "after",
  "needs level",
  "needs",
  "not while",
  "not in vain",
  "only",
  "anywhere",
  "on oneself",
  "on one ally",
  "on all allies",
  "on one foe",
  "on all foes",
  "on a place",
];
const USE_KINDS: readonly Kind[] = [
  "condition",
  "resource",
  "stat",
  "item",
  "table",
  "currency",
  "recipe",
  "signal",
  "situation",
];
export const USE_NAMES = { kinds: USE_KINDS, scope: "use" as const, words: USE_WORDS };
const STEP_WORDS = [
  "use",
  "wait",
  "wear",
  "take off",
  "get",
  "drop",
  "make",
  "run",
  "unload",
  "stop",
  "harm",
  "expect",
  "expect to have",
  "expect the condition",
  "expect no condition",
  "every",
  "whenever",
  "as soon as ready",
  "throughout",
  "in the bag",
  "stored",
  "refused:",
];
const STEP_KINDS: readonly Kind[] = ["item", "recipe", "source", "resource", "condition", "situation", "stat"];
export const STEP_NAMES = { kinds: STEP_KINDS, scope: "bearer" as const, words: STEP_WORDS };
