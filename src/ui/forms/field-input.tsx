"use client";
/** An input for one value of a field: the field says how it is written, read and held to its rules. */
import { around } from "@/core/catalogue/surroundings";
import { problemOf } from "@/core/editing/entry";
import { typedNumber } from "@/core/numbers/typed";
import { numberProblem, type NumberRules } from "@/core/schema/number";
import { written } from "@/core/numbers/decimal";
import type { Field } from "@/core/schema/field";
import { type Read, TypedInput } from "../kit/typed-input";
import { useCatalogue } from "../pantry/provider";

interface Looks {
  readonly label: string;
  readonly placeholder?: string;
  readonly title?: string;
  readonly className?: string;
  readonly narrow?: boolean;
}

/** What was typed, read by a field. */
export function useReading<T>(field: Field<T>): {
  readonly shown: (value: T) => string;
  readonly read: (text: string) => Read<T>;
} {
  const here = around(useCatalogue());
  return {
    shown: (value) => (value === null || value === undefined ? "" : field.format(value, here)),
    read(text) {
      const read = field.parse(text, { ...here, make: () => null });
      const message = "value" in read ? problemOf(field as unknown as Field, read.value, here.has) : null;
      return message === null ? read : { message };
    },
  };
}

export function FieldInput<T>({
  field,
  value,
  onDone,
  ...looks
}: Looks & { readonly field: Field<T>; readonly value: T; readonly onDone: (value: T) => void }) {
  const { shown, read } = useReading(field);
  return <TypedInput {...looks} shown={shown(value)} read={read} onDone={onDone} numeric={field.numeric} />;
}

/** A plain number within bounds, which is of no field. */
export function NumberInput({
  value,
  rules,
  unit,
  empty,
  onDone,
  ...looks
}: Looks & {
  /** null: nothing is said. */
  readonly value: number | null;
  readonly rules: Pick<NumberRules, "min" | "max" | "whole" | "places">;
  readonly unit?: string;
  /** What nothing typed stands for; absent: a number is needed. */
  readonly empty?: number | null;
  readonly onDone: (value: number | null) => void;
}) {
  const { numbers, pantry } = useCatalogue();
  const read = (text: string): Read<number | null> => {
    if (text === "" && empty !== undefined) return { value: empty };
    const found = typedNumber(text, { format: numbers, unit, ticksPerSecond: pantry.ticksPerSecond });
    const message = "value" in found ? numberProblem(found.value, rules) : found.message;
    return message === null && "value" in found ? found : { message: message ?? "" };
  };
  return (
    <TypedInput {...looks} numeric shown={value === null ? "" : written(value, numbers)} read={read} onDone={onDone} />
  );
}
