"use client";
/** A formula over one of its names: a small curve, the others held at a value that can be chosen. */
import { useMemo, useState } from "react";
import { around } from "@/core/catalogue/surroundings";
import { compiled } from "@/core/formulas/compiled";
import { formulaOf } from "@/core/formulas/field";
import { namesOf } from "@/core/formulas/ranges";
import { SCOPES, type Scope, variableOf, writtenNames } from "@/core/formulas/scope";
import { sayQuantity } from "@/core/numbers/format";
import { useLive } from "../pantry/provider";

const [WIDTH, HEIGHT, POINTS] = [300, 72, 60];

export function FormulaCurve({ label, kept }: { readonly label: string; readonly kept: string }) {
  const { catalogue } = useLive();
  const found = useMemo(() => {
    const scope = (Object.keys(SCOPES) as Scope[]).find((each) => formulaOf(kept, each));
    const tree = scope && formulaOf(kept, scope);
    return tree && scope ? { tree, names: [...namesOf(tree)], write: writtenNames(scope, around(catalogue)) } : null;
  }, [kept, catalogue]);
  const [over, setOver] = useState(0);
  const [to, setTo] = useState("20");
  if (!found?.names.length) return null;
  const { tree, names, write } = found;
  const at = Math.min(over, names.length - 1);
  const most = Number(to) > 0 ? Number(to) : 20;
  const constant = (token: string): number => {
    const variable = variableOf(token);
    return variable?.kind === "constant" && variable.id
      ? (catalogue.records.constant.get(variable.id)?.value ?? 0)
      : 10;
  };
  const evaluate = compiled(tree, (name) => names.indexOf(name));
  const values = Array.from({ length: POINTS }, (_, k) => {
    const x = (k / (POINTS - 1)) * most;
    return { x, y: evaluate(names.map((name, n) => (n === at ? x : constant(name)))) };
  }).filter(({ y }) => Number.isFinite(y));
  const low = Math.min(0, ...values.map((v) => v.y));
  const high = Math.max(1e-9, ...values.map((v) => v.y));
  const points = values
    .map(({ x, y }) => `${(x / most) * WIDTH},${HEIGHT - ((y - low) / (high - low)) * HEIGHT}`)
    .join(" ");
  const held = names.filter((_, n) => n !== at);
  return (
    <figure className="pt-3" aria-label={`Curve of ${label}`}>
      <figcaption className="flex flex-wrap items-center gap-1.5 text-second">
        {label} over
        <select
          aria-label={`Variable of ${label}`}
          className="field w-auto!"
          value={at}
          onChange={(e) => setOver(Number(e.target.value))}
        >
          {names.map((name, n) => (
            <option key={name} value={n}>
              {write(name)}
            </option>
          ))}
        </select>
        from 0 to
        <input
          aria-label={`Maximum of the variable of ${label}`}
          className="field w-16! text-right"
          value={to}
          onChange={(e) => setTo(e.target.value)}
        />
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="mt-1 h-20 w-full border-b border-l border-line"
        preserveAspectRatio="none"
        aria-hidden
      >
        <polyline points={points} fill="none" stroke="var(--kelp)" strokeWidth={2} vectorEffect="non-scaling-stroke" />
      </svg>
      <p className="text-[12px] text-second">
        {values.length
          ? `${sayQuantity(values[0].y)} at 0, ${sayQuantity(values[values.length - 1].y)} at ${sayQuantity(most)}`
          : "No values in this range"}
        {held.length > 0 && `, with ${held.map((name) => `${write(name)} ${sayQuantity(constant(name))}`).join(", ")}`}
      </p>
    </figure>
  );
}
