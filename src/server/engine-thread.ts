/** Runs in a thread of its own: one open pantry's engine, which answers one question after the other. */
import { parentPort } from "node:worker_threads";
import { gzipSync } from "node:zlib";
import anyAscii from "any-ascii";
import type { Ripple } from "../core/engine/read-model";
import { Engine } from "../core/engine/engine";
import { glanceOf } from "../core/analysis/glance";
import { writtenPlan } from "../core/analysis/plan-written";
import { chainOf } from "../core/chains/chain";
import { itemCosts } from "../core/analysis/item-costs";
import { type Catalogue, packed } from "../core/catalogue/catalogue";
import type { Edit } from "../core/catalogue/edit";
import { transliterateBy } from "../core/schema/names";
import { exportBundle } from "../core/exchange/bundle";
import { catalogueFrom } from "../store/load";
import { type Made, type Write, writesOf } from "../store/prepare";
import type { ThreadMessage, Followed, Question, Questions, Writes } from "./questions";
import { type Intent, readied } from "./use-cases/intents";

const port = parentPort;
if (!port) throw new Error("This file runs as a worker thread only.");
transliterateBy(anyAscii);

let engine: Engine | null = null;
/** Changes that were made ready, until they are followed. */
let ready: Made[] = [];
/** What is to be written of them and was not handed over yet. */
let pending: Iterator<Write, unknown> = [][Symbol.iterator]();
const encoder = new TextEncoder();

/** What a question is answered with; see Questions. */
function answer(question: Question): unknown {
  if (question.ask === "open") {
    engine = new Engine(catalogueFrom(question.texts));
    return engine.revision;
  }
  if (!engine) throw new Error("No pantry is open in this thread.");
  switch (question.ask) {
    case "follow": {
      const { outcome, ripple } = engine.change(JSON.parse(question.edits) as Edit[]);
      if (!outcome.ok || !ripple || engine.revision !== question.revision)
        throw new Error("The change does not fit this copy.");
      return followed(ripple, 0);
    }
    case "prepare":
      return readyAll(engine.catalogue, question.intents);
    case "more":
      return moreWrites();
    case "committed": {
      const last = ready.findIndex((made) => made.next.revision === question.revision);
      if (last < 0) throw new Error("Another change was made ready than was committed.");
      const { next } = ready[last];
      const edits = ready.splice(0, last + 1).flatMap((made) => made.edits);
      return followed(engine.follow(next, edits), edits.length);
    }
    case "snapshot": {
      const text = encoder.encode(
        JSON.stringify({ ...packed(engine.catalogue, { bytes: false }), model: engine.model() }),
      );
      return { revision: engine.revision, body: question.zip ? new Uint8Array(gzipSync(text, { level: 3 })) : text };
    }
    case "bundle":
      return { text: encoder.encode(exportBundle(engine.catalogue)), key: engine.catalogue.pantry.key };
    case "costs": {
      const costs = itemCosts(engine.readings, question.item);
      return costs && { revision: engine.revision, ...costs };
    }
    case "chain": {
      const chain = chainOf(engine.readings, question.item, question.of);
      return chain && { revision: engine.revision, ...chain };
    }
    case "glance":
      return { revision: engine.revision, ...glanceOf(engine.readings) };
    case "plan":
      return { revision: engine.revision, plan: writtenPlan(engine.readings, question.of) };
    case "whatIf": {
      const { revision } = engine;
      const { outcome, ripple } = engine.whatIf(question.edits);
      return outcome.ok
        ? { ok: true, json: JSON.stringify({ revision, edits: outcome.edits.length, ripple }) }
        : outcome;
    }
  }
}

/** A ripple of so many edits is not sent: reading anew is quicker. */
const MOST_FOLLOWED = 5_000;

const followed = (ripple: Ripple, edits: number): Followed => ({
  ripple: edits > MOST_FOLLOWED ? null : JSON.stringify(ripple),
  moved: JSON.stringify(ripple.moved),
});

/** Each intent on what the ones before come to. */
function readyAll(before: Catalogue, intents: readonly Intent[]): Questions["prepare"]["answer"] {
  ready = [];
  const answers = intents.map((intent) => {
    const on = ready[ready.length - 1]?.next ?? before;
    const { readied: answer, made } = readied(on, intent, (progress) => say({ progress }));
    if (made) ready.push(made);
    return answer;
  });
  pending = writesOf(before, ready);
  return { readied: answers, ...moreWrites() };
}

/** Characters of writes that are made before they are handed over. */
const HANDFUL = 4_000_000;

function moreWrites(): Writes {
  const writes: Write[] = [];
  for (let size = 0; size < HANDFUL; ) {
    const { done, value } = pending.next();
    if (done) return { writes, more: false };
    writes.push(value);
    if (value.do === "copy") size += value.rows.length;
    if (value.do === "put") size += value.rows.length + value.parts.reduce((sum, part) => sum + part.length, 0);
  }
  return { writes, more: true };
}

const say = (said: ThreadMessage): void => port.postMessage(said);
port.on("message", (question: Question) => {
  let said: ThreadMessage;
  try {
    said = { value: answer(question) };
  } catch (error) {
    said = { failed: (error as Error).message };
  }
  say(said);
});
