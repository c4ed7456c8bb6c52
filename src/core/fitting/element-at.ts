/**
 * The element at a place of an array.
 *
 * @throws RangeError beyond its ends: a mistake of the caller
 */
export function elementAt<T>(values: { readonly length: number; readonly [i: number]: T }, i: number): T {
  const value = values[i];
  if (value === undefined) throw new RangeError(`There is no element ${i} among ${values.length}.`);
  return value;
}
