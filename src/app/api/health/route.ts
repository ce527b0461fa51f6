import { json, problem } from "@/server/problem";
import { route } from "@/server/route";

export const dynamic = "force-dynamic";

/** 200 once the database answers, the tables are there and changes are heard. */
export const GET = route(async ({ host }) => {
  const pantries = await host.pantries();
  return host.ready
    ? json({
        state: "ready",
        database: "up",
        pantries: pantries.map(({ key, revision }) => ({ key, revision })),
        revision: Math.max(0, ...pantries.map((p) => p.revision)),
      })
    : problem(503, "Not ready", "The server is not connected to the database's notifications yet.", {
        database: "away",
      });
});
