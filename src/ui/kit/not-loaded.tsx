"use client";
/** A part of a view that is loaded when it is opened, and a connection that may be gone by then. */
import type { ComponentType } from "react";

function NotLoaded() {
  return (
    <p role="alert" className="p-2 text-beet">
      This part couldn't be loaded. Check the connection, then reload the page.
    </p>
  );
}

/** Says in the place of a part that it couldn't be loaded, instead of losing the page around it. */
export const orNotLoaded = <P,>(part: Promise<ComponentType<P>>): Promise<ComponentType<P>> =>
  part.catch(() => NotLoaded as ComponentType<P>);
