"use client";
/** Use: what one uses when, and what comes of it over time; two subjects or two versions over each other. */
import dynamic from "next/dynamic";
import { Plus } from "lucide-react";
import { useEffect, useMemo, useRef, useState } from "react";
import { apply } from "@/core/catalogue/apply";
import { byKey } from "@/core/catalogue/keys";
import { packed } from "@/core/catalogue/catalogue";
import { around } from "@/core/catalogue/surroundings";
import { usesOf } from "@/core/catalogue/uses";
import { rewriteUse } from "@/core/editing/uses";
import { formatUse } from "@/core/notation/use-line";
import { formatTicks, parseTicks, notADuration } from "@/core/numbers/ticks";
import type { Id } from "@/core/schema/id";
import type { Planned } from "@/core/trials/play";
import { leftToChance, MOST_SECONDS, partFor, type Request, taste } from "@/core/trials/tasting";
import { Button, Empty } from "../kit/kit";
import { useLive } from "../pantry/provider";
import { TypedInput } from "../kit/typed-input";
import { usePlaces } from "../frame/navigate";
import { useTyped } from "../frame/typed";
import { LineInput, USE_NAMES } from "../uses/line-input";
import { LineFaults } from "../uses/uses-section";
import { Choice, ItemInput, Labelled, NumberInput, useSubject } from "./parts";
import { type PlanRow, planOf, readHarm, readPlans, writePlans } from "./plans";
import { useWork } from "./work";
import { PlanEditor } from "./plan-editor";
import { Timeline } from "./timeline";
import { Numbers } from "./numbers";

const Curves = dynamic(() => import("./curves").then((m) => m.Curves), {
  ssr: false,
  loading: () => <p className="p-6 text-second">Drawing</p>,
});

export function UseTab() {
  const { catalogue } = useLive();
  const places = usePlaces();
  const { subject, level, controls } = useSubject();
  const tps = catalogue.pantry.ticksPerSecond;
  const rows = readPlans(places.query.get("plan") ?? "");
  const setRows = (next: readonly PlanRow[]) => places.ask({ plan: next.length ? writePlans(next) : null }, true);
  const length = parseTicks(places.query.get("for") ?? "5m", tps) ?? 300 * tps;
  const ticks = Math.min(Math.max(length, tps), MOST_SECONDS * tps);
  const situation = byKey(catalogue, "situation", places.query.get("where") ?? "");
  const seed = Math.max(0, Math.floor(Number(places.query.get("seed") ?? 1))) || 1;
  const bands = places.query.get("runs") === "many";
  const harmed =
    byKey(catalogue, "resource", places.query.get("harms") ?? "") ??
    catalogue.records.resource.get(subject?.resources[0] ?? ("" as Id));
  const harmTyped = useTyped(places, "harm");
  const harmText = places.query.get("harm") ?? "";
  const harm = harmed ? readHarm(catalogue, harmed.id, harmText) : [];
  const other = byKey(catalogue, "subject", places.query.get("with") ?? "");
  const otherIs = places.query.get("as") === "foe" ? "foe" : "ally";
  const beside = byKey(catalogue, "subject", places.query.get("beside") ?? "");
  const [draft, setDraft] = useState<string | null>(null);
  const plans = rows.map((row) => planOf(catalogue, row));
  const good = plans.filter((p): p is Planned => !("says" in p));

  const first = good[0] && catalogue.records.item.get(good[0].item);
  const [draftOf] = first ? usesOf(catalogue, first) : [];
  const drafted = useMemo(() => {
    if (draft === null || !draftOf) return null;
    const edits = rewriteUse(catalogue, draftOf.use, draft);
    const outcome = edits && apply(catalogue, edits);
    return outcome?.ok ? outcome.catalogue : null;
  }, [draft, draftOf, catalogue]);

  const wanted: Request | null = subject && {
    subject: subject.id,
    level: level === subject.level ? null : level,
    other: other ? { subject: other.id, is: otherIs } : null,
    situation: situation?.id ?? null,
    worn: null,
    plans: good,
    harm: "says" in harm ? [] : harm,
    ticks,
    seed,
    runs: 1,
  };
  const asked = JSON.stringify(wanted);
  // The same object for as long as the same is asked.
  const request = useMemo(() => JSON.parse(asked) as Request | null, [asked]);
  const one = useMemo(() => (request ? taste(catalogue, request) : null), [request, catalogue]);
  const second = useMemo(() => {
    if (!request) return null;
    if (drafted) return taste(drafted, request);
    return beside ? taste(catalogue, { ...request, subject: beside.id, level: null }) : null;
  }, [drafted, beside, request, catalogue]);

  const chancy = request !== null && leftToChance(catalogue, request);
  const work = useWork();
  const start = useRef(work.start);
  start.current = work.start;
  useEffect(() => {
    if (bands && request) {
      const many = { ...request, runs: 200 };
      start.current({ is: "taste", packed: packed(partFor(catalogue, many), { bytes: false }), request: many });
    }
  }, [request, bands, catalogue]);
  const many = bands && work.told?.is === "tasted" ? work.told.report : null;
  const report = many ?? one;

  if (!subject)
    return (
      <Empty
        title="No test characters yet"
        action={
          <Button look="solid" onClick={() => places.go("setup", { kind: "subject" })}>
            Create a test character in Setup
          </Button>
        }
      >
        A test character has a level, stats, resources and a bag.
      </Empty>
    );
  const put = (k: number, row: PlanRow | null) =>
    setRows(row ? rows.map((r, n) => (n === k ? row : r)) : rows.filter((_, n) => n !== k));
  return (
    <div className="flex min-h-0 flex-1">
      <section
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
        tabIndex={0}
        aria-label="Setup of the test"
        className="w-[348px] shrink-0 space-y-3 overflow-auto border-r border-line bg-salt p-3.5"
      >
        {controls}
        <div className="grid grid-cols-2 gap-2">
          <Choice
            kind="situation"
            label="Context"
            value={situation?.key ?? ""}
            none="None"
            onPick={(key) => places.ask({ where: key || null }, true)}
          />
          <Labelled label={`For, ${ticks} ticks`}>
            <TimeInput label="For" ticks={ticks} onDone={(t) => places.ask({ for: formatTicks(t, tps) }, true)} />
          </Labelled>
        </div>
        <div>
          <h2 className="head pb-1">Uses</h2>
          <div className="space-y-2">
            {rows.map((row, k) => (
              <PlanEditor key={k} row={row} wrong={says(plans[k])} onRow={(next) => put(k, next)} />
            ))}
          </div>
          <div className="flex items-center gap-1.5 pt-2">
            <Plus size={14} aria-hidden className="text-second" />
            <ItemInput
              label="Add an item to use"
              onTake={(id) =>
                setRows([
                  ...rows,
                  { item: catalogue.records.item.get(id)?.key ?? "", use: "", rule: "as soon as ready", value: "" },
                ])
              }
            />
          </div>
        </div>
        {harmed && (
          <div className="grid grid-cols-[1fr_1.2fr] gap-2">
            <Choice
              kind="resource"
              label="Damage to"
              value={harmed.key}
              onPick={(key) => places.ask({ harms: key }, true)}
            />
            <Labelled label="Per second, or a pasted curve">
              <textarea
                aria-label="Damage per second, or a pasted curve"
                rows={1}
                className="field field-sizing-content resize-none"
                placeholder="0.5, or lines: 30s 2"
                {...harmTyped}
              />
            </Labelled>
            {"says" in harm && <p className="col-span-2 text-[12px] text-beet">{harm.says}</p>}
          </div>
        )}
        <div className="grid grid-cols-[1fr_84px] gap-2">
          <Choice
            kind="subject"
            label="Second character"
            value={other?.key ?? ""}
            none="None"
            onPick={(key) => places.ask({ with: key || null }, true)}
          />
          <Labelled label="Role">
            <select
              aria-label="Role"
              className="field"
              value={otherIs}
              disabled={!other}
              onChange={(e) => places.ask({ as: e.target.value === "foe" ? "foe" : null }, true)}
            >
              <option>ally</option>
              <option>foe</option>
            </select>
          </Labelled>
        </div>
        <div className="grid grid-cols-[1fr_84px] gap-2">
          <Labelled label="Chances">
            <select
              aria-label="Chances"
              className="field"
              value={bands ? "many" : "one"}
              onChange={(e) => places.ask({ runs: e.target.value === "many" ? "many" : null }, true)}
            >
              <option value="one">one run</option>
              <option value="many">mean and band of 200 runs</option>
            </select>
          </Labelled>
          <Labelled label="Seed">
            <NumberInput
              label="Seed"
              value={seed}
              least={1}
              most={2 ** 31 - 1}
              whole
              onDone={(n) => places.ask({ seed: String(n) }, true)}
            />
          </Labelled>
        </div>
        {!chancy && bands && <p className="text-[12px] text-second">Nothing here is random: every run is the same.</p>}
        <Choice
          kind="subject"
          label="Compare with (dashed)"
          value={beside?.key ?? ""}
          none="None"
          onPick={(key) => places.ask({ beside: key || null }, true)}
        />
        {first && draftOf && (
          <div>
            <div className="flex items-center justify-between">
              <h2 className="head">Draft of {first.name}, not saved</h2>
              {draft === null ? (
                <Button look="quiet" onClick={() => setDraft(formatUse(draftOf.use as never, around(catalogue)))}>
                  Try other values
                </Button>
              ) : (
                <Button look="quiet" onClick={() => setDraft(null)}>
                  Discard
                </Button>
              )}
            </div>
            {draft !== null && (
              <>
                <LineInput
                  {...USE_NAMES}
                  label="Draft of the use"
                  text={draft}
                  onText={setDraft}
                  onWrite={() => undefined}
                  onEscape={() => setDraft(null)}
                />
                <LineFaults line={draft} onOffer={setDraft} />
              </>
            )}
          </div>
        )}
      </section>
      <section
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
        tabIndex={0}
        aria-label="Result"
        className="min-w-0 flex-1 overflow-auto bg-salt px-4 pb-6"
      >
        {work.busy && (
          <p className="flex items-center gap-2 pt-2 text-second">
            {work.told?.is === "progress" ? `${work.told.done} of ${work.told.of} runs` : "Starting…"}
            <Button look="quiet" onClick={work.stop}>
              Stop
            </Button>
          </p>
        )}
        {work.told?.is === "failed" && bands && <p className="pt-2 text-beet">{work.told.says}</p>}
        {report && rows.length === 0 && (
          <p className="pt-3 text-second">
            Nothing is used yet. This is {subject.name} without any use. Add an item to use on the left.
          </p>
        )}
        {report?.halted && <p className="pt-2 text-beet">{report.halted}</p>}
        {report && <Curves first={report} second={second} other={other?.name ?? ""} />}
        {report && (
          <Timeline
            report={report}
            plans={plans}
            onAt={(k, times) =>
              put(k, { ...rows[k], rule: "at", value: times.map((t) => formatTicks(t, tps)).join(" ") })
            }
          />
        )}
        {report && <Numbers report={report} second={second} other={other?.name ?? ""} />}
      </section>
    </div>
  );
}
const says = (plan: Planned | { readonly says: string } | undefined): string | null =>
  plan && "says" in plan ? plan.says : null;

function TimeInput({
  label,
  ticks,
  onDone,
}: {
  readonly label: string;
  readonly ticks: number;
  readonly onDone: (ticks: number) => void;
}) {
  const { catalogue } = useLive();
  const tps = catalogue.pantry.ticksPerSecond;
  return (
    <TypedInput
      narrow
      label={label}
      title={`${ticks} ticks`}
      shown={formatTicks(ticks, tps)}
      read={(text) => {
        const value = parseTicks(text, tps, catalogue.numbers);
        return value ? { value } : { says: notADuration(text, tps) };
      }}
      onDone={onDone}
    />
  );
}
