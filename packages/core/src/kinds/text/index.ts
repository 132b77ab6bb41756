import { plainText } from '../../text/index.js';
import { box } from '../box.js';
import { itemKind } from '../kind.js';
import { drawText } from './draw.js';
import { grownText } from './grown.js';
import { isTextAt } from './hit.js';
import { TextSpec } from './spec.js';

export * from './spec.js';

export const text = itemKind({
  ...box,
  schema: TextSpec,
  defaults: {},
  lasting: [],
  isWriting: true,
  draw: drawText,
  isAt: isTextAt,
  place: grownText,
  words: (item) => plainText(item.text),
  spoken: (item) => `${item.slip === null ? 'Text' : 'Slip'}: ${plainText(item.text)}`,
});
