"use client";
/** A record that something refers to: what refers to it, and the options before it is removed. */
import { useState } from "react";
import { recordAt } from "@/core/catalogue/catalogue";
import { type Edit, setField } from "@/core/catalogue/edit";
import { around, namesOf } from "@/core/catalogue/surroundings";
import { releaseEverywhere, replaceEverywhere, usersOf } from "@/core/editing/replace";
import { type AnyRecord, definition, type Kind, kindWord } from "@/core/kinds/index";
import { count } from "@/core/numbers/format";
import { fieldAt, pathOf, valueAt } from "@/core/schema/record";
import { Button } from "../kit/kit";
import { DialogFrame } from "../kit/dialog-frame";
import { NameInput } from "../kit/name-input";
import { useLive } from "../pantry/provider";
import { usePlaces } from "./navigate";

/** Users that are listed; the rest is counted. */
const LISTED = 60;

export function InUse({
  kind,
  record,
  onSend,
  onClose,
}: {
  readonly kind: Kind;
  readonly record: AnyRecord;
  readonly onSend: (edits: readonly Edit[]) => Promise<void>;
  readonly onClose: () => void;
}) {
  const { catalogue } = useLive();
  const places = usePlaces();
  const [name, setName] = useState("");
  const [message, setMessage] = useState<string | null>(null);
  const users = usersOf(catalogue, kind, record.id);
  const names = namesOf(catalogue, kind);
  const others = [...names.names()].filter((n) => n !== record.name);
  const choose = (typed: string) => {
    setName(typed);
    const found = typed ? names.find(typed) : null;
    const wrong = found && (found.found !== "one" || found.id === record.id);
    setMessage(wrong ? `There is no other ${kindWord(kind)} called “${typed}”.` : null);
  };
  const found = name ? names.find(name) : null;
  const other = found?.found === "one" && found.id !== record.id ? found : null;
  const now = recordAt(catalogue, kind, record.id) ?? record;
  const released = releaseEverywhere(catalogue, kind, record.id);
  return (
    <DialogFrame
      width="narrow"
      title={`Remove ${record.name}`}
      description={`${record.name} is still used by ${count(users.length, "record")}. Choose what to do with ${users.length > 1 ? "them" : "it"}.`}
      alert
      onClose={onClose}
      foot={
        <>
          <Button
            look="solid"
            disabled={!other}
            onClick={() =>
              other &&
              void onSend([
                ...replaceEverywhere(catalogue, kind, record.id, other.id),
                { op: "remove", kind, record: now },
              ])
            }
          >
            {other ? `Replace with ${other.name} and remove` : "Replace and remove"}
          </Button>
          {released && (
            <Button onClick={() => void onSend([...released, { op: "remove", kind, record: now }])}>
              {kind === "field" || kind === "stat"
                ? `Remove with ${count(released.length, "value")}`
                : "Remove everywhere"}
            </Button>
          )}
          {kind === "item" && "status" in record && record.status !== "stub" && (
            <Button onClick={() => void onSend([setField(catalogue, "item", record.id, "status", "stub")])}>
              Keep as a stub
            </Button>
          )}
        </>
      }
    >
      <div className="px-5 pb-4">
        <ul aria-label="Used by" className="my-3 flex max-h-56 flex-wrap gap-1.5 overflow-auto">
          {users.slice(0, LISTED).map((user) => (
            <li key={user.record.id}>
              <Button
                className="h-6!"
                onClick={() => {
                  onClose();
                  places.open(user.kind, user.record.id);
                }}
              >
                <span className="font-normal text-second">{kindWord(user.kind)}</span> {user.record.name}
                {saidBy(user) && <span className="font-normal">{saidBy(user)}</span>}
              </Button>
            </li>
          ))}
          {users.length > LISTED && <li className="text-second">and {users.length - LISTED} more</li>}
        </ul>
        <div className="flex items-center gap-3">
          <span className="shrink-0 text-second">Replace with</span>
          <NameInput
            label={`Replacement for ${record.name}`}
            value={name}
            names={others}
            onDone={choose}
            placeholder={`Name of another ${kindWord(kind)}`}
          />
        </div>
        {message && (
          <p role="alert" className="pt-1 text-beet">
            {message}
          </p>
        )}
      </div>
    </DialogFrame>
  );

  /** The value that would be lost with a field or a stat. */
  function saidBy({ kind: of, record: user }: { readonly kind: Kind; readonly record: AnyRecord }): string {
    const path = kind === "field" ? `own.${record.id}` : kind === "stat" ? `stats.${record.id}` : "";
    const at = path && pathOf(definition(of), path);
    const value = at && valueAt(user, at);
    const here = around(catalogue);
    return at && value !== null && value !== "" ? fieldAt(at, here).say(value, here).slice(0, 40) : "";
  }
}
