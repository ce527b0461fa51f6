"use client";
/** Who changed one record, newest first. */
import { useQuery } from "@tanstack/react-query";
import type { Id } from "@/core/schema/id";
import { tellChange } from "@/core/history/telling";
import { sayWhen } from "../kit/kit";
import { useLive, useStore } from "../pantry/provider";

export function HistoryOf({ id }: { id: Id }) {
  const store = useStore();
  const { catalogue } = useLive();
  const touched = catalogue.records.item.get(id) ?? catalogue.records.recipe.get(id);
  const { data } = useQuery({
    queryKey: ["history", store.key, id, touched],
    queryFn: () => store.api.historyOf(id, 12),
    placeholderData: (before) => before,
  });
  return (
    <section aria-label="History">
      <h3 className="head pt-5 pb-1">History</h3>
      {data?.length === 0 && <p className="text-second">No changes yet.</p>}
      <ul>
        {data?.map((c) => (
          <li key={c.revision} className="grid grid-cols-[42px_1fr] gap-2 border-b border-hair py-1">
            <span className="text-right text-third">{c.revision}</span>
            <span>
              {c.undoes ? `Undid revision ${c.undoes}` : c.size > 4 && c.note ? c.note : tellChange(catalogue, c.edits)}
              <span className="text-second">
                {" "}
                · {c.author}, {sayWhen(c.at)}
              </span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
