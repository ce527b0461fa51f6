"use client";
/** Every check with its severity in this pantry, its thresholds, and how many findings it has or would have. */
import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { type Edit, setField } from "@/core/catalogue/edit";
import { RULE_IDS, RULES, type Rule, type RuleId, ruleKey, ruleOfKey, severityWords } from "@/core/checklist";
import { severitiesOf } from "@/core/checks/severities";
import { type Kind, type RecordOf, withDefaults } from "@/core/kinds/index";
import { newId } from "@/core/schema/id";
import { normalise } from "@/core/schema/names";
import { group } from "@/core/numbers/format";
import { usePlaces } from "../frame/navigate";
import { titleOf } from "../grid/field-columns";
import { cx, Dot, Empty } from "../kit/kit";
import { SearchField } from "../kit/search-field";
import { useCatalogue, useLivePart, useStore } from "../pantry/provider";
import { SettingInput } from "./setting-input";

type Word = (typeof severityWords)[number];
type SeverityRecord = RecordOf<"severity">;

export function ChecksTable() {
  const catalogue = useCatalogue();
  const store = useStore();
  const places = usePlaces();
  const open = useLivePart(({ judged }) => judged.open);
  const accepted = useLivePart(({ judged }) => judged.accepted);
  const [search, setSearch] = useState("");
  const set = useMemo(() => severitiesOf(catalogue), [catalogue]);
  const records = useMemo(
    () => new Map([...catalogue.records.severity.values()].map((record) => [record.key, record])),
    [catalogue],
  );
  const [counts, acceptedCounts] = useMemo(() => [open, accepted].map(countByRule), [open, accepted]);
  const wouldBe = useCountsIfOn();
  const shown = RULE_IDS.filter((id) => normalise(`${RULES[id].title} ${id}`).includes(normalise(search)));
  const choose = (rule: RuleId, word: Word) => void store.submit(severityEdits(records.get(ruleKey(rule)), rule, word));
  return (
    <div className="flex min-h-0 flex-1 flex-col bg-salt">
      <div className="flex items-center gap-3 border-b border-hair px-3.5 py-1.5">
        <SearchField
          label="Search checks"
          className="w-56!"
          value={search}
          onChange={(e) => setSearch(e.target.value)}
        />
        <p className="min-w-0 flex-1 truncate text-second">
          How serious each check is here, such as No description as a note. A check that is off isn't run.
        </p>
      </div>
      {/** biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard */}
      {/** biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element */}
      <div tabIndex={0} role="region" aria-label="Severity of each check" className="min-h-0 flex-1 overflow-auto">
        {shown.length === 0 && <Empty title="No matching checks">No check has “{search}” in its name.</Empty>}
        {shown.length > 0 && (
          <table className="w-full">
            <thead className="sticky top-0 z-10 bg-shade">
              <tr className="text-left">
                <th className="head px-3.5 py-1.5">Check</th>
                <th className="head w-36 px-2">Severity</th>
                <th className="head w-24 px-2 text-right">Findings</th>
                <th className="head w-24 px-2 text-right">Accepted</th>
                <th className="head w-[34%] px-3.5">Threshold</th>
              </tr>
            </thead>
            <tbody>
              {shown.map((rule) => {
                const word = set.get(rule) ?? RULES[rule].severity;
                const n = counts.get(rule) ?? 0;
                const would = wouldBe.get(rule);
                return (
                  <tr key={rule} className="border-b border-hair">
                    <td className={cx("px-3.5 py-1", word === "off" && "text-third")}>
                      <span className="flex items-center gap-2">
                        {word === "off" ? <span className="size-2" /> : <Dot severity={word} />}
                        <span className="font-semibold">{RULES[rule].title}</span>
                      </span>
                    </td>
                    <td className="px-2 py-1">
                      <select
                        aria-label={`Severity of ${RULES[rule].title}`}
                        className={cx("field w-32!", !set.has(rule) && "text-second")}
                        value={word}
                        onChange={(e) => choose(rule, e.target.value as Word)}
                      >
                        {severityWords.map((each) => (
                          <option key={each} value={each}>
                            {each === RULES[rule].severity ? `${each} (default)` : each}
                          </option>
                        ))}
                      </select>
                    </td>
                    <td className="num px-2 py-1 text-right">
                      {n > 0 ? (
                        <button
                          type="button"
                          className="hover:underline"
                          aria-label={`${n} findings of ${RULES[rule].title}`}
                          onClick={() => places.go("checks", { rule })}
                        >
                          {group(String(n))}
                        </button>
                      ) : word === "off" ? (
                        <span className="text-second">{would === undefined ? "off" : `would be ${would}`}</span>
                      ) : (
                        <span className="text-third">0</span>
                      )}
                    </td>
                    <td className="num px-2 py-1 text-right text-second">{acceptedCounts.get(rule) || ""}</td>
                    <td className="px-3.5 py-1">
                      <Thresholds rule={rule} />
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        )}
      </div>
    </div>
  );
}

function countByRule(findings: readonly { readonly rule: string }[]): ReadonlyMap<string, number> {
  const counts = new Map<string, number>();
  for (const { rule } of findings) counts.set(rule, (counts.get(rule) ?? 0) + 1);
  return counts;
}

/** Edits that give a check a severity; its default needs no record. */
export function severityEdits(record: SeverityRecord | undefined, rule: RuleId, word: Word): readonly Edit[] {
  if (word === RULES[rule].severity) return record ? [{ op: "remove", kind: "severity", record }] : [];
  if (record)
    return [{ op: "set", kind: "severity", id: record.id, field: "severity", from: record.severity, to: word }];
  const given = { id: newId(), key: ruleKey(rule), name: RULES[rule].title, severity: word };
  return [{ op: "add", kind: "severity" as Kind, record: withDefaults("severity", given) }];
}

/** How many findings checks that are off would have if they were on; nothing while that is being computed. */
function useCountsIfOn(): ReadonlyMap<string, number> {
  const store = useStore();
  const catalogue = useCatalogue();
  const revision = useLivePart(({ model }) => model.revision);
  const off = useMemo(
    () => [...catalogue.records.severity.values()].filter((record) => record.severity === "off"),
    [catalogue.records.severity],
  );
  const { data } = useQuery({
    queryKey: ["if-on", store.key, revision],
    enabled: off.length > 0,
    queryFn: async () => {
      const edits = off.map((record): Edit => setField(catalogue, "severity", record.id, "severity", "note"));
      const got = await store.api.whatIf(edits);
      return got.ok ? countByRule(got.value.ripple.put) : null;
    },
  });
  return useMemo(() => {
    const rules = data ? off.flatMap(({ key }) => ruleOfKey(key) ?? []) : [];
    return new Map(rules.map((rule) => [rule, data?.get(rule) ?? 0]));
  }, [data, off]);
}

/** The settings of a check. */
function Thresholds({ rule }: { readonly rule: RuleId }) {
  return Object.entries((RULES[rule] as Rule).settings ?? {}).map(([name, field]) => (
    <div key={name} className="flex items-center gap-3" title={field.options.help}>
      <span className="min-w-0 flex-1 truncate text-second">{titleOf(name, field)}</span>
      <SettingInput name={name} of={field} />
    </div>
  ));
}
