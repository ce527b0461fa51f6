"use client";
/** A finding opened: its sentence, evidence and fixes. */
import { ruleTitle } from "@/core/checklist";
import type { Finding, Fix } from "@/core/checks/check";
import { editsOf } from "@/core/checks/fixes";
import { usePlaces } from "../frame/navigate";
import { Jar } from "../kit/jars";
import { Button } from "../kit/kit";
import { useLive, useStore } from "../pantry/provider";
import { DecisionNotes, FindingActions } from "./decided";
import { EvidenceView } from "./evidence";
import { kindWord } from "@/core/kinds/index";

/** @param past  it is gone: its fixes no longer apply */
export function Detail({ finding, past = false }: { readonly finding: Finding; readonly past?: boolean }) {
  const places = usePlaces();
  return (
    <>
      <div className="flex min-h-7 items-start justify-between gap-3 pb-1">
        <p className="head">{ruleTitle(finding.rule)}</p>
        {!past && <FindingActions findings={[finding]} />}
      </div>
      <h2 className="max-w-[64ch] pb-3 text-[17px] leading-6">{finding.message}</h2>
      {!past && <DecisionNotes finding={finding} />}
      <EvidenceView evidence={finding.evidence} />
      {!past && finding.fixes.length > 0 && (
        <>
          <h3 className="head pt-4 pb-1">Fixes</h3>
          <ul className="space-y-1.5">
            {finding.fixes.map((fix) => (
              <FixRow key={fix.message} fix={fix} />
            ))}
          </ul>
        </>
      )}
      {finding.about.length > 0 && <h3 className="head pt-4 pb-1">Records</h3>}
      <p className="flex flex-wrap gap-1.5">
        {finding.about.slice(0, 30).map((r) =>
          r.kind === "item" ? (
            <Jar key={r.id} id={r.id} onOpen={() => places.open(r.kind, r.id)} />
          ) : (
            <Button key={r.id} className="h-6!" onClick={() => places.open(r.kind, r.id)}>
              {kindWord(r.kind)} {r.name}
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
    else await store.submit(editsOf(catalogue, fix), fix.message);
  };
  return (
    <li className="flex items-center gap-3 rounded-sm border border-line bg-salt px-3 py-2">
      <span className="min-w-0 flex-1">
        <span className="font-semibold">{fix.message}</span>
        <span className="block text-second">
          {fix.do === "open"
            ? "opens the record"
            : fix.do === "source"
              ? "adds a gathering source with 30 s per run, for you to adjust"
              : "can be applied and undone"}
        </span>
      </span>
      <Button
        look={fix.do === "edit" || fix.do === "merge" ? "solid" : "plain"}
        aria-label={`${fix.do === "open" ? "Open" : "Apply"}: ${fix.message}`}
        onClick={() => void apply()}
      >
        {fix.do === "open" ? "Open" : "Apply"}
      </Button>
    </li>
  );
}
