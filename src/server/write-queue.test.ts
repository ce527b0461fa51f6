import { describe, expect, it } from "vitest";
import { Failure, failureOf } from "./failures";
import type { Intent } from "./use-cases/intents";
import type { Submitted } from "./use-cases/writing";
import { type Waiting, WriteQueue } from "./write-queue";

const SUBMISSION = { author: "Pip", note: "" };
const ONE_EDIT: Intent = { do: "edit", edits: [{} as never] };
const BUNDLE: Intent = { do: "import", bundle: new Uint8Array(), replace: false };
const WRITTEN: Submitted = { committed: { ok: true, revision: 1 } };
const nap = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** A queue whose turns take `takes` milliseconds, and the turns it wrote: each the names of who sent. */
function queueOf(takes = 0) {
  const turns: string[][] = [];
  let last: Promise<void> = Promise.resolve();
  const answered = (batch: readonly Waiting[]) => {
    turns.push(batch.map((w) => w.submission.author));
    queue.answering();
    for (const { done } of batch) done(WRITTEN);
  };
  const queue = new WriteQueue(
    (work) => {
      const next = last.then(work);
      last = next.catch(() => undefined);
      return next;
    },
    async (batch) => {
      await nap(takes);
      answered(batch);
    },
  );
  const send = (author: string, intent = ONE_EDIT) => queue.submit({ ...SUBMISSION, author }, intent, {});
  return { queue, turns, send };
}

describe("the queue of changes", () => {
  it("writes what waits together in one turn, and an import in a turn of its own", async () => {
    const { turns, send } = queueOf(5);
    const first = send("Ada");
    await nap(1);
    await Promise.all([first, send("Bo"), send("Cy"), send("Dee", BUNDLE), send("Eli")]);
    expect(turns).toEqual([["Ada"], ["Bo", "Cy"], ["Dee"], ["Eli"]]);
  });

  it("waits for those whom it answered just now, so that two groups become one", async () => {
    const { turns, send } = queueOf(20);
    const ada = send("Ada");
    await nap(1);
    const others = [send("Bo"), send("Cy")];
    await ada;
    await nap(1);
    await Promise.all([send("Ada"), ...others]);
    expect(turns).toEqual([["Ada"], ["Bo", "Cy", "Ada"]]);
  });

  it("goes on without those who do not come back", async () => {
    const { turns, send } = queueOf(20);
    await send("Ada");
    await Promise.all([send("Bo"), send("Cy")]);
    await send("Bo");
    expect(turns[turns.length - 1]).toEqual(["Bo"]);
  });

  it("refuses more than can wait, and loses none of those that wait", async () => {
    const { queue, turns, send } = queueOf(20);
    const first = send("Ada");
    await nap(1);
    const waiting = Array.from({ length: 200 }, (_, k) => send(`Editor${k}`));
    expect(queue.size).toBe(200);
    expect(await send("One too many").catch(failureOf)).toBe("too busy");
    await Promise.all([first, ...waiting]);
    expect(turns.flat()).toHaveLength(201);
    expect(Math.max(...turns.map((turn) => turn.length))).toBe(64);
  });

  it("fails everyone who waits where no turn can be had", async () => {
    const queue = new WriteQueue(
      () => Promise.reject(new Failure("too busy", "not now")),
      async () => undefined,
    );
    const sent = [queue.submit(SUBMISSION, ONE_EDIT, {}), queue.submit(SUBMISSION, ONE_EDIT, {})];
    for (const each of sent) await expect(each).rejects.toThrow("not now");
    expect(queue.size).toBe(0);
  });
});
