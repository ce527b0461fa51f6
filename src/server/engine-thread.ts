/** Runs in a thread of its own: one open pantry's engine, which answers one question after the other. */
import { parentPort } from "node:worker_threads";
import { gzipSync } from "node:zlib";
import anyAscii from "any-ascii";
import type { Ripple } from "../core/engine/board";
import { Engine } from "../core/engine/engine";
import { itemCosts } from "../core/analysis/item-costs";
import { type Catalogue, packed } from "../core/catalogue/catalogue";
import { type Edit, invert } from "../core/catalogue/edit";
import { transliterateBy } from "../core/schema/names";
import { tellChange } from "../core/history/telling";
import { cut } from "../core/schema/characters";
import { exportBundle } from "../core/exchange/bundle";
import { planImport } from "../core/exchange/read";
import { catalogueFrom } from "../store/load";
import { prepare } from "../store/prepare";
import type { Answer, Followed, Intent, Question, Readied } from "./questions";

const port = parentPort;
if (!port) throw new Error("This file runs as a worker thread only.");
transliterateBy(anyAscii);

let engine: Engine | null = null;
/** The change that was made ready last, until it is settled. */
let ready: { readonly next: Catalogue; readonly edits: readonly Edit[] } | null = null;
const encoder = new TextEncoder();

/** What a question is answered with; see Questions. */
function answer(question: Question): unknown {
  if (question.ask === "open") {
    engine = new Engine(catalogueFrom(question.texts));
    return engine.revision;
  }
  if (question.ask === "fail") return fail(question.busy);
  if (!engine) throw new Error("No pantry is open in this thread.");
  switch (question.ask) {
    case "follow": {
      const { outcome, ripple } = engine.change(JSON.parse(question.edits) as Edit[]);
      if (!outcome.ok || !ripple || engine.revision !== question.revision)
        throw new Error("The change does not fit this copy.");
      return followed(ripple);
    }
    case "prepare":
      return readied(engine.catalogue, question.intent);
    case "settle": {
      if (ready?.next.revision !== question.revision)
        throw new Error("Another change was made ready than was committed.");
      const ripple = engine.follow(ready.next, ready.edits);
      ready = null;
      return followed(ripple);
    }
    case "snapshot": {
      const text = encoder.encode(
        JSON.stringify({ ...packed(engine.catalogue, { bytes: false }), board: engine.board() }),
      );
      return { revision: engine.revision, body: question.zip ? new Uint8Array(gzipSync(text, { level: 3 })) : text };
    }
    case "bundle":
      return { text: encoder.encode(exportBundle(engine.catalogue)), key: engine.catalogue.pantry.key };
    case "costs": {
      const costs = itemCosts(engine.readings, question.item);
      return costs && { revision: engine.revision, ...costs };
    }
    case "whatIf": {
      const { revision } = engine;
      const { outcome, ripple } = engine.whatIf(question.edits);
      return outcome.ok
        ? { ok: true, json: JSON.stringify({ revision, edits: outcome.edits.length, ripple }) }
        : outcome;
    }
  }
}

const followed = (ripple: Ripple): Followed => ({
  ripple: JSON.stringify(ripple),
  moved: JSON.stringify(ripple.moved),
});

function readied(catalogue: Catalogue, intent: Intent): Readied {
  ready = null;
  if (intent.do === "edit") return { answer: made(catalogue, intent.edits) };
  if (intent.do === "undo") {
    const edits = JSON.parse(intent.edits) as Edit[];
    const note = cut(tellChange(catalogue, edits), 300);
    const answer = made(catalogue, invert(edits));
    return { answer: answer.ok ? { ...answer, note } : answer };
  }
  let text: string;
  try {
    text = new TextDecoder("utf-8", { fatal: true }).decode(intent.bundle);
  } catch {
    return {
      problems: [{ place: "file", says: "This is not UTF-8. Save the file as UTF-8 and import it again." }],
      notes: [],
    };
  }
  const plan = planImport(catalogue, text, intent.replace);
  if (plan.problems.length) return { problems: plan.problems, notes: plan.notes };
  const { added, changed, removed, same, settings, notes } = plan;
  return {
    answer: made(catalogue, plan.edits),
    plan: { added, changed, removed, same, settings, notes, edits: plan.edits.length },
  };
}

function made(catalogue: Catalogue, edits: readonly Edit[]) {
  const result = prepare(catalogue, edits);
  if ("refused" in result) return result.refused;
  ready = { next: result.next, edits: result.done };
  return result.prepared;
}

function fail(busy = 0): null {
  if (!busy) process.exit(1);
  for (const end = performance.now() + busy; performance.now() < end; );
  return null;
}

port.on("message", (question: Question) => {
  let said: Answer;
  try {
    said = { value: answer(question) };
  } catch (error) {
    said = { failed: (error as Error).message };
  }
  port.postMessage(said);
});
