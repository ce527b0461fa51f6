"use client";
/** The checks: findings on the left, the chosen one with its evidence and fixes on the right. */
import { useMemo, useState } from "react";
import type { Finding } from "@/core/checks/check";
import { findingRows, GROUPINGS, type GroupedBy, groupFindings, isGrouping } from "@/core/checks/grouping";
import { ruleTitle } from "@/core/checklist";
import { count } from "@/core/numbers/format";
import { normalise } from "@/core/schema/names";
import { usePlaces } from "../frame/navigate";
import { useTyped } from "../frame/typed";
import { ViewHead } from "../frame/view-head";
import { Button, Empty } from "../kit/kit";
import { SearchField } from "../kit/search-field";
import { Popup } from "../kit/popup";
import { useCatalogue, useLivePart } from "../pantry/provider";
import { save } from "../tables/save";
import { Detail } from "./finding-detail";
import { FindingList, foldedList, plainList } from "./finding-list";
import { LoopDetail } from "./loop-detail";

/** Findings that the address asks for: of a rule, and with a text in their sentence, rule or records. */
function useShown(): { readonly shown: readonly Finding[]; readonly filtered: boolean } {
  const findings = useLivePart(({ model }) => model.findings);
  const places = usePlaces();
  const rule = places.query.get("rule");
  const text = normalise(places.query.get("text") ?? "");
  const shown = useMemo(
    () => findings.filter((f) => (!rule || f.rule === rule) && (!text || searchText(f).includes(text))),
    [findings, rule, text],
  );
  return { shown, filtered: Boolean(rule || text) };
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

const NONE_OPEN: ReadonlySet<string> = new Set();

export function ChecksView() {
  const catalogue = useCatalogue();
  const findings = useLivePart(({ model }) => model.findings);
  const loops = useLivePart(({ model }) => model.loops);
  const complete = useLivePart(({ model }) => model.complete);
  const computed = useLivePart(({ model }) => model.revision >= 0);
  const places = usePlaces();
  const searched = useTyped(places, "text");
  const { shown, filtered } = useShown();
  const rule = places.query.get("rule");
  const asked = places.query.get("group") ?? "";
  const by: GroupedBy = isGrouping(asked) ? asked : "severity";
  const folds = by !== "severity";
  const [opened, setOpened] = useState<{ readonly by: GroupedBy; readonly keys: ReadonlySet<string> }>();
  const open = opened?.by === by ? opened.keys : NONE_OPEN;
  const groups = useMemo(() => groupFindings(catalogue, shown, by), [catalogue, shown, by]);
  const entries = useMemo(
    () => (folds ? foldedList(groups, open) : plainList(groups, filtered ? [] : loops)),
    [folds, groups, open, filtered, loops],
  );
  const fold = (key: string, unfold: boolean) => {
    const keys = new Set(open);
    if (unfold) keys.add(key);
    else keys.delete(key);
    setOpened({ by, keys });
  };
  const loopAt = Number(places.query.get("loop") ?? -1);
  const wanted = places.query.get("finding");
  const at = useMemo(() => {
    const chosen = entries.findIndex((e) =>
      loopAt >= 0 ? "loop" in e && e.at === loopAt : "finding" in e && e.finding.fingerprint === wanted,
    );
    return chosen < 0 && loopAt < 0 && !(folds && wanted) ? entries.findIndex((e) => "finding" in e) : chosen;
  }, [entries, folds, loopAt, wanted]);
  const entry = entries[at];
  // A folded group still shows the finding that was chosen in it.
  const hidden = !entry && loopAt < 0 ? shown.find((f) => f.fingerprint === wanted) : undefined;
  const chosen = entry && "finding" in entry ? entry.finding : (hidden ?? null);
  const gone = wanted && loopAt < 0 && !findings.some((f) => f.fingerprint === wanted);
  return (
    <>
      <ViewHead title="Checks">
        <SearchField label="Search findings" className="w-44!" {...searched} />
        <select
          aria-label="Group by"
          className="field w-40!"
          value={by}
          onChange={(e) => places.ask({ group: e.target.value === "severity" ? null : e.target.value }, true)}
        >
          {Object.entries(GROUPINGS).map(([id, { label }]) => (
            <option key={id} value={id}>
              By {label.toLowerCase()}
            </option>
          ))}
        </select>
        <ExportFindings findings={shown} />
        {filtered && (
          <Button onClick={() => places.ask({ rule: null, text: null }, true)}>
            {rule ? `Only ${ruleTitle(rule).toLowerCase()}: show all` : "Show all"}
          </Button>
        )}
      </ViewHead>
      <div className="flex min-h-0 flex-1">
        <div className="flex w-[372px] shrink-0 flex-col border-r border-line bg-salt">
          {shown.length === 0 && <NoFindings filtered={filtered} computed={computed} />}
          {folds && groups.length > 0 && (
            <div className="flex items-center gap-1 border-b border-hair px-2.5 py-1 text-second">
              <span className="flex-1">
                {count(shown.length, "finding")} in {count(groups.length, "group")}
              </span>
              <Button look="quiet" onClick={() => setOpened({ by, keys: new Set(groups.map((g) => g.key)) })}>
                Expand all
              </Button>
              <Button look="quiet" onClick={() => setOpened({ by, keys: NONE_OPEN })}>
                Collapse all
              </Button>
            </div>
          )}
          {entries.length > 0 && <FindingList key={by} entries={entries} at={at} onFold={folds ? fold : undefined} />}
          {computed && !complete && (
            <p className="border-t border-line px-3.5 py-2 text-copper">
              There may be more gaining loops than listed, because the search reached its limit. Fix these first.
            </p>
          )}
        </div>
        {/** biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard */}
        <section tabIndex={0} aria-label="Finding" className="min-w-0 flex-1 overflow-auto bg-fog p-5">
          {gone && (
            <p className="mb-3 rounded-sm bg-kelp-wash px-3 py-2 font-semibold text-kelp">
              The finding in this link no longer exists: it was fixed.
            </p>
          )}
          {chosen && <Detail key={chosen.fingerprint} finding={chosen} />}
          {folds && !chosen && !gone && shown.length > 0 && (
            <p className="text-second">Open a group and select a finding to see its evidence and fixes.</p>
          )}
          {loopAt >= 0 && <LoopDetail at={loopAt} />}
        </section>
      </div>
    </>
  );
}

function NoFindings({ filtered, computed }: { readonly filtered: boolean; readonly computed: boolean }) {
  if (!computed)
    return <Empty title="No findings yet">The analysis is still running. Findings appear here when it is done.</Empty>;
  if (filtered) return <Empty title="No matching findings">No finding matches the search and the rule.</Empty>;
  return (
    <Empty title="No findings">
      Every check passed: all inputs are obtainable, no loop gains, and no price is below cost.
    </Empty>
  );
}

/** The findings that are shown, as a CSV file or as cells for a spreadsheet. */
function ExportFindings({ findings }: { readonly findings: readonly Finding[] }) {
  const [done, setDone] = useState("");
  const text = async (separator: string) => {
    const { writeDelimited } = await import("@/core/exchange/table/read-table");
    return writeDelimited(findingRows(findings), separator as "," | "\t");
  };
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(await text("\t"));
      setDone(`Copied ${count(findings.length, "finding")}.`);
    } catch {
      setDone("The browser doesn't allow copying here. Save the file instead.");
    }
  };
  return (
    <Popup
      button={(opener) => <Button {...opener}>Export</Button>}
      align="start"
      label="Export findings"
      className="w-72"
    >
      <p className="pb-2 text-second">{count(findings.length, "finding")}, as filtered.</p>
      <div className="flex gap-1.5">
        <Button onClick={async () => save("findings.csv", await text(","))}>Save as CSV</Button>
        <Button onClick={() => void copy()}>Copy</Button>
      </div>
      <p role="status" className="pt-2 text-second empty:hidden">
        {done}
      </p>
    </Popup>
  );
}
