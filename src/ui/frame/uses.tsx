"use client";
/** Everything that refers to a record, to be opened from here. */
import { Popover } from "radix-ui";
import { useMemo } from "react";
import { usersOf } from "@/core/editing/replace";
import { type AnyRecord, type Kind, kindWord } from "@/core/kinds/index";
import { Button } from "../kit/kit";
import { useLive } from "../pantry/provider";
import { usePlaces } from "./navigate";

const LISTED = 200;

export function UsesButton({ kind, record }: { readonly kind: Kind; readonly record: AnyRecord }) {
  const { catalogue } = useLive();
  const places = usePlaces();
  const users = useMemo(() => usersOf(catalogue, kind, record.id), [catalogue, kind, record.id]);
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <Button>Used by {users.length}</Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          aria-label={`What uses ${record.name}`}
          className="z-40 max-h-96 w-80 overflow-auto rounded-sm border border-line bg-salt p-3 shadow-lg"
        >
          {users.length === 0 && <p className="text-second">Nothing refers to {record.name}.</p>}
          <ul>
            {users.slice(0, LISTED).map((user) => (
              <li key={user.record.id}>
                <Button look="quiet" className="h-6!" onClick={() => places.open(user.kind, user.record.id)}>
                  <span className="font-normal text-third">{kindWord(user.kind)}</span> {user.record.name}
                </Button>
              </li>
            ))}
          </ul>
          {users.length > LISTED && <p className="text-second">and {users.length - LISTED} more</p>}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
