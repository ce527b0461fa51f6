"use client";
/** Which findings the address asks for. */
import { useMemo } from "react";
import { ruleTitle } from "@/core/checklist";
import type { Finding } from "@/core/checks/check";
import { normalise } from "@/core/schema/names";
import { usePlaces } from "../frame/navigate";
import { useLivePart } from "../pantry/provider";
import { type Since, useSince } from "./since";

export const SHOWS = ["open", "accepted", "changes"] as const;
export type Show = (typeof SHOWS)[number];

export interface Shown {
  readonly show: Show;
  /** Those that are shown; of changes, the new ones. */
  readonly findings: readonly Finding[];
  /** Of changes, those that are gone. */
  readonly gone: readonly Finding[];
  readonly since: Since;
  /** Only some of them, because of a search, a check or a person. */
  readonly filtered: boolean;
}

export function useShown(): Shown {
  const judged = useLivePart((live) => live.judged);
  const { query } = usePlaces();
  const asked = query.get("show");
  const show = SHOWS.find((s) => s === asked) ?? "open";
  const since = useSince(show === "changes");
  const [rule, person] = [query.get("rule"), query.get("person")];
  const text = normalise(query.get("text") ?? "");
  const added = useMemo(() => new Set(since.found?.added), [since.found]);
  const wanted = useMemo(
    () => (f: Finding) =>
      (!rule || f.rule === rule) &&
      (!text || searchText(f).includes(text)) &&
      (!person || judged.decisions.about(f.fingerprint, f.size).assigned?.person === person),
    [rule, text, person, judged],
  );
  const findings = useMemo(() => {
    const all = show === "accepted" ? judged.accepted : judged.open;
    return all.filter((f) => wanted(f) && (show !== "changes" || added.has(f.fingerprint)));
  }, [judged, show, wanted, added]);
  const gone = useMemo(
    () =>
      show === "changes"
        ? (since.found?.gone ?? []).filter((f) => wanted(f) && !judged.decisions.about(f.fingerprint).accepted)
        : [],
    [judged, show, since.found, wanted],
  );
  return { show, findings, gone, since, filtered: Boolean(rule || text || person) };
}

/** What is searched of a finding; each is put together once, not at every key. */
const searchTexts = new WeakMap<Finding, string>();
function searchText(finding: Finding): string {
  let text = searchTexts.get(finding);
  if (text === undefined) {
    text = normalise([finding.message, ruleTitle(finding.rule), ...finding.about.map((of) => of.name)].join("\n"));
    searchTexts.set(finding, text);
  }
  return text;
}
