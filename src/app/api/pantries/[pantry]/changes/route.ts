import type { Edit } from "@/core/catalogue/changes";
import type { Id } from "@/core/catalogue/records";
import { change } from "@/server/pantry";
import { json, problem } from "@/server/problem";
import { ChangeBody } from "@/server/requests";
import { bodyOf, pantryRoute } from "@/server/route";
import { changeAt, changesBefore, changesOf } from "@/store/load";

export const dynamic = "force-dynamic";

/** The log, newest first: ?before=REVISION&most=N, ?of=RECORD for one record's history, ?revision=N for one change with all its edits. */
export const GET = pantryRoute(async ({ request, host, engine }) => {
  const query = new URL(request.url).searchParams;
  const most = Math.min(200, Math.max(1, Number(query.get("most") ?? 50) || 50));
  const whole = Number(query.get("revision"));
  if (whole) {
    const change = await changeAt(host.em, engine.pantry, whole);
    return change ? json(change) : problem(404, "No such change", `There is no revision ${whole} in the log.`);
  }
  const of = query.get("of");
  if (of) return json(await changesOf(host.em, engine.pantry, of as Id, most));
  return json(await changesBefore(host.em, engine.pantry, Number(query.get("before")) || 2 ** 31 - 1, most));
});

export const POST = pantryRoute(async ({ request, engine, actor }) => {
  const read = await bodyOf(request, ChangeBody);
  if ("refusal" in read) return read.refusal;
  return change(engine, actor, read.body.edits as unknown as Edit[], read.body.note);
});
