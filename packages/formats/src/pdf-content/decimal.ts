/** A PDF number: never in exponential form (ISO 32000-1, 7.3.3). */
export function decimal(n: number): string {
  return Number.isInteger(n) ? String(n) : n.toFixed(6).replace(/\.?0+$/, '');
}
