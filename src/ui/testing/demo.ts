/** The catalogue of the demo. */
import { emptyCatalogue } from "@/core/catalogue/catalogue";
import { planImport } from "@/core/exchange/read";
import { must, pantry } from "@/core/testing/kitchen";
import bundle from "@/demo/brackwater-reach.json";

const empty = emptyCatalogue(pantry());
export const demo = must(empty, planImport(empty, JSON.stringify(bundle)).edits);
