/** Formulas of a pantry, evaluated for characters and items as they are at a moment. */
import type { Catalogue } from "../catalogue/catalogue";
import { itemNumber } from "../catalogue/item-number";
import { compiled, type Evaluator } from "../formulas/compiled";
import { formulaOf } from "../formulas/field";
import type { Formula } from "../formulas/formula";
import { type Scope, variableOf } from "../formulas/scope";
import type { Item } from "../kinds/index";
import type { Id } from "../schema/id";

/** What formulas ask of a character. */
export interface Figure {
  readonly level: number;
  stat(id: Id): number;
  /** As it stands now; 0 where the character has none. */
  resource(id: Id): number;
  most(id: Id): number;
}
/** Who and what a formula speaks of. */
export interface Speaking {
  readonly user: Figure;
  readonly target: Figure;
  readonly item: Item | null;
}
export const about = (figure: Figure, item: Item | null = null): Speaking => ({ user: figure, target: figure, item });

type Getter = (of: Speaking) => number;

function getterOf(catalogue: Catalogue, token: string): Getter {
  const variable = variableOf(token);
  if (!variable) return () => 0;
  const { who, most, kind, id, plain } = variable;
  if (kind === "constant") {
    const value = id ? (catalogue.records.constant.get(id)?.value ?? 0) : 0;
    return () => value;
  }
  if (who === "item") return ({ item }) => itemNumber(catalogue, item, variable);
  const of: (speaking: Speaking) => Figure = who === "target" ? (s) => s.target : (s) => s.user;
  if (kind === null) return plain === "level" ? (s) => of(s).level : () => 0;
  const known = id as Id;
  if (kind === "stat") return (s) => of(s).stat(known);
  return most ? (s) => of(s).most(known) : (s) => of(s).resource(known);
}

/** Evaluates formulas of one catalogue; each is read and compiled once. */
export class Reckoner {
  private readonly known: { readonly [S in Scope]: Map<string, Getter> } = {
    use: new Map(),
    bearer: new Map(),
    stats: new Map(),
    recovery: new Map(),
    level: new Map(),
  };
  constructor(readonly catalogue: Catalogue) {}

  /** @returns the number it comes to; 0 where it is none (it divides by zero, or grows beyond numbers) */
  get(kept: string, scope: Scope): Getter {
    const known = this.known[scope];
    let made = known.get(kept);
    if (!made) {
      made = this.make(kept, scope);
      known.set(kept, made);
    }
    return made;
  }

  /** The parts of a formula, for proofs about its range; null where it can't be read. */
  tree(kept: string, scope: Scope): Formula | null {
    return formulaOf(kept, scope);
  }
  /** The value of one name of a formula. */
  name(token: string): Getter {
    let getter = this.names.get(token);
    if (!getter) {
      getter = getterOf(this.catalogue, token);
      this.names.set(token, getter);
    }
    return getter;
  }
  private readonly names = new Map<string, Getter>();

  /** What stands in a formula field, or another number where nothing does. */
  value(kept: string | null, scope: Scope, of: Speaking, otherwise: number): number {
    return kept === null ? otherwise : this.get(kept, scope)(of);
  }

  private make(kept: string, scope: Scope): Getter {
    const tree = formulaOf(kept, scope);
    if (!tree) return () => 0;
    if (tree.is === "number") {
      const { value } = tree;
      return () => value;
    }
    const names: string[] = [];
    const evaluate: Evaluator = compiled(tree, (name) => {
      const at = names.indexOf(name);
      return at >= 0 ? at : names.push(name) - 1;
    });
    const getters = names.map((name) => getterOf(this.catalogue, name));
    const values = new Float64Array(getters.length);
    return (of) => {
      for (let k = 0; k < getters.length; k++) values[k] = getters[k](of);
      const value = evaluate(values);
      return Number.isFinite(value) ? value : 0;
    };
  }
}
