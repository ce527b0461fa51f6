"use client";
/** Use: what one uses when, and what comes of it over time; two subjects or two versions over each other. */
import dynamic from "next/dynamic";
import { orNotLoaded } from "../kit/not-loaded";
import { Plus } from "lucide-react";
import { useEffect, useMemo, useRef, useState } from "react";
import { apply } from "@/core/catalogue/apply";
import { byKey } from "@/core/catalogue/keys";
import { usesOf } from "@/core/catalogue/uses";
import { rewriteUse } from "@/core/editing/uses";
import { formatTicks, parseTicks, notADuration } from "@/core/numbers/ticks";
import type { Id } from "@/core/schema/id";
import type { Planned } from "@/core/trials/play";
import { leftToChance, MOST_SECONDS, type Request } from "@/core/trials/tasting";
import { Button } from "../kit/kit";
import { NoCharacters } from "./no-characters";
import { useLive } from "../pantry/provider";
import { TypedInput } from "../kit/typed-input";
import { usePlaces } from "../frame/navigate";
import { useTyped } from "../frame/typed";
import { Choice, ItemInput, Labelled, useSubject } from "./parts";
import { type PlanRow, planOf, readHarm, readPlans, writePlans } from "./plans";
import { tasteTask, useReport, useWork } from "./work";
import { ChancesChoice, DraftOfUse, SecondCharacter } from "./use-parts";
import { PlanEditor } from "./plan-editor";
import { Timeline } from "./timeline";
import { Numbers } from "./numbers";

const Curves = dynamic(() => orNotLoaded(import("./curves").then((m) => m.Curves)), {
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
  const good = plans.filter((p): p is Planned => !("message" in p));

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
    harm: "message" in harm ? [] : harm,
    ticks,
    seed,
    runs: 1,
  };
  const asked = JSON.stringify(wanted);
  // The same object for as long as the same is asked.
  const request = useMemo(() => JSON.parse(asked) as Request | null, [asked]);
  const { report: one, failed } = useReport(catalogue, request);
  const besides = useMemo(
    () => (request && beside ? { ...request, subject: beside.id, level: null } : null),
    [request, beside],
  );
  const { report: second } = useReport(drafted ?? catalogue, drafted ? request : besides);

  const chancy = request !== null && leftToChance(catalogue, request);
  const work = useWork();
  const start = useRef(work.start);
  start.current = work.start;
  useEffect(() => {
    if (bands && request) start.current(tasteTask(catalogue, { ...request, runs: 200 }));
  }, [request, bands, catalogue]);
  const many = bands && work.told?.is === "tasted" ? work.told.report : null;
  const report = many ?? one;

  if (!subject) return <NoCharacters />;
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
              <PlanEditor key={k} row={row} wrong={messageOf(plans[k])} onRow={(next) => put(k, next)} />
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
            {"message" in harm && <p className="col-span-2 text-[12px] text-beet">{harm.message}</p>}
          </div>
        )}
        <SecondCharacter other={other?.key ?? null} is={otherIs} />
        <ChancesChoice bands={bands} seed={seed} />
        {!chancy && bands && <p className="text-[12px] text-second">Nothing here is random: every run is the same.</p>}
        <Choice
          kind="subject"
          label="Compare with (dashed)"
          value={beside?.key ?? ""}
          none="None"
          onPick={(key) => places.ask({ beside: key || null }, true)}
        />
        {first && draftOf && <DraftOfUse name={first.name} use={draftOf.use} draft={draft} onDraft={setDraft} />}
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
        {work.told?.is === "failed" && bands && <p className="pt-2 text-beet">{work.told.message}</p>}
        {failed && (
          <p role="alert" className="pt-2 text-beet">
            This plan could not be computed: {failed}
          </p>
        )}
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
const messageOf = (plan: Planned | { readonly message: string } | undefined): string | null =>
  plan && "message" in plan ? plan.message : null;

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
        return value ? { value } : { message: notADuration(text, tps) };
      }}
      onDone={onDone}
    />
  );
}
