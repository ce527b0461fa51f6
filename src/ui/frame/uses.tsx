"use client";
/** Everything that refers to a record, to be opened from here; or to refer to another that it is merged into. */
import { useMemo, useState } from "react";
import { namesOf } from "@/core/catalogue/surroundings";
import { replaceEverywhere, usersOf } from "@/core/editing/replace";
import { type AnyRecord, type Kind, kindWord } from "@/core/kinds/index";
import { Button } from "../kit/kit";
import { Popup } from "../kit/popup";
import { NameInput } from "../kit/name-input";
import { useLive, useStore } from "../pantry/provider";
import { usePlaces } from "./navigate";

const LISTED = 200;

export function UsesButton({ kind, record }: { readonly kind: Kind; readonly record: AnyRecord }) {
  const { catalogue } = useLive();
  const places = usePlaces();
  const store = useStore();
  const [message, setMessage] = useState<string | null>(null);
  const users = useMemo(
    () => usersOf(catalogue, kind, record.id).sort((a, b) => a.record.name.localeCompare(b.record.name)),
    [catalogue, kind, record.id],
  );
  const names = namesOf(catalogue, kind);
  /** The other stands wherever this one stood, and this one goes. */
  const merge = async (typed: string) => {
    if (!typed.trim()) return;
    const found = names.find(typed);
    if (found.found !== "one" || found.id === record.id)
      return setMessage(`There is no other ${kindWord(kind)} called “${typed}”.`);
    const answer = await store.submit(
      [...replaceEverywhere(catalogue, kind, record.id, found.id), { op: "remove", kind, record }],
      `${record.name} merged into ${found.name}`.slice(0, 300),
    );
    setMessage(answer.ok ? null : answer.message);
  };
  return (
    <Popup
      button={(opener) => <Button {...opener}>Used by {users.length}</Button>}
      align="start"
      label={`Where ${record.name} is used`}
      className="w-80"
    >
      {users.length === 0 && <p className="text-second">{record.name} is not used anywhere.</p>}
      <ul aria-label="Used by" className="max-h-64 overflow-auto">
        {users.slice(0, LISTED).map((user) => (
          <li key={user.record.id}>
            <Button look="quiet" className="h-6!" onClick={() => places.open(user.kind, user.record.id)}>
              <span className="font-normal text-third">{kindWord(user.kind)}</span> {user.record.name}
            </Button>
          </li>
        ))}
      </ul>
      {users.length > LISTED && <p className="text-second">and {users.length - LISTED} more</p>}
      <div className="mt-2 border-t border-hair pt-2">
        <span className="text-second">Merge {record.name} into</span>
        <NameInput
          label={`Merge ${record.name} into`}
          value=""
          names={[...names.names()].filter((n) => n !== record.name)}
          placeholder={`Name of another ${kindWord(kind)}`}
          onDone={(typed) => void merge(typed)}
        />
        {message && (
          <p role="alert" className="text-beet">
            {message}
          </p>
        )}
      </div>
    </Popup>
  );
}
