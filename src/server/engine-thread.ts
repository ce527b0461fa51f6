/** Runs in a thread of its own: one open pantry's engine, which answers one question after the other. */
import { parentPort } from "node:worker_threads";
import { Engine } from "../core/analysis/engine";
import { itemCosts } from "../core/analysis/item-costs";
import { unpacked } from "../core/catalogue/catalogue";
import type { Answer, Question } from "./thread";

const port = parentPort;
if (!port) throw new Error("This file runs as a worker thread only.");

let engine: Engine | null = null;

/** What a question is answered with; see Questions. */
function answer(question: Question): unknown {
  if (question.ask === "open") {
    engine = new Engine(unpacked(question.catalogue));
    return engine.revision;
  }
  if (!engine) throw new Error("No pantry is open in this thread.");
  switch (question.ask) {
    case "follow": {
      const { outcome, ripple } = engine.change(question.edits);
      if (!outcome.ok || engine.revision !== question.revision) throw new Error("The change does not fit this copy.");
      return ripple;
    }
    case "board":
      return engine.board();
    case "costs": {
      const costs = itemCosts(engine.readings, question.item);
      return costs && { revision: engine.revision, ...costs };
    }
    case "whatIf": {
      const { outcome, ripple } = engine.whatIf(question.edits);
      return outcome.ok ? { ok: true, revision: engine.revision, edits: outcome.edits, ripple } : outcome;
    }
    case "fail":
      process.exit(1);
  }
}

port.on("message", ({ id, question }: { id: number; question: Question }) => {
  let said: Answer;
  try {
    said = { id, value: answer(question) };
  } catch (error) {
    said = { id, failed: (error as Error).message };
  }
  port.postMessage(said);
});
