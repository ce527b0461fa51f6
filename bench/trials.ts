/** Measures trying things out as ratios in one run: play beside a plain loop, formulas beside JavaScript, rolls, best sets. */
import { Budget } from "../src/core/budget/budget";
import { mkdirSync, writeFileSync } from "node:fs";
import { setField } from "../src/core/catalogue/edit";
import { Engine } from "../src/core/engine/engine";
import { compiled } from "../src/core/formulas/compiled";
import { parseFormula } from "../src/core/formulas/formula";
import { thingsIn } from "../src/core/network/box";
import { seeded } from "../src/core/numbers/seeded";
import type { Id } from "../src/core/schema/id";
import { idOf, tried, withMore, withUses } from "../src/core/testing/tryout";
import { bestSet } from "../src/core/trials/best-set";
import { roller } from "../src/core/trials/chance-box";
import { Play } from "../src/core/trials/play";
import { say, time } from "./measure";

const report: { [name: string]: number } = {};
const told = (name: string, value: number, bar: string, message: string) => {
  report[name] = value;
  say(`  ${message}; the bar is ${bar}`);
};

// Ten minutes at 60 ticks a second, three resources, 20 uses with a condition each.
const [TICKS, USES] = [36_000, 20];
const names = Array.from({ length: USES }, (_, k) => `Tonic ${"abcdefghijklmnopqrst"[k]}`);
const conditions = Object.fromEntries(
  names.map((name, k) => [
    `Glow ${name}`,
    { ticks: 600 + 60 * k, changes: [{ stat: idOf("Grip"), how: "add" as const, by: "1" }] },
  ]),
);
const world = withUses(
  tried(
    {
      stat: { Grip: {} },
      resource: {
        Vigour: { most: `100 + "stat:${idOf("Grip")}"`, recovery: "0.5" },
        Breath: { most: "60", recovery: "1" },
        Warmth: { most: "80", recovery: "-0.2" },
      },
      item: Object.fromEntries(names.map((name) => [name, {}])),
      condition: conditions,
      subject: { Mara: { resources: ["Vigour", "Breath", "Warmth"].map(idOf) } },
    },
    { ticksPerSecond: 60 },
  ),
  Object.fromEntries(
    names.map((name, k) => [
      name,
      [`Sip: restores ${5 + k} ${["Vigour", "Breath", "Warmth"][k % 3]}, Glow ${name}, ready in ${20 + k}s`],
    ]),
  ),
);
const subject = world.records.subject.get(idOf("Mara")) as never;
const play = () => {
  const p = new Play(world, { subject });
  for (const name of names) p.plan({ item: idOf(name), use: null, rule: { is: "ready" } });
  p.harm(idOf("Vigour"), 1.3);
  p.advance(TICKS);
  p.finish();
  return p.moments.length;
};
const pools = new Float64Array(3);
const plain = () => {
  for (let tick = 0; tick < TICKS; tick++) {
    pools[0] += 0.001;
    pools[1] += 0.002;
    pools[2] -= 0.003;
  }
  return pools[0];
};
const [played, looped] = [time(play, 200).low, time(plain, 400).low];
told(
  "play over plain loop",
  played / looped,
  "20",
  `ten minutes of ${USES} uses and conditions: ${played.toFixed(2)} ms, ${(played / looped).toFixed(1)} × a plain loop over the ticks (${looped.toFixed(3)} ms), ${play()} uses`,
);

// A formula against the same written in JavaScript.
const parsed = parseFormula("min(a * 1.25 + b, 60) / max(1, c - 2) + if(a > b, a, b) * 0.5", ["a", "b", "c"]);
if (!parsed.ok) throw new Error(parsed.message);
const ours = compiled(parsed.formula, (name) => "abc".indexOf(name));
const values = new Float64Array(3);
const many = (of: (v: Float64Array) => number) => () => {
  let sum = 0;
  for (let k = 0; k < 100_000; k++) {
    values[0] = k & 63;
    values[1] = k & 31;
    values[2] = k & 15;
    sum += of(values);
  }
  return sum;
};
const javascript = (v: Float64Array) =>
  Math.min(v[0] * 1.25 + v[1], 60) / Math.max(1, v[2] - 2) + (v[0] > v[1] ? v[0] : v[1]) * 0.5;
const [mine, theirs] = [time(many(ours), 20).median, time(many(javascript), 20).median];
told(
  "formula over JavaScript",
  mine / theirs,
  "20",
  `a formula: ${(mine / theirs).toFixed(1)} × the same expression in JavaScript`,
);

// A table within a table within a table.
const entry = (name: string, weight: number) => ({
  weight,
  what: { is: "item" as const, item: idOf(name) },
  min: 1,
  max: 3,
  from: null,
  to: null,
});
const inner = (name: string) => ({
  weight: 4,
  what: { is: "table" as const, table: idOf(name) },
  min: 1,
  max: 2,
  from: null,
  to: null,
});
const things = names.slice(0, 12);
const nested = withMore(world, {
  table: {
    Deep: { draws: [{ times: 2, back: true, entries: things.map((n, k) => entry(n, k + 1)) }] },
    Middle: {
      draws: [{ times: 2, back: false, entries: [...things.slice(0, 6).map((n) => entry(n, 2)), inner("Deep")] }],
    },
    Top: {
      always: [{ what: { is: "table", table: idOf("Middle") }, min: 1, max: 2, from: null, to: null }],
      chances: [{ chance: 0.3, what: { is: "item", item: idOf(things[0]) }, min: 1, max: 1, from: null, to: null }],
    },
  },
});
const top = nested.records.table.get(idOf("Top")) as never;
const all = thingsIn(top, nested.records.table, 1);
const rolled = time(() => {
  const roll = roller(top, nested.records.table, 1, all, new Budget(1e9));
  const [random, into] = [seeded(3), new Float64Array(all.length)];
  for (let k = 0; k < 10_000; k++) roll(random, into);
  return into[0];
}, 15).median;
told("rolls, ms", rolled, "100 ms", `10,000 rolls of a table three deep: ${rolled.toFixed(1)} ms`);

// Six slots of thirty candidates, a cost limit, stats of every sort.
const random = seeded(3);
const slots = Array.from({ length: 6 }, (_, k) => `Slot ${"abcdef"[k]}`);
const stats = ["Grip", "Draught", "Reach", "Noise", "Heat"];
const made: { [name: string]: object } = {};
const costs = new Map<Id, number>();
for (const [s, slot] of slots.entries())
  for (let k = 0; k < 30; k++) {
    const name = `Thing ${"abcdef"[s]}${k}`;
    const own = stats
      .filter(() => random() < 0.6)
      .map((stat) => [idOf(stat), stat === "Draught" ? 0.5 + random() : Math.floor(random() * 20) - 4]);
    made[name] = { slot: idOf(slot), stats: Object.fromEntries(own) };
    costs.set(idOf(name), Math.floor(random() * 30));
  }
const dressed = tried({
  stat: {
    Grip: {},
    Draught: { combine: "product" },
    Reach: { combine: "highest" },
    Noise: { combine: "lowest" },
    Heat: { max: 40 },
  },
  slot: Object.fromEntries(slots.map((slot) => [slot, {}])),
  item: made,
  subject: { Mara: { slots: slots.map(idOf), stats: { [idOf("Grip")]: "5" } } },
});
const wanted = {
  weights: new Map([
    [idOf("Grip"), 1],
    [idOf("Draught"), 12],
    [idOf("Reach"), 0.7],
    [idOf("Noise"), -0.5],
    [idOf("Heat"), 0.8],
  ]),
  level: 1,
  most: 60,
};
const mara = dressed.records.subject.get(idOf("Mara")) as never;
const found = () => bestSet(dressed, mara, [...dressed.records.item.values()], wanted, (id) => costs.get(id) ?? 0);
const best = time(found, 5).median;
told(
  "best set, ms",
  best,
  "1 s",
  `the best set of 6 slots with 30 candidates each: ${best.toFixed(0)} ms, ${found().looked} sets looked at`,
);

// An edit of a use against an edit of an item, findings and all.
const engine = new Engine(world);
let n = 0;
const edited = (kind: "use" | "item", id: Id, field: string, to: () => unknown) =>
  time(() => engine.change([setField(engine.catalogue, kind, id, field, to() as never)]).ripple?.put.length ?? 0, 40)
    .median;
const item = edited("item", idOf(names[0]), "sell", () => (n++ % 2 ? 3 : 4));
const use = edited("use", idOf(`Sip ${names[0]}`), "wait", () => (n++ % 2 ? 900 : 901));
told(
  "edit of a use over edit of an item",
  use / item,
  "about 1",
  `an edit of a use with its findings: ${use.toFixed(2)} ms, ${(use / item).toFixed(1)} × that of an item's price (${item.toFixed(2)} ms)`,
);

mkdirSync("bench/results", { recursive: true });
writeFileSync("bench/results/trials.json", `${JSON.stringify(report, null, 1)}\n`);
