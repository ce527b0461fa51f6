"use client";
/** The variants of a recipe, each in a box of its own: what is said there changes this one and no other. */
import { Plus, X } from "lucide-react";
import { useState } from "react";
import { around } from "@/core/catalogue/surroundings";
import { wordsOf } from "@/core/editing/recipes";
import { formatParsed, formatVariant } from "@/core/notation/format";
import type { ParsedLine, ParsedVariant } from "@/core/notation/parsed";
import { parseLine } from "@/core/notation/parser";
import { Button } from "../kit/kit";
import { useCatalogue } from "../pantry/provider";

interface Props {
  readonly parsed: ParsedLine;
  readonly onVariants: (variants: readonly ParsedVariant[]) => void;
}

export function VariantsForm({ parsed, onVariants }: Props) {
  const catalogue = useCatalogue();
  const { variants } = parsed;
  /** One variant behind its recipe, as the line has it. */
  const read = (typed: string): { variant: ParsedVariant } | { message: string } => {
    const base = formatParsed(around(catalogue), { ...parsed, variants: [] });
    const whole = parseLine(`${base} | ${typed}`, wordsOf(catalogue));
    const [variant] = whole.variants;
    const wrong = whole.issues.find((i) => i.severity === "error");
    if (wrong) return { message: wrong.message };
    if (!variant || whole.variants.length > 1) return { message: "Enter one variant at a time, without a second “|”." };
    return { variant };
  };
  return (
    <section aria-label="Variants" className="space-y-1.5">
      <h3 className="head">
        Variants: only what differs{variants.length > 0 && ". Everything else follows the recipe"}
      </h3>
      {variants.map((variant, k) => (
        <VariantLine
          key={formatVariant(around(catalogue), variant)}
          label={`Variant ${k + 1}`}
          value={formatVariant(around(catalogue), variant)}
          onRead={read}
          onDone={(next) => onVariants(variants.map((v, n) => (n === k ? next : v)))}
          onRemove={() => onVariants(variants.filter((_, n) => n !== k))}
        />
      ))}
      <VariantLine
        key={`new ${variants.length}`}
        label="New variant"
        value=""
        onRead={read}
        onDone={(next) => onVariants([...variants, next])}
      />
    </section>
  );
}

function VariantLine({
  label,
  value,
  onRead,
  onDone,
  onRemove,
}: {
  label: string;
  value: string;
  onRead: (typed: string) => { variant: ParsedVariant } | { message: string };
  onDone: (variant: ParsedVariant) => void;
  onRemove?: () => void;
}) {
  const [typed, setTyped] = useState(value);
  const [message, setMessage] = useState<string | null>(null);
  const done = () => {
    if (typed.trim() === value) return setMessage(null);
    if (!typed.trim()) {
      setTyped(value);
      return setMessage(null);
    }
    const found = onRead(typed);
    if ("message" in found) setMessage(found.message);
    else {
      setMessage(null);
      onDone(found.variant);
    }
  };
  return (
    <div>
      <span className="flex items-center gap-1.5">
        {onRemove ? <span className="w-3.5 text-third">|</span> : <Plus size={13} aria-hidden className="text-third" />}
        <input
          className="field"
          aria-label={label}
          aria-invalid={message !== null}
          placeholder="-> 6 Strap using Fine knife in 20s"
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          onBlur={done}
          onKeyDown={(e) => {
            if (e.key === "Enter") done();
            else if (e.key === "Escape") {
              setTyped(value);
              setMessage(null);
            } else return;
            e.preventDefault();
          }}
        />
        {onRemove && (
          <Button look="quiet" aria-label={`Remove ${label.toLowerCase()}`} className="px-1!" onClick={onRemove}>
            <X size={14} aria-hidden />
          </Button>
        )}
      </span>
      {message && <p className="pl-5 text-beet">{message}</p>}
    </div>
  );
}
