"use client";
/** A group of findings opened: how many there are, and what can be done with all of them. */
import type { Finding } from "@/core/checks/check";
import type { FindingGroup } from "@/core/checks/grouping";
import { count } from "@/core/numbers/format";
import { Dot } from "../kit/kit";
import { FindingActions } from "./decided";

const SHOWN = 40;

interface Props {
  readonly group: FindingGroup;
  readonly onOpen: (finding: Finding) => void;
}

export function GroupDetail({ group, onOpen }: Props) {
  const { findings, title } = group;
  return (
    <>
      <p className="head pb-1">{count(findings.length, "finding")}</p>
      <h2 className="pb-3 text-[17px] leading-6">{title}</h2>
      <FindingActions findings={findings} />
      <ul className="mt-4 divide-y divide-hair rounded-sm border border-line bg-salt">
        {findings.slice(0, SHOWN).map((f) => (
          <li key={f.fingerprint}>
            <button
              type="button"
              className="flex w-full items-baseline gap-2.5 px-3 py-1.5 text-left hover:underline"
              onClick={() => onOpen(f)}
            >
              <Dot severity={f.severity} />
              <span className="min-w-0">{f.message}</span>
            </button>
          </li>
        ))}
      </ul>
      {findings.length > SHOWN && <p className="pt-2 text-second">and {findings.length - SHOWN} more</p>}
    </>
  );
}
