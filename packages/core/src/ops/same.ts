/** Whether two values of plain data are alike, in whatever order their keys come. */
export function same(a: unknown, b: unknown): boolean {
  if (a instanceof Uint8Array && b instanceof Uint8Array)
    return a.length === b.length && a.every((byte, i) => byte === b[i]);
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return a === b;
  const [left, right] = [a as Record<string, unknown>, b as Record<string, unknown>];
  const keys = new Set([...Object.keys(left), ...Object.keys(right)]);
  return [...keys].every((key) => same(left[key], right[key]));
}

/** Bytes that an operation takes up when it is kept, about: of its ink and its words. */
export function sizeOf(value: unknown): number {
  if (value instanceof Uint8Array) return value.length;
  if (typeof value === 'string') return value.length + 1;
  if (typeof value !== 'object' || value === null) return 5;
  let size = 1;
  for (const key in value) size += 2 + sizeOf((value as Record<string, unknown>)[key]);
  return size;
}
