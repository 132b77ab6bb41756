/** How good a line is, by how long a word takes there and back; practice, no source. */
export interface LineQuality {
  readonly label: string;
  /** From 1, poor, to 3, good. */
  readonly bars: 1 | 2 | 3;
}

/** From so many ms on a line is fair, and poor. */
const FAIR = 150;
const POOR = 450;

/** @param ms the measured round trip; `null` where it wasn't measured yet */
export function inWords(ms: number | null): LineQuality | null {
  if (ms === null) return null;
  const words = (label: string): string => `${label} line: ${ms} ms there and back`;
  if (ms < FAIR) return { label: words('Good'), bars: 3 };
  return ms < POOR ? { label: words('Fair'), bars: 2 } : { label: words('Poor'), bars: 1 };
}
