"use client";
/** Parts of the recipes that are loaded when someone opens them. */
import dynamic from "next/dynamic";

export const Matrix = dynamic(() => import("./matrix").then((m) => m.Matrix));
export const PasteLines = dynamic(() => import("./paste").then((m) => m.PasteLines));
export const SuggestSalvage = dynamic(() => import("./suggest").then((m) => m.SuggestSalvage));
export const RecipePanel = dynamic(() => import("./recipe-panel").then((m) => m.RecipePanel));
