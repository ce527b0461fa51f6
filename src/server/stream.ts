/** Server-sent events: one stream per open view, one message per committed change. */
import type { Engine, WindowNotice } from "./engine";
import type { Host } from "./host";
import { problem } from "./problem";

/** Streams of one process. */
const MOST = 1_000;
/**
 * Bytes that may wait in a stream whose reader does not read; then it is ended, and the view reads again when it comes
 * back.
 */
const WAITING = 2 ** 20;
/** A larger change is not sent: reading again is quicker than following it. */
const LARGEST = 512 * 1024;

const encoder = new TextEncoder();
/** The same bytes for every stream. */
const encoded = new WeakMap<WindowNotice, Uint8Array>();
function bytesOf(told: WindowNotice): Uint8Array {
  let bytes = encoded.get(told);
  if (!bytes) {
    if (told.tell === "gone") bytes = message("gone", "{}");
    else if (told.tell === "anew" || told.json.length > LARGEST)
      bytes = message("hello", JSON.stringify({ revision: told.revision, anew: true }));
    else bytes = message("change", told.json, told.revision);
    encoded.set(told, bytes);
  }
  return bytes;
}
const message = (event: string, data: string, id?: number): Uint8Array =>
  encoder.encode(`${id === undefined ? "" : `id: ${id}\n`}event: ${event}\ndata: ${data}\n\n`);

export const STREAM_HEADERS = {
  "content-type": "text/event-stream",
  "cache-control": "no-store, no-transform",
  connection: "keep-alive",
  "x-accel-buffering": "no",
};

export function liveStream(engine: Engine, host: Host, signal: AbortSignal): Response {
  if (host.streams >= MOST)
    return problem(
      503,
      "Too many windows are open",
      "Close some, or try again in a moment.",
      {},
      { "retry-after": "30" },
    );
  let end = () => {};
  const body = new ReadableStream<Uint8Array>(
    {
      start(controller) {
        const send = (bytes: Uint8Array) => {
          try {
            controller.enqueue(bytes);
            if ((controller.desiredSize ?? 0) < 0) end();
          } catch {
            end();
          }
        };
        const unwatch = engine.watch((told) => {
          send(bytesOf(told));
          if (told.tell === "gone") end();
        });
        const revision = () => JSON.stringify({ revision: engine.revision, analysed: engine.analysis.revision });
        const beat = setInterval(() => send(message("beat", revision())), 15_000);
        const forget = host.whenClosing(() => end());
        end = () => {
          end = () => {};
          unwatch();
          forget();
          clearInterval(beat);
          try {
            controller.close();
          } catch {
            // closed already by the other side
          }
        };
        signal.addEventListener("abort", () => end());
        send(message("hello", revision()));
      },
      cancel: () => end(),
    },
    { highWaterMark: WAITING, size: (chunk) => chunk?.byteLength ?? 0 },
  );
  return new Response(body, { headers: STREAM_HEADERS });
}
