/** Questions about a pantry's readings, answered alike by the server and by the worker of What-if. */
import { costByLevel } from "../analysis/cost-by-level";
import type { CostTrend } from "../analysis/cost-trend";
import { type Glance, glanceOf } from "../analysis/glance";
import { type ItemCosts, itemCosts } from "../analysis/item-costs";
import { type Origin, originsOf } from "../analysis/origins";
import { type AskedPlan, type PlanAnswer, writtenPlan } from "../analysis/plan-written";
import { madeFor, type RecipeCosts, recipeCosts } from "../analysis/recipe-costs";
import type { Edit } from "../catalogue/edit";
import { type Ask, type Chain, chainOf } from "../chains/chain";
import type { Node } from "../process/node";
import type { Id } from "../schema/id";
import type { Engine } from "./engine";

interface Of {
  readonly revision: number;
}

/** Each question with what is asked and what comes back; null: there is no such record. */
export interface EngineQuestions {
  costs: { question: { readonly item: Id }; answer: (ItemCosts & Of) | null };
  runs: { question: { readonly recipe: Id }; answer: (RecipeCosts & Of) | null };
  madeFor: {
    question: { readonly recipes: readonly Id[] };
    answer: Of & { readonly costs: readonly (readonly [Id, number | null])[] };
  };
  chain: { question: { readonly item: Node; readonly of: Ask }; answer: (Chain & Of) | null };
  glance: { question: object; answer: Glance & Of };
  plan: { question: { readonly of: AskedPlan }; answer: Of & { readonly plan: PlanAnswer } };
  /** What an item cost after each of these changes, and what it costs at each level. */
  costTrend: {
    question: {
      readonly item: Id;
      readonly changes: readonly { readonly revision: number; readonly edits: readonly string[] }[];
    };
    answer: CostTrend | null;
  };
  /** Where the cost of every item comes from. */
  origins: { question: object; answer: Of & { readonly origins: readonly Origin[]; readonly more: boolean } };
}
export type EngineAsk = keyof EngineQuestions;
type Answers = {
  readonly [Q in EngineAsk]: (of: Engine, question: EngineQuestions[Q]["question"]) => EngineQuestions[Q]["answer"];
};

const ANSWERS: Answers = {
  costs(of, { item }) {
    const costs = itemCosts(of.readings, item);
    return costs && { revision: of.revision, ...costs };
  },
  runs(of, { recipe }) {
    const runs = recipeCosts(of.readings, recipe);
    return runs && { revision: of.revision, ...runs };
  },
  madeFor: (of, { recipes }) => ({ revision: of.revision, costs: madeFor(of.readings, recipes) }),
  chain(of, { item, of: ask }) {
    const chain = chainOf(of.readings, item, ask);
    return chain && { revision: of.revision, ...chain };
  },
  glance: (of) => ({ revision: of.revision, ...glanceOf(of.readings) }),
  plan: (of, { of: ask }) => ({ revision: of.revision, plan: writtenPlan(of.readings, ask) }),
  costTrend(of, { item, changes: given }) {
    const { revision } = of;
    const number = of.readings.compiled.numberOf(item);
    if (number === undefined) return null;
    const { steps, more } = costByLevel(of.readings, number);
    const changes = given.flatMap((change) =>
      change.revision <= revision
        ? [{ revision: change.revision, edits: change.edits.flatMap((piece) => JSON.parse(piece) as Edit[]) }]
        : [],
    );
    return { revision, history: of.costHistory(item, changes), levels: steps, moreLevels: more };
  },
  origins: (of) => ({ revision: of.revision, ...originsOf(of.readings) }),
};

export const isEngineAsk = (ask: string): ask is EngineAsk => Object.hasOwn(ANSWERS, ask);
export const answerOf = <Q extends EngineAsk>(
  of: Engine,
  ask: Q,
  question: EngineQuestions[Q]["question"],
): EngineQuestions[Q]["answer"] => ANSWERS[ask](of, question);
