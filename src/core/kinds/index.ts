/**
 * Every kind of record, in the order of dependence: none refers to one behind it but for itself, for the vessels and
 * ashes of types, and for what the
 * designers' own fields link to, for formulas, and for what conditions prevent.
 */
import type { Id } from "../schema/id";
import type { EditedKinds } from "../schema/edits";
import type { Kind as AnyKind, RecordOf as RecordOfFields } from "../schema/kind";
import { cooldown } from "./cooldown";
import { currency } from "./currency";
import { decisionAbout } from "./decision";
import { field } from "./field";
import { item } from "./item";
import { mapping } from "./mapping";
import { pantry } from "./pantry";
import { payback } from "./payback";
import { point } from "./point";
import { rarity } from "./rarity";
import { recipe } from "./recipe";
import { scenarioOver } from "./scenario";
import { series } from "./series";
import { severity } from "./severity";
import { situation } from "./situation";
import { slot } from "./slot";
import { source } from "./source";
import { stat } from "./stat";
import { tag } from "./tag";
import { type } from "./type";
import { view } from "./view";
import { condition } from "./condition";
import { constant } from "./constant";
import { exclusion } from "./exclusion";
import { resource } from "./resource";
import { signal } from "./signal";
import { subject } from "./subject";
import { table } from "./table";
import { trial } from "./trial";
import { use } from "./use";
import { wordlist } from "./wordlist";

/** Kinds that findings may be about. */
const CONTENT = {
  currency,
  rarity,
  stat,
  tag,
  slot,
  cooldown,
  situation,
  field,
  constant,
  resource,
  signal,
  exclusion,
  type,
  item,
  recipe,
  payback,
  table,
  source,
  condition,
  use,
  subject,
  trial,
  wordlist,
  series,
  view,
  mapping,
  severity,
  point,
} as const;
/** Kinds that scenarios may change: all but scenarios. */
const EDITED: EditedKinds = {
  names: (): readonly string[] => KINDS.filter((kind) => kind !== "scenario"),
  definition: (name: string): AnyKind => definition(name as Subject),
};
export const DEFINITIONS = {
  ...CONTENT,
  decision: decisionAbout(Object.keys(CONTENT)),
  scenario: scenarioOver(EDITED),
} as const;
export type Kind = keyof typeof DEFINITIONS;
export const KINDS = Object.keys(DEFINITIONS) as readonly Kind[];

type FieldsOf<D> = D extends AnyKind<string, infer F> ? F : never;
type Recorded = { readonly [K in Kind]: RecordOfFields<FieldsOf<(typeof DEFINITIONS)[K]>> };
export type RecordOf<K extends Kind> = Recorded[K];
export type AnyRecord = Recorded[Kind];

export type Currency = RecordOf<"currency">;
export type Rarity = RecordOf<"rarity">;
export type Stat = RecordOf<"stat">;
export type Tag = RecordOf<"tag">;
export type ItemType = RecordOf<"type">;
export type OwnField = RecordOf<"field">;
export type Item = RecordOf<"item">;
export type Recipe = RecordOf<"recipe">;
export type Source = RecordOf<"source">;
export type Resource = RecordOf<"resource">;
export type Condition = RecordOf<"condition">;
export type ChanceTable = RecordOf<"table">;
export type Use = RecordOf<"use">;
export type TrialSubject = RecordOf<"subject">;
export type Payback = RecordOf<"payback">;
export type Trial = RecordOf<"trial">;
export type Decision = RecordOf<"decision">;
export type Scenario = RecordOf<"scenario">;
export type Pantry = RecordOfFields<FieldsOf<typeof pantry>>;

/** What edits may name: a kind, or the settings of the pantry itself. */
export type Subject = Kind | "pantry";
export const PANTRY = pantry;
export const definition = (kind: Subject): AnyKind =>
  (kind === "pantry" ? PANTRY : DEFINITIONS[kind]) as unknown as AnyKind;
export const isKind = (name: unknown): name is Kind => typeof name === "string" && Object.hasOwn(DEFINITIONS, name);

export { aKind, kindWord } from "../schema/kind-word";

/** Every field of a kind as a new record has it, but key and name. */
export const defaultsOf = (kind: Subject): object => definition(kind).defaults;

type Given<K extends Kind> = { readonly id: Id; readonly key: string; readonly name: string } & Partial<RecordOf<K>>;
/** A record that has what is given, and in every other field what a new record has. */
export const withDefaults = <K extends Kind>(kind: K, given: Given<K>): RecordOf<K> =>
  ({ ...defaultsOf(kind), ...given }) as unknown as RecordOf<K>;

/** Fills in what a record from an older log does not say yet. */
export const completed = <K extends Kind>(kind: K, record: RecordOf<K>): RecordOf<K> =>
  Object.keys(defaultsOf(kind)).every((field) => field in record) ? record : withDefaults(kind, record as Given<K>);

export const PANTRY_DEFAULTS = PANTRY.defaults;
