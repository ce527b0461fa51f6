/** Readings in the words of tests: by the names of items and recipes. */
import { breakdown } from "../analysis/breakdown";
import type { Measure } from "../analysis/cost";
import type { Round } from "../analysis/rounds";
import type { Balance } from "../analysis/trade";
import { type Readings, readingsOf } from "../analysis/readings";
import type { Pantry } from "../kinds/index";
import { processAt } from "../network/compile";
import { show } from "../numbers/fraction";
import { item, kitchen } from "./kitchen";

export const read = (text: string, settings: Partial<Pantry> = {}): Readings => readingsOf(kitchen(text, settings));
export const at = (r: Readings, name: string): number => r.compiled.numberOf(item(r.catalogue, name).id) as number;
export const nameAt = (r: Readings, i: number): string =>
  r.catalogue.records.item.get(r.compiled.idOf(i) as never)?.name ?? "gone";
export const label = (r: Readings, p: number): string => processAt(r.compiled, p).record.name;
/** Numbers of all processes in use, and of all items. */
export const processesIn = ({ compiled }: Readings): number[] =>
  Array.from({ length: compiled.network.processes }, (_, p) => p).filter((p) => compiled.process(p));
export const itemsIn = ({ compiled }: Readings): number[] =>
  Array.from({ length: compiled.network.items }, (_, i) => i).filter((i) => compiled.idOf(i) !== null);
export const partsOf = (r: Readings, measure: Measure, name: string) =>
  breakdown(r[measure], (i) => r.chosen(measure, i), at(r, name));
export const processesOf = (round: Round): number[] =>
  round.runs.flatMap(({ step }) => (step.run === "process" ? [step.process] : []));

const thing = (r: Readings, t: Balance) => (t.of === "item" ? nameAt(r, t.item) : "money");
const runs = (r: Readings, round: Round) =>
  round.runs
    .map(
      ({ step, times }) =>
        `${times} ${step.run === "process" ? label(r, step.process) : `sell ${nameAt(r, step.item)}`}`,
    )
    .join(" + ");
/** "5 Smoke + 2 Render => 1 Salt" for every gaining loop. */
export const told = (r: Readings): string[] =>
  r.gain.gains.map((g) => `${runs(r, g)} => ${g.net.map((n) => `${show(n.amount)} ${thing(r, n.thing)}`).join(", ")}`);
/** "3 Split + 1 Lay" for every loop that comes out even. */
export const toldEven = (r: Readings): string[] => r.gain.even.map((e) => runs(r, e));
