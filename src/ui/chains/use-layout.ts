"use client";
/** Where things stand, computed in a worker; what was there before stays until the new one has come. */
import { useEffect, useRef, useState } from "react";
import type { Chain } from "@/core/chains/chain";
import type { Layout, Weighing } from "@/core/chains/layout";
import type { Placed, Placing } from "./layout.worker";

export interface Drawn {
  readonly chain: Chain;
  readonly layout: Layout;
}

export function useLayout(chain: Chain | null, weighing: Weighing): { drawn: Drawn | null; failed: boolean } {
  const worker = useRef<Worker | null>(null);
  const last = useRef(0);
  const [drawn, setDrawn] = useState<Drawn | null>(null);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    worker.current = new Worker(new URL("./layout.worker.ts", import.meta.url), { type: "module" });
    return () => {
      worker.current?.terminate();
      worker.current = null;
    };
  }, []);
  useEffect(() => {
    const { current } = worker;
    if (!chain || !current) return;
    const n = ++last.current;
    current.onmessage = ({ data }: MessageEvent<Placed>) => {
      if (data.n !== last.current) return;
      setFailed(!data.layout);
      if (data.layout) setDrawn({ chain, layout: data.layout });
    };
    current.onerror = () => setFailed(true);
    current.postMessage({ n, chain, weighing } satisfies Placing);
  }, [chain, weighing]);
  return { drawn, failed };
}
