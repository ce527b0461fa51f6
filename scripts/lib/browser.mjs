/** The browser that journeys and the window's bench run in. */
import { existsSync } from "node:fs";
import { debianPackage } from "./postgres.mjs";
import { Missing, say } from "./say.mjs";

/** Chromium without a window and without a desktop's libraries: quicker to install, and a fifth quicker in the journeys. */
const SHELL = "/usr/bin/chromium-headless-shell";
const WHOLE = "/usr/bin/chromium";
const OTHERWISE = "set CHROMIUM to the path of a Chromium or Chrome";

/** @returns where it is; installed from Debian where it is missing and may be */
export function ensureChromium() {
  const places = [process.env.CHROMIUM, SHELL, WHOLE, "/usr/bin/chromium-browser", "/usr/bin/google-chrome"];
  const found = places.find((p) => p && existsSync(p));
  if (found) return found;
  const why = "The journeys need Chromium.";
  try {
    debianPackage("chromium-headless-shell", why, OTHERWISE);
  } catch (failed) {
    // Older releases of Debian have it only whole.
    say(`${failed.message} Trying the whole Chromium.`);
    debianPackage("chromium", why, OTHERWISE);
  }
  const installed = [SHELL, WHOLE].find((p) => existsSync(p));
  if (!installed) throw new Missing(`Chromium was installed but is neither at ${SHELL} nor at ${WHOLE}; ${OTHERWISE}.`);
  return installed;
}
