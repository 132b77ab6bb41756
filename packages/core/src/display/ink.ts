import { getStroke } from 'perfect-freehand';
import { hasPressure, highlightColour, inkColour } from '../ink/index.js';
import type { InkPoint, Stroke } from '../ink/index.js';
import type { DisplayPath } from './display-list.js';
import { PathBuilder } from './path.js';
import type { Path } from './path.js';

/** How much of the width pressure may take away or add: a light touch draws about half as wide. */
const PRESSURE_RANGE = 0.6;

/**
 * What a stroke looks like. Without pressure it is a line of one width along a smooth curve; with
 * pressure it is the outline of a line that swells and narrows.
 */
export function displayStroke({ style, points }: Stroke): DisplayPath {
  if (style.tool === 'highlighter') {
    return {
      kind: 'path',
      path: centreLine(points),
      colour: highlightColour(style.ink),
      blend: 'multiply',
      paint: { width: style.width },
    };
  }
  const colour = inkColour(style.ink);
  return hasPressure(points)
    ? { kind: 'path', path: outline(points, style.width), colour, blend: 'normal', paint: 'fill' }
    : {
        kind: 'path',
        path: centreLine(points),
        colour,
        blend: 'normal',
        paint: { width: style.width },
      };
}

/** A curve through the middle of each pair of neighbours, with the points as control points. */
function centreLine(points: readonly InkPoint[]): Path {
  const path = new PathBuilder();
  const first = points[0]!;
  path.moveTo(first.x, first.y);
  if (points.length === 1) path.lineTo(first.x, first.y);
  for (let i = 1; i < points.length - 1; i++) {
    const p = points[i]!;
    const next = points[i + 1]!;
    path.quadraticCurveTo(p.x, p.y, (p.x + next.x) / 2, (p.y + next.y) / 2);
  }
  if (points.length > 1) {
    const last = points[points.length - 1]!;
    path.lineTo(last.x, last.y);
  }
  return path.done();
}

function outline(points: readonly InkPoint[], width: number): Path {
  const edge = getStroke(
    points.map((p) => [p.x, p.y, p.pressure]),
    {
      size: width,
      thinning: PRESSURE_RANGE,
      smoothing: 0.5,
      streamline: 0,
      simulatePressure: false,
      last: true,
    },
  );
  const path = new PathBuilder();
  const n = edge.length;
  if (n < 3) return centreLine(points);
  const mid = (i: number): [number, number] => {
    const p = edge[i % n]!;
    const q = edge[(i + 1) % n]!;
    return [(p[0]! + q[0]!) / 2, (p[1]! + q[1]!) / 2];
  };
  path.moveTo(...mid(n - 1));
  for (let i = 0; i < n; i++) path.quadraticCurveTo(edge[i]![0]!, edge[i]![1]!, ...mid(i));
  path.closePath();
  return path.done();
}
