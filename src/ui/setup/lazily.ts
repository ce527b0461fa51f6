"use client";
/** What concerns the pantry as a whole is loaded when somebody looks at it. */
import dynamic from "next/dynamic";

export const BundlePanel = dynamic(() => import("./bundle-panel").then((m) => m.BundlePanel));
export const ClockButton = dynamic(() => import("./clock").then((m) => m.ClockButton));
export const DeletePanel = dynamic(() => import("./delete-panel").then((m) => m.DeletePanel));
