"use client";
/** Combinations as a matrix: the row on the column, what comes out in the cell. Typing into a cell writes the recipe. */
import { useMemo, useRef, useState } from "react";
import { combinationsOf } from "@/core/analysis/combinations";
import { around, namesOf } from "@/core/catalogue/surroundings";
import { withResult } from "@/core/editing/combine";
import type { Recipe } from "@/core/kinds/index";
import { isItem, type Node, sayNode, tagOf } from "@/core/process/node";
import { type LineTarget, outputsOf } from "@/core/notation/line";
import { count, sayQuantity } from "@/core/numbers/format";
import { usePlaces } from "../frame/navigate";
import { focusPlace } from "../kit/focus-place";
import { Button, cx, Empty } from "../kit/kit";
import { NameInput } from "../kit/name-input";
import { wantedBy } from "@/core/editing/wanted";
import { useCatalogue, useStore } from "../pantry/provider";

const MOVES: { readonly [key: string]: readonly [number, number] } = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

const namedOf = (node: Node): LineTarget => {
  const tag = tagOf(node);
  return tag === null ? { item: node } : { any: tag };
};

export function Matrix() {
  const catalogue = useCatalogue();
  const store = useStore();
  const places = usePlaces();
  const [more, setMore] = useState<readonly Node[]>([]);
  const [at, setAt] = useState<readonly [number, number]>([0, 1]);
  const [typing, setTyping] = useState(false);
  const box = useRef<HTMLDivElement>(null);
  const found = useMemo(() => combinationsOf(catalogue), [catalogue]);
  const name = (node: Node) => sayNode(around(catalogue), node);
  const things = [...found.things, ...more.filter((node) => !found.things.includes(node))];
  const names = [...namesOf(catalogue, "item").names()];
  const [row, column] = [Math.min(at[0], things.length - 1), Math.min(at[1], things.length - 1)];

  const go = (r: number, c: number) => {
    const to: readonly [number, number] = [
      Math.max(0, Math.min(things.length - 1, r)),
      Math.max(0, Math.min(things.length - 1, c)),
    ];
    setAt(to);
    setTyping(false);
    focusPlace(box, to[0], to[1]);
  };
  /** What the row on the column gives. Nothing takes the recipe out. */
  const write = (first: Node, second: Node, typed: string): string | null => {
    const written = withResult(catalogue, namedOf(first), namedOf(second), found.of(first, second)[0], typed);
    if ("message" in written) return written.message;
    if (written.edits.length) void store.submit(written.edits);
    return null;
  };
  const result = (recipe: Recipe): string =>
    outputsOf(recipe.lines)
      .map((l) => `${l.max === 1 ? "" : `${sayQuantity(l.max)} `}${name(l.item)}`)
      .join(" + ") || "nothing";
  const add = (
    <span className="w-56">
      <NameInput
        label="Add an item to combine"
        placeholder="add an item to combine"
        value=""
        names={names}
        clearAfter
        onDone={(typed) => {
          if (!typed) return null;
          const wanted = wantedBy(catalogue, typed);
          if ("message" in wanted) return wanted.message;
          setMore([...more.filter((n) => n !== wanted.item.id), wanted.item.id]);
          return null;
        }}
      />
    </span>
  );
  if (!things.length)
    return (
      <Empty title="No combinations yet" action={add}>
        Two items used on each other make a third: combine Flint + Brass file kept -&gt; 1 Spark. Add the items here,
        then type the result where their row and column meet.
      </Empty>
    );
  return (
    <section aria-label="Combinations" className="flex min-h-0 min-w-0 flex-1 flex-col bg-salt">
      <div className="flex flex-wrap items-center gap-3 border-b border-line bg-shade px-3.5 py-1.5">
        <span>
          {count(things.length, "thing")},{" "}
          <span className="text-second">{count(found.gaps, "pair")} without a result</span>
          {found.oneWay > 0 && <span className="text-copper">, {count(found.oneWay, "pair")} in one order only</span>}
        </span>
        {add}
        <span className="ml-auto text-[12px] text-second">
          Each cell: the row used on the column. Type a result, press Delete to clear it, or Enter to open the recipe.
        </span>
      </div>
      <div ref={box} className="min-h-0 flex-1 overflow-auto">
        <table className="border-separate border-spacing-0">
          <thead>
            <tr>
              <td className="sticky top-0 left-0 z-20 border-r border-b border-line bg-shade" />
              {things.map((node, c) => (
                <th
                  key={node}
                  scope="col"
                  className={cx(
                    "sticky top-0 z-10 h-12 w-26 min-w-26 border-r border-b border-line bg-shade px-1 align-bottom text-[12px] leading-tight",
                    c === column && "text-kelp",
                  )}
                >
                  {name(node)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {things.map((first, r) => (
              <tr key={first}>
                <th
                  scope="row"
                  className={cx(
                    "sticky left-0 z-10 h-10 max-w-44 min-w-36 truncate border-r border-b border-line bg-shade px-2 text-left text-[12px]",
                    r === row && "text-kelp",
                  )}
                >
                  {isItem(first) ? (
                    <button
                      type="button"
                      className="hover:underline"
                      tabIndex={-1}
                      onClick={() => places.openItem(first)}
                    >
                      {name(first)}
                    </button>
                  ) : (
                    name(first)
                  )}
                </th>
                {things.map((second, c) => {
                  const [recipe, ...others] = found.of(first, second);
                  const turned = found.of(second, first);
                  const here = r === row && c === column;
                  return (
                    <td key={second} className="border-r border-b border-line p-0">
                      {here && typing ? (
                        <span className="block w-44 p-0.5 text-left">
                          <NameInput
                            label={`Result of ${name(first)} on ${name(second)}`}
                            value={recipe ? result(recipe) : ""}
                            names={names}
                            clearAfter
                            onDone={(typed) => {
                              const why = write(first, second, typed);
                              if (why === null) go(r, c);
                              return why;
                            }}
                            onCancel={() => go(r, c)}
                          />
                        </span>
                      ) : (
                        <button
                          type="button"
                          data-place={`${r} ${c}`}
                          tabIndex={here ? 0 : -1}
                          aria-label={`${name(first)} on ${name(second)}: ${recipe ? result(recipe) : "nothing"}`}
                          className={cx(
                            "block h-10 w-26 px-1 text-center text-[12px] leading-tight",
                            first === second && "bg-fog",
                            !recipe && turned.length > 0 && "bg-copper-wash text-copper",
                            here && "bg-pick outline-2 -outline-offset-2 outline-kelp",
                          )}
                          onClick={() => setAt([r, c])}
                          onDoubleClick={() => setTyping(true)}
                          onKeyDown={(e) => {
                            const by = MOVES[e.key];
                            if (by) go(r + by[0], c + by[1]);
                            else if (e.key === "Delete" || e.key === "Backspace") write(first, second, "");
                            else if (e.key === "Enter" && recipe) places.ask({ recipe: recipe.key });
                            else if (e.key === "Enter" || e.key === "F2") setTyping(true);
                            else if (e.key.length === 1 && !e.ctrlKey && !e.metaKey && !e.altKey && e.key !== " ")
                              setTyping(true);
                            else return;
                            if (e.key.length !== 1) e.preventDefault();
                          }}
                        >
                          {recipe ? (
                            <span className="line-clamp-2">
                              {result(recipe)}
                              {others.length > 0 && ` and ${others.length} more`}
                            </span>
                          ) : turned.length > 0 ? (
                            "other order only"
                          ) : (
                            <span className="text-third">·</span>
                          )}
                        </button>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className="flex items-center gap-2 border-t border-line bg-shade px-3.5 py-1">
        <span className="text-second">
          {things[row] && things[column] && `${name(things[row])} on ${name(things[column])}`}
        </span>
        {found.of(things[row], things[column]).map((recipe) => (
          <Button key={recipe.id} look="quiet" onClick={() => places.ask({ recipe: recipe.key })}>
            Open {recipe.name}
          </Button>
        ))}
      </div>
    </section>
  );
}
