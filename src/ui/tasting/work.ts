"use client";
/** Runs simulations and rolls in a worker. A new task replaces the running one; progress is reported; it can be stopped. */
import { useEffect, useMemo, useRef, useState } from "react";
import { type Catalogue, type Packed, packed } from "@/core/catalogue/catalogue";
import type { Draws } from "@/core/network/box";
import type { Id } from "@/core/schema/id";
import type { Odds, Rolled } from "@/core/trials/opening";
import type { TrialRun } from "@/core/trials/run";
import { partFor, type Report, type Request } from "@/core/trials/tasting";

export type Task =
  | { readonly is: "taste"; readonly packed: Packed; readonly request: Request }
  | {
      readonly is: "roll";
      readonly box: Draws;
      readonly tables: readonly (readonly [Id, Draws])[];
      readonly level: number;
      readonly times: number;
      readonly seed: number;
    }
  | {
      readonly is: "odds";
      readonly box: Draws;
      readonly tables: readonly (readonly [Id, Draws])[];
      readonly level: number;
      readonly wanted: number;
    }
  | { readonly is: "trial"; readonly packed: Packed; readonly trial: Id };
export type WorkerAnswer =
  | { readonly is: "progress"; readonly done: number; readonly of: number }
  | { readonly is: "tasted"; readonly report: Report | null }
  | { readonly is: "rolled"; readonly rolled: Rolled }
  | { readonly is: "odds"; readonly odds: Odds }
  | { readonly is: "ran"; readonly run: TrialSteps }
  | { readonly is: "failed"; readonly message: string };

/** What a trial came to, without the world it was played in. */
export type TrialSteps = Omit<TrialRun, "play">;

export interface Work {
  readonly told: WorkerAnswer | null;
  readonly busy: boolean;
  start(task: Task): void;
  stop(): void;
}

export function useWork(): Work {
  const worker = useRef<Worker | null>(null);
  const [told, setTold] = useState<WorkerAnswer | null>(null);
  const [busy, setBusy] = useState(false);
  const working = useRef(false);
  const drop = () => {
    const gone = worker.current;
    worker.current = null;
    if (!gone) return;
    // A worker that is ended while it loads still reports an error, which is not the next one's.
    gone.onmessage = null;
    gone.onerror = null;
    gone.terminate();
  };
  const stop = () => {
    if (working.current) drop();
    working.current = false;
    setBusy(false);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: only when the component goes
  useEffect(() => drop, []);
  const start = (task: Task) => {
    // An idle worker is reused: creating one takes longer than most answers.
    stop();
    const asked = worker.current ?? new Worker(new URL("./tasting.worker.ts", import.meta.url), { type: "module" });
    worker.current = asked;
    working.current = true;
    setBusy(true);
    const tell = (data: WorkerAnswer) => {
      setTold(data);
      if (data.is === "progress") return;
      working.current = false;
      setBusy(false);
    };
    asked.onmessage = ({ data }: MessageEvent<WorkerAnswer>) => tell(data);
    // A worker that could not be loaded answers nothing any more.
    asked.onerror = () => {
      tell({ is: "failed", message: "It could not be computed." });
      drop();
    };
    asked.postMessage(task);
  };
  return { told, busy, start, stop };
}

/** The answer to a task, computed in a worker. The previous answer stays until the next one arrives. */
export interface Answer<T> {
  /** null: none yet. */
  readonly told: T | null;
  readonly failed: string | null;
  /** Whether the answer belongs to the current task. */
  readonly current: boolean;
}

/** @param task  creates the task; a new function for a new task, null for none */
function useAnswer<I extends WorkerAnswer["is"]>(
  is: I,
  task: (() => Task) | null,
): Answer<Extract<WorkerAnswer, { is: I }>> {
  const work = useWork();
  const start = useRef(work.start);
  start.current = work.start;
  useEffect(() => {
    if (task) start.current(task());
  }, [task]);
  const { told } = work;
  // Progress comes between two answers.
  const last = useRef<Extract<WorkerAnswer, { is: I }> | null>(null);
  if (told?.is === is) last.current = told as Extract<WorkerAnswer, { is: I }>;
  return {
    told: task ? last.current : null,
    failed: task && told?.is === "failed" ? told.message : null,
    current: !work.busy && told?.is === is,
  };
}

type OddsTask = Extract<Task, { is: "odds" }>;
/** The odds of a box. */
export function useOdds(task: OddsTask | null): { readonly odds: Odds | null; readonly failed: string | null } {
  const asked = JSON.stringify(task);
  const { told, failed } = useAnswer(
    "odds",
    useMemo(() => (asked === "null" ? null : () => JSON.parse(asked) as OddsTask), [asked]),
  );
  return { odds: told?.odds ?? null, failed };
}

/** What comes of a plan of uses, or why it could not be computed; both null until it is there. */
export function useReport(
  catalogue: Catalogue,
  request: Request | null,
): { readonly report: Report | null; readonly failed: string | null } {
  const task = useMemo(() => request && (() => tasteTask(catalogue, request)), [catalogue, request]);
  const { told, failed } = useAnswer("tasted", task);
  return { report: failed === null ? (told?.report ?? null) : null, failed };
}
export const tasteTask = (catalogue: Catalogue, request: Request): Task => ({
  is: "taste",
  packed: packed(partFor(catalogue, request), { bytes: false }),
  request,
});

/** The steps of a trial, or why they could not be computed; both null until they are there. */
export function useTrial(
  catalogue: Catalogue,
  trial: Id | null,
): { readonly run: TrialSteps | null; readonly failed: string | null } {
  const task = useMemo(
    () => trial && ((): Task => ({ is: "trial", packed: packed(catalogue, { bytes: false }), trial })),
    [catalogue, trial],
  );
  const { told, failed, current } = useAnswer("ran", task || null);
  return { run: current ? (told?.run ?? null) : null, failed };
}
