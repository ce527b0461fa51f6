/** All views, in the order of the rail. A new view is one entry here, its folder, and its line in view-components.tsx. */
import {
  Archive,
  BookOpenText,
  Coins,
  FlaskConical,
  History,
  ListChecks,
  type LucideIcon,
  SlidersHorizontal,
  Waypoints,
} from "lucide-react";
import type { Judged } from "@/core/checks/decisions";
import type { ReadModel } from "@/core/engine/read-model";
import type { Catalogue } from "@/core/catalogue/catalogue";
import type { Kind } from "@/core/kinds/index";

interface Shown {
  readonly catalogue: Catalogue;
  readonly model: ReadModel;
  readonly judged: Judged;
}

export interface ViewEntry {
  /** Last part of its address. */
  readonly name: string;
  readonly title: string;
  readonly icon: LucideIcon;
  /** Kinds of record that are opened here, with the query that opens the one of a key; null: any other kind. */
  readonly opens?: {
    readonly kinds: readonly Kind[] | null;
    query(kind: Kind, key: string): { readonly [name: string]: string };
  };
  /** Actions of the command field: what is asked of the view. */
  readonly commands?: readonly { readonly label: string; readonly query: { readonly [name: string]: string } }[];
  /** How much there is of what it shows. */
  count?(shown: Shown): number;
  /** How much of it wants attention. */
  badge?(shown: Shown): number;
}

export const VIEWS = [
  {
    name: "setup",
    title: "Setup",
    icon: SlidersHorizontal,
    opens: { kinds: null, query: (kind: Kind, key: string) => ({ kind, record: key }) },
  },
  {
    name: "shelves",
    title: "Shelves",
    icon: Archive,
    opens: {
      kinds: ["item", "view"],
      query: (kind: Kind, key: string): { readonly [name: string]: string } => ({ [kind]: key }),
    },
    commands: [{ label: "New item", query: { new: "1" } }],
    count: ({ catalogue }: Shown) => catalogue.records.item.size,
  },
  {
    name: "recipes",
    title: "Recipes",
    icon: BookOpenText,
    opens: { kinds: ["recipe"], query: (_: Kind, key: string) => ({ recipe: key }) },
    commands: [
      { label: "New recipe", query: { new: "1" } },
      { label: "Paste recipe lines", query: { paste: "1" } },
    ],
    count: ({ catalogue }: Shown) => catalogue.records.recipe.size,
  },
  {
    name: "chains",
    title: "Chains",
    icon: Waypoints,
  },
  {
    name: "checks",
    title: "Checks",
    icon: ListChecks,
    opens: { kinds: ["decision"], query: (_: Kind, key: string) => ({ show: "accepted", decision: key }) },
    badge: ({ judged }: Shown) => judged.open.filter((f) => f.severity === "error").length,
  },
  {
    name: "costs",
    title: "Costs",
    icon: Coins,
    opens: { kinds: ["scenario"], query: (_: Kind, key: string) => ({ view: "what-if", scenario: key }) },
    commands: [
      { label: "Plan a basket", query: { view: "plan" } },
      { label: "Try changes without making them", query: { view: "what-if" } },
    ],
  },
  {
    name: "tasting",
    title: "Tasting",
    icon: FlaskConical,
    opens: { kinds: ["trial"], query: (_: Kind, key: string) => ({ tab: "trials", trial: key }) },
    commands: [
      { label: "Try uses over time", query: { tab: "use" } },
      { label: "Try equipment", query: { tab: "wear" } },
      { label: "Open and salvage", query: { tab: "open" } },
      { label: "Fill a bag", query: { tab: "bag" } },
      { label: "Run the trials", query: { tab: "trials" } },
    ],
    badge: ({ judged }: Shown) => judged.open.filter((f) => f.rule === "trial-fails").length,
  },
  {
    name: "log",
    title: "Log",
    icon: History,
    opens: { kinds: ["point"], query: () => ({}) },
  },
] as const satisfies readonly ViewEntry[];

export type ViewName = (typeof VIEWS)[number]["name"];
export const ALL_VIEWS: readonly (ViewEntry & { readonly name: ViewName })[] = VIEWS;

/** The view in which records of a kind are opened. */
export const viewOf = (kind: Kind): (typeof ALL_VIEWS)[number] | undefined =>
  ALL_VIEWS.find((view) => view.opens?.kinds?.includes(kind)) ?? ALL_VIEWS.find((view) => view.opens?.kinds === null);

/** What a window says it shows. */
export const titleOf = (view: string, pantry: string | undefined): string =>
  [ALL_VIEWS.find(({ name }) => name === view)?.title, pantry, "Salty Pantry"].filter(Boolean).join(" – ");
export const NO_SUCH_PAGE = "No such page – Salty Pantry";
