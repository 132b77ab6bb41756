/** Bytes a second below which a line is thin: what a page needs would take longer than anyone waits. */
const THIN = 60_000;
/** Scripts that came over it, in bytes, by which it is judged: less says nothing. */
const ENOUGH = 40_000;
const SCRIPT = /\.m?js$/;

interface CameOverLine {
  readonly transferSize: number;
  readonly startTime: number;
  readonly responseEnd: number;
}

/** Bytes a second of what came over the line; `null` where too little did, as when it was all kept. */
export function speedOf(came: readonly CameOverLine[]): number | null {
  const over = came.filter(({ transferSize }) => transferSize > 0);
  const bytes = over.reduce((sum, { transferSize }) => sum + transferSize, 0);
  if (bytes < ENOUGH) return null;
  // Several come at once, and between them the line may rest: only time in which something was on its way counts.
  const spans = over
    .map(({ startTime, responseEnd }) => [startTime, responseEnd] as const)
    .sort(([a], [b]) => a - b);
  let busy = 0;
  let until = 0;
  for (const [from, to] of spans) {
    busy += Math.max(0, to - Math.max(from, until));
    until = Math.max(until, to);
  }
  return (bytes * 1000) / Math.max(1, busy);
}

/**
 * Whether this line is thin, going by what came over it so far (Resource Timing); where that says nothing, by what the
 * browser says of it, if it does (Network Information, which not all have).
 */
export function isLineThin(): boolean {
  const came = performance.getEntriesByType('resource') as PerformanceResourceTiming[];
  // An answer that the server thinks about says nothing of the line.
  const speed = speedOf(came.filter(({ name }) => SCRIPT.test(name)));
  if (speed !== null) return speed < THIN;
  const { connection } = navigator as { connection?: { saveData?: boolean; downlink?: number } };
  return connection?.saveData === true || (connection?.downlink ?? Infinity) * 125_000 < THIN;
}
