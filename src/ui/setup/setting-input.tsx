"use client";
/** One setting of the pantry, to be edited in place. */
import type { Field } from "@/core/schema/field";
import { titleOf } from "../grid/field-columns";
import { Inline } from "../kit/inline";
import { useCatalogue } from "../pantry/provider";
import { useWrite } from "../pantry/use-write";

export function SettingInput({ name, of }: { readonly name: string; readonly of: Field }) {
  const { pantry } = useCatalogue();
  const write = useWrite();
  const value = (pantry as unknown as Readonly<Record<string, string | number>>)[name];
  return (
    <Inline
      label={titleOf(name, of)}
      held={{ value, from: "own" }}
      numeric={of.numeric}
      show={String(value)}
      text={String(value)}
      onWrite={(typed) => write("pantry", pantry.id, name, typed)}
    />
  );
}
