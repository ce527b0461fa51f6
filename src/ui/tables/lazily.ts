"use client";
/** What reads and writes tables is loaded once someone does. */
import dynamic from "next/dynamic";

export const BringIn = dynamic(() => import("./bring-in").then((m) => m.BringIn));
