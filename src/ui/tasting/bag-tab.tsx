"use client";
/** Bag: give, gather, make, take apart, use, split, merge, drop; what was done can be kept as a trial. */
import { useMemo, useState } from "react";
import { around } from "@/core/catalogue/surroundings";
import { usesOf } from "@/core/catalogue/uses";
import { FreeKeys } from "@/core/editing/new-names";
import { type AnyRecord, type Trial, withDefaults } from "@/core/kinds/index";
import { formatStep, formatSteps, parseSteps } from "@/core/notation/trial-line";
import { sayQuantity } from "@/core/numbers/format";
import { formatTicks } from "@/core/numbers/ticks";
import { newId } from "@/core/schema/id";
import { makingProblem } from "@/core/trials/craft";
import { Play } from "@/core/trials/play";
import { does } from "@/core/trials/run";
import { slotOf } from "@/core/trials/worn";
import { Button, cx, Empty, Jar } from "../kit/kit";
import { NameInput } from "../kit/name-input";
import { useLive, useStore } from "../pantry/provider";
import { usePlaces } from "../frame/navigate";
import { ItemInput, Labelled, NumberInput, useSubject } from "./parts";

type Step = Trial["steps"][number];
interface Done {
  readonly step: Step;
  readonly says: string | null;
}

export function BagTab() {
  const { catalogue } = useLive();
  const store = useStore();
  const places = usePlaces();
  const { subject, controls } = useSubject();
  const [steps, setSteps] = useState<readonly Step[]>([]);
  const [moves, setMoves] = useState<readonly (readonly [number, "split" | "merge", number])[]>([]);
  const [amount, setAmount] = useState(1);
  const [typed, setTyped] = useState("");
  const [fault, setFault] = useState("");
  const [kept, setKept] = useState("");
  const here = around(catalogue);
  // Everything anew from the beginning: a bag is what its steps made of it.
  const { play, done } = useMemo(() => {
    const play = subject && new Play(catalogue, { subject, supplied: true });
    const done: Done[] = [];
    if (!play) return { play: null, done };
    play.advance(0);
    const shuffle = (after: number) => {
      for (const [at, how, stack] of moves)
        if (at === after) {
          const item = play.bag.stacks[stack]?.item;
          if (how === "merge" && item) play.bag.merge(item);
          else if (how === "split") play.bag.split(stack, Math.floor((play.bag.stacks[stack]?.count ?? 0) / 2));
        }
    };
    shuffle(0);
    for (const [k, step] of steps.entries()) {
      const outcome = does(play, step, () => undefined);
      done.push({ step, says: outcome.ok ? null : outcome.says });
      shuffle(k + 1);
    }
    return { play, done };
  }, [catalogue, subject, steps, moves]);
  if (!subject || !play)
    return (
      <Empty title="Nobody with a bag yet">
        Make a subject in Setup: a character with bag slots and what it can carry.
      </Empty>
    );
  const act = (step: Step["does"]) => setSteps([...steps, { does: step, holds: null, refused: false }]);
  const { bag } = play;
  const recipes = [...catalogue.records.recipe.values()].filter((r) => r.status !== "retired");
  const possible = recipes.filter((r) => makingProblem(play, r) === null);
  const sources = [...catalogue.records.source.values()];
  const type = () => {
    const { steps: read, issues } = parseSteps(typed, here);
    if (!read) return setFault(issues[0]?.message ?? "");
    setSteps([...steps, ...(read as Step[])]);
    setTyped("");
    setFault("");
  };
  const keep = async () => {
    const name = kept.trim() || `${subject.name}: what was done`;
    // What was refused is expected to be.
    const said = done.map(({ step, says }) => (says === null ? step : { ...step, refused: true }));
    const record = withDefaults("trial", {
      id: newId(),
      key: new FreeKeys(catalogue).next("trial", name),
      name,
      subject: subject.id,
      steps: said,
    });
    const answer = await store.submit([{ op: "add", kind: "trial", record: record as AnyRecord }]);
    if (answer.ok) places.ask({ tab: "trials", trial: record.key }, true);
  };
  const { slots, mass } = bag.load;
  return (
    <div className="flex min-h-0 flex-1">
      <section
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
        tabIndex={0}
        aria-label="What to do"
        className="w-[330px] shrink-0 space-y-3 overflow-auto border-r border-line bg-salt p-3.5"
      >
        {controls}
        <div className="grid grid-cols-[64px_1fr] gap-2">
          <Labelled label="How many">
            <NumberInput label="How many" value={amount} least={1} most={1e9} whole onDone={setAmount} />
          </Labelled>
          <Labelled label="Give">
            <ItemInput label="Item to give" onTake={(item) => act({ is: "get", item, amount })} />
          </Labelled>
        </div>
        <Named
          label="Gather or buy"
          names={sources.map((s) => s.name)}
          onTake={(name) => {
            const source = sources.find((s) => s.name === name);
            if (source) act({ is: "run", source: source.id, times: Math.min(amount, 10_000) });
          }}
        />
        <Named
          label="Make or take apart"
          names={recipes.map((r) => r.name)}
          onTake={(name) => {
            const recipe = recipes.find((r) => r.name === name);
            if (recipe) act({ is: "make", recipe: recipe.id, times: Math.min(amount, 10_000) });
          }}
        />
        {possible.length > 0 && (
          <div>
            <h2 className="head pb-1">Can be made now</h2>
            <div className="flex flex-wrap gap-1">
              {possible.slice(0, 24).map((r) => (
                <Button key={r.id} onClick={() => act({ is: "make", recipe: r.id, times: 1 })}>
                  {r.name}
                </Button>
              ))}
            </div>
          </div>
        )}
        <Labelled label="Or as a line">
          <input
            aria-label="Step as a line"
            className="field"
            placeholder="use Smoked eel, wait 30s, unload"
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            onKeyDown={(e) => e.key === "Enter" && type()}
          />
        </Labelled>
        {fault && (
          <p role="alert" className="text-[12px] text-beet">
            {fault}
          </p>
        )}
        <div className="flex flex-wrap gap-1.5">
          <Button onClick={() => act({ is: "unload" })}>Carry it home</Button>
          <Button disabled={!steps.length} onClick={() => setSteps(steps.slice(0, -1))}>
            Take back the last
          </Button>
          <Button
            disabled={!steps.length}
            onClick={() => {
              setSteps([]);
              setMoves([]);
            }}
          >
            Begin again
          </Button>
        </div>
      </section>
      <section
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
        tabIndex={0}
        aria-label="The bag"
        className="min-w-0 flex-1 overflow-auto bg-salt px-4 pb-6"
      >
        <div className="flex flex-wrap items-center gap-x-5 gap-y-1 pt-3">
          <Gauge label="Slots" value={slots} most={bag.limits.slots} />
          <Gauge label="Carries" value={mass} most={bag.limits.mass} unit=" kg" />
          <span className="text-second">
            {[...bag.money]
              .filter(([, n]) => n > 0)
              .map(([id, n]) => `${sayQuantity(n)} ${catalogue.records.currency.get(id)?.name}`)
              .join(", ") || "no money"}
            , after {formatTicks(play.tick, catalogue.pantry.ticksPerSecond)}
          </span>
        </div>
        <ul aria-label="Stacks" className="grid grid-cols-[repeat(auto-fill,minmax(190px,1fr))] gap-1.5 pt-3">
          {bag.stacks.map((stack, k) => {
            const item = catalogue.records.item.get(stack.item);
            const uses = item ? usesOf(catalogue, item) : [];
            return (
              <li key={k} className="rounded-sm border border-hair bg-shade p-1.5">
                <Jar
                  id={stack.item}
                  amount={
                    stack.slots > 1
                      ? `${sayQuantity(stack.slots)} × ${sayQuantity(stack.count)}`
                      : sayQuantity(stack.count)
                  }
                  onOpen={places.openItem}
                />
                <span className="flex flex-wrap pt-0.5 [&_button]:h-6 [&_button]:px-1.5">
                  {uses.slice(0, 2).map((u) => (
                    <Button
                      key={u.use.id}
                      look="quiet"
                      onClick={() => act({ is: "use", item: stack.item, use: u.use.id, times: 1 })}
                    >
                      {u.name}
                    </Button>
                  ))}
                  {item && slotOf(catalogue, item) !== null && (
                    <Button look="quiet" onClick={() => act({ is: "wear", item: stack.item })}>
                      Wear
                    </Button>
                  )}
                  <Button
                    look="quiet"
                    disabled={stack.count < 2}
                    onClick={() => setMoves([...moves, [steps.length, "split", k]])}
                  >
                    Split
                  </Button>
                  <Button
                    look="quiet"
                    disabled={!bag.stacks.some((other, n) => n !== k && other.item === stack.item)}
                    onClick={() => setMoves([...moves, [steps.length, "merge", k]])}
                  >
                    Merge
                  </Button>
                  <Button
                    look="quiet"
                    onClick={() => act({ is: "drop", item: stack.item, amount: Math.min(amount, stack.count) })}
                  >
                    Drop
                  </Button>
                </span>
              </li>
            );
          })}
          {bag.stacks.length === 0 && <li className="text-second">The bag is empty. Give something on the left.</li>}
        </ul>
        {play.user.worn.length > 0 && (
          <p className="flex flex-wrap items-center gap-1.5 pt-3">
            <span className="head">Worn</span>
            {play.user.worn.map((item) => (
              <Jar key={item.id} id={item.id} onOpen={() => act({ is: "take off", item: item.id })} />
            ))}
          </p>
        )}
        {bag.stored.size > 0 && (
          <p className="flex flex-wrap items-center gap-1.5 pt-3">
            <span className="head">Stored</span>
            {[...bag.stored].map(([id, n]) => (
              <Jar key={id} id={id} amount={sayQuantity(n)} />
            ))}
          </p>
        )}
        <h2 className="head pt-5 pb-1">What was done</h2>
        {done.length === 0 && (
          <p className="text-second">Nothing yet. Each step stands here, with why it was refused if it was.</p>
        )}
        <ol className="space-y-0.5">
          {done.map(({ step, says }, k) => (
            <li key={k} className={cx("flex gap-3", says && "text-beet")}>
              <span className="w-6 text-right text-second tabular-nums">{k + 1}</span>
              <code className="font-medium">{formatStep(step as never, here)}</code>
              {says && <span>{says}</span>}
            </li>
          ))}
        </ol>
        {done.length > 0 && (
          <div className="flex items-center gap-1.5 pt-3">
            <input
              aria-label="Name of the trial"
              className="field w-72!"
              placeholder="Name of the trial"
              value={kept}
              onChange={(e) => setKept(e.target.value)}
            />
            <Button look="solid" onClick={() => void keep()}>
              Keep as a trial
            </Button>
            <Button look="quiet" onClick={() => void navigator.clipboard?.writeText(formatSteps(steps as never, here))}>
              Copy as text
            </Button>
          </div>
        )}
      </section>
    </div>
  );
}

function Named({
  label,
  names,
  onTake,
}: {
  readonly label: string;
  readonly names: readonly string[];
  readonly onTake: (name: string) => void;
}) {
  return (
    <Labelled label={label}>
      <NameInput
        label={label}
        value=""
        names={names}
        placeholder="Name"
        clearAfter
        onDone={(name) => name && onTake(names.find((n) => n.toLowerCase() === name.toLowerCase()) ?? name)}
      />
    </Labelled>
  );
}

function Gauge({
  label,
  value,
  most,
  unit = "",
}: {
  readonly label: string;
  readonly value: number;
  readonly most: number | null;
  readonly unit?: string;
}) {
  const share = most ? Math.min(1, value / most) : 0;
  return (
    <span className="flex items-center gap-2">
      <span className="head">{label}</span>
      <span className="inline-block h-2 w-28 rounded-sm bg-hair">
        <span
          className={cx("block h-full rounded-sm", share > 0.95 ? "bg-copper" : "bg-kelp")}
          style={{ width: `${share * 100}%` }}
        />
      </span>
      <span className="tabular-nums">
        {sayQuantity(Math.round(value * 100) / 100)}
        {most === null ? "" : ` of ${sayQuantity(most)}`}
        {unit}
      </span>
    </span>
  );
}
