"use client";
/** The evidence of a finding, drawn. */
import type { Evidence, Ref } from "@/core/checks/check";
import { sayCost, sayPercent, sayQuantity } from "@/core/numbers/format";
import { written } from "@/core/checks/written";
import { usePlaces } from "../frame/navigate";
import { useLive } from "../pantry/provider";
import { Jar } from "../kit/jars";
import { MOST_ON_A_RING, Net, Ring } from "./ring";

export function EvidenceView({ evidence }: { evidence: Evidence }) {
  const places = usePlaces();
  const { catalogue } = useLive();
  const lines = (recipes: readonly Ref[]) => recipes.map((of) => ({ of, line: written(catalogue, of) }));
  const open = (r: Ref) => places.open(r.kind, r.id);
  switch (evidence.type) {
    case "loop": {
      const ring = evidence.runs.length <= MOST_ON_A_RING;
      const runs = evidence.runs.map(({ of, times }) => ({ of, times, line: written(catalogue, of) }));
      return (
        <>
          {ring ? (
            <Ring loop={evidence} runs={runs} onOpen={open} />
          ) : (
            <div className="text-center">
              <Net loop={evidence} />
            </div>
          )}
          <p className="mt-2 text-second">
            {evidence.chance === 1
              ? "It gains even with the worst rolls."
              : `It gains on average. Chance that one round gains: ${evidence.exact ? "" : "about "}${sayPercent(Number(evidence.chance.toFixed(4)))}.`}
            {evidence.live
              ? " Players can start it."
              : " Players can't start it yet, because part of it is unobtainable."}
          </p>
          {(!ring || runs.some((r) => r.line.length > 70)) && <Lines lines={runs} />}
        </>
      );
    }
    case "circle":
      return (
        <>
          <p className="flex flex-wrap items-center gap-1.5">
            {evidence.items.map((i) => (
              <span key={i.id} className="inline-flex items-center gap-1.5">
                <Jar id={i.id} onOpen={() => open(i)} /> <span className="text-second">needs</span>
              </span>
            ))}
            {evidence.items[0] && <Jar id={evidence.items[0].id} />}
          </p>
          <Lines lines={lines(evidence.recipes)} />
        </>
      );
    case "cause":
      return evidence.path.length ? (
        <p className="flex flex-wrap items-center gap-1.5">
          {evidence.path.map((i, at) => (
            <span key={i.id} className="inline-flex items-center gap-1.5">
              {at > 0 && <span className="text-second">needs</span>}
              <Jar id={i.id} onOpen={() => open(i)} />
            </span>
          ))}
          <span className="font-semibold text-beet">which has no source</span>
        </p>
      ) : (
        <p className="flex flex-wrap gap-1.5">
          {evidence.leaves.map((i) => (
            <Jar key={i.id} id={i.id} onOpen={() => open(i)} />
          ))}
        </p>
      );
    case "amounts": {
      const most = Math.max(...evidence.rows.map((r) => Math.abs(r.value)), 1e-9);
      return (
        <table>
          <tbody>
            {evidence.rows.map((r) => (
              <tr key={r.label}>
                <td className="py-0.5 pr-3 text-second">{r.label}</td>
                <td className="w-24 py-0.5 pr-3 text-right font-semibold">
                  {r.label === "chance"
                    ? sayPercent(r.value)
                    : evidence.unit === "value"
                      ? sayCost(r.value)
                      : sayQuantity(r.value)}
                </td>
                <td className="w-60">
                  {evidence.unit === "value" && (
                    <span
                      aria-hidden
                      className="block h-2.5 bg-kelp"
                      style={{ width: `${(Math.abs(r.value) / most) * 100}%` }}
                    />
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      );
    }
    case "lines":
      return <Lines lines={lines(evidence.recipes)} />;
    case "names":
      return (
        <p className="flex flex-wrap gap-2">
          {evidence.names.map((name, i) => (
            <code key={i} className="rounded-sm border border-line bg-salt px-2 py-0.5 font-sans whitespace-pre">
              {name}
            </code>
          ))}
        </p>
      );
  }
}

function Lines({ lines }: { lines: readonly { of: Ref; line: string; times?: string }[] }) {
  const places = usePlaces();
  return (
    <ul className="mt-3 divide-y divide-hair rounded-sm border border-line bg-salt">
      {lines.map((l) => (
        <li key={l.of.id} className="flex gap-3 px-3 py-1.5">
          {l.times && <span className="ink-worked w-10 shrink-0 text-right">{l.times} ×</span>}
          <button type="button" className="text-left hover:underline" onClick={() => places.open(l.of.kind, l.of.id)}>
            {l.line}
          </button>
        </li>
      ))}
    </ul>
  );
}
