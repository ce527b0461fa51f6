/** Measures a pantry with every way in which things become other things, beside a plain one of the same size. */
import { mkdirSync, writeFileSync } from "node:fs";
import { Readings } from "../src/core/analysis/readings";
import { type Catalogue, emptyCatalogue } from "../src/core/catalogue/catalogue";
import { apply } from "../src/core/catalogue/apply";
import { setField } from "../src/core/catalogue/edit";
import { findingsOf } from "../src/core/checks/index";
import { planImport } from "../src/core/exchange/read";
import { compile } from "../src/core/network/compile";
import { ASKED, chainOf } from "../src/core/chains/chain";
import { layoutOf } from "../src/core/chains/layout";
import { Engine } from "../src/core/engine/engine";
import { families } from "../src/demo/families";
import { generate } from "../src/demo/generate";
import { withWays } from "../src/demo/ways";
import { pantry } from "../src/core/testing/kitchen";
import { say, time } from "./measure";

const ITEMS = Number(process.env.SIZES ?? 1_000);

function opened(bundle: unknown): Catalogue {
  const empty = emptyCatalogue(pantry());
  const plan = planImport(empty, JSON.stringify(bundle));
  if (plan.issues.length) throw new Error(JSON.stringify(plan.issues.slice(0, 5)));
  const outcome = apply(empty, plan.edits);
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.issues.slice(0, 5)));
  return outcome.catalogue;
}

/** One tag with so many members, asked for once; and the same written once for each. */
function manyMembers(n: number, asked: boolean): unknown {
  const key = (i: number) => `item_${i}`;
  return {
    format: "salty-pantry-bundle",
    version: 1,
    tags: [{ key: "kin", name: "kin" }],
    items: Array.from({ length: n }, (_, i) => ({ key: key(i), tags: asked ? ["kin"] : [] })),
    sources: Array.from({ length: n }, (_, i) => ({
      key: `buy_${i}`,
      kind: "shop",
      gives: [key(i)],
      price: 2 + (i % 97),
    })),
    recipes: asked
      ? [{ key: "pot", ingredients: [{ any: "kin", quantity: 3 }], outputs: ["pot"] }]
      : Array.from({ length: n }, (_, i) => ({
          key: `pot_${i}`,
          name: `Pot ${i}`,
          ingredients: [{ item: key(i), quantity: 3 }],
          outputs: ["pot"],
        })),
  };
}

const [plain, rich] = [generate({ items: ITEMS, seed: 7 }), withWays(generate({ items: ITEMS, seed: 7 }))].map(opened);
const measured = [plain, rich].map((catalogue) => {
  const compiled = compile(catalogue);
  return {
    lines: compiled.network.ins.to.length + compiled.network.outs.to.length,
    compile: time(() => compile(catalogue), 5).median,
    readings: time(() => new Readings(compile(catalogue)), 3).median,
    findings: time(() => findingsOf(catalogue, new Readings(catalogue)), 2).median,
  };
});
const [a, b] = measured;
const per = (of: "compile" | "readings" | "findings") => b[of] / b.lines / (a[of] / a.lines);

let edited = 0;
// Edits of what items say, which reach recipes that do not name it.
const readings = new Readings(rich);
let catalogue = rich;
const items = [...catalogue.records.item.keys()];
const edits = time(() => {
  const id = items[(edited++ * 7919) % items.length];
  const outcome = apply(catalogue, [setField(catalogue, "item", id, "sell", (edited % 50) + 1)]);
  if (!outcome.ok) throw new Error("refused");
  catalogue = outcome.catalogue;
  readings.advance(catalogue, outcome.edits);
}, 200);
const vessels = time(() => {
  const id = items[(edited++ * 17) % items.length];
  const outcome = apply(catalogue, [setField(catalogue, "item", id, "vessel", edited % 2 ? items[6] : null)]);
  if (!outcome.ok) throw new Error("refused");
  catalogue = outcome.catalogue;
  readings.advance(catalogue, outcome.edits);
}, 100);

const [tagged, spelt] = [true, false].map((asked) => {
  const of = opened(manyMembers(ITEMS, asked));
  return time(() => new Readings(compile(of)), 5).median;
});

// A game of families: an engine with all readings and checks, single edits of patterns, and every chain.
const game = opened(families());
const engine = new Engine(game);
const opening = time(() => new Engine(game), 3).median;
let changed = game;
let which = 0;
const patterns = [...game.records.recipe.values()].filter((r) => r.kind === "pattern");
const repatterned = time(() => {
  const { id, lines } = patterns[(which++ * 97) % patterns.length];
  const more = lines.map((l) => (l.role === "output" ? { ...l, min: (which % 7) + 1, max: (which % 7) + 1 } : l));
  const outcome = apply(changed, [setField(changed, "recipe", id, "lines", more as never)]);
  if (!outcome.ok) throw new Error("refused");
  changed = outcome.catalogue;
  engine.follow(changed, outcome.edits);
}, 100);
const chains = [...game.records.item.keys()].map((id) => {
  const from = performance.now();
  const chain = chainOf(engine.readings, id, { ...ASKED, onward: 2 });
  if (chain) layoutOf(chain, "cost");
  return performance.now() - from;
});

say(
  `${ITEMS} items: ${a.lines} links plain, ${b.lines} with variants, patterns, heat, tags, vessels, tables, gifts and pairs`,
);
say(
  `  per link, as a multiple of the plain pantry: compiled ${per("compile").toFixed(2)}, all readings ${per("readings").toFixed(2)}, with all checks ${per("findings").toFixed(2)}`,
);
say(
  `  an edit of a price: 1/${Math.round(b.readings / edits.median)} of all readings (95%: 1/${Math.round(b.readings / edits.p95)}); of a vessel 1/${Math.round(b.readings / vessels.median)} (95%: 1/${Math.round(b.readings / vessels.p95)})`,
);
say(`  any of ${ITEMS} with a tag: ${(tagged / spelt).toFixed(2)} × the same written once for each (bar 1)`);
say(
  `a game of ${game.records.item.size} items, ${game.records.recipe.size} recipes and ${patterns.length} patterns: an edit of a pattern 1/${Math.round(opening / repatterned.median)} of opening it with all checks (95%: 1/${Math.round(opening / repatterned.p95)}); each of its chains read and drawn in ${Math.max(...chains).toFixed(0)} ms at most`,
);
mkdirSync("bench/results", { recursive: true });
writeFileSync(
  "bench/results/ways.json",
  `${JSON.stringify({ items: ITEMS, links: [a.lines, b.lines], perLink: { compile: per("compile"), readings: per("readings"), findings: per("findings") }, edits: { price: edits.median / b.readings, vessel: vessels.median / b.readings }, tagOverLines: tagged / spelt }, null, 2)}\n`,
);
