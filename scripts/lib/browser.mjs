/** The browser that journeys and the window's bench run in. */
import { existsSync } from "node:fs";
import { debianPackage } from "./postgres.mjs";
import { Missing } from "./say.mjs";

/** @returns where it is; installed from Debian where it is missing and may be */
export function ensureChromium() {
  const places = [
    process.env.CHROMIUM,
    "/usr/bin/chromium",
    "/usr/bin/chromium-browser",
    "/usr/bin/google-chrome",
  ].filter(Boolean);
  const found = places.find((p) => existsSync(p));
  if (found) return found;
  debianPackage("chromium", "The journeys need Chromium.");
  if (!existsSync("/usr/bin/chromium"))
    throw new Missing("Chromium was installed but is not at /usr/bin/chromium. Set CHROMIUM to its path.");
  return "/usr/bin/chromium";
}
