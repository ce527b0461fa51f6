"use client";
/** Lay out: things in the places of a grid, which pattern they are, and which ones they nearly are. */
import { useMemo } from "react";
import { byKey } from "@/core/catalogue/keys";
import { namesOf } from "@/core/catalogue/surroundings";
import { resized } from "@/core/editing/arrange";
import type { Recipe } from "@/core/kinds/index";
import { outputsOf } from "@/core/notation/line";
import { sayCell, WIDEST } from "@/core/notation/places";
import { count, sayRange } from "@/core/numbers/format";
import type { Id } from "@/core/schema/id";
import { answerFor, type Nearly } from "@/core/trials/laid";
import { usePlaces } from "../frame/navigate";
import { useAddressText } from "../frame/typed";
import { Jar } from "../kit/jars";
import { Button } from "../kit/kit";
import { useLive } from "../pantry/provider";
import { type PlacesOf, PlaceGrid } from "../recipes/place-grid";

/** Most names that are told of what may lie in a place. */
const NAMED = 3;

export function LayTab() {
  const { catalogue } = useLive();
  const places = usePlaces();
  const { value: written, write } = useAddressText(places, "laid");
  const laid = useMemo(
    () =>
      resized(
        written
          .split(";", WIDEST)
          .map((row) => row.split(",", WIDEST).map((key): Id | null => byKey(catalogue, "item", key)?.id ?? null)),
        WIDEST,
        WIDEST,
      ),
    [written, catalogue],
  );
  const answer = useMemo(() => answerFor(catalogue, laid), [catalogue, laid]);
  const names = namesOf(catalogue, "item");
  const nameOf = (id: Id) => catalogue.records.item.get(id)?.name ?? "";
  const put = (next: PlacesOf<Id>) => {
    const rows = next.map((row) => row.map((id) => (id && catalogue.records.item.get(id)?.key) || "").join(","));
    write(rows.join(";").replace(/[,;]+$/, ""));
  };
  const empty = laid.every((row) => row.every((id) => id === null));
  const [nearest] = answer.are.length ? [] : answer.near;
  /** What would have to be done there: "Rope", "Rope instead of Eel", "take Eel away". */
  const wants = ({ wants, row, column }: Nearly["amiss"][number]): string => {
    const there = laid[row]?.[column] ?? null;
    if (!wants) return `take ${there ? nameOf(there) : "it"} away`;
    const all = [...wants].map(nameOf);
    const some =
      all.length > NAMED ? `${all.slice(0, NAMED).join(", ")} or ${all.length - NAMED} others` : all.join(" or ");
    return there ? `${some} instead of ${nameOf(there)}` : some;
  };
  const patterns = [...catalogue.records.recipe.values()].filter((r) => r.kind === "pattern" && r.status !== "retired");
  return (
    <div className="flex min-h-0 flex-1">
      <section
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
        tabIndex={0}
        aria-label="Items in the grid"
        className="w-[600px] shrink-0 space-y-3 overflow-auto border-r border-line bg-salt p-3.5"
      >
        <PlaceGrid
          label="Places"
          places={laid}
          onPlaces={put}
          say={(id) => (id ? nameOf(id) : "")}
          read={(text) => {
            const name = text.trim();
            if (!name || /^[-–—_.]+$/.test(name)) return null;
            const found = names.find(name);
            return found.found === "one" ? found.id : { message: `There is no single item called “${name}”.` };
          }}
          names={[...names.names()]}
          amiss={
            nearest
              ? (row, column) => {
                  const wrong = nearest.amiss.find((a) => a.row === row && a.column === column);
                  return wrong ? `For ${nearest.recipe.name}: ${wants(wrong)}` : null;
                }
              : undefined
          }
        />
        <div className="flex items-center gap-3">
          <Button disabled={empty} onClick={() => write("")}>
            Clear the grid
          </Button>
          <p className="text-[12px] text-second">
            Arrow keys move, typing adds an item, Delete removes it. Items can be dragged and pasted.
          </p>
        </div>
      </section>
      <section
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
        tabIndex={0}
        aria-label="Matching recipe"
        aria-live="polite"
        className="min-w-0 flex-1 space-y-4 overflow-auto bg-salt px-4 pt-3 pb-6"
      >
        {empty && (
          <p className="text-second">
            {patterns.length
              ? `The grid is empty. Add items to see which of the ${count(patterns.length, "pattern")} they match, such as ${patterns[0].name}.`
              : "There are no patterns yet. Create one in Recipes, in brackets, such as [Rope, Rope; Tar, -] -> Net."}
          </p>
        )}
        {answer.are.map((recipe) => (
          <Made
            key={recipe.id}
            recipe={recipe}
            message={recipe.kind === "pattern" ? "This is" : "In any order this is"}
          />
        ))}
        {answer.are.length > 1 && (
          <p className="text-copper">{answer.are.length} recipes match. The game can't tell them apart.</p>
        )}
        {!empty && !answer.are.length && (
          <p className="text-[15px] font-semibold">No recipe matches.{answer.near.length ? " The nearest:" : ""}</p>
        )}
        {!answer.are.length &&
          answer.near.map((near) => (
            <div key={near.recipe.id}>
              <Made recipe={near.recipe} message={`${count(near.amiss.length, "place")} away from`} />
              <ul className="pl-3">
                {near.amiss.map((amiss) => (
                  <li key={`${amiss.row}${amiss.column}`} className="text-second">
                    <b className="text-ink">{sayCell(amiss)}</b> {wants(amiss)}
                  </li>
                ))}
              </ul>
            </div>
          ))}
      </section>
    </div>
  );
}

function Made({ recipe, message }: { readonly recipe: Recipe; readonly message: string }) {
  const places = usePlaces();
  return (
    <div className="space-y-1">
      <p className="text-[15px]">
        {message}{" "}
        <button
          type="button"
          className="font-semibold hover:underline"
          onClick={() => places.open("recipe", recipe.id)}
        >
          {recipe.name}
        </button>
      </p>
      <p className="flex flex-wrap items-center gap-1.5">
        <span className="text-second">makes</span>
        {outputsOf(recipe.lines).map((line, k) => (
          <Jar key={`${line.item}${k}`} id={line.item} amount={sayRange(line.min, line.max)} onOpen={places.openItem} />
        ))}
        {outputsOf(recipe.lines).length === 0 && <span className="text-second">what its drop tables give</span>}
      </p>
    </div>
  );
}
