"use client";
/** What lies over a view and is opened from many places: the command field and the help. */
import { createContext, useContext } from "react";

export interface Overlays {
  openCommand(): void;
  openHelp(): void;
}
export const OverlaysContext = createContext<Overlays>({ openCommand: () => undefined, openHelp: () => undefined });
export const useOverlays = (): Overlays => useContext(OverlaysContext);
