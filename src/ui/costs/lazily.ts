"use client";
/** The parts of the view, of which one is shown at a time. */
import dynamic from "next/dynamic";
import { orNotLoaded } from "../kit/not-loaded";

export const EveryItem = dynamic(() => orNotLoaded(import("./every-item").then((m) => m.EveryItem)));
export const PlanView = dynamic(() => orNotLoaded(import("./plan").then((m) => m.PlanView)));
export const WhatIfView = dynamic(() => orNotLoaded(import("../what-if/view").then((m) => m.WhatIfView)));
