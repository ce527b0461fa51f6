"use client";
/** The plan is loaded when somebody makes one. */
import dynamic from "next/dynamic";

export const PlanView = dynamic(() => import("./plan").then((m) => m.PlanView));
