import * as z from 'zod';
import { specOf } from '../board/index.js';
import type { Board, Item } from '../board/index.js';
import { Id } from '../id/index.js';
import { checkStroke, InkCodingError } from '../ink/index.js';
import { ItemSpec, defaultsOf, isWritingKind } from '../kinds/index.js';
import { isOrderKey } from '../order/index.js';
import { appliesTo, teaches } from '../permissions/index.js';
import type { Actor, RefusalCode } from '../permissions/index.js';
import { refuseWriting } from './items.js';
import { ItemTraits } from './item-traits.js';
import { operationType } from './operation.js';
import { same } from './same.js';
import { isAsItWas, itemsNow, onShownPage, tombstone } from './projecting.js';
import { isOfTheirs } from './redacting.js';
import { isHidden } from '../viewers/index.js';

type TraitKey = keyof ItemTraits;

/** What of material stays the tutor's to change, even with hands on. */
const KEPT_BY_TUTOR = ['hidden', 'fixed', 'group'];

/**
 * Changes what an item is: where it lies, how it looks, whether it is fixed or hidden; a line's
 * ink. What it was goes along, so that undoing knows it.
 */
export const itemChange = operationType({
  schema: z.strictObject({
    id: Id,
    kind: z.literal('item.change'),
    page: Id,
    item: Id,
    to: ItemTraits,
    from: ItemTraits,
  }),
  apply({ page, item, to }, draft) {
    const now = draft.item(page, item);
    if (now) draft.setItem(page, { ...now, ...to } as Item);
  },
  invert({ page, item, to, from }, board) {
    const now = board.pages.get(page)?.items.get(item);
    if (!now || now.removed) return null;
    // What someone has changed since is theirs, and stays.
    const keys = namesOf(to).filter((key) => key in from && same(trait(now, key), to[key]));
    return keys.length > 0
      ? { kind: 'item.change', page, item, to: pick(from, keys), from: pick(to, keys) }
      : null;
  },
  refuse({ page, item, to }, board, actor) {
    const not = refuseWriting(board, page, actor);
    if (not) return not;
    const here = board.pages.get(page)!;
    const now = here.items.get(item);
    if (!now || (!teaches(actor.role) && now.kind !== 'ink' && now.hidden)) return 'no-such-item';
    const { trust } = appliesTo(actor, board, here);
    return refuseTo({ ...actor, trust }, now, to) ?? refuseValues(now, to);
  },
  about: ({ page, item }) => ({ pages: [page], items: [item] }),
  changes: ({ to }) => (to.hidden === undefined ? null : 'hidden'),
  project: (op, projecting) =>
    onShownPage(op, projecting, (page) => {
      const { before, viewer } = projecting;
      const isHiddenNow = isHidden(page.items.get(op.item));
      if (before.has(op.item) !== isHiddenNow)
        return itemsNow(op, page, viewer, [op.item], isHiddenNow ? [op.item] : []);
      // What it was is of use to who changed it, and to nobody else.
      return isAsItWas(op.item, page, viewer) ? { ...op, from: {} } : tombstone(op);
    }),
  redact: isOfTheirs,
  touches: () => [],
});

/** The change that gives an item these traits, with what it has now to undo it by. */
export function changeItem(
  board: Board,
  page: Id,
  item: Id,
  to: ItemTraits,
): { kind: 'item.change'; page: Id; item: Id; to: ItemTraits; from: ItemTraits } | null {
  const now = board.pages.get(page)?.items.get(item);
  if (!now) return null;
  const keys = namesOf(to).filter((key) => !same(trait(now, key), to[key]));
  if (keys.length === 0) return null;
  const from = Object.fromEntries(keys.map((key) => [key, trait(now, key)]));
  return { kind: 'item.change', page, item, to: pick(to, keys), from };
}

/** Whether this person may change this about this item. */
function refuseTo(actor: Actor, now: Item, to: ItemTraits): RefusalCode | null {
  if (teaches(actor.role)) return null;
  const written = now.kind === 'ink' || now.layer === 'ink';
  if (written) {
    if (now.kind !== 'ink' && !isWritingKind(now)) return 'material-tutor';
    if ('hidden' in to || 'fixed' in to) return 'material-tutor';
    return now.by === actor.id ? null : 'not-yours';
  }
  // Hands on: what is loose may be moved about and changed, as tiles are; that it is loose is the tutor's.
  const own = Object.keys(to).some((key) => KEPT_BY_TUTOR.includes(key));
  return actor.trust === 'hands' && !now.fixed && !own ? null : 'material-tutor';
}

/** Whether the item would still be one. */
function refuseValues(now: Item, to: ItemTraits): RefusalCode | null {
  if (now.kind === 'ink') return refuseInk(to);
  if (to.order !== undefined && !isOrderKey(to.order)) return 'bad-order';
  return ItemSpec.safeParse({ ...specOf(now), ...to }).success ? null : 'bad-item';
}

function refuseInk(to: ItemTraits): RefusalCode | null {
  const { ink } = to;
  if (namesOf(to).some((key) => key !== 'ink' && key !== 'on')) return 'bad-item';
  if (!ink) return null;
  try {
    checkStroke(ink);
    return null;
  } catch (error) {
    if (error instanceof InkCodingError) return 'bad-ink';
    throw error;
  }
}

function trait(item: Item, name: TraitKey): unknown {
  const said = (item as ItemTraits)[name];
  return said === undefined ? defaultsOf(item)[name] : said;
}

function namesOf(traits: ItemTraits): TraitKey[] {
  return (Object.keys(traits) as TraitKey[]).filter((name) => traits[name] !== undefined);
}

function pick(all: ItemTraits, names: readonly TraitKey[]): ItemTraits {
  return Object.fromEntries(names.map((name) => [name, all[name]]));
}
