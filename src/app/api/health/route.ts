import { host } from "@/server/host";
import { json, problem } from "@/server/problem";

export const dynamic = "force-dynamic";

/** 200 once the database answers, the tables are there and changes are heard. */
export async function GET(): Promise<Response> {
  try {
    const pantries = await (await host()).pantries();
    return json({ state: "ready", database: "up", pantries: pantries.map(({ key, revision }) => ({ key, revision })), revision: Math.max(0, ...pantries.map((p) => p.revision)) });
  } catch (error) {
    return problem(503, "Not ready", (error as Error).message, { database: "away" });
  }
}
