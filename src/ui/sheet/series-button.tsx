"use client";
/** Opens the series of an item, or makes one; what reckons it is loaded then. */
import dynamic from "next/dynamic";
import { orNotLoaded } from "../kit/not-loaded";
import { useState } from "react";
import { seriesOf } from "@/core/editing/series-of";
import type { Item } from "@/core/kinds/index";
import { Button } from "../kit/kit";
import { useLive } from "../pantry/provider";

const SeriesPanel = dynamic(() => orNotLoaded(import("./series-panel").then((m) => m.SeriesPanel)));

export function SeriesButton({ item }: { readonly item: Item }) {
  const { catalogue } = useLive();
  const [open, setOpen] = useState(false);
  const there = seriesOf(catalogue, item.id);
  return (
    <>
      <Button look="quiet" onClick={() => setOpen(true)}>
        {there ? `Series of ${there.steps.length + 1}` : "Make a series"}
      </Button>
      {open && <SeriesPanel item={item} there={there} onClose={() => setOpen(false)} />}
    </>
  );
}
