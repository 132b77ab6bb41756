import { ItemSpec } from '../kinds/index.js';
import * as z from 'zod';
import { Id } from '../id/index.js';
import { isOrderKey } from '../order/index.js';
import { teaches } from '../permissions/index.js';
import { refuseWriting } from './items.js';
import { operationType } from './operation.js';
import { isWritten } from './writing.js';
import { isAsItWas, itemsNow, onShownPage } from './projecting.js';
import { noteAdded } from './redacting.js';

/** Lays an item on a page. The item it makes has the operation's own id. */
export const itemAdd = operationType({
  schema: z.strictObject({ id: Id, kind: z.literal('item.add'), page: Id, item: ItemSpec }),
  apply({ id, page, item }, draft, { by, at, lesson }) {
    if (!draft.page(page) || draft.item(page, id)) return;
    draft.setItem(page, { ...item, id, by, at, lesson, removed: null });
  },
  invert({ id, page }, board, who) {
    const item = board.pages.get(page)?.items.get(id);
    return item && !item.removed && item.by === who
      ? { kind: 'items.remove', page, items: [id] }
      : null;
  },
  refuse({ page, item }, board, actor) {
    const not = refuseWriting(board, page, actor);
    if (not) return not;
    if (!isOrderKey(item.order)) return 'bad-order';
    if (teaches(actor.role)) return null;
    // Students write; what is laid under the ink is their tutor's.
    return isWritten(item) ? null : 'material-tutor';
  },
  about: ({ page }) => ({ pages: [page], items: [] }),
  changes: ({ item }) => (item.hidden === true ? 'hidden' : null),
  project: (op, projecting) =>
    onShownPage(op, projecting, (page) =>
      isAsItWas(op.id, page, projecting.viewer)
        ? op
        : itemsNow(op, page, projecting.viewer, [op.id]),
    ),
  redact: noteAdded,
  touches: () => [],
});
