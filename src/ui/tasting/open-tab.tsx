"use client";
/** Open and take apart: what a container or a salvage gives, exactly, beside seeded rolls; as players and designers see it. */
import { useState } from "react";
import type { Catalogue } from "@/core/catalogue/catalogue";
import { byKey } from "@/core/catalogue/keys";
import type { Item } from "@/core/kinds/index";
import { OddsTable } from "./odds-table";
import { soldFor } from "@/core/catalogue/inheritance";
import { usesOf } from "@/core/catalogue/uses";
import { type Draws, boxOfLines, splitThing } from "@/core/network/box";
import { linesFor, makerOf } from "@/core/process/maker";
import { sayCost, sayPercent, sayQuantity } from "@/core/numbers/format";
import type { Id } from "@/core/schema/id";
import { boxOfUse, tablesIn, type ThingOdds } from "@/core/trials/opening";
import { Reckoner } from "@/core/trials/reckon";
import { Body } from "@/core/trials/body";
import { FindingLines } from "../checks/finding-lines";
import { Jar } from "../kit/jars";
import { Button, cx, Empty } from "../kit/kit";
import { figuresOf, useLive } from "../pantry/provider";
import { usePlaces } from "../frame/navigate";
import { ChoiceButtons } from "../kit/choice-buttons";
import { ItemInput, Labelled, NumberInput, useSubject } from "./parts";
import { useOdds, useWork } from "./work";

const ROLLS = 10_000;
const round = (n: number) => Number(n.toFixed(4));

/** A way to get at what is in an item. */
interface OpeningWay {
  readonly key: string;
  readonly name: string;
  readonly box: Draws;
  /** How much of the item one takes. */
  readonly takes: number;
}

export function OpenTab() {
  const { catalogue, model, judged } = useLive();
  const places = usePlaces();
  const { subject, level, controls } = useSubject();
  const [wanted, setWanted] = useState(1);
  const [seed, setSeed] = useState(1);
  const [asPlayer, setAsPlayer] = useState(false);
  const work = useWork();
  const [rolledOf, setRolledOf] = useState("");
  const chosen = byKey(catalogue, "item", places.query.get("open") ?? "");
  const candidates = new Set<Id>();
  for (const use of catalogue.records.use.values())
    if (use.item && use.effects.some((e) => e.does.is === "draw")) candidates.add(use.item);
  for (const recipe of catalogue.records.recipe.values())
    if (recipe.kind === "salvage" && recipe.status !== "retired")
      for (const line of recipe.lines) if (line.role === "ingredient" && line.item) candidates.add(line.item);
  const item = chosen ?? catalogue.records.item.get([...candidates][0] ?? ("" as Id));
  const ways = item ? waysOf(catalogue, item, subject, level) : [];
  const way = ways.find((w) => w.key === places.query.get("way")) ?? ways[0];
  const tables = way ? tablesIn(catalogue, way.box) : new Map<Id, Draws>();
  const { odds, failed } = useOdds(
    way ? { is: "odds", box: way.box, tables: [...tables], level, wanted: Math.max(1, wanted) } : null,
  );
  if (!item)
    return (
      <Empty
        title="Nothing to open or salvage yet"
        action={
          <span className="flex gap-2">
            <Button look="solid" onClick={() => places.go("recipes", { new: "1" })}>
              Add a salvage recipe
            </Button>
            <Button onClick={() => places.go("setup", { kind: "table" })}>Add a drop table</Button>
          </span>
        }
      >
        Give an item a use that draws from a table, or a salvage recipe.
      </Empty>
    );
  const cost = (figuresOf(model, item.id).value ?? Number.NaN) * (way?.takes ?? 1);
  const worthOf = (thing: string): number | null => {
    const { kind, id } = splitThing(thing);
    if (kind === "currency") return catalogue.records.currency.get(id)?.worth ?? null;
    const of = catalogue.records.item.get(id);
    return figuresOf(model, id).value ?? (of ? soldFor(catalogue, of) : null);
  };
  const worth = odds?.things.reduce((t, o) => t + o.mean * (worthOf(o.thing) ?? 0), 0) ?? 0;
  // Whether it pays is the check's to say, which takes nothing apart to price what comes.
  const paid = judged.open.filter((f) => f.rule === "container-pays" && f.about.some((r) => r.id === item.id));
  // Rolls of what was opened before say nothing about this.
  const opened = `${item.id} ${way?.key} ${level}`;
  const rolled = work.told?.is === "rolled" && rolledOf === opened ? work.told.rolled : null;
  const nameOf = (thing: string) => {
    const { kind, id } = splitThing(thing);
    return catalogue.records[kind].get(id)?.name ?? id;
  };

  return (
    <div className="flex min-h-0 flex-1">
      <section
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
        tabIndex={0}
        aria-label="Item"
        className="w-[300px] shrink-0 space-y-3 overflow-auto border-r border-line bg-salt p-3.5"
      >
        {controls}
        <Labelled label="Item">
          <ItemInput
            label="Item to open or salvage"
            onTake={(id) => places.ask({ open: catalogue.records.item.get(id)?.key ?? null, way: null }, true)}
          />
        </Labelled>
        <ul className="space-y-1" aria-label="Items that can be opened or salvaged">
          {[...candidates].slice(0, 60).map((id) => (
            <li key={id} className={cx(id === item.id && "rounded-sm bg-pick")}>
              <Jar
                id={id}
                onOpen={() => places.ask({ open: catalogue.records.item.get(id)?.key ?? null, way: null }, true)}
              />
            </li>
          ))}
        </ul>
      </section>
      <section
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
        tabIndex={0}
        aria-label="Contents"
        className="min-w-0 flex-1 overflow-auto bg-salt px-4 pb-6"
      >
        <div className="flex flex-wrap items-end gap-3 pt-3">
          <h2 className="text-[17px]">{item.name}</h2>
          <ChoiceButtons
            label="Use or salvage"
            value={way?.key ?? ""}
            of={ways.map((w) => [w.key, w.name])}
            onPick={(key) => places.ask({ way: key }, true)}
          />
          <ChoiceButtons
            label="Shown as"
            className="ml-auto"
            value={asPlayer ? "player" : "designer"}
            of={[
              ["designer", "As a designer"],
              ["player", "As a player"],
            ]}
            onPick={(as) => setAsPlayer(as === "player")}
          />
        </div>
        {!way && <p className="pt-3 text-second">{item.name} can't be opened or salvaged.</p>}
        {way && !odds && (
          <p role="status" className="pt-3 text-second">
            {failed ? `The chances could not be computed: ${failed}` : "Computing the chances…"}
          </p>
        )}
        {odds && asPlayer && <PlayersView things={odds.things} nothing={odds.nothing} nameOf={nameOf} />}
        {odds && way && !asPlayer && (
          <>
            <p className="pt-3 text-[15px]">
              Its contents are worth <b>{sayCost(worth)}</b> on average; it costs <b>{sayCost(cost)}</b>.{" "}
              {odds.nothing > 0 ? `It is empty ${sayPercent(round(odds.nothing))} of the time.` : "It is never empty."}
            </p>
            {paid.length > 0 && <FindingLines findings={paid} className="rounded-sm bg-beet-wash px-2.5 py-1" />}
            <div className="flex flex-wrap items-end gap-3 py-2">
              <div className="w-24">
                <Labelled label="At least">
                  <NumberInput label="Minimum amount" value={wanted} least={1} most={1000} whole onDone={setWanted} />
                </Labelled>
              </div>
              <div className="w-24">
                <Labelled label="Seed">
                  <NumberInput label="Random seed" value={seed} least={0} most={2 ** 31 - 1} whole onDone={setSeed} />
                </Labelled>
              </div>
              <Button
                look="solid"
                disabled={work.busy}
                onClick={() => {
                  setRolledOf(opened);
                  work.start({ is: "roll", box: way.box, tables: [...tables], level, times: ROLLS, seed });
                }}
              >
                Roll 10,000 times
              </Button>
              {work.busy && (
                <>
                  <progress
                    max={ROLLS}
                    value={work.told?.is === "progress" ? work.told.done : 0}
                    aria-label="Rolls made"
                  />
                  <Button look="quiet" onClick={work.stop}>
                    Stop
                  </Button>
                </>
              )}
              {rolled && !work.busy && (
                <span className="text-second">
                  {sayQuantity(rolled.times)} rolls with seed {seed}
                  {rolled.times < ROLLS && ", the maximum"}
                </span>
              )}
            </div>
            <OddsTable things={odds.things} rolled={rolled} wanted={wanted} worthOf={worthOf} nameOf={nameOf} />
            {odds.untold.length > 0 && (
              <p className="pt-2 text-copper">
                Too many different amounts: {odds.untold.map(nameOf).join(", ")}. Roll to see approximate values.
              </p>
            )}
          </>
        )}
      </section>
    </div>
  );
}

/** The uses that draw and the salvages of an item, for a character or the maker of the pantry. */
function waysOf(
  catalogue: Catalogue,
  item: Item,
  subject: ReturnType<typeof useSubject>["subject"],
  level: number,
): OpeningWay[] {
  const reckoner = new Reckoner(catalogue);
  const body = subject ? new Body(reckoner, subject, [], () => 0, level) : null;
  const amount = (kept: string | null) =>
    kept === null ? 1 : body ? reckoner.get(kept, "use")({ user: body, target: body, item }) : Number(kept) || 0;
  const statOf = body ? (stat: Id) => body.stat(stat) : makerOf(catalogue);
  const uses = usesOf(catalogue, item).flatMap((use): OpeningWay[] => {
    const box = boxOfUse(use, (e) => amount(e.amount));
    const any = box.always.length + box.chances.length > 0;
    return any
      ? [
          {
            key: use.use.key,
            name: use.name,
            box,
            takes: use.fate === "used up" ? use.count : use.fate === "worn" ? 1 / use.count : 0,
          },
        ]
      : [];
  });
  const salvages = [...catalogue.records.recipe.values()].flatMap((recipe): OpeningWay[] => {
    const taken = recipe.lines.find((l) => l.role === "ingredient" && l.item === item.id);
    return recipe.kind === "salvage" && recipe.status !== "retired" && taken
      ? [
          {
            key: recipe.key,
            name: recipe.name,
            box: boxOfLines(linesFor(recipe.lines, statOf), recipe.tables),
            takes: taken.max,
          },
        ]
      : [];
  });
  return [...uses, ...salvages];
}

/** What a player is told before opening: things by how likely they are, without numbers of ours. */
function PlayersView({
  things,
  nothing,
  nameOf,
}: {
  readonly things: readonly ThingOdds[];
  readonly nothing: number;
  readonly nameOf: (thing: string) => string;
}) {
  const groups = [
    ["Certain", (p: number) => p >= 1 - 1e-12],
    ["Likely", (p: number) => p < 1 - 1e-12 && p >= 0.5],
    ["Possible", (p: number) => p < 0.5 && p >= 0.1],
    ["Rare", (p: number) => p < 0.1],
  ] as const;
  return (
    <div className="max-w-md space-y-3 pt-4">
      {groups.map(([label, fits]) => {
        const those = things.filter((o) => fits(o.any));
        return those.length ? (
          <div key={label}>
            <h3 className="head">{label}</h3>
            <p>
              {those
                .map((o) => `${nameOf(o.thing)}${o.low === o.high && o.high > 1 ? ` ×${sayQuantity(o.high)}` : ""}`)
                .join(", ")}
            </p>
          </div>
        ) : null;
      })}
      {nothing > 0 && <p className="text-second">It can also be empty.</p>}
    </div>
  );
}
