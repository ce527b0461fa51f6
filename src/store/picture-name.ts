/** What a picture is called: it follows from its bytes, so that the same one is kept once. */
import { createHash } from "node:crypto";

/** @returns the name that an icon says; see core/pictures/own-picture.ts */
export const pictureName = (bytes: Uint8Array): string =>
  `own-${createHash("sha256").update(bytes).digest("hex").slice(0, 24)}`;
