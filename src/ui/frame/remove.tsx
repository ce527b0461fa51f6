"use client";
/** Removing a record: at once if nothing refers to it, otherwise with a list of what does and the options. */
import dynamic from "next/dynamic";
import { orNotLoaded } from "../kit/not-loaded";
import { type ReactNode, useState } from "react";
import type { Edit } from "@/core/catalogue/edit";
import { usersOf } from "@/core/editing/replace";
import type { AnyRecord, Kind } from "@/core/kinds/index";
import { Button } from "../kit/kit";
import { useLive, useStore } from "../pantry/provider";

/** Loaded when something that is in use is removed. */
const InUse = dynamic(() => orNotLoaded(import("./in-use").then((m) => m.InUse)), { ssr: false });

interface Props {
  readonly kind: Kind;
  readonly record: AnyRecord;
  /** Called once it is removed. */
  readonly onGone?: () => void;
  readonly look?: "plain" | "quiet";
  readonly className?: string;
  readonly title?: string;
  readonly children: ReactNode;
}

export function RemoveButton({ kind, record, onGone, look = "plain", className, title, children }: Props) {
  const { catalogue } = useLive();
  const store = useStore();
  const [asking, setAsking] = useState(false);
  const send = async (edits: readonly Edit[]) => {
    const answer = await store.submit(edits);
    setAsking(false);
    if (answer.ok) onGone?.();
  };
  const press = () => {
    if (usersOf(catalogue, kind, record.id).length) setAsking(true);
    else void send([{ op: "remove", kind, record }]);
  };
  return (
    <>
      <Button look={look} className={className} title={title} aria-label={`Remove ${record.name}`} onClick={press}>
        {children}
      </Button>
      {asking && <InUse kind={kind} record={record} onSend={send} onClose={() => setAsking(false)} />}
    </>
  );
}
