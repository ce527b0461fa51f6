/** The ways of a recipe: itself, and each of its variants with all that it does not say otherwise. */
import type { Line, LineTarget, RecipeParts, Variant } from "../notation/line";
import { sayNamed } from "../notation/line";
import { type ClauseValues, overridden } from "../clauses/all";
import { ROLES } from "../notation/roles";
import type { Surroundings } from "../schema/field";

/** What differs between the ways of a recipe. */
export interface VariantValues extends ClauseValues {
  readonly lines: readonly Line[];
}

/** The recipe itself first, then its variants in their order. */
export const waysOf = <R extends VariantValues & { readonly variants: readonly Variant[] }>(
  recipe: R,
): readonly VariantValues[] =>
  recipe.variants.length ? [recipe, ...recipe.variants.map((variant) => wayOf(recipe, variant))] : [recipe];

export const wayOf = (recipe: VariantValues, variant: Variant): VariantValues => ({
  lines: linesOf(recipe.lines, variant.lines),
  ...overridden(recipe, variant),
});

/** The lines with each role that the others have from them. */
const linesOf = (lines: readonly Line[], others: readonly Line[]): readonly Line[] =>
  others.length
    ? ROLES.flatMap((role) => {
        const said = others.filter((l) => l.role === role);
        return said.length ? said : lines.filter((l) => l.role === role);
      })
    : lines;

/** Every line of a recipe and of its variants. */
export const allLines = ({ lines, variants }: Pick<RecipeParts, "lines" | "variants">): readonly Line[] =>
  variants.length ? [...lines, ...variants.flatMap((v) => v.lines)] : lines;

/** What a variant is called: by its name, or by the first that it has otherwise. */
export function variantName(variant: Variant, at: number, around: Pick<Surroundings, "nameOf">): string {
  const named = (role: Line["role"], word: string): string | undefined => {
    const line = variant.lines.find((l) => l.role === role);
    return line && `${word} ${sayNamed(line as LineTarget, around)}`;
  };
  return (
    variant.name ||
    named("tool", "using") ||
    named("station", "at") ||
    named("ingredient", "with") ||
    (variant.level === null ? `variant ${at + 1}` : `at level ${variant.level}`)
  );
}
