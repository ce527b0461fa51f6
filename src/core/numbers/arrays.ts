/** Typed arrays that make room. */
type Flat = Float64Array | Float32Array | Int32Array | Uint32Array | Int16Array | Uint16Array | Uint8Array;

/** The same numbers with room for more; what is new is 0. */
export function wider<T extends Flat>(array: T, room: number): T {
  const more = new (array.constructor as new (n: number) => T)(room);
  more.set(array as never);
  return more;
}
