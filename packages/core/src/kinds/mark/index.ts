import { PathBuffer, polyline } from '../../display/index.js';
import { isRunTouched } from '../../geometry/index.js';
import { box, TOUCHED_EDGE } from '../box.js';
import { itemKind } from '../kind.js';
import { MarkSpec } from './spec.js';
import type { MarkName } from './spec.js';
import { writtenMark } from './strokes.js';

export * from './spec.js';
export * from './strokes.js';

const NAMES: Readonly<Record<MarkName, string>> = {
  tick: 'Tick',
  cross: 'Cross',
  star: 'Star',
  question: 'Question mark',
  attention: 'Exclamation mark',
  heart: 'Heart',
};

export const mark = itemKind({
  ...box,
  schema: MarkSpec,
  defaults: {},
  lasting: [],
  isWriting: true,
  draw(item, sink) {
    const { runs, pen } = writtenMark(item);
    const path = new PathBuffer();
    for (const points of runs) polyline(path, points, pen === null);
    sink.path(path, item.colour, 'normal', pen);
  },
  isTouched: (item, a, b, radius) =>
    writtenMark(item).runs.some((points) =>
      isRunTouched({ points, closed: false }, a, b, radius + TOUCHED_EDGE),
    ),
  words: () => '',
  spoken: ({ mark }) => NAMES[mark],
});
