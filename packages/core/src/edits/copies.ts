import { isMaterial, itemsOn } from '../board/index.js';
import type { Page } from '../board/index.js';
import type { Id } from '../id/index.js';
import type { Entry } from '../log/index.js';
import { additionsElsewhere, MAX_PAGES_AT_ONCE, operation } from '../ops/index.js';
import type { OrderKey } from '../order/index.js';
import { specLike } from './pages.js';

/** Something made that has no place in a log yet. */
export type Made = Omit<Entry, 'seq'>;

/**
 * All that makes copies of these pages on another board: who wrote a line, when and in which lesson
 * goes along, but every id is new, so that pages can come back to where they were.
 * @param orders their places on that board, one for each
 * @param lessonInk whether what was written in lessons comes too; what was prepared always does, and
 * so does material, whenever it was laid
 */
export function copiesOf(
  pages: readonly Page[],
  orders: readonly OrderKey[],
  { by, at, lessonInk }: { readonly by: Id; readonly at: number; readonly lessonInk: boolean },
): { readonly entries: Made[]; readonly pages: Id[] } {
  const specs = pages.map((page, i) => specLike(page, orders[i]!));
  const entries: Made[] = [];
  for (let i = 0; i < specs.length; i += MAX_PAGES_AT_ONCE) {
    const op = operation({ kind: 'pages.add', pages: specs.slice(i, i + MAX_PAGES_AT_ONCE) });
    entries.push({ op, by, at, lesson: null });
  }
  pages.forEach((page, i) => {
    const items = itemsOn(page).filter(
      (item) => lessonInk || item.lesson === null || (isMaterial(item) && !item.on),
    );
    additionsElsewhere(items, specs[i]!.id).forEach((op, at) => {
      const { by, at: when, lesson } = items[at]!;
      entries.push({ op, by, at: when, lesson });
    });
  });
  return { entries, pages: specs.map(({ id }) => id) };
}
