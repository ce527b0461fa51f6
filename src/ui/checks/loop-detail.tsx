"use client";
/** A loop opened: its runs, and what one round leaves. */
import type { Verdict } from "@/core/analysis/loops";
import { nameOf } from "@/core/catalogue/catalogue";
import { count } from "@/core/numbers/format";
import { usePlaces } from "../frame/navigate";
import { Jar } from "../kit/jars";
import { Button } from "../kit/kit";
import { useLive } from "../pantry/provider";

export function LoopDetail({ at }: { at: number }) {
  const { model, catalogue } = useLive();
  const places = usePlaces();
  const loop = model.loops[at];
  if (!loop) return null;
  const titles: Record<Verdict, string> = {
    stuck: "Nothing leads into this loop, so it can't be started.",
    gaining: "Some recipes in this loop give more than they take. The findings name them, with proof.",
    even: "One round can return exactly what went in: no gain, no loss.",
    lossy: "Every round loses something, as it should.",
  };
  return (
    <>
      <p className="head pb-1">A loop of {count(loop.items.length, "item")}</p>
      <h2 className="pb-3 text-[17px]">{titles[loop.verdict]}</h2>
      <p className="flex flex-wrap gap-1.5">
        {loop.items.slice(0, 80).map((id) => (
          <Jar key={id} id={id} onOpen={places.openItem} />
        ))}
      </p>
      <h3 className="head pt-4 pb-1">Recipes in this loop</h3>
      <p className="flex flex-wrap gap-1.5">
        {loop.recipes.slice(0, 80).map((id) => (
          <Button
            key={id}
            className="h-6!"
            onClick={() => places.open(catalogue.records.recipe.has(id) ? "recipe" : "source", id)}
          >
            {nameOf(catalogue, catalogue.records.recipe.has(id) ? "recipe" : "source", id)}
          </Button>
        ))}
      </p>
    </>
  );
}
