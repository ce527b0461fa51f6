/**
 * Bodies, bounded while they are read: bytes, how many values there are in them and how deep they go, before anything
 * makes objects of them.
 */
import { problem } from "./problem";
import type { Ration } from "./ration";

export interface BodyLimits {
  readonly bytes: number;
  /** Values, members and entries of the JSON. */
  readonly values: number;
  readonly depth: number;
}
export const SMALL: BodyLimits = { bytes: 16 * 1024, values: 100, depth: 8 };
/** A picture as base64. */
export const PICTURE: BodyLimits = { bytes: 768 * 1024, values: 10, depth: 2 };
export const CHANGE: BodyLimits = { bytes: 24 * 2 ** 20, values: 2_500_000, depth: 16 };
export const BUNDLE: BodyLimits = { bytes: 64 * 2 ** 20, values: 8_000_000, depth: 32 };
/** Of a body that is refused, so much more is read and forgotten, so that its sender hears why. */
const FORGOTTEN = 4 * 2 ** 20;

/** Counts what a JSON text holds while its bytes come in; says nothing of whether it is JSON. */
export class Gauge {
  values = 1;
  depth = 0;
  deepest = 0;
  private quoted = false;
  private escaped = false;

  add(bytes: Uint8Array): void {
    let { values, depth, deepest, quoted, escaped } = this;
    for (let k = 0; k < bytes.length; k++) {
      const c = bytes[k];
      if (quoted) {
        if (escaped) escaped = false;
        else if (c === 92) escaped = true;
        else if (c === 34) quoted = false;
      } else if (c === 34) quoted = true;
      else if (c === 44) values++;
      else if (c === 91 || c === 123) {
        values++;
        depth++;
        if (depth > deepest) deepest = depth;
      } else if (c === 93 || c === 125) depth--;
    }
    Object.assign(this, { values, depth, deepest, quoted, escaped });
  }
}

const tooLarge = (message: string) =>
  problem(413, "Too large", `${message} The command line accepts larger bundles.`, {}, { connection: "close" });
const mega = (bytes: number): string => (bytes >= 2 ** 20 ? `${bytes / 2 ** 20} MB` : `${bytes / 1024} kB`);

/**
 * The bytes of a JSON body, or the refusal.
 * @param ration  what all bodies together may hold; given back by the caller of `done`
 */
export async function readBody(
  request: Request,
  limits: BodyLimits,
  ration: Ration,
): Promise<{ bytes: Uint8Array; done: () => void } | { refusal: Response }> {
  if (!/^application\/json\s*(;\s*charset=("?)utf-8\2\s*)?$/i.test(request.headers.get("content-type") ?? ""))
    return {
      refusal: problem(415, "Only JSON is accepted", "Send the body with the header Content-Type: application/json."),
    };
  if (!request.body) return { refusal: problem(400, "Not JSON", "The body is empty. Expected JSON.") };
  const declared = Number(request.headers.get("content-length") ?? 0);
  // What says beforehand that it is too large is not waited for.
  const large = () => tooLarge(`The maximum is ${mega(limits.bytes)}.`);
  if (declared > limits.bytes) return { refusal: large() };
  const chunks: Uint8Array[] = [];
  const gauge = new Gauge();
  let [held, refusal]: [number, Response | null] = [0, null];
  const giveBack = () => {
    ration.giveBack(held);
    held = 0;
  };
  try {
    let forgotten = 0;
    // Both a request of the framework and one of Node itself can be gone through; leaving off ends them.
    for await (const value of request.body as unknown as AsyncIterable<Uint8Array>) {
      if (refusal) {
        forgotten += value.length;
        if (forgotten > FORGOTTEN) break;
        continue;
      }
      if (held + value.length > limits.bytes) refusal = large();
      else if (!ration.take(value.length))
        refusal = problem(
          503,
          "Too many large requests",
          "Try again in a moment.",
          {},
          { "retry-after": "2", connection: "close" },
        );
      else {
        held += value.length;
        gauge.add(value);
        chunks.push(value);
        if (gauge.values > limits.values) refusal = tooLarge(`The body has more than ${limits.values} values.`);
        else if (gauge.deepest > limits.depth)
          refusal = problem(
            400,
            "Nested too deep",
            `Lists and objects can be nested at most ${limits.depth} deep.`,
            {},
            { connection: "close" },
          );
      }
      if (refusal) {
        chunks.length = 0;
        giveBack();
      }
    }
  } catch {
    giveBack();
    return { refusal: problem(400, "The body is incomplete", "Nothing was saved. Send it again.") };
  }
  if (refusal) return { refusal };
  const bytes = new Uint8Array(held);
  let at = 0;
  for (const chunk of chunks) {
    bytes.set(chunk, at);
    at += chunk.length;
  }
  return { bytes, done: giveBack };
}
