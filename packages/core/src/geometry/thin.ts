/**
 * Thins a line by the method of Douglas and Peucker (D. H. Douglas, T. K. Peucker, "Algorithms for
 * the reduction of the number of points required to represent a digitized line or its caricature",
 * The Canadian Cartographer 10(2), 1973, 112–122), with a stack in place of recursion so that
 * a line of any length is safe.
 *
 * @param count how many points the line has
 * @param offset how far point `i` lies from the straight line between points `a` and `b`
 * @param tolerance a point is kept where its offset exceeds this
 * @returns indices of the points kept, ascending; the ends always are
 */
export function thin(
  count: number,
  offset: (i: number, a: number, b: number) => number,
  tolerance: number,
): number[] {
  if (count <= 2) return Array.from({ length: count }, (_, i) => i);
  const kept = new Uint8Array(count);
  kept[0] = kept[count - 1] = 1;
  const stack = [0, count - 1];
  while (stack.length > 0) {
    const b = stack.pop()!;
    const a = stack.pop()!;
    let worst = tolerance;
    let at = -1;
    for (let i = a + 1; i < b; i++) {
      const d = offset(i, a, b);
      if (d > worst) {
        worst = d;
        at = i;
      }
    }
    if (at >= 0) {
      kept[at] = 1;
      stack.push(a, at, at, b);
    }
  }
  const indices: number[] = [];
  for (let i = 0; i < count; i++) if (kept[i]) indices.push(i);
  return indices;
}
