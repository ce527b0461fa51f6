/** A kind of which each record has none, one or several processes is followed as recipes and sources are. */
import { describe, expect, it } from "vitest";
import { apply } from "../catalogue/apply";
import { type Catalogue, recordAt } from "../catalogue/catalogue";
import { type Edit, setField } from "../catalogue/edit";
import { type Kind, KINDS } from "../kinds/index";
import { line } from "../notation/line";
import { compile } from "../network/compile";
import { CONTRIBUTORS } from "../network/contributors";
import { contributor } from "../network/process";
import { seeded } from "../numbers/seeded";
import type { Id } from "../schema/id";
import { kitchen, must } from "../testing/kitchen";
import { randomEdits, randomPantry } from "../testing/random";
import { itemsIn } from "../testing/told";
import { Readings, startsAnew } from "./readings";
import { READINGS } from "./registry";

/** Each line of an item's note is the id of something that it can be burnt to, three of it giving one. */
const burning = contributor({
  kind: "item",
  processes: ({ id, note, status }) =>
    status === "retired"
      ? []
      : note.split("\n").flatMap((to, part) =>
          to
            ? [
                {
                  sort: "craft" as const,
                  lines: [line("ingredient", id, 3), line("output", to as Id)],
                  needs: [],
                  price: 1 + part,
                  currency: null,
                  ticks: 20,
                  level: 0,
                },
              ]
            : [],
        ),
});
// Items burn here instead of being used: a kind has one contributor.
const ALL = [...CONTRIBUTORS.filter((c) => c.kind !== "item"), burning];
const read = (catalogue: Catalogue) => new Readings(compile(catalogue, ALL));

/** Everything that is told of items, by their ids; processes by their records and parts. */
function told(r: Readings) {
  const process = (p: number) => (p < 0 ? null : r.compiled.behind(p));
  return itemsIn(r)
    .map((i) => [
      r.compiled.idOf(i),
      r.reach.items[i],
      r.value.cost[i],
      r.time.cost[i],
      r.bare.cost[i],
      process(r.by("value", i)),
      process(r.by("time", i)),
      r.steps(i),
      r.levels.value[i],
      r.causes
        .get(i)
        ?.leaves.map((l) => r.compiled.idOf(l))
        .sort(),
    ])
    .sort(([a], [b]) => ((a as string) < (b as string) ? -1 : 1));
}

/** Random notes beside the random changes of everything else; only ids that stay are burnt to. */
function notes(random: () => number, catalogue: Catalogue): Edit[] {
  const items = [...catalogue.records.item.keys()];
  const pick = () => items[Math.floor(random() * items.length)];
  const id = pick();
  const note = Array.from({ length: Math.floor(random() * 4) }, () => (random() < 0.2 ? "" : pick())).filter(
    (to) => to !== id,
  );
  return [setField(catalogue, "item", id, "note", note.join("\n").trim())];
}
/** Items that notes name can't be taken out: the note would point to nothing, which the rules know nothing of. */
const harmless = (edits: readonly Edit[]) => edits.every((e) => e.op !== "remove" || e.kind !== "item");

describe("processes of any record", () => {
  it("are none, one or many of each, with numbers that stay", () => {
    let c = kitchen("gather Peat in 10s\ngather Ash in 90s\nCharm: 1 Ash -> 1 Charm");
    const [peat, ash, charm] = ["Peat", "Ash", "Charm"].map(
      (n) => [...c.records.item.values()].find((i) => i.name === n)?.id as Id,
    );
    c = must(c, [setField(c, "item", peat, "note", `${ash}\n${charm}`)]);
    const r = read(c);
    expect(r.compiled.processesOf("item", peat)).toHaveLength(2);
    expect(r.compiled.processesOf("item", ash)).toHaveLength(0);
    const before = r.compiled.processesOf("item", peat);
    expect(before.map((p) => r.compiled.process(p)?.record.id)).toEqual([peat, peat]);
    const edit = setField(c, "item", peat, "note", `${ash}`);
    const next = must(c, [edit]);
    const delta = r.advance(next, [edit]);
    expect(delta.anew).toBe(false);
    expect(r.compiled.processesOf("item", peat)).toEqual(before);
    expect(before.map((p) => r.compiled.process(p) !== null)).toEqual([true, false]);
    expect(told(r)).toEqual(told(read(next)));
  });

  it("are followed to what is found from scratch, change after change", () => {
    let followed = 0;
    for (let seed = 0; seed < 8; seed++) {
      const random = seeded(900 + seed);
      let catalogue = randomPantry(random, 4 + (seed % 4));
      const r = read(catalogue);
      for (let k = 0; k < 10; k++) {
        const drawn = random() < 0.6 ? notes(random, catalogue) : randomEdits(random, catalogue);
        const outcome = harmless(drawn) ? apply(catalogue, drawn) : null;
        if (!outcome?.ok) continue;
        catalogue = outcome.catalogue;
        if (!r.advance(catalogue, outcome.edits).anew) followed++;
        expect(told(r), `seed ${seed}, change ${k}`).toEqual(told(read(catalogue)));
      }
    }
    expect(followed).toBeGreaterThan(25);
  });
});

describe("an edit", () => {
  const c = kitchen("gather Peat in 10s");
  const edit = (kind: Kind | "pantry", field: string) =>
    ({ op: "set", kind, id: "x" as Id, field, from: null, to: 1 }) as Edit;
  const anew = (e: Edit) => startsAnew(e, { contributors: CONTRIBUTORS });

  it("of a kind that no reading reads starts all again: nothing is stale in silence", () => {
    expect(anew(edit("vessel" as Kind, "rig"))).toBe(true);
    expect(anew(edit("pantry", "moonPhase"))).toBe(true);
    expect(anew(edit("pantry", "labourPerHour"))).toBe(true);
    expect(anew(edit("currency", "worth"))).toBe(true);
    for (const kind of KINDS.filter((k) => k !== "currency")) expect(anew(edit(kind, "name"))).toBe(false);
    expect(recordAt(c, "item", "nobody000000" as Id)).toBeUndefined();
  });

  it("reaches readings in the order of dependence", () => {
    for (const [k, reading] of READINGS.entries())
      for (const before of reading.after) expect(READINGS.indexOf(before), reading.name).toBeLessThan(k);
    expect(new Set(READINGS.map((r) => r.name)).size).toBe(READINGS.length);
    expect(READINGS.every((r) => r.after.every((a) => READINGS.includes(a)))).toBe(true);
  });
});
