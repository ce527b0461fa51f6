/** Read models from scratch, and the way from one to another, for tests that compare them with what was followed. */
import type { Catalogue } from "../catalogue/catalogue";
import { ruleIn } from "../checks/fingerprint";
import { Engine } from "../engine/engine";
import {
  type Figures,
  follow as followModel,
  type PackedReadModel,
  type ReadModel,
  type Ripple,
  sameFigures,
  summed,
  unpackModel,
} from "../engine/read-model";
import type { Id } from "../schema/id";
import { same } from "../schema/json";

export const readModelOf = (catalogue: Catalogue): PackedReadModel => new Engine(catalogue).model();
/** Follows as a window does; packed again, so that it can be compared. */
export const follow = (model: PackedReadModel, ripple: Ripple): PackedReadModel =>
  packModel(followModel(unpackModel(model), ripple));
export const packModel = ({ figures, ...rest }: ReadModel): PackedReadModel => ({
  ...rest,
  figures: Object.fromEntries(figures),
});

/** What moved between two whole models, so that `follow` leads from one to the other. */
export function rippleOf(before: PackedReadModel, after: PackedReadModel): Ripple {
  const figures: [Id, Figures | null, Figures | null][] = [];
  for (const id in after.figures)
    if (!before.figures[id] || !sameFigures(before.figures[id], after.figures[id]))
      figures.push([id as Id, before.figures[id] ?? null, after.figures[id]]);
  for (const id in before.figures) if (!(id in after.figures)) figures.push([id as Id, before.figures[id], null]);
  const then = new Map(before.findings.map((f) => [f.fingerprint, f]));
  const now = new Map(after.findings.map((f) => [f.fingerprint, f]));
  const put = after.findings.filter((f) => !same(then.get(f.fingerprint), f));
  const drop = before.findings.flatMap((f) => (now.has(f.fingerprint) ? [] : [f.fingerprint]));
  const moved = summed(
    figures,
    put.filter((f) => !then.has(f.fingerprint)),
    drop.map(ruleIn),
  );
  return {
    from: before.revision,
    to: after.revision,
    figures: figures.map(([id, , is]) => [id, is]),
    put,
    drop,
    loops: after.loops,
    complete: after.complete,
    moved,
  };
}
