"use client";
/** Use: what one uses when, and what comes of it over time; two subjects or two versions over each other. */
import dynamic from "next/dynamic";
import { Plus, X } from "lucide-react";
import { type KeyboardEvent, type ReactNode, useEffect, useMemo, useRef, useState } from "react";
import { sharedWait } from "@/core/cards/use-words";
import { apply } from "@/core/catalogue/apply";
import { byKey } from "@/core/catalogue/keys";
import { packed } from "@/core/catalogue/catalogue";
import { around } from "@/core/catalogue/surroundings";
import { readyIn, usesOf } from "@/core/catalogue/uses";
import { rewriteUse } from "@/core/editing/uses";
import { formatUse } from "@/core/notation/use-line";
import { sayCost, sayPercent, sayQuantity } from "@/core/numbers/format";
import { formatTicks, parseTicks, saySeconds } from "@/core/numbers/ticks";
import type { Id } from "@/core/schema/id";
import type { Planned } from "@/core/trials/play";
import {
  leftToChance,
  MOST_SECONDS,
  partFor,
  type Report,
  type Request,
  type ResourceReport,
  taste,
} from "@/core/trials/tasting";
import { Button, cx, Empty, Jar } from "../kit/kit";
import { figuresOf, useLive } from "../pantry/provider";
import { TypedInput } from "../kit/typed-input";
import { usePlaces } from "../frame/navigate";
import { useTyped } from "../frame/typed";
import { LineInput, USE_NAMES } from "../uses/line-input";
import { LineFaults } from "../uses/uses-section";
import { Choice, ItemInput, Labelled, NumberInput, useSubject } from "./parts";
import { coloursOf } from "./colours";
import { type PlanRow, planOf, readHarm, readPlans, RULES, writePlans } from "./plans";
import { useWork } from "./work";

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
        title="Nobody to try things on yet"
        action={
          <Button look="solid" onClick={() => places.go("setup", { kind: "subject" })}>
            Make a subject in Setup
          </Button>
        }
      >
        A subject is a character with a level, stats, resources and a bag.
      </Empty>
    );
  const put = (k: number, row: PlanRow | null) =>
    setRows(row ? rows.map((r, n) => (n === k ? row : r)) : rows.filter((_, n) => n !== k));
  return (
    <div className="flex min-h-0 flex-1">
      <section
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
        tabIndex={0}
        aria-label="What is tried"
        className="w-[348px] shrink-0 space-y-3 overflow-auto border-r border-line bg-salt p-3.5"
      >
        {controls}
        <div className="grid grid-cols-2 gap-2">
          <Choice
            kind="situation"
            label="Situation"
            value={situation?.key ?? ""}
            none="None in particular"
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
              label="Another item to use"
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
              label="Harm on"
              value={harmed.key}
              onPick={(key) => places.ask({ harms: key }, true)}
            />
            <Labelled label="A second, or a pasted curve">
              <textarea
                aria-label="Harm a second, or a pasted curve"
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
            label="Somebody else there"
            value={other?.key ?? ""}
            none="Nobody"
            onPick={(key) => places.ask({ with: key || null }, true)}
          />
          <Labelled label="Who is">
            <select
              aria-label="Who is"
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
        {!chancy && bands && (
          <p className="text-[12px] text-second">Nothing here is left to chance: every run is the same.</p>
        )}
        <Choice
          kind="subject"
          label="Beside it, in dashes"
          value={beside?.key ?? ""}
          none="Nobody"
          onPick={(key) => places.ask({ beside: key || null }, true)}
        />
        {first && draftOf && (
          <div>
            <div className="flex items-center justify-between">
              <h2 className="head">A draft of {first.name}, not saved</h2>
              {draft === null ? (
                <Button look="quiet" onClick={() => setDraft(formatUse(draftOf.use as never, around(catalogue)))}>
                  Try other numbers
                </Button>
              ) : (
                <Button look="quiet" onClick={() => setDraft(null)}>
                  Drop it
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
        aria-label="What comes of it"
        className="min-w-0 flex-1 overflow-auto bg-salt px-4 pb-6"
      >
        {work.busy && (
          <p className="flex items-center gap-2 pt-2 text-second">
            {work.told?.is === "progress" ? `${work.told.done} of ${work.told.of} runs` : "Starting"}
            <Button look="quiet" onClick={work.stop}>
              Stop
            </Button>
          </p>
        )}
        {work.told?.is === "failed" && bands && <p className="pt-2 text-beet">{work.told.says}</p>}
        {report && rows.length === 0 && (
          <p className="pt-3 text-second">
            Nothing is used yet: this is how {subject.name} fares alone. Name an item to use on the left.
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
        return value ? { value } : { says: `“${text}” is no time above 0. Write 90s, 1m30s or 1800t.` };
      }}
      onDone={onDone}
    />
  );
}

function PlanEditor({
  row,
  wrong,
  onRow,
}: {
  readonly row: PlanRow;
  readonly wrong: string | null;
  readonly onRow: (row: PlanRow | null) => void;
}) {
  const { catalogue } = useLive();
  const places = usePlaces();
  const item = byKey(catalogue, "item", row.item);
  const uses = item ? usesOf(catalogue, item) : [];
  const chosen = uses.find((u) => u.use.key === row.use) ?? uses[0];
  const shared = chosen ? sharedWait(catalogue, chosen) : null;
  const [typed, setTyped] = useState<string | null>(null);
  const done = () => {
    if (typed !== null && typed !== row.value) onRow({ ...row, value: typed });
    setTyped(null);
  };
  const hints = { every: "30s", at: "0s 30s 1m", whenever: "Vigour < 30", "as soon as ready": "" };
  return (
    <div className="border-l-2 border-kelp pl-2">
      <div className="flex items-center gap-1.5">
        {item ? <Jar id={item.id} onOpen={places.openItem} /> : <span className="text-beet">{row.item}</span>}
        {uses.length > 1 && (
          <select
            aria-label="Which use"
            className="field w-auto!"
            value={row.use}
            onChange={(e) => onRow({ ...row, use: e.target.value })}
          >
            <option value="">{uses[0].name}</option>
            {uses.slice(1).map((u) => (
              <option key={u.use.id} value={u.use.key}>
                {u.name}
              </option>
            ))}
          </select>
        )}
        <Button
          look="quiet"
          className="ml-auto px-1.5!"
          aria-label="Take it out of the plan"
          onClick={() => onRow(null)}
        >
          <X size={14} aria-hidden />
        </Button>
      </div>
      <div className="flex items-center gap-1.5 pt-1">
        <select
          aria-label="When it is used"
          className="field w-auto!"
          value={row.rule}
          onChange={(e) => onRow({ ...row, rule: e.target.value as PlanRow["rule"], value: "" })}
        >
          {RULES.map((rule) => (
            <option key={rule}>{rule}</option>
          ))}
        </select>
        {row.rule !== "as soon as ready" && (
          <input
            aria-label={`What belongs to “${row.rule}”`}
            className="field min-w-0 flex-1"
            placeholder={hints[row.rule]}
            value={typed ?? row.value}
            onChange={(e) => setTyped(e.target.value)}
            onBlur={done}
            onKeyDown={(e) => e.key === "Enter" && done()}
          />
        )}
      </div>
      {item && uses.length === 0 && <p className="text-[12px] text-copper">{item.name} has no use.</p>}
      {shared && <p className="text-[12px] text-second">{shared}</p>}
      {wrong && row.value !== "" && <p className="text-[12px] text-beet">{wrong}</p>}
      {wrong && row.value === "" && <p className="text-[12px] text-second">{wrong}</p>}
    </div>
  );
}

/** Uses as marks, cooldowns as gaps before the next, conditions as bars, under the same seconds as the curves. */
function Timeline({
  report,
  plans,
  onAt,
}: {
  readonly report: Report;
  readonly plans: readonly (Planned | { readonly says: string })[];
  readonly onAt: (row: number, times: readonly number[]) => void;
}) {
  const { catalogue } = useLive();
  const tps = catalogue.pantry.ticksPerSecond;
  const left = (tick: number) => `${(100 * Math.min(tick, report.ticks)) / report.ticks}%`;
  const conditions = [...new Set(report.bars.map((b) => b.condition))];
  return (
    <div className="space-y-1 pl-[42px] pr-2.5">
      {plans.map((plan, k) => {
        if ("says" in plan) return null;
        const item = catalogue.records.item.get(plan.item);
        const times = plan.rule.is === "at" ? plan.rule.ticks : null;
        const held = item ? usesOf(catalogue, item).find((u) => plan.use === null || u.use.id === plan.use) : undefined;
        // Each use has its own marks, also where several are of one item.
        const mine = report.moments.filter((m) => m.item === plan.item && m.use === held?.chain.at(-1)?.id);
        const wait = held ? readyIn(catalogue, held) + held.windup : 0;
        return (
          <Track
            key={k}
            label={item?.name ?? ""}
            onAdd={
              times
                ? (share) =>
                    onAt(
                      k,
                      [...times, Math.round((share * report.ticks) / tps) * tps].sort((a, b) => a - b),
                    )
                : undefined
            }
          >
            {mine.slice(0, 400).flatMap((m) =>
              m.refused || wait === 0
                ? []
                : [
                    <span
                      key={`wait${m.tick}`}
                      aria-hidden
                      title={`not ready until ${formatTicks(m.tick + wait, tps)}`}
                      className="pointer-events-none absolute top-1.5 h-1 bg-line"
                      style={{
                        left: left(m.tick),
                        width: `${(100 * Math.min(wait, report.ticks - m.tick)) / report.ticks}%`,
                      }}
                    />,
                  ],
            )}
            {times
              ? times.map((tick, n) => (
                  <Mark
                    key={n}
                    tick={tick}
                    left={left(tick)}
                    refused={mine.find((m) => m.tick === tick)?.refused ?? null}
                    label={`${item?.name} at ${formatTicks(tick, tps)}`}
                    onMove={(by) =>
                      onAt(
                        k,
                        times.map((t, i) => (i === n ? Math.max(0, t + by * tps) : t)),
                      )
                    }
                    onShare={(share) =>
                      onAt(
                        k,
                        times.map((t, i) => (i === n ? Math.round((share * report.ticks) / tps) * tps : t)),
                      )
                    }
                    onGone={() =>
                      onAt(
                        k,
                        times.filter((_, i) => i !== n),
                      )
                    }
                  />
                ))
              : mine
                  .slice(0, 400)
                  .map((m) => (
                    <span
                      key={`${m.tick}${m.refused}`}
                      title={`${formatTicks(m.tick, tps)}: ${m.refused ?? "used"}`}
                      className={cx("absolute top-0 h-full w-0.5", m.refused ? "bg-beet" : "bg-kelp")}
                      style={{ left: left(m.tick) }}
                    />
                  ))}
          </Track>
        );
      })}
      {report.stats.map(({ stat, curve }) => (
        <StatTrack key={stat} report={report} stat={stat} curve={curve} />
      ))}
      {conditions.map((id) => {
        const condition = catalogue.records.condition.get(id);
        return (
          <Track key={id} label={condition?.name ?? ""}>
            {report.bars
              .filter((b) => b.condition === id && b.from < report.ticks)
              .slice(0, 400)
              .map((b) => (
                <span
                  key={`${b.from}${b.to}`}
                  title={`${formatTicks(b.from, tps)} to ${formatTicks(Math.min(b.to, report.ticks), tps)}${b.layers > 1 ? `, ${b.layers} layers` : ""}`}
                  className={cx(
                    "absolute top-0.5 h-[calc(100%-4px)] rounded-sm",
                    condition?.nature === "bad" ? "bg-beet" : condition?.nature === "good" ? "bg-kelp" : "bg-third",
                  )}
                  style={{
                    left: left(b.from),
                    width: `calc(${(100 * (Math.min(b.to, report.ticks) - b.from)) / report.ticks}% - 1px)`,
                    opacity: Math.min(1, 0.45 + 0.2 * b.layers),
                  }}
                />
              ))}
          </Track>
        );
      })}
    </div>
  );
}

/** A stat as steps between its least and most, with both written. */
function StatTrack({
  report,
  stat,
  curve,
}: {
  readonly report: Report;
  readonly stat: Id;
  readonly curve: Report["stats"][number]["curve"];
}) {
  const { catalogue } = useLive();
  const [low, high] = [Math.min(...curve.values), Math.max(...curve.values)];
  const y = (v: number) => 15 - (13 * (v - low)) / (high - low || 1);
  const points = curve.ticks.slice(0, 2000).flatMap((tick, k) => {
    const x = (1000 * Math.min(tick, report.ticks)) / report.ticks;
    return [...(k > 0 ? [`${x},${y(curve.values[k - 1])}`] : []), `${x},${y(curve.values[k])}`];
  });
  points.push(`1000,${y(curve.values[curve.values.length - 1])}`);
  const round = (v: number) => sayQuantity(Math.round(v * 100) / 100);
  return (
    <Track label={`${catalogue.records.stat.get(stat)?.name}, ${round(low)} to ${round(high)}`}>
      <svg viewBox="0 0 1000 17" preserveAspectRatio="none" className="absolute inset-0 size-full" aria-hidden>
        <polyline
          points={points.join(" ")}
          fill="none"
          stroke="var(--second)"
          strokeWidth={1.5}
          vectorEffect="non-scaling-stroke"
        />
      </svg>
    </Track>
  );
}

function Track({
  label,
  children,
  onAdd,
}: {
  readonly label: string;
  readonly children: ReactNode;
  readonly onAdd?: (share: number) => void;
}) {
  return (
    <div>
      <span className="block text-[11px] leading-4 text-second">
        {label}
        {onAdd && ": click to add a use, drag or arrow keys to move one, Delete to take it out"}
      </span>
      {/** biome-ignore lint/a11y/noStaticElementInteractions: by keyboard times are typed in the plan */}
      {/** biome-ignore lint/a11y/useKeyWithClickEvents: by keyboard times are typed in the plan */}
      <div
        className={cx("relative h-4 rounded-sm bg-shade", onAdd && "cursor-copy")}
        onClick={(e) => {
          if (!onAdd || e.target !== e.currentTarget) return;
          const { left, width } = e.currentTarget.getBoundingClientRect();
          onAdd((e.clientX - left) / width);
        }}
      >
        {children}
      </div>
    </div>
  );
}

/** One use at its time; moved by drag or by the arrow keys. */
function Mark({
  tick,
  left,
  refused,
  label,
  onMove,
  onShare,
  onGone,
}: {
  readonly tick: number;
  readonly left: string;
  readonly refused: string | null;
  readonly label: string;
  /** How far from where it was drawn. */
  readonly onMove: (seconds: number) => void;
  readonly onShare: (share: number) => void;
  readonly onGone: () => void;
}) {
  /** Seconds it was moved by since it was drawn: keys may come quicker than drawings. */
  const moved = useRef({ from: tick, by: 0 });
  if (moved.current.from !== tick) moved.current = { from: tick, by: 0 };
  const press = (e: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[e.key as "ArrowLeft"];
    if (by) {
      moved.current.by += by * (e.shiftKey ? 10 : 1);
      onMove(moved.current.by);
    } else if (e.key === "Delete" || e.key === "Backspace") onGone();
    else return;
    e.preventDefault();
  };
  return (
    <button
      type="button"
      aria-label={refused ? `${label}, refused: ${refused}` : label}
      title={refused ? `${label}: ${refused}` : label}
      className={cx(
        "absolute top-0 h-full w-2 -translate-x-1 cursor-ew-resize rounded-sm",
        refused ? "bg-beet" : "bg-kelp",
      )}
      style={{ left }}
      onKeyDown={press}
      onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
      onPointerUp={(e) => {
        const track = e.currentTarget.parentElement?.getBoundingClientRect();
        if (!track || !e.currentTarget.hasPointerCapture(e.pointerId)) return;
        const share = Math.min(1, Math.max(0, (e.clientX - track.left) / track.width));
        if (Math.abs(e.clientX - e.currentTarget.getBoundingClientRect().left) > 6) onShare(share);
      }}
    />
  );
}

function Numbers({
  report,
  second,
  other,
}: {
  readonly report: Report;
  readonly second: Report | null;
  readonly other: string;
}) {
  const { catalogue, model } = useLive();
  const tps = catalogue.pantry.ticksPerSecond;
  const seconds = report.ticks / tps;
  const back = report.gained.reduce((t, { thing, count }) => {
    const [kind, id] = thing.split(":") as ["item" | "currency", Id];
    return t + (kind === "item" ? count * (figuresOf(model, id).value ?? 0) : 0);
  }, 0);
  const paid = report.spent.reduce((t, { item, count }) => t + count * (figuresOf(model, item).value ?? Number.NaN), 0);
  const cost = Math.max(0, paid - back);
  const refused = [
    ...new Map(
      report.moments.filter((m) => m.refused).map((m) => [`${m.item}${m.refused?.replace(/[\d.]+/g, "")}`, m]),
    ).values(),
  ];
  const of = (r: Report | null, id: Id) => r?.resources.find((x) => x.resource === id);
  const cells = ({ restored, wasted, drained, least }: ResourceReport) => [
    restored,
    wasted,
    drained,
    restored / seconds,
    cost > 0 ? restored / cost : Number.NaN,
    least,
  ];
  const colours = coloursOf(catalogue, [...report.resources, ...report.others]);
  const rows = [
    ...report.resources.map((r) => ({ r, behind: "", beside: of(second, r.resource) })),
    ...report.others.map((r) => ({ r, behind: ` of ${other}, dotted`, beside: undefined })),
  ];
  const show = (n: number) => (Number.isFinite(n) ? sayQuantity(Math.round(n * 1000) / 1000) : "–");
  return (
    <div className="space-y-3 pt-4">
      <table className="w-full">
        <thead>
          <tr className="text-right">
            <th className="head py-1 text-left">
              Over {saySeconds(seconds)}
              {second && <span className="font-normal">, what stands beside it small</span>}
            </th>
            <th className="head">Restored</th>
            <th className="head">Wasted</th>
            <th className="head">Drained</th>
            <th className="head">A second</th>
            <th className="head">A value unit</th>
            <th className="head">Least</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ r, behind, beside }) => (
            <tr key={`${r.resource}${behind}`} className="border-t border-hair text-right">
              <td className="py-1 text-left">
                <span
                  aria-hidden
                  className="mr-1.5 inline-block size-2.5 rounded-full"
                  style={{ background: colours.get(r.resource) }}
                />
                {catalogue.records.resource.get(r.resource)?.name}
                {behind}
              </td>
              {cells(r).map((n, c) => {
                const other = beside ? cells(beside)[c] : null;
                return (
                  <td key={c} className={cx("tabular-nums", c === 1 && n > 0 && "text-copper")}>
                    {show(n)}
                    {other !== null && Math.abs(other - n) > 1e-9 && (
                      <span className="block text-[11px] text-second">{show(other)}</span>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <dl className="grid grid-cols-2 gap-x-8 gap-y-1">
        {report.uptime.map(({ condition, share }) => (
          <div key={condition} className="flex justify-between border-b border-hair">
            <dt>{catalogue.records.condition.get(condition)?.name} is on</dt>
            <dd className={cx("font-semibold", share >= 0.999 && "text-copper")}>
              {sayPercent(Math.round(share * 1000) / 1000)} of the time
            </dd>
          </div>
        ))}
        {report.spent.map(({ item, count }) => (
          <div key={item} className="flex justify-between border-b border-hair">
            <dt>{catalogue.records.item.get(item)?.name} used up</dt>
            <dd className="font-semibold">{show(count)}</dd>
          </div>
        ))}
        {report.spent.length > 0 && (
          <div className="flex justify-between border-b border-hair">
            <dt>{back > 0 ? "All of it costs, less what comes back" : "All of it costs"}</dt>
            <dd className="font-semibold">{sayCost(cost)}</dd>
          </div>
        )}
        {report.gained.map(({ thing, count }) => {
          const [kind, id] = thing.split(":") as ["item" | "currency", Id];
          return (
            <div key={thing} className="flex justify-between border-b border-hair">
              <dt>{catalogue.records[kind].get(id)?.name} gained</dt>
              <dd className="font-semibold">{show(count)}</dd>
            </div>
          );
        })}
        {report.signals.length > 0 && (
          <div className="flex justify-between border-b border-hair">
            <dt>Signals sent to the game</dt>
            <dd className="font-semibold">{report.signals.length}</dd>
          </div>
        )}
        {refused.slice(0, 8).map((m) => (
          <div key={`${m.item}${m.tick}`} className="flex justify-between gap-3 text-beet">
            <dt>
              {m.name} {catalogue.records.item.get(m.item)?.name} refused at {formatTicks(m.tick, tps)}
            </dt>
            <dd className="text-right">{m.refused}</dd>
          </div>
        ))}
      </dl>
    </div>
  );
}
