/** A value as a trace tells it: itself, or by how much it, or its change, has changed (InkML, 3.2.1). */
const VALUE = /([!'"])?\s*(\*|\?|[TF]|#[0-9A-Fa-f]+|[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)/g;

/**
 * Reads the points of a trace: for each the values of its channels, in their order. What isn't given for a point is
 * what it was.
 * @param channels how many there are; further values are left out
 */
export function readTraceData(text: string, channels: number): Float64Array[] {
  const points: Float64Array[] = [];
  const value = new Float64Array(channels);
  const speed = new Float64Array(channels);
  /** How each channel's values are told, until it is said otherwise. */
  const prefix: string[] = new Array<string>(channels).fill('!');
  for (const sample of text.split(',')) {
    let n = 0;
    for (const [, sign, told] of sample.matchAll(VALUE)) {
      if (n >= channels) break;
      if (sign) prefix[n] = sign;
      step(n, told!);
      n++;
    }
    if (n > 0) points.push(value.slice());
  }
  return points;

  function step(n: number, told: string): void {
    if (told === '?') return;
    const last = value[n]!;
    if (told === '*') {
      // No change: of the value, of its change, or of that one's.
      if (prefix[n] === '"') value[n] = last + speed[n]!;
      else if (prefix[n] === "'") value[n] = last;
      return;
    }
    const number =
      told === 'T'
        ? 1
        : told === 'F'
          ? 0
          : told.startsWith('#')
            ? parseInt(told.slice(1), 16)
            : Number(told);
    if (prefix[n] === '!') {
      speed[n] = points.length > 0 ? number - last : 0;
      value[n] = number;
    } else {
      speed[n] = prefix[n] === "'" ? number : speed[n]! + number;
      value[n] = last + speed[n]!;
    }
  }
}
