"use client";
/** Parts of the setup that are loaded when someone opens them. */
import dynamic from "next/dynamic";
import { orNotLoaded } from "../kit/not-loaded";

export const BundlePanel = dynamic(() => orNotLoaded(import("./bundle-panel").then((m) => m.BundlePanel)));
export const ClockButton = dynamic(() => orNotLoaded(import("./clock").then((m) => m.ClockButton)));
export const DeletePanel = dynamic(() => orNotLoaded(import("./delete-panel").then((m) => m.DeletePanel)));
export const TypeSheet = dynamic(() => orNotLoaded(import("./type-sheet").then((m) => m.TypeSheet)));
export const RetypeButton = dynamic(() => orNotLoaded(import("./retype").then((m) => m.RetypeButton)));
