import { spokenItem } from '@cuaderno/core';
import type { ItemSpec, KindName, Matrix, PdfRect, SpecOf } from '@cuaderno/core';
import type { Annotation } from '../annotation.js';
import { cover } from './cover.js';
import { shape } from './shape.js';
import { stamp } from './stamp.js';
import { text } from './text.js';

type Describe<Item> = (item: Item, rect: PdfRect, map: Matrix) => Annotation;

/** What each kind of item is as an annotation; the standard has a word for some of them, and stamps for all. */
const KINDS: { readonly [Name in KindName]: Describe<SpecOf<Name>> } = {
  text,
  shape,
  cover,
  mark: stamp((item) => item.mark),
  formula: stamp((item) => item.words || item.source),
  picture: stamp((item) => item.alt ?? ''),
  media: stamp((item) => item.name),
  'number-line': stamp(spokenItem),
};

/**
 * An item in the words of the standard.
 * @param rect what it takes up, in the PDF's user space
 * @param map from points on the page to that
 */
export function describeItem(item: ItemSpec, rect: PdfRect, map: Matrix): Annotation {
  return (KINDS[item.kind] as Describe<ItemSpec>)(item, rect, map);
}
