/** A script of steps and the results they must have, run after every change that can affect it. */
import { formula } from "../formulas/field";
import { choice } from "../schema/choice";
import { duration } from "../schema/duration";
import { flag } from "../schema/flag";
import { list, maybe } from "../schema/group";
import { defineKind } from "../schema/kind";
import { MOST } from "../schema/limits";
import { number } from "../schema/number";
import { ref, refs } from "../schema/ref";
import { union } from "../schema/union";
import { note } from "./shared";

const times = number({ min: 1, max: 10_000, whole: true, initial: 1 });
/** A stack of the bag, or a slot, counted from 1. */
const place = number({ min: 1, max: 100_000, whole: true, initial: 1 });
const amount = number({ min: 0, max: MOST, initial: 1 });

/** Until when something may come to hold; time goes on until it does. */
const until = {
  within: maybe(duration({ told: true, help: "Longest wait from this step on, such as 1h." })),
  by: maybe(duration({ told: true, help: "Latest time since the trial began, such as 10m." })),
} as const;

export const STEPS = {
  wait: { ticks: duration({ bundled: "time" }) },
  be: { situation: ref("situation", { optional: true }) },
  use: { item: ref("item"), use: ref("use", { optional: true }), times },
  "use every": { item: ref("item"), use: ref("use", { optional: true }), every: duration() },
  "use whenever": { item: ref("item"), use: ref("use", { optional: true }) },
  stop: { item: ref("item") },
  harm: { resource: ref("resource"), amount: number({ min: -MOST, max: MOST }) },
  wear: { item: ref("item") },
  "take off": { item: ref("item") },
  get: { item: ref("item"), amount },
  drop: { item: ref("item"), amount },
  make: { recipe: ref("recipe"), times },
  "make item": { item: ref("item"), amount },
  buy: { item: ref("item"), amount, source: ref("source", { optional: true }) },
  sell: { item: ref("item"), amount, source: ref("source", { optional: true }) },
  split: { item: ref("item"), amount },
  merge: { item: ref("item") },
  run: { source: ref("source"), times },
  unload: {},
  swap: { one: place, other: place },
  move: { one: place, slot: place },
  expect: { when: choice(["now", "throughout"]), ...until },
  "expect item": { item: ref("item"), amount, where: choice(["in the bag", "stored", "anywhere"]), ...until },
  "expect condition": { condition: ref("condition"), absent: flag(), ...until },
} as const;
export type StepSort = keyof typeof STEPS;

export const trial = defineKind({
  name: "trial",
  section: "trials",
  help: "Scripts of steps and the results they must have, such as Salt home in one trip. Run after every change and by salty check.",
  fields: {
    subject: ref("subject", { optional: true, width: 120 }),
    steps: list(
      {
        does: union(STEPS, { is: "unload" }),
        /** The formula of a step that waits for something or expects something. */
        holds: formula("bearer"),
        refused: flag({ help: "The step must be refused, such as a second meal during its cooldown." }),
      },
      { most: 300, noun: "step", width: 320 },
    ),
    atHand: choice(["every station", "those named"], {
      label: "available stations",
      title: "Available stations",
      width: 122,
      words: { "every station": "all stations", "those named": "listed stations" },
      help: "Listed stations: only those listed, such as Smokehouse, and the ones in the bag.",
    }),
    stations: refs("item", { label: "listed stations", title: "Listed stations", width: 140 }),
    seed: number({ min: 0, max: 2 ** 31 - 1, whole: true, initial: 1, width: 70 }),
    note,
  },
});
