"use client";
/**
 * What each view shows, loaded when it is opened. This stands in a module of the browser: what a module of the server
 * names is sent with every view.
 */
import dynamic from "next/dynamic";
import type { ComponentType } from "react";
import type { ViewName } from "./views";

const COMPONENTS: { readonly [N in ViewName]: ComponentType } = {
  setup: dynamic(() => import("./setup/view").then((m) => m.SetupView)),
  shelves: dynamic(() => import("./shelves/view").then((m) => m.ShelvesView)),
  recipes: dynamic(() => import("./recipes/view").then((m) => m.RecipesView)),
  chains: dynamic(() => import("./chains/view").then((m) => m.ChainsView)),
  checks: dynamic(() => import("./checks/view").then((m) => m.ChecksView)),
  costs: dynamic(() => import("./costs/view").then((m) => m.CostsView)),
  tasting: dynamic(() => import("./tasting/view").then((m) => m.TastingView)),
  log: dynamic(() => import("./log/view").then((m) => m.LogView)),
};

/** @param name  of a view that there is */
export function View({ name }: { readonly name: ViewName }) {
  const Component = COMPONENTS[name];
  return <Component />;
}
