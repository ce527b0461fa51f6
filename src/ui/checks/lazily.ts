"use client";
/** Dialogs of Checks are loaded when they are opened. */
import dynamic from "next/dynamic";
import { orNotLoaded } from "../kit/not-loaded";

export const DecideDialog = dynamic(() => orNotLoaded(import("./decide-dialog").then((m) => m.DecideDialog)));
export const FixDialog = dynamic(() => orNotLoaded(import("./fix-dialog").then((m) => m.FixDialog)));
