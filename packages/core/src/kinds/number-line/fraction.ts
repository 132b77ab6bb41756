/** A fraction in lowest terms; the denominator is positive. */
export interface Fraction {
  readonly numerator: number;
  readonly denominator: number;
}

/** Largest denominator that is looked for: no lesson divides a unit into more parts. */
const MOST = 1000;

/**
 * The simplest fraction within `near` of a number: convergents of its continued fraction, the first that is near enough
 * (Hardy and Wright, An Introduction to the Theory of Numbers, chapter 10). `null` where none has a denominator of 1,000 or
 * less.
 */
export function fractionOf(value: number, near = 1e-9): Fraction | null {
  const size = Math.abs(value);
  let [p0, q0, p1, q1] = [0, 1, 1, 0];
  for (let rest = size; q1 <= MOST;) {
    const whole = Math.floor(rest);
    [p0, q0, p1, q1] = [p1, q1, whole * p1 + p0, whole * q1 + q0];
    if (q1 > MOST) return null;
    if (Math.abs(p1 / q1 - size) <= near * Math.max(1, size))
      return { numerator: p1 === 0 ? 0 : Math.sign(value) * p1, denominator: q1 };
    rest = 1 / (rest - whole);
  }
  return null;
}

/** A number as it is typed: `-3`, `0.25`, `0,25`, `1/3` or `2 1/2`; `null` for anything else. */
export function readNumber(text: string): number | null {
  const plain = text.trim().replace('−', '-').replace(',', '.');
  if (/^-?(\d+(\.\d*)?|\.\d+)$/.test(plain)) return Number(plain);
  const parts = /^(-?)(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)$/.exec(plain);
  if (!parts || Number(parts[4]) === 0) return null;
  const size = Number(parts[2] ?? 0) + Number(parts[3]) / Number(parts[4]);
  return parts[1] ? -size : size;
}
