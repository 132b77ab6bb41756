import { frameMatrix } from '../../geometry/index.js';
import { box } from '../box.js';
import { itemKind } from '../kind.js';
import { PictureSpec } from './spec.js';

export * from './spec.js';

const WHOLE = { x: 0, y: 0, width: 1, height: 1 };

export const picture = itemKind({
  ...box,
  schema: PictureSpec,
  defaults: { crop: null, alt: '' },
  lasting: ['file'],
  isWriting: false,
  draw({ file, frame, crop }, sink) {
    sink.image({ kind: 'image', file, matrix: frameMatrix(frame), crop: crop ?? WHOLE });
  },
  files: ({ file }) => [file],
  words: ({ alt }) => alt ?? '',
  spoken: ({ alt }) => (alt ? `Picture: ${alt}` : 'Picture'),
});
