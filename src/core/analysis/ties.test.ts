import { expect, it } from "vitest";
import { byKey } from "../catalogue/keys";
import { emptyCatalogue } from "../catalogue/catalogue";
import { planImport } from "../exchange/read";
import { processAt } from "../network/compile";
import { must, pantry } from "../testing/kitchen";
import { planFor } from "./plan";
import { readingsOf } from "./readings";

const FILE = JSON.stringify({
  format: "salty-pantry-bundle",
  version: 1,
  sources: [
    { key: "stall_c", kind: "shop", gives: ["salt"], price: 2 },
    { key: "stall_a", kind: "shop", gives: ["salt"], price: 2 },
    { key: "stall_b", kind: "shop", gives: ["salt"], price: 2 },
  ],
  recipes: [
    { key: "b_brine", line: "2 Salt -> 1 Brine" },
    { key: "c_brine", line: "2 Salt -> 1 Brine" },
  ],
});

it("of equal ways the same counts whenever a file is read: that of the lesser key", () => {
  const told = new Set<string>();
  for (let n = 0; n < 12; n++) {
    const empty = emptyCatalogue(pantry());
    const readings = readingsOf(must(empty, planImport(empty, FILE).edits));
    const brine = readings.compiled.numberOf(byKey(readings.catalogue, "item", "brine")?.id as never) as number;
    const plan = planFor(readings, { make: new Map([[brine, 3]]) });
    if ("no" in plan) throw new Error("no plan");
    const key = (p: number) => processAt(readings.compiled, p).record.key;
    told.add([key(readings.chosen("value", brine)), ...plan.steps.map((s) => `${s.runs} ${key(s.process)}`)].join());
  }
  expect([...told]).toEqual(["b_brine,6 stall_a,3 b_brine"]);
});
