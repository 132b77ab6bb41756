import { frameContains, middle, turned } from '../../geometry/index.js';
import type { Point } from '../../geometry/index.js';
import { BASELINE, LINE_HEIGHT } from '../../text/index.js';
import type { TextSpec } from './spec.js';

/** A slip is touched anywhere; words that stand on the page are, as far as they reach, and not beside them. */
export function isTextAt({ frame, lines, size, slip }: TextSpec, p: Point, slack: number): boolean {
  if (!frameContains(frame, p, slack)) return false;
  const runs = lines.flatMap((line) => line.runs.filter(({ text }) => text.trim() !== ''));
  if (slip !== null || runs.length === 0) return true;
  const q = turned(p, middle(frame), -frame.turn);
  const left = frame.x + Math.min(...runs.map(({ x }) => x));
  const right = frame.x + Math.max(...runs.map(({ x, width }) => x + width));
  const bottom = frame.y + (lines.at(-1)!.y + (LINE_HEIGHT - BASELINE) * size);
  return q.x >= left - slack && q.x <= right + slack && q.y <= bottom + slack;
}
