/** Uses, loaded when a sheet is opened: reading their lines is not part of every view. */
import dynamic from "next/dynamic";
import { orNotLoaded } from "../kit/not-loaded";

export const UsesSection = dynamic(() => orNotLoaded(import("./uses-section").then((m) => m.UsesSection)));
