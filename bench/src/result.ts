/** What a benchmark ends with: one line of JSON. `ratio` is value to baseline. */
export interface Result {
  readonly name: string;
  readonly value: number;
  readonly unit: string;
  readonly baseline: number;
  readonly ratio: number;
  readonly limit: number;
  readonly pass: boolean;
}

const round = (n: number): number => Math.round(n * 1000) / 1000;

/** @param atLeast whether more is better: then the ratio must reach the limit, else stay below it */
export function result(
  name: string,
  unit: string,
  value: number,
  baseline: number,
  limit: number,
  { atLeast = false, also = true } = {},
): Result {
  const ratio = value / baseline;
  const pass = (atLeast ? ratio >= limit : ratio <= limit) && also;
  return {
    name,
    value: round(value),
    unit,
    baseline: round(baseline),
    ratio: round(ratio),
    limit,
    pass,
  };
}

/** The value below which this part (0 to 1) of the values lies. */
export function percentile(values: readonly number[], part: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))]!;
}

export function median(values: readonly number[]): number {
  return percentile(values, 0.5);
}
