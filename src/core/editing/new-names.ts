/** Records that are made because someone typed a name that is new; the same name twice is one record. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import { keyIndex } from "../catalogue/keys";
import { around } from "../catalogue/surroundings";
import { type AnyRecord, definition, isKind, type Kind, withDefaults } from "../kinds/index";
import { cut } from "../schema/characters";
import type { Surroundings, Typing } from "../schema/field";
import { type Id, newId } from "../schema/id";
import { LONGEST_NAME } from "../schema/limits";
import { normalise, KeyAllocator, keyFrom } from "../schema/names";

/** Hands out keys that are free in the catalogue and among those handed out before. */
export class FreeKeys {
  private readonly of = new Map<Kind, KeyAllocator>();
  constructor(
    private readonly catalogue: Catalogue,
    private readonly taken: (kind: Kind, normalised: string) => boolean = () => false,
  ) {}
  next(kind: Kind, name: string): string {
    let keys = this.of.get(kind);
    if (!keys) {
      const index = keyIndex(this.catalogue, kind);
      keys = new KeyAllocator((normalised) => index.has(normalised) || this.taken(kind, normalised));
      this.of.set(kind, keys);
    }
    return keys.next(keyFrom(name, kind));
  }
}

/** Kinds whose records can be created from their name alone, if someone asks for it. */
export const CREATABLE: readonly Kind[] = [
  "type",
  "rarity",
  "tag",
  "stat",
  "resource",
  "condition",
  "cooldown",
  "exclusion",
  "situation",
  "slot",
  "currency",
  "table",
  "signal",
  "item",
];

interface NewNamesOptions {
  /** Whether a normalised key is taken although the catalogue does not have it. */
  readonly taken?: (kind: Kind, normalised: string) => boolean;
  /** The id of the n-th that is made. */
  readonly idFor?: (kind: Kind, nth: number) => Id;
  /** Records of every creatable kind are created, not only those of kinds that names create by themselves. */
  readonly create?: boolean;
}

export class NewNames {
  readonly keys: FreeKeys;
  /** Typing around this catalogue, with what was made here. */
  readonly typing: Typing;
  private readonly made = new Map<string, { readonly kind: Kind; readonly record: AnyRecord }>();

  private readonly idFor: (kind: Kind, nth: number) => Id;
  private readonly creates: boolean;

  constructor(
    readonly catalogue: Catalogue,
    { taken, idFor = newId, create = false }: NewNamesOptions = {},
  ) {
    this.idFor = idFor;
    this.creates = create;
    this.keys = new FreeKeys(catalogue, taken);
    this.typing = { ...around(catalogue), make: (kind, name) => this.make(kind, name) };
  }

  has(kind: Kind, name: string): boolean {
    return this.made.has(`${kind} ${normalise(name)}`);
  }

  /**
   * @param like  what its key is made of
   * @returns the id of the record of this name; null where its kind is not made so
   */
  make(kind: string, name: string, like = name): Id | null {
    if (!isKind(kind)) return null;
    const fromName = definition(kind).fromName ?? (this.creates && CREATABLE.includes(kind) ? {} : undefined);
    if (!fromName) return null;
    const normalised = `${kind} ${normalise(name)}`;
    const there = this.made.get(normalised);
    if (there) return there.record.id;
    const given = {
      id: this.idFor(kind, this.made.size),
      key: this.keys.next(kind, like),
      name: cut(name, LONGEST_NAME).trim(),
    };
    const record = withDefaults(kind, { ...given, ...fromName } as never) as AnyRecord;
    this.made.set(normalised, { kind, record });
    return record.id;
  }
  /** For names in lines. */
  named = (name: string, kind: "item" | "tag"): Id => this.make(kind, name) as Id;

  /** The surroundings of the catalogue, in which what was made has its name. */
  get knowing(): Surroundings {
    const here = around(this.catalogue);
    if (!this.made.size) return here;
    const made = new Map([...this.made.values()].map(({ record }) => [record.id, record.name]));
    const named = (id: Id, or: () => string) => made.get(id) ?? or();
    return {
      ...here,
      nameOf: (kind, id) => named(id, () => here.nameOf(kind, id)),
      names: (kind) => {
        const names = here.names(kind);
        const over = {
          written: (id: Id) => named(id, () => names.written(id)),
          text: (id: Id) => named(id, () => names.text(id)),
        };
        return Object.assign(Object.create(names) as typeof names, over);
      },
    };
  }

  /** Edits that add what was made. */
  get edits(): Edit[] {
    return [...this.made.values()].map(({ kind, record }): Edit => ({ op: "add", kind, record }));
  }
}
