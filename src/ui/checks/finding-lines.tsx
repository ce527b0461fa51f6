"use client";
/** Findings about one record, a line each, that lead to Checks. */
import type { Finding } from "@/core/checks/check";
import { usePlaces } from "../frame/navigate";
import { Dot } from "../kit/kit";

export function FindingLines({ findings, className }: { findings: readonly Finding[]; className?: string }) {
  const places = usePlaces();
  return (
    <ul aria-label="Findings" className={className}>
      {findings.map((f) => (
        <li key={f.fingerprint}>
          <button
            type="button"
            className="flex items-start gap-2 py-0.5 text-left hover:underline"
            onClick={() => places.go("checks", { finding: f.fingerprint })}
          >
            <span className="flex h-5 shrink-0 items-center">
              <Dot severity={f.severity} />
            </span>
            {f.message}
          </button>
        </li>
      ))}
    </ul>
  );
}
