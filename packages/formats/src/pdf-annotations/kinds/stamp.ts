import type { PdfRect } from '@cuaderno/core';
import type { Annotation } from '../annotation.js';
import { PLAIN } from '../plain.js';

/** A stamp says in words what its drawing shows. */
export function stamp<Item>(
  contents: (item: Item) => string,
): (item: Item, rect: PdfRect) => Annotation {
  return (item, rect) => ({ ...PLAIN, kind: 'Stamp', rect, contents: contents(item) });
}
