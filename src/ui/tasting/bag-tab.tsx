"use client";
/** Bag: give, gather, buy, make, use, wear, split and drop; each step says what it changed, and all of it can be kept as a trial. */
import { useMemo, useState } from "react";
import { around } from "@/core/catalogue/surroundings";
import { FreeKeys } from "@/core/editing/new-names";
import { type AnyRecord, type Trial, withDefaults } from "@/core/kinds/index";
import { formatStep, formatSteps, parseSteps } from "@/core/notation/trial-line";
import { type Id, newId } from "@/core/schema/id";
import { type Change, changesBetween, sayChange, stateOf } from "@/core/trials/changes";
import { makingProblem } from "@/core/trials/craft";
import { Play } from "@/core/trials/play";
import { does } from "@/core/trials/run";
import { Button, cx } from "../kit/kit";
import { NoCharacters } from "./no-characters";
import { NameInput } from "../kit/name-input";
import { useLive, useStore } from "../pantry/provider";
import { usePlaces } from "../frame/navigate";
import { BagView, Condition } from "./bag-view";
import { ItemInput, Labelled, NumberInput, useSubject } from "./parts";
import { StationsAtHand } from "./stations-at-hand";

type TrialStep = Trial["steps"][number];
interface Done {
  readonly step: TrialStep;
  /** Why it was refused; null: it was not. */
  readonly message: string | null;
  readonly changes: readonly Change[];
}

export function BagTab() {
  const { catalogue } = useLive();
  const store = useStore();
  const places = usePlaces();
  const { subject, controls } = useSubject();
  // What another view asks to be tried is done at once.
  const [steps, setSteps] = useState<readonly TrialStep[]>(
    () => (parseSteps(places.query.get("do") ?? "", around(catalogue)).steps ?? []) as readonly TrialStep[],
  );
  const [stations, setStations] = useState<readonly Id[] | null>(null);
  const [amount, setAmount] = useState(1);
  const [typed, setTyped] = useState("");
  const [fault, setFault] = useState("");
  const [kept, setKept] = useState("");
  const here = around(catalogue);
  // Everything again from the beginning: a bag is what its steps made of it.
  const { play, done } = useMemo(() => {
    const play = subject && new Play(catalogue, { subject, supplied: true, stations: stations && new Set(stations) });
    const done: Done[] = [];
    if (!play) return { play: null, done };
    play.advance(0);
    let before = stateOf(play);
    for (const step of steps) {
      const outcome = does(play, step, () => undefined);
      const after = stateOf(play);
      done.push({ step, message: outcome.ok ? null : outcome.message, changes: changesBetween(before, after) });
      before = after;
    }
    return { play, done };
  }, [catalogue, subject, steps, stations]);
  if (!subject || !play) return <NoCharacters />;
  const act = (step: TrialStep["does"]) => setSteps([...steps, { does: step, holds: null, refused: false }]);
  const recipes = [...catalogue.records.recipe.values()].filter((r) => r.status !== "retired");
  const possible = recipes.filter((r) => makingProblem(play, r) === null);
  const sources = [...catalogue.records.source.values()];
  const sold = new Set(sources.flatMap((s) => s.wares.map((w) => w.item)));
  const type = () => {
    const { steps: read, issues } = parseSteps(typed, here);
    if (!read) return setFault(issues[0]?.message ?? "");
    setSteps([...steps, ...(read as TrialStep[])]);
    setTyped("");
    setFault("");
  };
  const keep = async () => {
    const name = kept.trim() || `${subject.name}: history`;
    // What was refused is expected to be.
    const said = done.map(({ step, message }) => (message === null ? step : { ...step, refused: true }));
    const record = withDefaults("trial", {
      id: newId(),
      key: new FreeKeys(catalogue).next("trial", name),
      name,
      subject: subject.id,
      steps: said,
      ...(stations ? { atHand: "those named", stations } : {}),
    });
    const answer = await store.submit([{ op: "add", kind: "trial", record: record as AnyRecord }]);
    if (answer.ok) places.ask({ tab: "trials", trial: record.key }, true);
  };
  return (
    <div className="flex min-h-0 flex-1">
      <section
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
        tabIndex={0}
        aria-label="Actions"
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
        <LabelledRow
          label="Gather"
          names={sources.map((s) => s.name)}
          onTake={(name) => {
            const source = sources.find((s) => s.name === name);
            if (source) act({ is: "run", source: source.id, times: Math.min(amount, 10_000) });
          }}
        />
        <Labelled label="Buy">
          <ItemInput
            label="Item to buy"
            among={sold}
            onTake={(item) => act({ is: "buy", item, amount, source: null })}
          />
        </Labelled>
        <LabelledRow
          label="Craft or salvage"
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
        <StationsAtHand stations={stations} onStations={setStations} />
        <Labelled label="Or type a step">
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
          <Button onClick={() => act({ is: "unload" })}>Unload at home</Button>
          <Button disabled={!steps.length} onClick={() => setSteps(steps.slice(0, -1))}>
            Undo last step
          </Button>
          <Button disabled={!steps.length} onClick={() => setSteps([])}>
            Start over
          </Button>
        </div>
      </section>
      <section
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
        tabIndex={0}
        aria-label="The bag"
        className="min-w-0 flex-1 overflow-auto bg-salt px-4 pb-6"
      >
        <div className="flex gap-6">
          <div className="min-w-0 flex-1">
            <BagView play={play} amount={amount} act={act} />
          </div>
          <Condition play={play} />
        </div>
        <h2 className="head pt-5 pb-1">History</h2>
        {done.length === 0 && (
          <p className="text-second">No steps yet. Each step appears here, with the reason if it was refused.</p>
        )}
        <ol className="space-y-0.5">
          {done.map(({ step, message, changes }, k) => (
            <li key={k} className="flex gap-3">
              <span className="w-6 shrink-0 text-right text-second tabular-nums">{k + 1}</span>
              <span>
                <code className={cx("font-medium", message && "text-beet")}>{formatStep(step as never, here)}</code>
                {message && <span className="pl-3 text-beet">{message}</span>}
                {changes.length > 0 && (
                  <span className="pl-3 text-second">
                    {changes
                      .slice(0, 12)
                      .map((c) => sayChange(catalogue, c))
                      .join(", ")}
                    {changes.length > 12 && ` and ${changes.length - 12} more`}
                  </span>
                )}
              </span>
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
              Save as a trial
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

function LabelledRow({
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
