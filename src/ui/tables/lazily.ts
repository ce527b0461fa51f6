"use client";
/** What reads and writes tables is loaded once someone does. */
import dynamic from "next/dynamic";
import { orNotLoaded } from "../kit/not-loaded";

export const BringIn = dynamic(() => orNotLoaded(import("./bring-in").then((m) => m.BringIn)));
