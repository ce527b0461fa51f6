"use client";
/** What edits would change beyond themselves, asked before they are made. */
import { useMutation } from "@tanstack/react-query";
import type { Edit } from "@/core/catalogue/edit";
import { nameOf } from "@/core/catalogue/catalogue";
import { sayMoved } from "@/core/history/say-moved";
import { Button } from "../kit/kit";
import { useCatalogue, useStore } from "../pantry/provider";

/** The answer belongs to the edits it was asked for: `reset` when they become others. */
export function useImpact(edits: readonly Edit[]) {
  const store = useStore();
  return useMutation({ mutationFn: () => store.api.whatIf(edits) });
}
type Impact = ReturnType<typeof useImpact>;

export function ImpactButton({ impact, disabled }: { readonly impact: Impact; readonly disabled: boolean }) {
  return (
    <Button disabled={disabled || impact.isPending} onClick={() => impact.mutate()}>
      Preview impact
    </Button>
  );
}

export function ImpactWords({ impact: { data } }: { readonly impact: Impact }) {
  const catalogue = useCatalogue();
  if (!data) return null;
  return (
    <span className="block text-kelp">
      {data.ok
        ? sayMoved(data.value.ripple.moved, (id) => nameOf(catalogue, "item", id), "nothing else would change").join(
            ", ",
          )
        : data.problem.detail}
    </span>
  );
}
