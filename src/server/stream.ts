/** Server-sent events: one stream per open view, one message per committed change. */
import type { Engine, Host } from "./host";

export function liveStream(engine: Engine, host: Host, signal: AbortSignal): Response {
  const encoder = new TextEncoder();
  let end = () => {};
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (event: string, data: unknown, id?: number) => {
        try {
          controller.enqueue(encoder.encode(`${id === undefined ? "" : `id: ${id}\n`}event: ${event}\ndata: ${JSON.stringify(data)}\n\n`));
        } catch {
          end();
        }
      };
      const unwatch = engine.watch(
        (event) => send("change", event, event.change.revision),
        () => send("hello", { revision: engine.catalogue.revision, anew: true }),
      );
      const beat = setInterval(() => send("beat", { revision: engine.catalogue.revision }), 15_000);
      const forget = host.whenClosing(() => end());
      end = () => {
        unwatch();
        forget();
        clearInterval(beat);
        try {
          controller.close();
        } catch {
          // closed already by the other side
        }
        end = () => {};
      };
      signal.addEventListener("abort", () => end());
      send("hello", { revision: engine.catalogue.revision });
    },
    cancel: () => end(),
  });
  return new Response(body, { headers: { "content-type": "text/event-stream", "cache-control": "no-store, no-transform", connection: "keep-alive", "x-accel-buffering": "no" } });
}
