/** Records under another name, for processes that are called otherwise than the record that contributes them. */

/**
 * Names a record again beside another one: "River eel as any fish", "Open Wreck crate".
 * @returns the same object for the same two records, so that what is kept by it stays
 */
export function aliasOf<R extends { readonly name: string }, B extends object>(
  name: (record: R, beside: B) => string,
): (record: R, beside: B) => R {
  const known = new WeakMap<R, WeakMap<B, R>>();
  return (record, beside) => {
    const of = known.get(record) ?? new WeakMap<B, R>();
    known.set(record, of);
    const there = of.get(beside) ?? { ...record, name: name(record, beside) };
    of.set(beside, there);
    return there;
  };
}
