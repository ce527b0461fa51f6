"use client";
/** From an item to trying it: use it, wear it, open it, make it. */
import type { Catalogue } from "@/core/catalogue/catalogue";
import { recordsWith } from "@/core/catalogue/references";
import { around } from "@/core/catalogue/surroundings";
import { usesOf } from "@/core/catalogue/uses";
import type { Item, Recipe } from "@/core/kinds/index";
import { formatSteps } from "@/core/notation/trial-line";
import { rehearsalOf } from "@/core/trials/rehearsal";
import { slotOf } from "@/core/trials/worn";
import { usePlaces } from "../frame/navigate";
import { Button } from "../kit/kit";
import { useLive } from "../pantry/provider";
import { writePlans } from "../tasting/plans";

interface Tryout {
  readonly label: "Use it" | "Wear it" | "Open it" | "Make it";
  readonly query: () => { readonly [name: string]: string };
}

export function waysToTry(catalogue: Catalogue, item: Item): Tryout[] {
  const uses = usesOf(catalogue, item);
  const opens = uses.some((u) => u.effects.some((e) => e.does.is === "draw"));
  const others = uses.filter((u) => u.effects.some((e) => e.does.is !== "draw"));
  const [recipe] = recordsWith(catalogue, "recipe", item.id, ["output"]);
  const plan = () => writePlans([{ item: item.key, use: "", rule: "as soon as ready", value: "" }]);
  const steps = (of: Recipe) => formatSteps(rehearsalOf(catalogue, of) as never, around(catalogue));
  const ways: (Tryout | false)[] = [
    others.length > 0 && { label: "Use it", query: () => ({ tab: "use", plan: plan() }) },
    slotOf(catalogue, item) !== null && { label: "Wear it", query: () => ({ tab: "wear", try: item.key }) },
    opens && { label: "Open it", query: () => ({ tab: "open", open: item.key }) },
    recipe !== undefined && { label: "Make it", query: () => ({ tab: "bag", do: steps(recipe) }) },
  ];
  return ways.filter((way) => way !== false);
}

export function TryIt({ item }: { readonly item: Item }) {
  const { catalogue } = useLive();
  const places = usePlaces();
  const ways = waysToTry(catalogue, item);
  return ways.map((way, k) => (
    <Button
      key={way.label}
      look="quiet"
      title={k === 0 ? `${way.label} in Tasting (T)` : `${way.label} in Tasting`}
      onClick={() => places.go("tasting", way.query())}
    >
      {way.label}
    </Button>
  ));
}
