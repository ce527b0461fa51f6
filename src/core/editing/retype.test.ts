import { describe, expect, it } from "vitest";
import type { Catalogue } from "../catalogue/catalogue";
import { invert, setField } from "../catalogue/edit";
import { type OwnField, withDefaults } from "../kinds/index";
import { newId } from "../schema/id";
import { item, kitchen, must } from "../testing/kitchen";
import { planRetype, type Redefinition } from "./retype";

const all = { round: false, widen: false };

/** Three things that each say a field of some form. */
function saying(form: OwnField["form"], values: readonly unknown[], given: Partial<OwnField> = {}) {
  const field: OwnField = withDefaults("field", { id: newId(), key: "f", name: "F", form, ...given });
  let catalogue = kitchen("gather Eel\ngather Salt\ngather Kelp\ngather Tar");
  catalogue = must(catalogue, [{ op: "add", kind: "field", record: field }]);
  for (const [k, value] of values.entries()) {
    const { id } = item(catalogue, ["Eel", "Salt", "Kelp", "Tar"][k]);
    catalogue = must(catalogue, [setField(catalogue, "item", id, `own.${field.id}`, value as never)]);
  }
  return { catalogue, field };
}
function become(from: { catalogue: Catalogue; field: OwnField }, wanted: Redefinition, options = all) {
  const plan = planRetype(from.catalogue, from.field, wanted, options);
  const next = must(from.catalogue, plan.edits);
  const values = ["Eel", "Salt", "Kelp", "Tar"].map((n) => item(next, n).own[from.field.id] ?? null);
  // It is one change that is taken back whole.
  expect(must(next, invert(plan.edits)).records.item.get(item(next, "Eel").id)?.own).toEqual(
    item(from.catalogue, "Eel").own,
  );
  return { plan, next, values, lost: plan.rows.flatMap((r) => (r.message ? [`${r.before}: ${r.message}`] : [])) };
}

describe("a field of another form", () => {
  it("makes numbers of texts that are some, and says which are none", () => {
    const { values, lost, plan } = become(saying("text", ["12", "2.5", "plenty"]), { form: "decimal" });
    expect(values).toEqual([12, 2.5, null, null]);
    expect(lost).toEqual(["plenty: “plenty” isn't a number. Enter digits with a point for decimals, such as 2.5."]);
    expect(plan.lost).toBe(1);
  });

  it("rounds decimals where it is told to, and loses them where it is not", () => {
    const from = saying("decimal", [2, 2.5, -0.25]);
    expect(become(from, { form: "whole" }).values).toEqual([2, null, null, null]);
    expect(become(from, { form: "whole" }, { ...all, round: true }).values).toEqual([2, 3, 0, null]);
  });

  it("makes options of words, or takes only those that are options already", () => {
    const from = saying("text", ["salty", "Smoky", "salty"]);
    const widened = become(from, { form: "choice", options: ["smoky"] }, { ...all, widen: true });
    expect(widened.values).toEqual(["salty", "smoky", "salty", null]);
    expect(widened.next.records.field.get(from.field.id)?.options).toEqual(["smoky", "salty"]);
    expect(become(from, { form: "choice", options: ["smoky"] }).values).toEqual([null, "smoky", null, null]);
  });

  it("makes text of anything, a choice, a duration, a link and yes or no", () => {
    expect(become(saying("choice", ["salty"], { options: ["salty"] }), { form: "text" }).values[0]).toBe("salty");
    expect(become(saying("duration", [1800]), { form: "text" }).values[0]).toBe("90s");
    expect(become(saying("yes or no", [true, false]), { form: "text" }).values.slice(0, 2)).toEqual(["yes", "no"]);
    const linked = saying("text", ["x"]);
    const { id } = item(linked.catalogue, "Kelp");
    const links = saying("links", []);
    const { id: eel } = item(links.catalogue, "Eel");
    const kelp = item(links.catalogue, "Kelp").id;
    const said = must(links.catalogue, [
      setField(links.catalogue, "item", eel, `own.${links.field.id}`, [{ kind: "item", id: kelp, amount: 2 }] as never),
    ]);
    expect(become({ ...links, catalogue: said }, { form: "text" }).values[0]).toBe("2 Kelp");
    expect(id).not.toBe(kelp);
  });

  it("finds records by the names that texts are; names that are new become stubs of items, and nothing of tags", () => {
    const from = saying("text", ["kelp", "Ambergris"]);
    const { next, plan } = become(from, { form: "link", to: "item" });
    expect(item(next, "Eel").own[from.field.id]).toEqual([{ kind: "item", id: item(next, "Kelp").id, amount: 1 }]);
    expect(item(next, "Ambergris").status).toBe("stub");
    expect(plan.made).toBe(1);
    expect(become(from, { form: "link", to: "slot" }).plan.lost).toBe(2);
  });

  it("loses what records of another kind said when it comes to belong to others", () => {
    const { values, lost } = become(saying("text", ["old"]), { of: "source" });
    expect(values[0]).toBeNull();
    expect(lost[0]).toMatch(/is a field of a source/);
  });

  it("changes nothing where nothing is asked", () => {
    expect(become(saying("text", ["old"]), {}).plan.edits).toEqual([]);
  });
});
