import { box } from '../box.js';
import { itemKind } from '../kind.js';
import { drawCover } from './draw.js';
import { CoverSpec } from './spec.js';

export * from './spec.js';

export const cover = itemKind({
  ...box,
  schema: CoverSpec,
  defaults: { lifted: false },
  lasting: [],
  // A sheet covers what others wrote.
  isWriting: false,
  draw: drawCover,
  words: () => '',
  spoken: ({ lifted }) => (lifted ? 'Cover sheet, taken off' : 'Cover sheet'),
});
