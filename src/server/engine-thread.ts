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
import { type Made, prepare, type Prepared, type Refused, writesOf } from "../store/prepare";
import type { Answer, Followed, Intent, Question, Questions, Readied } from "./questions";

const port = parentPort;
if (!port) throw new Error("This file runs as a worker thread only.");
transliterateBy(anyAscii);

let engine: Engine | null = null;
/** Changes that were made ready, until they are followed. */
let ready: Made[] = [];
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
      return readyAll(engine.catalogue, question.intents);
    case "committed": {
      const last = ready.findIndex((made) => made.next.revision === question.revision);
      if (last < 0) throw new Error("Another change was made ready than was committed.");
      const { next } = ready[last];
      return followed(
        engine.follow(
          next,
          ready.splice(0, last + 1).flatMap((made) => made.edits),
        ),
      );
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

/** Each intent on what the ones before come to. */
function readyAll(before: Catalogue, intents: readonly Intent[]): Questions["prepare"]["answer"] {
  ready = [];
  const readied = intents.map((intent) => readyOne(ready[ready.length - 1]?.next ?? before, intent));
  const last = ready[ready.length - 1];
  const edits = ready.flatMap((made) => made.edits);
  return { readied, writes: last ? [...writesOf(before, last.next, edits)] : [] };
}

function readyOne(catalogue: Catalogue, intent: Intent): Readied {
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

function made(catalogue: Catalogue, edits: readonly Edit[]): Prepared | Refused {
  const result = prepare(catalogue, edits);
  if ("refused" in result) return result.refused;
  if (result.prepared.size) ready.push(result.made);
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
