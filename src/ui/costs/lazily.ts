"use client";
/** The two parts of the view, of which one is shown at a time. */
import dynamic from "next/dynamic";

export const EveryItem = dynamic(() => import("./every-item").then((m) => m.EveryItem));
export const PlanView = dynamic(() => import("./plan").then((m) => m.PlanView));
