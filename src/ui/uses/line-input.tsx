"use client";
/** Lines of uses and trials: what completes them. */
import { useMemo } from "react";
import { recordsOf } from "@/core/catalogue/catalogue";
import { around } from "@/core/catalogue/surroundings";
import { namesIn, type Scope } from "@/core/formulas/scope";
import type { Kind } from "@/core/kinds/index";
import { quote } from "@/core/notation/book";
import { endingAt } from "@/core/notation/ending";
import { normalise } from "@/core/schema/names";
import { CompletedText } from "../kit/completed-text";
import { useLive } from "../pantry/provider";

interface Props {
  readonly label: string;
  readonly text: string;
  readonly onText: (text: string) => void;
  /** Kinds whose names may stand in it, and the scope of its formulas. */
  readonly kinds: readonly Kind[];
  readonly scope: Scope;
  readonly words: readonly string[];
  /** Words that begin a clause: offered behind the colon and behind each comma. */
  readonly starters?: readonly string[];
  readonly lines?: boolean;
  readonly placeholder?: string;
  readonly autoFocus?: boolean;
  readonly onWrite: () => void;
  readonly onEscape: () => void;
  readonly className?: string;
}

export function LineInput({ kinds, scope, words, starters, onWrite, className, ...rest }: Props) {
  const { catalogue } = useLive();
  // Computed with the first key: most lines are only read.
  const names = useMemo(() => {
    let all: readonly (readonly [string, string])[] | null = null;
    return () => {
      all ??= [
        ...new Set([
          ...words,
          ...kinds.flatMap((kind) => [...recordsOf(catalogue, kind).values()].map((r) => r.name)),
          ...namesIn(scope, around(catalogue)),
        ]),
      ].map((name) => [name, normalise(name)] as const);
      return all;
    };
  }, [catalogue, kinds, scope, words]);
  return (
    <CompletedText
      {...rest}
      className={`py-1! ${className ?? ""}`}
      offerAt={(text, cursor) =>
        starters && /[:,]\s+$/.test(text.slice(0, cursor))
          ? { from: cursor, to: cursor, names: starters }
          : endingAt(text, cursor, names())
      }
      written={(name) => (/[,:"()]/.test(name) && !words.includes(name) ? quote(name) : name)}
      onEnter={onWrite}
    />
  );
}

const USE_WORDS = [
  "restores",
  "drains",
  "costs",
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
  "cooldown",
  "used up",
  "kept",
  "lasts",
  "leaves",
  "use time",
  "needs level",
  "needs",
  "not while",
  "refused when it would do nothing",
  "message",
  "only",
  "anywhere",
  "on self",
  "on one ally",
  "on all allies",
  "on one foe",
  "on all foes",
  "on a location",
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
const USE_STARTERS = [
  "restores",
  "damage",
  "cooldown",
  "use time",
  "costs",
  "clears",
  "raises",
  "lowers",
  "used up",
  "on self",
];
export const USE_NAMES = { kinds: USE_KINDS, scope: "use" as const, words: USE_WORDS, starters: USE_STARTERS };
const STEP_WORDS = [
  "use",
  "wait",
  "wear",
  "take off",
  "get",
  "drop",
  "make",
  "run",
  "buy",
  "sell",
  "split",
  "merge",
  "unload",
  "stop",
  "damage",
  "context",
  "no context",
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
