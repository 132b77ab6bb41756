/**
 * How many of these, from the first on, are so. None after one that isn't may be so: the place is found by
 * halving.
 */
export function countWhile<T>(list: readonly T[], isSo: (one: T) => boolean): number {
  let [low, high] = [0, list.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (isSo(list[middle]!)) low = middle + 1;
    else high = middle;
  }
  return low;
}
