import { encodeStroke, NO_PRESSURE, operation, thinPoints } from '@cuaderno/core';
import type { Id, InkStyle, Operation, Point } from '@cuaderno/core';
import { chance } from '@cuaderno/core/testing';

/**
 * A line along these places, with a hand's small tremble, as an operation.
 * @param tremble how far a place may be off, in points
 */
export function line(
  page: Id,
  style: InkStyle,
  places: readonly Point[],
  seed = 1,
  tremble = 0.9,
): Operation {
  const random = chance(seed);
  const points = places.map(({ x, y }, i) => ({
    x: x + (random() - 0.5) * tremble,
    y: y + (random() - 0.5) * tremble,
    pressure:
      style.tool === 'pen' ? 0.4 + 0.25 * Math.sin((Math.PI * i) / places.length) : NO_PRESSURE,
    time: i * 12,
  }));
  return operation({
    kind: 'ink.add',
    page,
    ink: encodeStroke({ style, points: thinPoints(points, style.width) }),
  });
}

/** Places along a straight stretch. */
export function stretch(from: Point, to: Point, steps = 24): Point[] {
  return Array.from({ length: steps + 1 }, (_, i) => ({
    x: from.x + ((to.x - from.x) * i) / steps,
    y: from.y + ((to.y - from.y) * i) / steps,
  }));
}

/** Once round, and a little further, as people circle things. */
export function loop({ x, y }: Point, rx: number, ry = rx): Point[] {
  return Array.from({ length: 46 }, (_, i) => {
    const a = -1.2 + (i / 42) * 2 * Math.PI;
    return { x: x + Math.cos(a) * rx, y: y + Math.sin(a) * (ry + i * 0.04) };
  });
}

/** A tick with its corner at the place. */
export function tick({ x, y }: Point, size = 16): Point[] {
  return [
    ...stretch({ x: x - size * 0.5, y: y - size * 0.4 }, { x, y }, 8),
    ...stretch({ x, y }, { x: x + size, y: y - size * 1.4 }, 12),
  ];
}
