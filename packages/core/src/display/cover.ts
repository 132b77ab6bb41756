import { corners } from '../material/index.js';
import type { CoverSpec } from '../material/index.js';
import type { DisplaySink } from './display-list.js';
import { PathBuffer } from './path.js';

/** The edge of a sheet, in points, and its colour. */
const EDGE = { width: 0.75, colour: '#8d8677' } as const;

/** An empty sheet: its tint and its edge. */
export function drawCover({ frame, tint }: CoverSpec, sink: DisplaySink): void {
  const path = new PathBuffer();
  corners(frame).forEach(({ x, y }, i) => (i === 0 ? path.moveTo(x, y) : path.lineTo(x, y)));
  path.closePath();
  sink.path(path, tint, 'normal', null);
  sink.path(path, EDGE.colour, 'normal', EDGE.width);
}
