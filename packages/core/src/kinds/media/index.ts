import { box } from '../box.js';
import { itemKind } from '../kind.js';
import { drawMedia } from './draw.js';
import { MediaSpec } from './spec.js';

export { playSign } from './draw.js';
export * from './spec.js';

export const media = itemKind({
  ...box,
  schema: MediaSpec,
  defaults: {},
  lasting: ['file', 'poster'],
  isWriting: false,
  draw: drawMedia,
  files: ({ file, poster }) => (poster ? [file, poster] : [file]),
  words: ({ name }) => name,
  spoken: ({ medium, name }) => `${medium === 'sound' ? 'Sound' : 'Film'}: ${name}`,
});
