/** Uses, loaded when a sheet is opened: reading their lines is not part of every view. */
import dynamic from "next/dynamic";

export const UsesSection = dynamic(() => import("./uses-section").then((m) => m.UsesSection));
