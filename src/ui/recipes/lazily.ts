"use client";
/** Parts of the recipes that are loaded when someone opens them. */
import dynamic from "next/dynamic";
import { orNotLoaded } from "../kit/not-loaded";

export const Matrix = dynamic(() => orNotLoaded(import("./matrix").then((m) => m.Matrix)));
export const PasteLines = dynamic(() => orNotLoaded(import("./paste").then((m) => m.PasteLines)));
export const SuggestSalvage = dynamic(() => orNotLoaded(import("./suggest").then((m) => m.SuggestSalvage)));
export const RecipePanel = dynamic(() => orNotLoaded(import("./recipe-panel").then((m) => m.RecipePanel)));
