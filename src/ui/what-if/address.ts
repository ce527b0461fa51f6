"use client";
/** The address names the scenario that is open: a link brings a colleague to it. */
import { useEffect, useRef } from "react";
import { byKey } from "@/core/catalogue/keys";
import { storedEdits } from "@/core/what-if/scenario";
import { usePlaces } from "../frame/navigate";
import { useStore, useView } from "../pantry/provider";

export function useScenarioAddress(): void {
  const { ask, query, view } = usePlaces();
  const store = useStore();
  const loaded = useView((v) => v.base !== null);
  const id = useView((v) => v.scenario?.id ?? null);
  const isOpen = useView((v) => v.scenario !== null);
  const key = useView((v) => (id && v.base?.catalogue.records.scenario.get(id)?.key) || null);
  const named = query.get("scenario");
  /** The address that was followed last: it is followed once, not again when the scenario is left. */
  const followed = useRef<string | null>(null);
  useEffect(() => {
    const { base } = store.snapshot();
    if (!loaded || !base || !named || named === followed.current) return;
    followed.current = named;
    const record = byKey(base.catalogue, "scenario", named);
    const edits = record && storedEdits(base.catalogue, record.edits);
    if (!record || !edits)
      store.tell("No such scenario", `There is no scenario with the key “${named}”. It may have been deleted.`);
    else if (store.snapshot().scenario?.id !== record.id)
      store.enterScenario({ id: record.id, name: record.name, edits });
  }, [loaded, named, store]);
  // Other views keep it in their addresses, and one that was left is named no more.
  // biome-ignore lint/correctness/useExhaustiveDependencies: with each view, and whenever another is open
  useEffect(() => {
    const { base, scenario } = store.snapshot();
    if (!base) return;
    const open = (scenario?.id && base.catalogue.records.scenario.get(scenario.id)?.key) || null;
    if (open) followed.current = open;
    if (open !== named && (open || named === followed.current)) ask({ scenario: open }, true);
  }, [key, named, isOpen, view, ask, store]);
  useEffect(() => {
    if (!named) followed.current = null;
  }, [named]);
}
