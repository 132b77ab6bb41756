import type { Frame } from '../../geometry/index.js';
import type { TextSpec } from './spec.js';

export type GrownText = Pick<TextSpec, 'frame' | 'size' | 'lines'>;

/** A text whose frame grew evenly grows with it; else its lines are broken anew where that can be done. */
export function grownText(text: TextSpec, frame: Frame): GrownText {
  const growth = frame.width / text.frame.width;
  if (Math.abs(frame.height / text.frame.height - growth) > 1e-3)
    return { frame, size: text.size, lines: text.lines };
  const lines = text.lines.map(({ y, runs }) => ({
    y: y * growth,
    runs: runs.map((run) => ({ ...run, x: run.x * growth, width: run.width * growth })),
  }));
  return { frame, size: Math.min(1000, Math.max(2, text.size * growth)), lines };
}
