import { describe, expect, it } from "vitest";
import type { Catalogue } from "../catalogue/catalogue";
import { setField } from "../catalogue/edit";
import { Engine } from "../engine/engine";
import { withDefaults } from "../kinds/index";
import { newId } from "../schema/id";
import { item, kitchen, must } from "../testing/kitchen";
import type { Finding } from "./check";
import { decisionEdits, widerScopes } from "./decide";
import { judge } from "./decisions";
import { canFix, planFixes } from "./fix-many";

const found = (catalogue: Catalogue, rule: string): readonly Finding[] =>
  new Engine(catalogue).model().findings.filter((f) => f.rule === rule);
const FINDING = { scope: "finding" } as const;
const accept = { what: "accepted", person: "Wren", reason: "As intended.", scope: FINDING } as const;

/** Bricks and tiles that sell for less than the salt in them; both are goods and wet. */
function world(): Catalogue {
  const plain = kitchen("buy Salt for 1\n2 Salt -> 1 Brick\n4 Salt -> 1 Tile\nset Brick sell = 1\nset Tile sell = 1");
  const [goods, clay, wet] = [newId(), newId(), newId()];
  const [brick, tile] = ["Brick", "Tile"].map((name) => item(plain, name).id);
  return must(plain, [
    { op: "add", kind: "type", record: withDefaults("type", { id: goods, key: "goods", name: "Goods" }) },
    { op: "add", kind: "type", record: withDefaults("type", { id: clay, key: "clay", name: "Clay", parent: goods }) },
    { op: "add", kind: "tag", record: withDefaults("tag", { id: wet, key: "wet", name: "wet" }) },
    setField(plain, "item", brick, "type", clay),
    setField(plain, "item", tile, "type", goods),
    ...[brick, tile].map((id) => setField(plain, "item", id, "tags", [wet])),
  ]);
}

describe("decisions about findings", () => {
  it("are one for each, named after it, and take the place of earlier ones of the same sort", () => {
    const before = world();
    const findings = found(before, "price-below-cost");
    const { edits, left } = decisionEdits(before, findings, { ...accept, noWorse: true });
    expect([edits.length, left]).toEqual([2, 0]);
    const decided = must(before, edits);
    expect([...decided.records.decision.values()].map((d) => [d.name, d.key, d.atMost, d.person]).sort()).toEqual([
      ["Sold below cost: Brick", "sold_below_cost_brick", 2, "Wren"],
      ["Sold below cost: Tile", "sold_below_cost_tile", 4, "Wren"],
    ]);
    expect(judge(decided, findings, "2026-01-01").open).toEqual([]);
    const again = must(decided, decisionEdits(decided, findings.slice(0, 1), { ...accept, reason: "Still." }).edits);
    expect([...again.records.decision.values()].map((d) => d.reason).sort()).toEqual(["As intended.", "Still."]);
    const assigned = decisionEdits(again, findings, { what: "assigned", person: "Tam", reason: "", scope: FINDING });
    expect(must(again, assigned.edits).records.decision.size).toBe(4);
  });

  it("may be about all of a type or tag that the findings have in common", () => {
    const before = world();
    const findings = found(before, "price-below-cost");
    const names = (of: readonly Finding[]) => widerScopes(before, of).map((s) => ("name" in s ? s.name : ""));
    expect(names(findings)).toEqual(["Goods", "wet"]);
    expect(names(findings.filter((f) => f.about[0].name === "Brick"))).toEqual(["Clay", "Goods", "wet"]);
    expect(names([...findings, ...found(before, "no-icon"), { ...findings[0], rule: "orphan" }])).toEqual([]);
    expect(names([])).toEqual([]);
    const [goods] = widerScopes(before, findings);
    const decided = must(before, decisionEdits(before, findings, { ...accept, scope: goods }).edits);
    expect([...decided.records.decision.values()].map((d) => d.name)).toEqual(["Sold below cost: Goods"]);
    expect(judge(decided, findings, "2026-01-01").open).toEqual([]);
  });

  it("leave out findings about more records than one can name, and say how many", () => {
    const before = world();
    const [finding] = found(before, "price-below-cost");
    const many = Array.from({ length: 201 }, () => ({ ...finding.about[0], id: newId() }));
    const wide = {
      ...finding,
      about: many,
      fingerprint: `near-names:${many
        .map((r) => r.id)
        .sort()
        .join(",")}`,
    };
    expect(decisionEdits(before, [wide], accept)).toEqual({ edits: [], left: 1 });
  });
});

describe("many fixes at once", () => {
  it("are one change that resolves every finding, with each value before and after", () => {
    const before = world();
    const findings = found(before, "price-below-cost");
    const { rows, edits, byHand } = planFixes(before, findings);
    expect(rows.map((r) => [r.before, r.after, r.more, r.conflict])).toEqual([
      ["Brick sell price: 1", "2", 0, null],
      ["Tile sell price: 1", "4", 0, null],
    ]);
    expect([byHand, findings.every(canFix)]).toEqual([[], true]);
    expect(found(must(before, edits), "price-below-cost")).toEqual([]);
  });

  it("leave out what is not chosen, and list what needs a person", () => {
    const before = world();
    const findings = [...found(before, "price-below-cost"), ...found(before, "no-icon")];
    const { rows, edits } = planFixes(before, findings, (f) => f.about[0].name === "Tile");
    expect([rows.length, edits.length]).toEqual([2, 1]);
    const bare = must(before, [setField(before, "item", item(before, "Brick").id, "icon", null)]);
    expect(planFixes(bare, found(bare, "no-icon")).byHand.map((f) => f.about[0].name)).toEqual(["Brick"]);
  });

  it("are not done where an earlier one changes the same value, and say which", () => {
    const before = world();
    const [brick] = found(before, "price-below-cost");
    const [first] = brick.fixes;
    const dearer = {
      ...brick,
      fingerprint: `${brick.fingerprint}#2`,
      fixes: [
        {
          ...first,
          message: "Sell Brick for 3",
          edits: [setField(before, "item", item(before, "Brick").id, "sell", 3)],
        },
      ],
    } as Finding;
    const { rows, edits } = planFixes(before, [brick, dearer]);
    expect(rows.map((r) => r.conflict)).toEqual([null, `“${first.message}” changes the same value.`]);
    expect(must(before, edits).records.item.get(item(before, "Brick").id)?.sell).toBe(2);
  });
});
