import { inside, isOnRun, isRunTouched } from '../../geometry/index.js';
import { itemKind } from '../kind.js';
import { drawShape } from './draw.js';
import { outlineOf } from './outline.js';
import { ShapeSpec } from './spec.js';

export * from './outline.js';
export * from './spec.js';

const NAMES: Readonly<Record<ShapeSpec['shape'], string>> = {
  line: 'Line',
  box: 'Box',
  ellipse: 'Ellipse',
  triangle: 'Triangle',
  polygon: 'Polygon',
};

export const shape = itemKind({
  schema: ShapeSpec,
  defaults: {},
  lasting: [],
  isWriting: true,
  draw: drawShape,
  isAt(item, p, slack) {
    const run = outlineOf(item);
    // What is filled is touched anywhere; what is only an outline, on the outline.
    if (run.closed && item.fill && inside(run.points, p)) return true;
    return isOnRun(run, p, slack + (item.outline?.width ?? 0) / 2);
  },
  isTouched: (item, a, b, radius) =>
    isRunTouched(outlineOf(item), a, b, radius + (item.outline?.width ?? 0) / 2),
  points: (item) => outlineOf(item).points,
  place: (_item, frame) => ({ frame }),
  files: () => [],
  words: () => '',
  spoken: ({ shape, heads = 'none' }) => (heads === 'none' ? NAMES[shape] : 'Arrow'),
});
