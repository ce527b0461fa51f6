/** The worker of What-if as a window talks to it. */
import type { Catalogue } from "@/core/catalogue/catalogue";
import { packed } from "@/core/catalogue/catalogue";
import type { Edit } from "@/core/catalogue/edit";
import type { EngineAsk, EngineQuestions } from "@/core/engine/answers";
import type { Entered, Followed, FromWorker, ToWorker } from "@/core/what-if/serve";

type Asked = ToWorker extends infer M ? (M extends unknown ? Omit<M, "id"> : never) : never;

export class EngineWorker {
  private readonly worker = new Worker(new URL("./what-if.worker.ts", import.meta.url), { type: "module" });
  private readonly open = new Map<number, { done: (value: unknown) => void; failed: (error: Error) => void }>();
  private last = 0;
  /** Why it answers no more. */
  private lost: string | null = null;

  constructor(catalogue: Catalogue) {
    this.worker.onmessage = ({ data }: MessageEvent<FromWorker>) => {
      const waiting = this.open.get(data.id);
      this.open.delete(data.id);
      if ("value" in data) waiting?.done(data.value);
      else waiting?.failed(new Error(data.failed));
    };
    this.worker.onerror = () => this.end("The analysis of this scenario stopped. Leave it and open it again.");
    void this.send({ do: "open", packed: packed(catalogue, { bytes: false }) }).catch(() => undefined);
  }

  private send(message: Asked): Promise<unknown> {
    if (this.lost !== null) return Promise.reject(new Error(this.lost));
    const id = ++this.last;
    return new Promise((done, failed) => {
      this.open.set(id, { done, failed });
      this.worker.postMessage({ ...message, id });
    });
  }
  enter(changes: readonly Followed[], edits: readonly Edit[], at: number): Promise<Entered> {
    return this.send({ do: "enter", changes, edits, at }) as Promise<Entered>;
  }
  ask<Q extends EngineAsk>(ask: Q, question: EngineQuestions[Q]["question"]): Promise<EngineQuestions[Q]["answer"]> {
    return this.send({ do: "ask", ask, question }) as Promise<EngineQuestions[Q]["answer"]>;
  }

  end(why = "The scenario was left."): void {
    this.lost = why;
    this.worker.terminate();
    for (const { failed } of this.open.values()) failed(new Error(why));
    this.open.clear();
  }
}
