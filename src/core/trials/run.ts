/** Runs a trial: its steps one after the other, and what must hold. */
import { Budget } from "../budget/budget";
import type { Catalogue } from "../catalogue/catalogue";
import { around } from "../catalogue/surroundings";
import { writeFormula } from "../formulas/field";
import type { Trial } from "../kinds/index";
import { sayQuantity } from "../numbers/format";
import { formatTicks } from "../numbers/ticks";
import type { Id } from "../schema/id";
import { make, makeItem, run } from "./craft";
import { type Goal, type StepResult, Play, type Watch } from "./play";
import { buy, sellBack } from "./shop";

type TrialStep = Trial["steps"][number];
export interface StepRun {
  /** Ticks at which it ended. */
  readonly tick: number;
  /** Ticks that it took. */
  readonly took: number;
  readonly ok: boolean;
  /** Why not, or what it came to; "" where there is nothing to say. */
  readonly message: string;
}
export interface TrialRun {
  readonly ok: boolean;
  /** Up to the first that failed. */
  readonly steps: readonly StepRun[];
  /** The step that failed, or at which it was stopped; -1: none did. */
  readonly failed: number;
  readonly message: string;
  /** True where it needs more steps than it may take: then it is not known whether it holds. */
  readonly stopped: boolean;
  readonly play: Play | null;
}
const OK: StepResult = { ok: true };
const no = (message: string): StepResult => ({ ok: false, message });

/** Steps that one trial may take, some tenths of a second. */
export const TRIAL_STEPS = 2_000_000;

export function runTrial(
  catalogue: Catalogue,
  trial: Pick<Trial, "subject" | "steps" | "seed"> & Partial<Pick<Trial, "atHand" | "stations">>,
  budget = new Budget(TRIAL_STEPS),
): TrialRun {
  const subject = trial.subject === null ? undefined : catalogue.records.subject.get(trial.subject);
  if (!subject)
    return {
      ok: false,
      steps: [],
      failed: -1,
      message: "It has no test character. Choose one.",
      stopped: false,
      play: null,
    };
  const stations = trial.atHand === "those named" ? new Set(trial.stations ?? []) : null;
  const play = new Play(catalogue, { subject, seed: trial.seed, supplied: true, budget, stations });
  const nothing = { steps: [], failed: -1, stopped: false, play };
  if (!trial.steps.length)
    return { ...nothing, ok: false, message: "It has no steps yet. Add steps and the results you expect." };
  const steps: StepRun[] = [];
  const watches: { readonly step: number; readonly watch: Watch }[] = [];
  const fail = (failed: number, message: string): TrialRun => ({
    ok: false,
    steps,
    failed,
    message,
    stopped: play.halted !== null,
    play,
  });
  play.within(() => play.advance(0));
  for (const [k, step] of trial.steps.entries()) {
    const began = play.tick;
    const outcome = does(play, step, (watch) => watches.push({ step: k, watch }));
    const broken = watches.find(({ watch }) => watch.broken !== null);
    if (play.halted) return fail(k, play.halted);
    if (broken) {
      const message = brokenSays(play, broken.watch);
      steps.push({ tick: play.tick, took: play.tick - began, ok: false, message });
      return fail(broken.step, message);
    }
    const expects = step.does.is.startsWith("expect");
    const ok = outcome.ok !== (step.refused && !expects);
    const message = outcome.ok ? (step.refused ? "It should have been refused, but wasn't." : "") : outcome.message;
    steps.push({ tick: play.tick, took: play.tick - began, ok, message });
    if (!ok) return fail(k, message);
  }
  play.finish();
  return { ok: true, steps, failed: -1, message: "", stopped: false, play };
}

function brokenSays(play: Play, { holds, broken }: Watch): string {
  const text = writeFormula(holds, "bearer", around(play.catalogue));
  return `${text} wasn't true at ${formatTicks(broken ?? 0, play.catalogue.pantry.ticksPerSecond)}.`;
}

/** One step; what must hold all the time is handed over to be watched. Where the budget is used up the play is halted. */
export const does = (play: Play, step: TrialStep, watch: (watch: Watch) => void): StepResult =>
  play.within(() => {
    const outcome = carryOut(play, step, watch);
    play.carry();
    return outcome;
  }) ?? no(play.halted ?? "");

function carryOut(play: Play, { does: step, holds }: TrialStep, watch: (watch: Watch) => void): StepResult {
  const { catalogue, bag } = play;
  const { records } = catalogue;
  const many = (times: number, one: () => StepResult): StepResult => {
    for (let n = 0; n < times; n++) {
      play.budget.take(1);
      const outcome = one();
      if (!outcome.ok) return times === 1 ? outcome : no(`${outcome.message} (${n + 1} of ${times})`);
    }
    return OK;
  };
  switch (step.is) {
    case "wait":
      play.advance(play.tick + step.ticks);
      return OK;
    case "be":
      play.be(step.situation);
      return OK;
    case "use":
      return many(step.times, () => play.use(step.item, step.use));
    case "use every":
      return play.plan({ item: step.item, use: step.use, rule: { is: "every", ticks: step.every, from: play.tick } });
    case "use whenever": {
      const rule = holds === null ? ({ is: "ready" } as const) : ({ is: "whenever", holds } as const);
      return play.plan({ item: step.item, use: step.use, rule });
    }
    case "stop":
      play.stop(step.item);
      return OK;
    case "harm":
      play.harm(step.resource, step.amount);
      play.advance(play.tick);
      return OK;
    case "wear":
      return play.wear(step.item);
    case "take off":
      return play.takeOff(step.item);
    case "get": {
      const put = bag.put(step.item, step.amount, play.owned(step.item) - bag.count(step.item));
      return put.refused > 0 ? no(put.message) : OK;
    }
    case "drop": {
      const item = records.item.get(step.item);
      return bag.take(step.item, step.amount)
        ? OK
        : no(`There are ${sayQuantity(bag.count(step.item))} ${item?.name ?? ""} in the bag.`);
    }
    case "make": {
      const recipe = records.recipe.get(step.recipe);
      return recipe ? many(step.times, () => make(play, recipe)) : no("There is no such recipe.");
    }
    case "make item":
      return makeItem(play, step.item, step.amount);
    case "buy":
    case "sell": {
      const shop = step.source === null ? null : (records.source.get(step.source) ?? null);
      return (step.is === "buy" ? buy : sellBack)(play, step.item, step.amount, shop);
    }
    case "split": {
      const message = bag.splitOff(step.item, step.amount);
      return message === null ? OK : no(message);
    }
    case "merge":
      bag.merge(step.item);
      return OK;
    case "run": {
      const source = records.source.get(step.source);
      return source ? many(step.times, () => run(play, source)) : no("There is no such source.");
    }
    case "unload":
      bag.unload();
      return OK;
    case "swap": {
      const message = bag.swap(step.one - 1, step.other - 1);
      return message === null ? OK : no(message);
    }
    case "move": {
      const message = bag.move(step.one - 1, step.slot);
      return message === null ? OK : no(message);
    }
    case "expect": {
      if (holds === null) return no("The expectation is empty.");
      const text = writeFormula(holds, "bearer", around(catalogue));
      const late = untilHolds(play, step, play.goalOf(holds));
      if (late !== null) return no(`${text} ${late}${valuesIn(play, holds)}.`);
      if (step.when === "throughout") watch(play.watch(holds));
      return OK;
    }
    case "expect item": {
      const there = () => {
        const stored = bag.stored.get(step.item) ?? 0;
        return step.where === "in the bag"
          ? bag.count(step.item)
          : step.where === "stored"
            ? stored
            : play.owned(step.item) + stored;
      };
      const name = records.item.get(step.item)?.name ?? "";
      const late = untilHolds(play, step, { of: null, holds: () => there() + 1e-9 >= step.amount });
      if (late === null) return OK;
      const wanted = `not ${sayQuantity(step.amount)}${late === NOW ? "" : `: it ${late}`}`;
      return no(`There are ${sayQuantity(there())} ${name} ${step.where}, ${wanted}.`);
    }
    case "expect condition": {
      const name = records.condition.get(step.condition)?.name ?? "";
      const late = untilHolds(play, step, { of: null, holds: () => play.user.has(step.condition) !== step.absent });
      if (late === null) return OK;
      const is = step.absent ? `The condition ${name} is active` : `The condition ${name} isn't active`;
      return no(`${is}${late === NOW ? "" : `: it ${late}`}.`);
    }
  }
}

const NOW = "isn't true";
/** Time goes on for as long as a step gives it until something holds. @returns null where it does, else how it does not */
function untilHolds(
  play: Play,
  { within, by }: { readonly within?: number; readonly by?: number },
  goal: Goal,
): string | null {
  const say = (ticks: number) => formatTicks(ticks, play.catalogue.pantry.ticksPerSecond);
  if (by !== undefined && play.tick > by) return `had to be true by ${say(by)}, but it is already ${say(play.tick)}`;
  const last = Math.min(play.tick + (within ?? Infinity), by ?? Infinity);
  if (last === Infinity) return goal.holds() ? null : NOW;
  if (play.until(goal, last)) return null;
  return within === undefined ? `wasn't true by ${say(last)}` : `wasn't true within ${say(within)}`;
}

/** What the names in a formula stand at, in words: ": Vigour is 7.5". */
function valuesIn(play: Play, holds: string): string {
  const { catalogue, user } = play;
  const seen = [...holds.matchAll(/"(?:most )?(stat|resource):([0-9a-z]{12})"/g)].map(([token, kind, id]) => {
    const of = id as Id;
    const value = kind === "stat" ? user.stat(of) : token.startsWith('"most') ? user.most(of) : user.resource(of);
    const name = catalogue.records[kind as "stat" | "resource"].get(of)?.name ?? id;
    return `${token.startsWith('"most') ? "most " : ""}${name} is ${sayQuantity(value)}`;
  });
  return seen.length ? `: ${[...new Set(seen)].join(", ")}` : "";
}
