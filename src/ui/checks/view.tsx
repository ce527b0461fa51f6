"use client";
/** The checks: findings on the left, the chosen one with its evidence, fixes and decisions on the right. */
import { useMemo, useState } from "react";
import { withoutFinding } from "@/core/checks/decisions";
import { type FindingGroup, GROUPINGS, type GroupedBy, groupFindings, isGrouping } from "@/core/checks/grouping";
import { ruleTitle } from "@/core/checklist";
import { count } from "@/core/numbers/format";
import { usePlaces } from "../frame/navigate";
import { useTyped } from "../frame/typed";
import { ViewHead } from "../frame/view-head";
import { ChoiceButtons } from "../kit/choice-buttons";
import { Button, Empty } from "../kit/kit";
import { SearchField } from "../kit/search-field";
import { useCatalogue, useLivePart } from "../pantry/provider";
import { StaleDecisions } from "./decided";
import { ExportFindings } from "./export-findings";
import { Detail } from "./finding-detail";
import { FindingList, foldedList, plainList } from "./finding-list";
import { GroupDetail } from "./group-detail";
import { LoopDetail } from "./loop-detail";
import { type Shown, useShown } from "./shown";
import { SinceChoice, TotalsLine } from "./since";

const NONE_OPEN: ReadonlySet<string> = new Set();

export function ChecksView() {
  const catalogue = useCatalogue();
  const judged = useLivePart((live) => live.judged);
  const findings = useLivePart(({ model }) => model.findings);
  const loops = useLivePart(({ model }) => model.loops);
  const complete = useLivePart(({ model }) => model.complete);
  const computed = useLivePart(({ model }) => model.revision >= 0);
  const places = usePlaces();
  const shown = useShown();
  const { show, findings: listed, gone: resolved, filtered } = shown;
  const asked = places.query.get("group") ?? "";
  const by: GroupedBy = isGrouping(asked) ? asked : "severity";
  const folds = by !== "severity" && show !== "changes";
  const [opened, setOpened] = useState<{ readonly by: GroupedBy; readonly keys: ReadonlySet<string> }>();
  const open = opened?.by === by ? opened.keys : NONE_OPEN;
  const groups = useMemo(
    () => (show === "changes" ? [] : groupFindings(catalogue, listed, by, judged.decisions)),
    [catalogue, show, listed, by, judged],
  );
  const entries = useMemo(
    () =>
      folds
        ? foldedList(groups, open)
        : show === "changes"
          ? plainList(changedGroups(listed, resolved), [])
          : plainList(groups, filtered || show === "accepted" ? [] : loops),
    [folds, groups, open, filtered, show, loops, listed, resolved],
  );
  const fold = (key: string, unfold: boolean) => {
    const keys = new Set(open);
    if (unfold) keys.add(key);
    else keys.delete(key);
    setOpened({ by, keys });
  };
  /** The group that the keyboard is at, or that was clicked. */
  const [head, setHead] = useState<string | null>(null);
  const group = folds ? groups.find((g) => g.key === head) : undefined;
  const loopAt = Number(places.query.get("loop") ?? -1);
  const wanted = places.query.get("finding");
  const at = useMemo(() => {
    const chosen = entries.findIndex((e) =>
      loopAt >= 0 ? "loop" in e && e.at === loopAt : "finding" in e && e.finding.fingerprint === wanted,
    );
    return chosen < 0 && loopAt < 0 && !(folds && wanted) ? entries.findIndex((e) => "finding" in e) : chosen;
  }, [entries, folds, loopAt, wanted]);
  const entry = entries[at];
  // A finding that is folded away, accepted or filtered out is still shown if the address names it.
  const hidden =
    !entry && loopAt < 0
      ? (listed.find((f) => f.fingerprint === wanted) ?? findings.find((f) => f.fingerprint === wanted))
      : undefined;
  const chosen = group ? null : entry && "finding" in entry ? entry.finding : (hidden ?? null);
  const isGone = chosen !== null && resolved.includes(chosen);
  const missing = wanted && loopAt < 0 && !chosen && !group && !findings.some((f) => f.fingerprint === wanted);
  return (
    <>
      <Head shown={shown} by={by} />
      <div className="flex min-h-0 flex-1">
        <div className="flex w-[372px] shrink-0 flex-col border-r border-line bg-salt">
          <ShowChoice shown={shown} />
          {show === "changes" && (
            <div className="border-b border-hair px-2.5 py-2">
              <SinceChoice />
              <TotalsLine />
            </div>
          )}
          {listed.length + resolved.length === 0 && <NoFindings shown={shown} computed={computed} />}
          {folds && groups.length > 0 && (
            <div className="flex items-center gap-1 border-b border-hair px-2.5 py-1 text-second">
              <span className="flex-1">
                {count(listed.length, "finding")} in {count(groups.length, "group")}
              </span>
              <Button look="quiet" onClick={() => setOpened({ by, keys: new Set(groups.map((g) => g.key)) })}>
                Expand all
              </Button>
              <Button look="quiet" onClick={() => setOpened({ by, keys: NONE_OPEN })}>
                Collapse all
              </Button>
            </div>
          )}
          {entries.length > 0 && (
            <FindingList
              key={`${by} ${show}`}
              entries={entries}
              at={at}
              head={head}
              onHead={setHead}
              onFold={folds ? fold : undefined}
            />
          )}
          {show === "accepted" && !filtered && <StaleDecisions decisions={withoutFinding(catalogue, findings)} />}
          {computed && !complete && (
            <p className="border-t border-line px-3.5 py-2 text-copper">
              There may be more gaining loops than listed, because the search reached its limit. Fix these first.
            </p>
          )}
        </div>
        {/** biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard */}
        <section tabIndex={0} aria-label="Finding" className="min-w-0 flex-1 overflow-auto bg-fog p-5">
          {(missing || isGone) && (
            <p className="mb-3 rounded-sm bg-kelp-wash px-3 py-2 font-semibold text-kelp">
              {isGone
                ? `This finding is gone since revision ${shown.since.revision}. It is shown as it was.`
                : "The finding in this link no longer exists: it was fixed."}
            </p>
          )}
          {group && (
            <GroupDetail
              key={group.key}
              group={group}
              onOpen={(finding) => {
                setHead(null);
                places.ask({ finding: finding.fingerprint, loop: null }, true);
              }}
            />
          )}
          {chosen && <Detail key={chosen.fingerprint} finding={chosen} past={isGone} />}
          {folds && !chosen && !group && !missing && listed.length > 0 && (
            <p className="text-second">Select a group to accept, assign or fix its findings, or open it to see each.</p>
          )}
          {loopAt >= 0 && !group && <LoopDetail at={loopAt} />}
        </section>
      </div>
    </>
  );
}

const changedGroups = (added: Shown["findings"], gone: Shown["gone"]): Pick<FindingGroup, "title" | "findings">[] =>
  [
    { title: "New", findings: added },
    { title: "Gone", findings: gone },
  ].filter((g) => g.findings.length > 0);

function Head({ shown, by }: { readonly shown: Shown; readonly by: GroupedBy }) {
  const places = usePlaces();
  const catalogue = useCatalogue();
  const searched = useTyped(places, "text");
  const rule = places.query.get("rule");
  const person = places.query.get("person") ?? "";
  const people = useMemo(
    () =>
      [
        ...new Set([...catalogue.records.decision.values()].flatMap((d) => (d.what === "assigned" ? [d.person] : []))),
      ].sort(),
    [catalogue],
  );
  return (
    <ViewHead title="Checks">
      <SearchField label="Search findings" className="w-44!" {...searched} />
      {shown.show !== "changes" && (
        <select
          aria-label="Group by"
          className="field w-36!"
          value={by}
          onChange={(e) => places.ask({ group: e.target.value === "severity" ? null : e.target.value }, true)}
        >
          {Object.entries(GROUPINGS).map(([id, { label }]) => (
            <option key={id} value={id}>
              By {label.toLowerCase()}
            </option>
          ))}
        </select>
      )}
      {(people.length > 0 || person) && (
        <select
          aria-label="Assigned to"
          className="field w-36!"
          value={person}
          onChange={(e) => places.ask({ person: e.target.value || null }, true)}
        >
          <option value="">Anyone</option>
          {(people.includes(person) || !person ? people : [...people, person]).map((name) => (
            <option key={name} value={name}>
              {name}
            </option>
          ))}
        </select>
      )}
      <ExportFindings findings={shown.findings} />
      {shown.filtered && (
        <Button onClick={() => places.ask({ rule: null, text: null, person: null }, true)}>
          {rule ? `Only ${ruleTitle(rule).toLowerCase()}: show all` : "Show all"}
        </Button>
      )}
    </ViewHead>
  );
}

function ShowChoice({ shown: { show } }: { readonly shown: Shown }) {
  const places = usePlaces();
  const { open, accepted } = useLivePart(({ judged }) => judged);
  return (
    <div className="border-b border-hair px-2.5 py-1.5">
      <ChoiceButtons
        label="Findings to show"
        value={show}
        of={[
          ["open", `Open ${open.length}`],
          ["accepted", `Accepted ${accepted.length}`],
          ["changes", "New and gone"],
        ]}
        onPick={(next) => places.ask({ show: next === "open" ? null : next, finding: null, loop: null }, true)}
      />
    </div>
  );
}

function NoFindings({ shown, computed }: { readonly shown: Shown; readonly computed: boolean }) {
  const { show, filtered, since } = shown;
  if (!computed)
    return <Empty title="No findings yet">The analysis is still running. Findings appear here when it is done.</Empty>;
  if (show === "changes") {
    if (since.message) return <Empty title="Can't compare">{since.message}</Empty>;
    if (since.revision === null)
      return (
        <Empty title="Nothing to compare with yet">
          This is your first visit. Choose a revision, or save a point in the Log.
        </Empty>
      );
    if (!since.found) return <Empty title="Comparing">Computing the findings of revision {since.revision}.</Empty>;
    if (!filtered) return <Empty title="Nothing changed">The findings are those of revision {since.revision}.</Empty>;
  }
  if (filtered) return <Empty title="No matching findings">No finding matches the search, check and person.</Empty>;
  if (show === "accepted")
    return (
      <Empty title="No accepted findings">
        Accept a finding with a reason, such as “Sold at a loss on purpose”, and it moves here from the open ones.
      </Empty>
    );
  return (
    <Empty title="No findings">
      Every check passed: all inputs are obtainable, no loop gains, and no price is below cost.
    </Empty>
  );
}
