"use client";
/** Which stations are at hand: every one, or only those that are named and those in the bag. */
import { X } from "lucide-react";
import { useMemo } from "react";
import type { Catalogue } from "@/core/catalogue/catalogue";
import { membersOf } from "@/core/process/members";
import type { Id } from "@/core/schema/id";
import { Jar } from "../kit/jars";
import { Button } from "../kit/kit";
import { useLive } from "../pantry/provider";
import { ItemInput, Labelled } from "./parts";

/** Whatever is a station of some recipe. */
function stationsIn(catalogue: Catalogue): Set<Id> {
  const known = new Set<Id>();
  const tags = new Set<Id>();
  for (const { lines } of catalogue.records.recipe.values())
    for (const { role, item, any } of lines) {
      if (role !== "station") continue;
      if (item) known.add(item);
      else if (any) tags.add(any);
    }
  for (const tag of tags) for (const { id } of membersOf(catalogue, tag)) known.add(id);
  return known;
}

export function StationsAtHand({
  stations,
  onStations,
}: {
  /** null: every one. */
  readonly stations: readonly Id[] | null;
  readonly onStations: (stations: readonly Id[] | null) => void;
}) {
  const { catalogue } = useLive();
  const asked = stations !== null;
  const known = useMemo(() => (asked ? stationsIn(catalogue) : new Set<Id>()), [asked, catalogue]);
  return (
    <div className="space-y-1">
      <Labelled label="Available stations">
        <select
          aria-label="Available stations"
          className="field"
          value={stations ? "named" : "every"}
          onChange={(e) => onStations(e.target.value === "named" ? [] : null)}
        >
          <option value="every">all stations</option>
          <option value="named">listed, and in the bag</option>
        </select>
      </Labelled>
      {stations && (
        <>
          <ul className="flex flex-wrap gap-1">
            {stations.map((id) => (
              <li key={id} className="flex items-center">
                <Jar id={id} />
                <Button
                  look="quiet"
                  className="px-1.5!"
                  aria-label={`Remove ${catalogue.records.item.get(id)?.name}`}
                  onClick={() => onStations(stations.filter((s) => s !== id))}
                >
                  <X size={13} aria-hidden />
                </Button>
              </li>
            ))}
          </ul>
          <ItemInput label="Add a station" among={known} onTake={(id) => onStations([...new Set([...stations, id])])} />
        </>
      )}
    </div>
  );
}
