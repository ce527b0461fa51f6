/** The two handlers that carry a studio at work: a change, and the stream of everyone's changes. */
import { change } from "./replies";
import { changeOf, pantryRoute } from "./route";
import { liveStream } from "./stream";

export const postChange = pantryRoute(
  async (call) => {
    const read = await changeOf(call);
    return "refusal" in read
      ? read.refusal
      : change(
          call.engine,
          call.actor,
          { do: "edit", edits: read.body.edits },
          { note: read.body.note, signal: call.request.signal },
        );
  },
  { writes: true },
);

export const getEvents = pantryRoute(({ engine, host, request }) => liveStream(engine, host, request.signal), {
  guarded: true,
});
