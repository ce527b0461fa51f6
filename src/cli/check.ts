/** salty check: every finding of every check. */
import { readingsOf } from "../core/analysis/readings";
import type { Catalogue } from "../core/catalogue/catalogue";
import { ruleTitle, SEVERITIES } from "../core/checklist";
import { findingsOf } from "../core/checks";
import type { Evidence, Finding, Ref } from "../core/checks/check";
import { dayOf, type Judged, judge } from "../core/checks/decisions";
import { written } from "../core/checks/written";
import { count } from "../core/numbers/format";
import { oneOf } from "./failure";
import { readCatalogue } from "./input";

const short = ({ kind, key }: Ref) => ({ kind, key });

/** Evidence with keys in place of ids. */
function printed(catalogue: Catalogue, evidence: Evidence): unknown {
  const lines = (recipes: readonly Ref[]) => recipes.map((r) => ({ recipe: r.key, line: written(catalogue, r) }));
  switch (evidence.type) {
    case "loop":
      return {
        type: "loop",
        runs: evidence.runs.map((r) => ({
          [r.of.kind]: r.of.key,
          times: Number(r.times),
          line: written(catalogue, r.of),
        })),
        net: evidence.net.map((n) => ({ [n.of.kind]: n.of.key, amount: n.amount, value: n.value })),
        certain: evidence.chance === 1,
        chance: evidence.chance,
        live: evidence.live,
        seconds: evidence.seconds,
      };
    case "circle":
      return { type: "circle", items: evidence.items.map((i) => i.key), recipes: lines(evidence.recipes) };
    case "cause":
      return { type: "cause", leaves: evidence.leaves.map((i) => i.key), path: evidence.path.map((i) => i.key) };
    case "lines":
      return { type: "lines", inputs: evidence.inputs.map((i) => i.key), recipes: lines(evidence.recipes) };
    default:
      return evidence;
  }
}

/** @param judged  with it, what was decided about each finding */
export const asJson = (catalogue: Catalogue, findings: readonly Finding[], judged?: Judged) => ({
  findings: findings.map((f) => {
    const { accepted, assigned } = judged?.decisions.about(f.fingerprint, f.size) ?? {};
    return {
      rule: f.rule,
      severity: f.severity,
      about: f.about.map(short),
      message: f.message,
      evidence: printed(catalogue, f.evidence),
      ...(accepted ? { accepted: { by: accepted.person, reason: accepted.reason } } : {}),
      ...(assigned ? { assigned: { to: assigned.person, note: assigned.reason } } : {}),
    };
  }),
});

function asText(catalogue: Catalogue, findings: readonly Finding[], { accepted, decisions }: Judged): string {
  const also = accepted.length ? `, ${count(accepted.length, "accepted finding")}` : "";
  if (!findings.length) return `No findings${also}.\n`;
  let text = "";
  let rule = "";
  for (const f of findings) {
    if (f.rule !== rule)
      text += `${text ? "\n" : ""}${f.severity.toUpperCase()} ${ruleTitle((rule = f.rule))} (${f.rule})\n`;
    text += `  ${f.message}\n`;
    const decided = decisions.about(f.fingerprint, f.size);
    if (decided.accepted)
      text += `    accepted by ${decided.accepted.person || "someone"}: ${decided.accepted.reason}\n`;
    if (decided.assigned) text += `    assigned to ${decided.assigned.person}\n`;
    if (f.evidence.type === "loop")
      for (const r of f.evidence.runs) text += `    ${r.times} × ${written(catalogue, r.of)}\n`;
  }
  const tally = SEVERITIES.map((severity) => findings.filter((f) => f.severity === severity).length);
  const [errors, warnings, notes] = tally;
  return `${text}\n${count(errors, "error")}, ${count(warnings, "warning")}${notes ? `, ${count(notes, "note")}` : ""}${also}.\n`;
}

export async function checkCommand(
  [file]: string[],
  options: Record<string, string | boolean | undefined>,
): Promise<number> {
  const format = oneOf("format", options.format, ["text", "json"], "text");
  const level = oneOf("fail-on", options["fail-on"], ["error", "warning"], "error");
  const catalogue = await readCatalogue(file);
  const readings = readingsOf(catalogue);
  const all = findingsOf(catalogue, readings);
  const judged = judge(catalogue, all, dayOf(new Date()));
  const findings = options.accepted ? all : judged.open;
  if (!readings.gain.complete)
    process.stderr.write(
      "salty: there may be more gaining loops than listed, because the search reached its limit. Fix these first and check again.\n",
    );
  process.stdout.write(
    format === "json"
      ? `${JSON.stringify(asJson(catalogue, findings, judged), null, 2)}\n`
      : asText(catalogue, findings, judged),
  );
  // What is accepted does not fail, and neither does a note.
  return judged.open.some((f) => f.severity === "error" || (level === "warning" && f.severity === "warning")) ? 1 : 0;
}
