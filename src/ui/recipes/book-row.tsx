"use client";
/** One recipe of the book: its name, how long it takes, what one of its result costs, and its line. */
import type { CSSProperties, MouseEvent } from "react";
import { around } from "@/core/catalogue/surroundings";
import type { Severity } from "@/core/checklist/index";
import type { Recipe } from "@/core/kinds/index";
import { formatUnnamed } from "@/core/notation/format";
import { outputsOf } from "@/core/notation/line";
import { count, sayCost } from "@/core/numbers/format";
import { formatTicks } from "@/core/numbers/ticks";
import { cx, Dot } from "../kit/kit";
import { useLive } from "../pantry/provider";

interface Props {
  readonly recipe: Recipe;
  /** It stands open beside the book. */
  readonly open: boolean;
  /** One of many that are selected. */
  readonly chosen: boolean;
  readonly selected: boolean;
  readonly cost: number | null;
  readonly severity: Severity | undefined;
  readonly style: CSSProperties;
  readonly onClick: (e: MouseEvent) => void;
}

export function BookRow({ recipe, open, chosen, selected, cost, severity, style, onClick }: Props) {
  const { catalogue } = useLive();
  const each = recipe.kind !== "salvage" && outputsOf(recipe.lines).length ? cost : null;
  return (
    <div
      id={`recipe-${recipe.id}`}
      role="option"
      aria-selected={selected}
      tabIndex={-1}
      onClick={onClick}
      onKeyDown={() => undefined}
      className={cx(
        "absolute left-0 flex w-full flex-col justify-center border-b border-hair px-3.5 select-none",
        open || chosen ? "bg-pick" : "hover:bg-shade",
        chosen && "border-l-3 border-l-kelp",
      )}
      style={style}
    >
      <span className="flex items-center gap-2">
        <span className={cx("truncate font-semibold", recipe.status === "retired" && "text-third line-through")}>
          {recipe.name}
        </span>
        {recipe.variants.length > 0 && (
          <span className="shrink-0 text-[12px] text-second">{count(recipe.variants.length, "variant")}</span>
        )}
        {severity && <Dot severity={severity} />}
        {recipe.ticks > 0 && (
          <span className="num ml-auto shrink-0 text-[12px] text-second">
            {formatTicks(recipe.ticks, catalogue.pantry.ticksPerSecond)}
          </span>
        )}
        {each !== null && (
          <span className={cx("ink-worked w-14 shrink-0 text-right", !recipe.ticks && "ml-auto")}>{sayCost(each)}</span>
        )}
      </span>
      <span className="truncate text-second">{formatUnnamed(around(catalogue), recipe)}</span>
    </div>
  );
}
