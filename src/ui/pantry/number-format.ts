/** How the person at this window writes numbers: as their browser does, until they say otherwise. */
import type { NumberFormat } from "@/core/numbers/decimal";

const KEPT = "salty-numbers";

/** @param locales  of whom; absent: of the browser */
export function usualFormat(locales?: string): NumberFormat {
  const sign = new Intl.NumberFormat(locales).formatToParts(1.5).find(({ type }) => type === "decimal")?.value;
  return sign === "," ? "comma" : "point";
}

export function keptFormat(storage: Pick<Storage, "getItem"> | null): NumberFormat {
  try {
    const kept = storage?.getItem(KEPT);
    return kept === "point" || kept === "comma" ? kept : usualFormat();
  } catch {
    // A browser without storage writes as it usually does.
    return usualFormat();
  }
}

export function keepFormat(format: NumberFormat, storage: Pick<Storage, "setItem"> | null): void {
  try {
    storage?.setItem(KEPT, format);
  } catch {
    // It holds until the window is closed.
  }
}
