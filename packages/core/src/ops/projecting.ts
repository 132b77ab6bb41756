import type { Page } from '../board/index.js';
import type { Id } from '../id/index.js';
import { audienceOf, maySee, shownItem } from '../viewers/index.js';
import type { Viewer } from '../viewers/index.js';
import type { Projecting } from './operation.js';
import type { Projection } from './projections.js';

/** Stands for an operation that this person is not shown. */
export function tombstone({ id }: { readonly id: Id }): Projection {
  return { id, kind: 'tombstone' };
}

/** Whether somebody is shown a page. */
export function isShown(page: Page | undefined, viewer: Viewer): page is Page {
  return page !== undefined && maySee(viewer, audienceOf(page));
}

/** Of an operation on what lies on a page: what is sent of it where students are shown that page. */
export function onShownPage<Op extends { readonly id: Id; readonly page: Id }>(
  op: Op,
  { before, after, viewer }: Projecting,
  tell: (page: Page) => Op | Projection,
): Op | Projection {
  const page = after.pages.get(op.page);
  return isShown(page, viewer) && !before.has(op.page) ? tell(page) : tombstone(op);
}

/** These items as they are by now; those are not there any more. */
export function itemsNow(
  op: { readonly id: Id },
  page: Page,
  viewer: Viewer,
  ids: readonly Id[],
  gone: readonly Id[] = [],
): Projection {
  const here = ids.flatMap((id) => {
    const item = page.items.get(id);
    return (item && shownItem(item, page, viewer)) ?? [];
  });
  if (here.length + gone.length === 0) return tombstone(op);
  return { id: op.id, kind: 'items.now', page: page.id, here, gone: [...gone] };
}

/** Whether this person is shown an item just as it is. */
export function isAsItWas(id: Id, page: Page, viewer: Viewer): boolean {
  const item = page.items.get(id);
  return item !== undefined && shownItem(item, page, viewer) === item;
}
