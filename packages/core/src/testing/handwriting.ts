import type { InkPoint, Stroke } from '../ink/index.js';

/** A small generator of repeatable chance (mulberry32), so that a test draws the same line twice. */
export function chance(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/**
 * Made-up handwriting: loops of a few millimetres that drift to the right, sampled about every
 * 8 ms, with the tremble of a hand and, for a stylus, pressure that swells and falls.
 */
export function handwriting(
  seed: number,
  { count = 60, stylus = true, x = 100, y = 100, width = 2.4 } = {},
): Stroke {
  const random = chance(seed);
  const turn = 0.12 + random() * 0.15;
  const size = 6 + random() * 14;
  const drift = 0.3 + random() * 1.2;
  const phase = random() * 6.28;
  const points: InkPoint[] = [];
  let time = 0;
  for (let i = 0; i < count; i++) {
    const a = phase + i * turn;
    points.push({
      x: x + i * drift + Math.cos(a) * size * 0.6 + (random() - 0.5) * 0.12,
      y: y + Math.sin(a * 1.1) * size + (random() - 0.5) * 0.12,
      pressure: stylus ? 0.35 + 0.3 * Math.sin((Math.PI * i) / count) + random() * 0.04 : 0.5,
      time,
    });
    time += random() < 0.85 ? 8 : 9;
  }
  return { style: { tool: 'pen', ink: 'midnight', width }, points };
}
