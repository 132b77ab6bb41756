import { readPathData } from '../../display/index.js';
import { compose, frameMatrix } from '../../geometry/index.js';
import type { Matrix } from '../../geometry/index.js';
import { box } from '../box.js';
import { itemKind } from '../kind.js';
import { FormulaSpec } from './spec.js';

export * from './spec.js';

export const formula = itemKind({
  ...box,
  schema: FormulaSpec,
  defaults: { words: '' },
  lasting: [],
  isWriting: true,
  draw({ frame, outline, box: { width, height }, colour }, sink) {
    const own: Matrix = [1 / width, 0, 0, 1 / height, 0, 0];
    const matrix = compose(own, frameMatrix(frame));
    sink.outline({ kind: 'outline', path: readPathData(outline), colour, matrix });
  },
  words: ({ source, words }) => (words ? `${source}\n${words}` : source),
  spoken: ({ source, words }) => `Formula: ${words || source}`,
});
