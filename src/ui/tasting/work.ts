"use client";
/** Tastings and rolls in a worker: what is asked for last counts, progress is told, and it can be stopped. */
import { useEffect, useMemo, useRef, useState } from "react";
import type { Packed } from "@/core/catalogue/catalogue";
import type { Box } from "@/core/network/box";
import type { Id } from "@/core/schema/id";
import type { Odds, Rolled } from "@/core/trials/opening";
import type { Report, Request } from "@/core/trials/tasting";

export type Task =
  | { readonly is: "taste"; readonly packed: Packed; readonly request: Request }
  | {
      readonly is: "roll";
      readonly box: Box;
      readonly tables: readonly (readonly [Id, Box])[];
      readonly level: number;
      readonly times: number;
      readonly seed: number;
    }
  | {
      readonly is: "odds";
      readonly box: Box;
      readonly tables: readonly (readonly [Id, Box])[];
      readonly level: number;
      readonly wanted: number;
    };
export type Told =
  | { readonly is: "progress"; readonly done: number; readonly of: number }
  | { readonly is: "tasted"; readonly report: Report | null }
  | { readonly is: "rolled"; readonly rolled: Rolled }
  | { readonly is: "odds"; readonly odds: Odds }
  | { readonly is: "failed"; readonly says: string };

export interface Work {
  readonly told: Told | null;
  readonly busy: boolean;
  start(task: Task): void;
  stop(): void;
}

export function useWork(): Work {
  const worker = useRef<Worker | null>(null);
  const [told, setTold] = useState<Told | null>(null);
  const [busy, setBusy] = useState(false);
  const stop = () => {
    worker.current?.terminate();
    worker.current = null;
    setBusy(false);
  };
  useEffect(() => () => worker.current?.terminate(), []);
  const start = (task: Task) => {
    stop();
    const made = new Worker(new URL("./tasting.worker.ts", import.meta.url), { type: "module" });
    worker.current = made;
    setBusy(true);
    made.onmessage = ({ data }: MessageEvent<Told>) => {
      setTold(data);
      if (data.is !== "progress") stop();
    };
    made.onerror = () => {
      setTold({ is: "failed", says: "It could not be computed." });
      stop();
    };
    made.postMessage(task);
  };
  return { told, busy, start, stop };
}

type OddsTask = Extract<Task, { is: "odds" }>;
/** The odds of a box, worked out beside the page; null until they are there. The last ones stay until the next come. */
export function useOdds(task: OddsTask | null): { readonly odds: Odds | null; readonly failed: string | null } {
  const work = useWork();
  const start = useRef(work.start);
  start.current = work.start;
  const asked = JSON.stringify(task);
  // The same object for as long as the same is asked.
  const same = useMemo(() => JSON.parse(asked) as OddsTask | null, [asked]);
  useEffect(() => {
    if (same) start.current(same);
  }, [same]);
  const { told } = work;
  return {
    odds: same && told?.is === "odds" ? told.odds : null,
    failed: told?.is === "failed" ? told.says : null,
  };
}
