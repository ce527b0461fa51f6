"use client";
/** Parts of the setup that are loaded when someone opens them. */
import dynamic from "next/dynamic";

export const BundlePanel = dynamic(() => import("./bundle-panel").then((m) => m.BundlePanel));
export const ClockButton = dynamic(() => import("./clock").then((m) => m.ClockButton));
export const DeletePanel = dynamic(() => import("./delete-panel").then((m) => m.DeletePanel));
export const TypeSheet = dynamic(() => import("./type-sheet").then((m) => m.TypeSheet));
export const RetypeButton = dynamic(() => import("./retype").then((m) => m.RetypeButton));
