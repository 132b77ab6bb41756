import { PathBuffer, polyline } from '../../display/index.js';
import type { DisplaySink } from '../../display/index.js';
import { corners } from '../../geometry/index.js';
import type { CoverSpec } from './spec.js';

/** The edge of a sheet, in points, and its colour. */
const EDGE = { width: 0.75, colour: '#8d8677' } as const;

/** An empty sheet: its tint and its edge. */
export function drawCover({ frame, tint }: CoverSpec, sink: DisplaySink): void {
  const path = new PathBuffer();
  polyline(path, corners(frame), true);
  sink.path(path, tint, 'normal', null);
  sink.path(path, EDGE.colour, 'normal', EDGE.width);
}
