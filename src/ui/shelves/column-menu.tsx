"use client";
/** What can be done with a column: keep only some of its rows, sort, move, pin, hide. */
import { useState } from "react";
import { type Condition, TESTS, type TestName, testOf } from "@/core/catalogue/filters";
import type { Item } from "@/core/kinds/index";
import type { Column } from "../grid/columns";
import { Button } from "../kit/kit";
import type { ShelfColumns } from "./use-shelf-columns";

interface Props {
  readonly column: Column<Item>;
  readonly columns: ShelfColumns;
  /** Its name in addresses. */
  readonly keyed: string;
  readonly conditions: readonly Condition[];
  readonly onConditions: (conditions: readonly Condition[]) => void;
  /** Words that stand in the column, to choose from. */
  readonly words: () => readonly string[];
  readonly close: () => void;
}

const NAMES = Object.keys(TESTS) as TestName[];
const NUMBERS: readonly TestName[] = ["least", "most", "between", "out"];

export function ColumnMenu({ column, columns, keyed, conditions, onConditions, words, close }: Props) {
  const there = conditions.find((c) => c.column === keyed);
  const [test, setTest] = useState<TestName>(there?.test ?? (column.numeric ? "between" : "is"));
  const [value, setValue] = useState(there?.value ?? "");
  const { takes } = testOf(test);
  const others = conditions.filter((c) => c.column !== keyed);
  const read = testOf(test).ready(value);
  const message = "message" in read && value !== "" ? read.message : null;
  const { arrangement, arrange, pin, move, show } = columns;
  const pinned = arrangement.pinned.includes(column.id);
  const offers = takes === "words" ? words() : [];
  const chosen = new Set(value.split(",").map((word) => word.trim()));
  const keep = () => {
    if (takes !== "nothing" && (!value.trim() || "message" in read)) return;
    onConditions([...others, { column: keyed, test, value: takes === "nothing" ? "" : value.trim() }]);
    close();
  };
  const also = (act: () => void) => () => {
    act();
    close();
  };
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        keep();
      }}
    >
      <p className="font-semibold">{column.title}</p>
      <select
        aria-label="Show rows where it"
        className="field"
        value={test}
        onChange={(e) => setTest(e.target.value as TestName)}
      >
        {NAMES.filter((name) => column.numeric || !NUMBERS.includes(name)).map((name) => (
          <option key={name} value={name}>
            {testOf(name).message}
          </option>
        ))}
      </select>
      {takes !== "nothing" && (
        <input
          aria-label="Value to compare with"
          // biome-ignore lint/a11y/noAutofocus: it appears because someone asked to filter here
          autoFocus
          className="field"
          placeholder={takes === "range" ? "10..20" : takes === "words" ? "one, another" : undefined}
          value={value}
          onChange={(e) => setValue(e.target.value)}
        />
      )}
      {offers.length > 0 && (
        <div className="flex max-h-32 flex-wrap gap-1 overflow-auto">
          {offers.map((word) => (
            <Button
              key={word}
              className="h-6! px-1.5!"
              aria-pressed={chosen.has(word)}
              look={chosen.has(word) ? "solid" : "plain"}
              onClick={() => {
                const next = new Set(chosen);
                if (!next.delete(word)) next.add(word);
                setValue([...next].filter(Boolean).join(", "));
              }}
            >
              {word}
            </Button>
          ))}
        </div>
      )}
      {message && (
        <p role="alert" className="text-beet">
          {message}
        </p>
      )}
      <div className="flex gap-1.5">
        <Button look="solid" type="submit">
          Apply filter
        </Button>
        {there && <Button onClick={also(() => onConditions(others))}>Remove filter</Button>}
      </div>
      <div className="flex flex-wrap gap-1.5 border-t border-hair pt-2">
        <Button onClick={also(() => arrange({ orders: [{ column: column.id, down: false }] }))}>Sort ascending</Button>
        <Button onClick={also(() => arrange({ orders: [{ column: column.id, down: true }] }))}>Sort descending</Button>
        <Button
          onClick={also(() =>
            arrange({
              orders: [...arrangement.orders.filter((o) => o.column !== column.id), { column: column.id, down: false }],
            }),
          )}
        >
          Add to sorting
        </Button>
        {column.id !== "name" && (
          <>
            <Button onClick={also(() => move(column.id, -1))}>Move left</Button>
            <Button onClick={also(() => move(column.id, 1))}>Move right</Button>
            <Button onClick={also(() => pin(column.id, !pinned))}>{pinned ? "Unpin" : "Pin"}</Button>
            <Button onClick={also(() => show(column.id, false))}>Hide</Button>
          </>
        )}
        <Button
          onClick={() => arrange({ widths: { ...arrangement.widths, [column.id]: Math.min(640, column.width + 24) } })}
        >
          Wider
        </Button>
        <Button
          onClick={() => arrange({ widths: { ...arrangement.widths, [column.id]: Math.max(44, column.width - 24) } })}
        >
          Narrower
        </Button>
      </div>
    </form>
  );
}
