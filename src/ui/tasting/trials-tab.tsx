"use client";
/** Trials: every saved script with its verdict; the chosen one step by step, written as text. */
import { Check, Plus, X } from "lucide-react";
import { setField } from "@/core/catalogue/edit";
import { byKey } from "@/core/catalogue/keys";
import { around } from "@/core/catalogue/surroundings";
import { FreeKeys } from "@/core/editing/new-names";
import { type AnyRecord, withDefaults } from "@/core/kinds/index";
import { formatStep } from "@/core/notation/trial-line";
import { count } from "@/core/numbers/format";
import { formatTicks } from "@/core/numbers/ticks";
import { newId } from "@/core/schema/id";
import { useTrial } from "./work";
import { Button, cx, Empty } from "../kit/kit";
import { Inline } from "../kit/inline";
import { RemoveButton } from "../frame/remove";
import { useLive, useStore } from "../pantry/provider";
import { useWrite } from "../pantry/use-write";
import { usePlaces } from "../frame/navigate";
import { StepsEditor } from "../forms/record-sheet";
import { Choice } from "./parts";
import { StationsAtHand } from "./stations-at-hand";

export function TrialsTab() {
  const { catalogue, model } = useLive();
  const { findings } = model;
  const store = useStore();
  const write = useWrite();
  const places = usePlaces();
  const all = [...catalogue.records.trial.values()].sort((a, b) => a.name.localeCompare(b.name));
  const chosen = byKey(catalogue, "trial", places.query.get("trial") ?? "") ?? all[0];
  // The engine runs all of them; here only the one that is shown is run, for its steps.
  const { run, failed: notRun } = useTrial(catalogue, chosen?.id ?? null);
  const failed = new Set(
    findings
      .filter((f) => f.rule === "trial-fails" || f.rule === "trial-not-run")
      .flatMap((f) => f.about.map((r) => r.id)),
  );
  const add = async () => {
    const name = "New trial";
    const subject = [...catalogue.records.subject.keys()][0] ?? null;
    const record = withDefaults("trial", {
      id: newId(),
      key: new FreeKeys(catalogue).next("trial", name),
      name,
      subject,
    });
    const answer = await store.submit([{ op: "add", kind: "trial", record: record as AnyRecord }]);
    if (answer.ok) places.ask({ trial: record.key }, true);
  };
  const here = around(catalogue);
  const time = (ticks: number) => formatTicks(ticks, catalogue.pantry.ticksPerSecond);
  const failing = failed.size;
  if (!chosen)
    return (
      <Empty
        title="No trials yet"
        action={
          <Button look="solid" onClick={() => void add()}>
            Add the first trial
          </Button>
        }
      >
        A trial is a list of steps and expected results. It runs after every change.
      </Empty>
    );
  return (
    <div className="flex min-h-0 flex-1">
      <section
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
        tabIndex={0}
        aria-label="All trials"
        className="w-[340px] shrink-0 overflow-auto border-r border-line bg-salt p-2"
      >
        <div className="flex items-center gap-2 px-1.5 pb-2">
          <Button look="solid" onClick={() => void add()}>
            <Plus size={14} aria-hidden /> New trial
          </Button>
          <span className={cx("ml-auto", failing ? "text-beet" : "text-kelp")}>
            {failing ? `${failing} of ${count(all.length, "trial")} fail` : `all ${all.length} pass`}
          </span>
        </div>
        <ul>
          {all.map((trial) => {
            const ok = !failed.has(trial.id);
            return (
              <li key={trial.id}>
                <button
                  type="button"
                  aria-current={trial === chosen}
                  className={cx(
                    "flex w-full items-center gap-2 rounded-sm px-2 py-1 text-left hover:bg-shade",
                    trial === chosen && "bg-pick",
                  )}
                  onClick={() => places.ask({ trial: trial.key }, true)}
                >
                  {ok ? (
                    <Check size={15} className="shrink-0 text-kelp" aria-label="passes" />
                  ) : (
                    <X size={15} className="shrink-0 text-beet" aria-label="fails" />
                  )}
                  <span className="truncate">{trial.name}</span>
                </button>
              </li>
            );
          })}
        </ul>
      </section>
      <section
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
        tabIndex={0}
        aria-label={`Trial ${chosen.name}`}
        className="min-w-0 flex-1 overflow-auto bg-salt px-4 pb-6"
      >
        <div className="flex items-center gap-3 pt-3">
          <h2 className="-ml-1 text-[17px]">
            <Inline
              label="Name"
              held={{ value: chosen.name, from: "own" }}
              show={chosen.name}
              text={chosen.name}
              onWrite={(t) => write("trial", chosen.id, "name", t)}
            />
          </h2>
          <RemoveButton kind="trial" record={chosen as AnyRecord} look="quiet">
            Remove
          </RemoveButton>
        </div>
        {notRun && (
          <p role="alert" className="text-beet">
            This trial could not be run: {notRun}
          </p>
        )}
        {run && (
          <p className={cx("text-[15px] font-semibold", run.ok ? "text-kelp" : "text-beet")}>
            {run.ok
              ? "It passes."
              : run.stopped
                ? run.message
                : run.failed >= 0
                  ? `It fails at step ${run.failed + 1}: ${run.message}`
                  : run.message}
          </p>
        )}
        <div className="grid grid-cols-[220px_1fr] gap-6 pt-3 xl:grid-cols-[220px_1fr_1fr]">
          <div className="space-y-2">
            <Choice
              kind="subject"
              label="Test character"
              value={catalogue.records.subject.get(chosen.subject as never)?.key ?? ""}
              none="None"
              onPick={(key) => {
                const to = byKey(catalogue, "subject", key)?.id ?? null;
                void store.submit([setField(catalogue, "trial", chosen.id, "subject", to)]);
              }}
            />
            <StationsAtHand
              stations={chosen.atHand === "those named" ? chosen.stations : null}
              onStations={(to) =>
                void store.submit([
                  setField(catalogue, "trial", chosen.id, "atHand", to ? "those named" : "every station"),
                  setField(catalogue, "trial", chosen.id, "stations", to ?? []),
                ])
              }
            />
            <p className="text-second">
              Seed{" "}
              <Inline
                label="Seed"
                held={{ value: chosen.seed, from: "own" }}
                numeric
                show={String(chosen.seed)}
                text={String(chosen.seed)}
                onWrite={(t) => write("trial", chosen.id, "seed", t)}
              />
            </p>
          </div>
          <div>
            <h3 className="head pb-1">Steps, one per line; Ctrl+Enter saves them</h3>
            <StepsEditor key={chosen.id} trial={chosen} />
          </div>
          <div>
            <h3 className="head pb-1">What happened</h3>
            <ol className="space-y-0.5">
              {chosen.steps.map((step, k) => {
                const ran = run?.steps[k];
                return (
                  <li key={k} className={cx("flex gap-2", !ran && "text-third", ran && !ran.ok && "text-beet")}>
                    <span className="w-14 shrink-0 text-right text-second tabular-nums">
                      {ran ? time(ran.tick) : "–"}
                    </span>
                    <span className="min-w-0">
                      <code className="font-medium">{formatStep(step as never, here)}</code>
                      {ran !== undefined && ran.took > 0 && step.does.is !== "wait" && (
                        <span className="pl-2 text-[12px] text-second">took {time(ran.took)}</span>
                      )}
                      {ran?.message && <span className="block text-[12px]">{ran.message}</span>}
                    </span>
                  </li>
                );
              })}
            </ol>
          </div>
        </div>
      </section>
    </div>
  );
}
