/** What has members in few words, for cells. */
import type { Field, Surroundings } from "./field";
import { same } from "./json";

type Values = Readonly<Record<string, unknown>>;

/** What has members in few words, "Warmth 6; Grip multiply 0.8"; everything else as it is typed. */
export function briefly(field: Field, value: unknown, here: Surroundings): string {
  const { inner } = field;
  if (inner?.is === "list")
    return (value as readonly unknown[]).map((each) => briefly(inner.of, each, here)).join("; ");
  if (!inner) return field.format(value, here);
  const { is = "", ...others } = value as Values & { readonly is?: string };
  const fields = inner.is === "group" ? inner.fields : (inner.variants[is] ?? {});
  const said = (name: string) => {
    const of = fields[name];
    return !of || others[name] === undefined || same(others[name], of.initial) ? "" : briefly(of, others[name], here);
  };
  if (inner.is === "group" && inner.brief) return inner.brief(said, others);
  return Object.keys(fields).map(said).filter(Boolean).join(" ") || is;
}
