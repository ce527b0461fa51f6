/** Runs as a process of its own: the records of one open pantry, or its readings; answers one question after the other. */
import { constants, setPriority } from "node:os";
import { Worker } from "node:worker_threads";
import { gzipSync } from "node:zlib";
import anyAscii from "any-ascii";
import type { Ripple } from "../core/engine/read-model";
import { answerOf, isEngineAsk } from "../core/engine/answers";
import { Engine } from "../core/engine/engine";
import { apply } from "../core/catalogue/apply";
import { type Catalogue, packed } from "../core/catalogue/catalogue";
import type { Edit } from "../core/catalogue/edit";
import { transliterateBy } from "../core/schema/names";
import { exportBundle } from "../core/exchange/bundle";
import { ownPicturesOf } from "../core/catalogue/icons";
import { catalogueFrom } from "../store/texts";
import { type Made, type Write, writesOf } from "../store/prepare";
import type { ChildMessage, Followed, Question, RecordQuestions, Writes } from "./questions";
import { type Intent, readied } from "./use-cases/intents";

if (!process.send) throw new Error("This file runs as a process of the server only.");
transliterateBy(anyAscii);

// Whoever answers people goes first: readings may take a core for long.
if (process.env.SALTY_ROLE === "analysis")
  try {
    setPriority(constants.priority.PRIORITY_LOW);
  } catch {
    // Where priorities can't be changed all are equal.
  }

/** A thread that ends the process where its parent is gone or it holds too much, even while it works. */
new Worker(
  `const { workerData: { parent, most } } = require("node:worker_threads");
   setInterval(() => {
     if (process.ppid !== parent) process.kill(process.pid, "SIGKILL");
     if (process.memoryUsage.rss() > most) {
       require("node:fs").writeSync(2, "An engine held more memory than it may and was ended.\\n");
       process.kill(process.pid, "SIGKILL");
     }
   }, 250);`,
  {
    eval: true,
    execArgv: [],
    workerData: { parent: process.ppid, most: Number(process.env.SALTY_ENGINE_MEMORY) * 1.5 * 2 ** 20 },
  },
).unref();

let engine: Engine | null = null;
let catalogue: Catalogue | null = null;
/** Changes that were made ready, until they are committed. */
let ready: Made[] = [];
/** What is to be written of them and was not handed over yet. */
let pending: Iterator<Write, unknown> = [][Symbol.iterator]();
const encoder = new TextEncoder();

/** What a question is answered with; see RecordQuestions and AnalysisQuestions. */
function answer(question: Question): unknown {
  if (question.ask === "open") {
    const opened = catalogueFrom(question.texts);
    if (question.role === "analysis") engine = new Engine(opened);
    else catalogue = opened;
    return opened.revision;
  }
  return engine ? ofReadings(engine, question) : ofRecords(question);
}

function ofRecords(question: Question): unknown {
  if (!catalogue) throw new Error("No pantry is open in this process.");
  switch (question.ask) {
    case "apply": {
      const outcome = apply(catalogue, JSON.parse(question.edits) as Edit[]);
      if (!outcome.ok || outcome.catalogue.revision !== question.revision)
        throw new Error("The change does not fit this copy.");
      catalogue = outcome.catalogue;
      return null;
    }
    case "prepare":
      return readyAll(catalogue, question.intents);
    case "more":
      return moreWrites();
    case "committed": {
      const last = ready.findIndex((made) => made.next.revision === question.revision);
      if (last < 0) throw new Error("Another change was made ready than was committed.");
      catalogue = ready[last].next;
      ready = ready.slice(last + 1);
      return null;
    }
    case "snapshot": {
      const records = JSON.stringify(packed(catalogue, { bytes: false }));
      const model = question.model ? Buffer.from(question.model) : "null";
      const body = Buffer.concat([
        Buffer.from(`${records.slice(0, -1)},"analysis":${question.analysis},"model":`),
        Buffer.from(model as string),
        Buffer.from("}"),
      ]);
      return { revision: catalogue.revision, body: new Uint8Array(question.zip ? gzipSync(body, { level: 3 }) : body) };
    }
    case "bundle":
      return {
        text: encoder.encode(exportBundle(catalogue)),
        key: catalogue.pantry.key,
        pictures: ownPicturesOf(catalogue),
      };
    default:
      throw new Error(`The records can't answer “${question.ask}”.`);
  }
}

function ofReadings(of: Engine, question: Question): unknown {
  if (isEngineAsk(question.ask)) return answerOf(of, question.ask, question as never);
  switch (question.ask) {
    case "follow": {
      const before = of.catalogue;
      let next = before;
      const edits: Edit[] = [];
      for (const piece of question.edits) {
        const outcome = apply(next, JSON.parse(piece) as Edit[]);
        if (!outcome.ok) throw new Error("The change does not fit this copy.");
        next = outcome.catalogue;
        edits.push(...outcome.edits);
      }
      if (next.revision !== question.revision) throw new Error("The change does not fit this copy.");
      return followed(of.follow(next, edits), edits.length);
    }
    case "model":
      return { revision: of.revision, model: encoder.encode(JSON.stringify(of.model())) };
    case "counts": {
      return { revision: of.revision, ...of.openCounts() };
    }
    case "since": {
      const { revision } = of;
      const pieces = question.changes.flatMap((change) => (change.revision <= revision ? change.edits : []));
      const since = of.since(pieces.flatMap((piece) => JSON.parse(piece) as Edit[]));
      return since && { revision, ...since };
    }
    case "whatIf": {
      const { revision } = of;
      const { outcome, ripple } = of.whatIf(question.edits);
      return outcome.ok
        ? { ok: true, json: JSON.stringify({ revision, edits: outcome.edits.length, ripple }) }
        : outcome;
    }
    default:
      throw new Error(`The readings can't answer “${question.ask}”.`);
  }
}

/** A ripple of so many edits is not sent: reading again is quicker. */
const MOST_FOLLOWED = 5_000;

const followed = (ripple: Ripple, edits: number): Followed => ({
  ripple: edits > MOST_FOLLOWED ? null : JSON.stringify(ripple),
  moved: JSON.stringify(ripple.moved),
});

/** Each intent on what the ones before come to. */
function readyAll(before: Catalogue, intents: readonly Intent[]): RecordQuestions["prepare"]["answer"] {
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
    if (value.do === "pictures") size += value.pictures.reduce((sum, { base64 }) => sum + base64.length, 0);
    if (value.do === "put") size += value.rows.length + value.parts.reduce((sum, part) => sum + part.length, 0);
  }
  return { writes, more: true };
}

const say = (said: ChildMessage): void => {
  process.send?.(said);
};
process.on("disconnect", () => process.exit(0));
process.on("message", (question: Question) => {
  let said: ChildMessage;
  try {
    said = { value: answer(question) };
  } catch (error) {
    said = { failed: (error as Error).message };
  }
  say(said);
});
