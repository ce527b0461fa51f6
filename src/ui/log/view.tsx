"use client";
/** The log: every change, by whom and when, what it moved, and the way back. */
import { keepPreviousData, useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { Fragment, useEffect, useMemo, useState } from "react";
import type { LoggedChange } from "@/core/history/log";
import { sayMoved } from "@/core/history/say-moved";
import { type Catalogue, nameOf } from "@/core/catalogue/catalogue";
import { type Edit, fieldWord } from "@/core/catalogue/edit";
import { kindWord } from "@/core/kinds/index";
import { sayValue } from "@/core/catalogue/say-value";
import { tellChange } from "@/core/history/telling";
import { count } from "@/core/numbers/format";
import { ViewHead } from "../frame/view-head";
import { Button, cx, Empty, sayWhen } from "../kit/kit";
import { useLive, useStore } from "../pantry/provider";
import { PointsAt, pointsByRevision, SavePoint } from "./points";

const PAGE = 60;

export function LogView() {
  const { catalogue } = useLive();
  const store = useStore();
  const [open, setOpen] = useState<number | null>(null);
  const { data, fetchNextPage, hasNextPage, isFetchingNextPage, refetch } = useInfiniteQuery({
    queryKey: ["log", store.key],
    initialPageParam: 0,
    placeholderData: keepPreviousData,
    queryFn: ({ pageParam }) => store.api.changes(PAGE, pageParam),
    getNextPageParam: (page) => (page.length === PAGE ? page[page.length - 1].revision : undefined),
  });
  useEffect(() => {
    if (catalogue.revision) void refetch();
  }, [catalogue.revision, refetch]);
  const changes = data?.pages.flat() ?? [];
  const points = useMemo(() => pointsByRevision(catalogue.records.point.values()), [catalogue]);
  const takenBack = new Set(changes.flatMap((c) => (c.undoes ? [c.undoes] : [])));
  return (
    <>
      <ViewHead title="Log">
        <SavePoint />
      </ViewHead>
      {/** biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard */}
      {/** biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element */}
      <div tabIndex={0} role="region" aria-label="Changes" className="min-h-0 flex-1 overflow-auto bg-salt">
        {data && changes.length === 0 && (
          <Empty title="No changes yet">
            Every change appears here with its author, time and effects. Each can be undone.
          </Empty>
        )}
        {changes.length > 0 && (
          <table className="w-full">
            <thead className="sticky top-0 z-10 bg-shade">
              <tr className="text-left">
                <th className="head w-16 px-3.5 py-1.5 text-right">Rev.</th>
                <th className="head w-32 px-2">When</th>
                <th className="head w-28 px-2">Who</th>
                <th className="head px-2">What</th>
                <th className="head w-[34%] px-2">Effects</th>
                <th className="head w-24 px-2">
                  <span className="sr-only">Undo</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {changes.map((c) => (
                <Fragment key={c.revision}>
                  <tr className={cx("border-b border-hair align-top", open === c.revision && "bg-pick")}>
                    <td className="px-3.5 py-1.5 text-right text-second">{c.revision}</td>
                    <td className="px-2 py-1.5 whitespace-nowrap text-second" title={c.at}>
                      {sayWhen(c.at)}
                    </td>
                    <td className="max-w-28 truncate px-2 py-1.5">{c.author}</td>
                    <td className="px-2 py-1.5">
                      <PointsAt points={points.get(c.revision) ?? []} />
                      <button
                        type="button"
                        aria-expanded={open === c.revision}
                        className="text-left hover:underline"
                        onClick={() => setOpen(open === c.revision ? null : c.revision)}
                      >
                        <span className={cx("font-semibold", takenBack.has(c.revision) && "text-third line-through")}>
                          {titleOf(c, catalogue)}
                        </span>
                        {titleOf(c, catalogue) !== told(c, catalogue) && c.size > 2 && (
                          <span className="block text-second">{told(c, catalogue)}</span>
                        )}
                      </button>
                    </td>
                    <td className="px-2 py-1.5 text-second">
                      {c.moved ? sayMoved(c.moved, (id) => nameOf(catalogue, "item", id)).join(", ") : "–"}
                    </td>
                    <td className="px-2 py-1">
                      {takenBack.has(c.revision) ? (
                        <span className="text-third">undone</span>
                      ) : (
                        <Button
                          onClick={() => void store.undoRevision(c.revision)}
                          aria-label={`Undo revision ${c.revision}`}
                        >
                          Undo
                        </Button>
                      )}
                    </td>
                  </tr>
                  {open === c.revision && (
                    <tr className="border-b border-line bg-shade">
                      <td />
                      <td colSpan={5} className="px-2 py-2">
                        <EditList change={c} />
                      </td>
                    </tr>
                  )}
                </Fragment>
              ))}
            </tbody>
          </table>
        )}
        {hasNextPage && (
          <div className="p-3 text-center">
            <Button disabled={isFetchingNextPage} onClick={() => void fetchNextPage()}>
              Older changes
            </Button>
          </div>
        )}
      </div>
    </>
  );
}

const told = (c: LoggedChange, catalogue: Catalogue): string =>
  c.edits.length ? tellChange(catalogue, c.edits) : count(c.size, "edit");
/** What a change is called: the note it came with where it is too large to be told, else what it did. */
function titleOf(c: LoggedChange, catalogue: Catalogue): string {
  if (c.undoes) return `Undid revision ${c.undoes}: ${c.note}`;
  return c.size > 4 && c.note ? c.note : told(c, catalogue);
}

/** The edits of a change; those of a large one are fetched when it is opened. */
function EditList({ change }: { change: LoggedChange }) {
  const store = useStore();
  const { data } = useQuery({
    queryKey: ["change", store.key, change.revision],
    enabled: change.edits.length < change.size,
    queryFn: () => store.api.changeAt(change.revision),
  });
  const edits = change.edits.length < change.size ? (data?.edits ?? []) : change.edits;
  return (
    <>
      <ul className="max-h-64 overflow-auto">
        {edits.slice(0, 200).map((e, i) => (
          <EditLine key={i} edit={e} />
        ))}
      </ul>
      {change.size > 200 && <p className="text-second">and {count(change.size - 200, "more edit", "more edits")}</p>}
    </>
  );
}

function EditLine({ edit }: { edit: Edit }) {
  const { catalogue } = useLive();
  if (edit.op !== "set")
    return (
      <li className="py-0.5">
        {edit.op === "add" ? "added" : "removed"} {kindWord(edit.kind)} <b>{edit.record.name}</b>{" "}
        <span className="text-second">({edit.record.key})</span>
      </li>
    );
  const name = edit.kind === "pantry" ? catalogue.pantry.name : nameOf(catalogue, edit.kind, edit.id);
  return (
    <li className="py-0.5">
      <b>{name}</b>, {fieldWord(catalogue, edit.kind, edit.field)}:{" "}
      <span className="text-second line-through">{sayValue(catalogue, edit.kind, edit.field, edit.from)}</span> →{" "}
      {sayValue(catalogue, edit.kind, edit.field, edit.to)}
    </li>
  );
}
