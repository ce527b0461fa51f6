import { describe, expect, it } from "vitest";
import { idOf, tried, withUses } from "@/core/testing/tryout";
import { type PlanRow, planOf, readHarm, readPlans, writePlans } from "./plans";

const catalogue = withUses(tried({ resource: { Vigour: {} }, item: { Pie: {}, "Stone, flat": {} } }), {
  Pie: ["Eat: restores 5 Vigour"],
});
const row = (more: Partial<PlanRow> = {}): PlanRow => ({
  item: "pie",
  use: "",
  rule: "as soon as ready",
  value: "",
  ...more,
});

describe("what is planned in an address", () => {
  it("is read back as it was written, whatever stands in it", () => {
    const rows = [
      row(),
      row({ rule: "whenever", value: "Vigour < 30 | ~ %" }),
      row({ use: "eat_pie", rule: "at", value: "0s 1m" }),
    ];
    expect(readPlans(writePlans(rows))).toEqual(rows);
  });

  it("is nothing where someone wrote something else", () => {
    for (const text of ["", "x", "pie~~9~", "pie", "%E0%A4%A~~0~", "__proto__~~constructor~"])
      expect(readPlans(text), text).toEqual([]);
    expect(readPlans(Array.from({ length: 90 }, () => "pie~~0~").join("|"))).toHaveLength(30);
  });

  it("comes to rules, or says what is missing", () => {
    expect(planOf(catalogue, row())).toEqual({ item: idOf("Pie"), use: null, rule: { is: "ready" } });
    expect(planOf(catalogue, row({ rule: "every", value: "30s" }))).toMatchObject({
      rule: { is: "every", ticks: 300, from: 0 },
    });
    expect(planOf(catalogue, row({ rule: "at", value: "0s, 1m" }))).toMatchObject({
      rule: { is: "at", ticks: [0, 600] },
    });
    expect(planOf(catalogue, row({ rule: "whenever", value: "Vigour < 30" }))).toMatchObject({
      rule: { is: "whenever", holds: `"resource:${idOf("Vigour")}" < 30` },
    });
    for (const wrong of [
      row({ item: "gone" }),
      row({ rule: "every", value: "soon" }),
      row({ rule: "at", value: "0s later" }),
      row({ rule: "whenever", value: "Vigor <" }),
      row({ rule: "whenever" }),
    ])
      expect(planOf(catalogue, wrong)).toHaveProperty("message");
  });
});

describe("harm", () => {
  it("is steady, or a pasted curve of times with harm a second from there on", () => {
    const resource = idOf("Vigour");
    expect(readHarm(catalogue, resource, "1,5")).toEqual([{ resource, tick: 0, perSecond: 1.5 }]);
    expect(readHarm(catalogue, resource, "0s 1\n30s\t2.5\n1m; 0")).toEqual([
      { resource, tick: 0, perSecond: 1 },
      { resource, tick: 300, perSecond: 2.5 },
      { resource, tick: 600, perSecond: 0 },
    ]);
    expect(readHarm(catalogue, resource, "")).toEqual([]);
    expect(readHarm(catalogue, resource, "30s much")).toHaveProperty("message");
  });
});
