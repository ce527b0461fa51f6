"use client";
/** The checks: findings on the left, the chosen one with its evidence and the ways to mend it on the right. */
import { useMemo } from "react";
import type { Verdict } from "@/core/analysis/loops";
import { nameOf } from "@/core/catalogue/catalogue";
import { ruleTitle } from "@/core/checklist";
import type { Finding, Fix } from "@/core/checks/check";
import { editsOf } from "@/core/checks/mend";
import { count } from "@/core/numbers/format";
import { usePlaces } from "../frame/navigate";
import { ViewHead } from "../frame/view-head";
import { Button, cx, Dot, Empty, Jar } from "../kit/kit";
import { useLive, useStore } from "../pantry/provider";
import { EvidenceView } from "./evidence";

const VERDICTS: Record<Verdict, string> = { stuck: "no way in", gaining: "gains", even: "breaks even", lossy: "loses" };

export function ChecksView() {
  const { board } = useLive();
  const places = usePlaces();
  const rule = places.query.get("rule");
  const findings = useMemo(() => board.findings.filter((f) => !rule || f.rule === rule), [board.findings, rule]);
  const loopAt = Number(places.query.get("loop") ?? -1);
  const wanted = places.query.get("finding");
  const chosen = loopAt >= 0 ? undefined : (findings.find((f) => f.fingerprint === wanted) ?? findings[0]);
  const gone = wanted && loopAt < 0 && !board.findings.some((f) => f.fingerprint === wanted);
  const step = (by: number) => {
    const at = chosen ? findings.indexOf(chosen) : -1;
    const next = findings[Math.max(0, Math.min(findings.length - 1, at + by))];
    if (next) places.ask({ finding: next.fingerprint, loop: null }, true);
    document.getElementById(`finding-${next?.fingerprint}`)?.scrollIntoView({ block: "nearest" });
  };
  return (
    <>
      <ViewHead title="Checks">
        {rule && (
          <Button onClick={() => places.ask({ rule: null }, true)}>
            Only {ruleTitle(rule).toLowerCase()}: show all
          </Button>
        )}
      </ViewHead>
      <div className="flex min-h-0 flex-1">
        <div className="flex w-[372px] shrink-0 flex-col overflow-auto border-r border-line bg-salt">
          {findings.length === 0 && (
            <Empty title="Nothing found">
              Every check passed: what is needed can be had, nothing gives itself back with a gain, every price holds.
            </Empty>
          )}
          {(findings.length > 0 || board.loops.length > 0) && (
            <div
              role="listbox"
              aria-label="Findings"
              tabIndex={0}
              aria-activedescendant={chosen ? `finding-${chosen.fingerprint}` : undefined}
              onKeyDown={(e) => {
                if (e.key === "ArrowDown") step(1);
                else if (e.key === "ArrowUp") step(-1);
                else return;
                e.preventDefault();
              }}
              className="pb-4"
            >
              {(["error", "warning"] as const).map((severity) => {
                const list = findings.filter((f) => f.severity === severity);
                return list.length ? (
                  // biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element
                  <div key={severity} role="group" aria-label={severity === "error" ? "Faults" : "To look at"}>
                    <div aria-hidden className="head px-3.5 pt-3 pb-1">
                      {severity === "error" ? "Faults" : "To look at"}{" "}
                      <span className="font-normal">{list.length}</span>
                    </div>
                    {list.map((f) => (
                      <FindingRow key={f.fingerprint} finding={f} chosen={f === chosen} />
                    ))}
                  </div>
                ) : null;
              })}
              <Loops at={loopAt} />
            </div>
          )}
          {!board.complete && (
            <p className="px-3.5 pt-2 pb-4 text-copper">
              There may be more gaining loops than those listed: the search stopped at its limit. Mend these first.
            </p>
          )}
        </div>
        {/** biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard */}
        <section tabIndex={0} aria-label="The finding" className="min-w-0 flex-1 overflow-auto bg-fog p-5">
          {gone && (
            <p className="mb-3 rounded-sm bg-kelp-wash px-3 py-2 font-semibold text-kelp">
              The finding this address names is gone: it was mended.
            </p>
          )}
          {chosen && <Detail key={chosen.fingerprint} finding={chosen} />}
          {loopAt >= 0 && <LoopDetail at={loopAt} />}
        </section>
      </div>
    </>
  );
}

function FindingRow({ finding, chosen }: { finding: Finding; chosen: boolean }) {
  const places = usePlaces();
  return (
    <div
      id={`finding-${finding.fingerprint}`}
      role="option"
      aria-selected={chosen}
      tabIndex={-1}
      onClick={() => places.ask({ finding: finding.fingerprint, loop: null }, true)}
      onKeyDown={() => undefined}
      className={cx(
        "flex gap-2.5 border-b border-hair border-l-3 px-3 py-1.5",
        chosen ? "border-l-ink bg-pick" : "border-l-transparent hover:bg-shade",
      )}
    >
      <span className="mt-1.5">
        <Dot severity={finding.severity} />
      </span>
      <span className="min-w-0">
        <span className="block font-bold">{ruleTitle(finding.rule)}</span>
        <span className="line-clamp-2 text-second">{finding.says}</span>
      </span>
    </div>
  );
}

function Detail({ finding }: { finding: Finding }) {
  const places = usePlaces();
  return (
    <>
      <p className="head pb-1">{ruleTitle(finding.rule)}</p>
      <h2 className="max-w-[64ch] pb-3 text-[17px] leading-6">{finding.says}</h2>
      <EvidenceView evidence={finding.evidence} />
      <h3 className="head pt-4 pb-1">Ways to mend it</h3>
      <ul className="space-y-1.5">
        {finding.fixes.map((fix) => (
          <FixRow key={fix.says} fix={fix} />
        ))}
      </ul>
      <h3 className="head pt-4 pb-1">About</h3>
      <p className="flex flex-wrap gap-1.5">
        {finding.about.slice(0, 30).map((r) =>
          r.kind === "item" ? (
            <Jar key={r.id} id={r.id} onOpen={() => places.open(r.kind, r.id)} />
          ) : (
            <Button key={r.id} className="h-6!" onClick={() => places.open(r.kind, r.id)}>
              {r.kind} {r.name}
            </Button>
          ),
        )}
      </p>
    </>
  );
}

function FixRow({ fix }: { fix: Fix }) {
  const { catalogue } = useLive();
  const store = useStore();
  const places = usePlaces();
  const apply = async () => {
    if (fix.do === "open") places.open(fix.kind, fix.id);
    else await store.submit(editsOf(catalogue, fix), fix.says);
  };
  return (
    <li className="flex items-center gap-3 rounded-sm border border-line bg-salt px-3 py-2">
      <span className="min-w-0 flex-1">
        <span className="font-semibold">{fix.says}</span>
        <span className="block text-second">
          {fix.do === "open"
            ? "needs a hand"
            : fix.do === "source"
              ? "a gathering place, 30 s a run, to be adjusted"
              : "ready to apply, can be undone"}
        </span>
      </span>
      <Button
        look={fix.do === "edit" || fix.do === "merge" ? "solid" : "plain"}
        aria-label={`${fix.do === "open" ? "Open" : "Apply"}: ${fix.says}`}
        onClick={() => void apply()}
      >
        {fix.do === "open" ? "Open" : "Apply"}
      </Button>
    </li>
  );
}

function Loops({ at }: { at: number }) {
  const { board, catalogue } = useLive();
  const places = usePlaces();
  if (!board.loops.length || places.query.get("rule")) return null;
  return (
    // biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element
    <div role="group" aria-label="Where things go round">
      <div aria-hidden className="head px-3.5 pt-4 pb-1">
        Where things go round <span className="font-normal">{board.loops.length}</span>
      </div>
      {board.loops.slice(0, 60).map((l, i) => (
        <div
          key={`${l.verdict}${l.items[0]}`}
          role="option"
          aria-selected={i === at}
          tabIndex={-1}
          onClick={() => places.ask({ loop: String(i), finding: null }, true)}
          onKeyDown={() => undefined}
          className={cx(
            "flex justify-between gap-2 border-b border-hair px-3.5 py-1",
            i === at ? "bg-pick" : "hover:bg-shade",
          )}
        >
          <span className="truncate">
            {l.items
              .slice(0, 3)
              .map((id) => nameOf(catalogue, "item", id))
              .join(", ")}
            {l.items.length > 3 ? ` and ${l.items.length - 3} more` : ""}
          </span>
          <span
            className={cx(
              "shrink-0",
              l.verdict === "gaining" || l.verdict === "stuck" ? "font-semibold text-beet" : "text-second",
            )}
          >
            {VERDICTS[l.verdict]}
          </span>
        </div>
      ))}
    </div>
  );
}

function LoopDetail({ at }: { at: number }) {
  const { board, catalogue } = useLive();
  const places = usePlaces();
  const loop = board.loops[at];
  if (!loop) return null;
  const says: Record<Verdict, string> = {
    stuck: "Nothing leads into this circle, so nobody can start it.",
    gaining: "Some recipes in here give back more than they take. The findings name them, with proof.",
    even: "Going round can give back exactly what went in: no gain, no loss.",
    lossy: "Going round always loses something, as it should.",
  };
  return (
    <>
      <p className="head pb-1">A circle of {count(loop.items.length, "item")}</p>
      <h2 className="pb-3 text-[17px]">{says[loop.verdict]}</h2>
      <p className="flex flex-wrap gap-1.5">
        {loop.items.slice(0, 80).map((id) => (
          <Jar key={id} id={id} onOpen={places.openItem} />
        ))}
      </p>
      <h3 className="head pt-4 pb-1">Recipes in it</h3>
      <p className="flex flex-wrap gap-1.5">
        {loop.recipes.slice(0, 80).map((id) => (
          <Button
            key={id}
            className="h-6!"
            onClick={() => places.open(catalogue.records.recipe.has(id) ? "recipe" : "source", id)}
          >
            {nameOf(catalogue, catalogue.records.recipe.has(id) ? "recipe" : "source", id)}
          </Button>
        ))}
      </p>
    </>
  );
}
