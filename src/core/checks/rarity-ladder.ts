import type { Rarity } from "../kinds/index";
import { sayQuantity } from "../numbers/format";
import { perRecord, ref } from "./check";

const FACTORS = ["power", "price"] as const;

/** A rarity that shares its rank with another, or of which less is expected than of one below it. */
export const rarityLadder = perRecord<"rarity">({
  id: "rarity-ladder",
  reads: [],
  per: ["rarity"],
  // Where one is another, any of them may stand wrong.
  also: ({ catalogue }, _, edits) =>
    edits.some((e) => e.kind === "rarity") ? [...catalogue.records.rarity.keys()] : [],
  *at({ catalogue }, rarity) {
    const others = [...catalogue.records.rarity.values()].filter((r) => r !== rarity);
    const wrong = (below: Rarity): string | null => {
      if (below.rank === rarity.rank)
        return below.key < rarity.key ? `${rarity.name} and ${below.name} have the same rank, ${rarity.rank}.` : null;
      if (below.rank > rarity.rank) return null;
      const less = FACTORS.find((factor) => rarity[factor] < below[factor]);
      return less
        ? `${rarity.name} ranks above ${below.name}, but its ${less} factor is lower: ${sayQuantity(rarity[less])} against ${sayQuantity(below[less])}.`
        : null;
    };
    for (const other of others) {
      const message = wrong(other);
      if (!message) continue;
      yield {
        subject: [ref(catalogue, "rarity", rarity.id), ref(catalogue, "rarity", other.id)],
        message,
        evidence: {
          type: "amounts",
          unit: "",
          rows: [other, rarity].flatMap((r) =>
            FACTORS.map((factor) => ({ label: `${r.name}, ${factor}`, value: r[factor] })),
          ),
        },
        fixes: [rarity, other].map((r) => ({
          message: `Open ${r.name}`,
          do: "open" as const,
          kind: "rarity" as const,
          id: r.id,
        })),
      };
    }
  },
});
