"use client";
/** Changing many at once is loaded when someone does. */
import dynamic from "next/dynamic";
import { orNotLoaded } from "../kit/not-loaded";

export const BulkPanel = dynamic(() => orNotLoaded(import("./bulk-panel").then((m) => m.BulkPanel)));
