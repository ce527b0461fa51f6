"use client";
/** The conditions that rows must meet, each with a button that removes it. */
import { X } from "lucide-react";
import { type Condition, testOf } from "@/core/catalogue/filters";
import { Button } from "../kit/kit";

export function ShelfConditions({
  conditions,
  titleOf,
  onChange,
}: {
  readonly conditions: readonly Condition[];
  readonly titleOf: (column: string) => string;
  readonly onChange: (conditions: readonly Condition[]) => void;
}) {
  if (!conditions.length) return null;
  return (
    <ul aria-label="Conditions" className="flex basis-full flex-wrap gap-1.5">
      {conditions.map((condition) => {
        const { column, test, value } = condition;
        const wanted = `${testOf(test).message} ${value}`;
        return (
          <li key={`${column} ${test}`}>
            <Button
              className="h-6!"
              aria-label={`Remove filter: ${titleOf(column)} ${wanted}`}
              onClick={() => onChange(conditions.filter((c) => c !== condition))}
            >
              {titleOf(column)} <span className="font-normal">{wanted}</span>
              <X size={12} aria-hidden />
            </Button>
          </li>
        );
      })}
    </ul>
  );
}
