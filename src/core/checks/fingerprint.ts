/** Fingerprints of findings: the check, the records it is about, and which one if there are several: "rule:id,id#2". */

/** @param ids  of the records, in any order */
export function fingerprintOf(rule: string, ids: readonly string[], nth = 1): string {
  const print = `${rule}:${ids.length === 1 ? ids[0] : [...ids].sort().join(",")}`;
  return nth === 1 ? print : `${print}#${nth}`;
}

/** The check of a finding. */
export const ruleIn = (fingerprint: string): string => fingerprint.slice(0, fingerprint.indexOf(":"));
/** The ids of the records it is about; none where it is about the pantry. */
export const idsOf = (fingerprint: string): readonly string[] =>
  fingerprint
    .slice(fingerprint.indexOf(":") + 1)
    .split("#")[0]
    .split(",")
    .filter(Boolean);
/** Which one it is, if a check reports several about the same records. */
export const nthOf = (fingerprint: string): number => Number(fingerprint.split("#")[1] ?? 1);
