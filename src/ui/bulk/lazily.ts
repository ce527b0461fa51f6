"use client";
/** Changing many at once is loaded when someone does. */
import dynamic from "next/dynamic";

export const BulkPanel = dynamic(() => import("./bulk-panel").then((m) => m.BulkPanel));
