import { frameContains } from '../geometry/index.js';
import type { Point } from '../geometry/index.js';
import type { Id } from '../id/index.js';
import { byOrder } from '../order/index.js';
import { itemsOn } from './board.js';
import { isMaterial } from './item.js';
import type { CoverItem, Item, PlacedItem } from './item.js';
import type { Page } from './page.js';

/*
 * What lies where on a page. It is a pile: the page itself at the bottom, then the cover sheets that
 * are laid on it. What was written on a sheet is there as long as the sheet is.
 */

/** One sheet of the pile, with what lies on it. */
export interface PileSheet {
  /** The cover sheet; `null` for the page itself. */
  readonly cover: CoverItem | null;
  /** From the lowest to the highest. */
  readonly material: readonly PlacedItem[];
  /** Ink, and what was written with it, in the order in which it came. */
  readonly ink: readonly Item[];
}

/** Pages never change, so the pile on each is sorted once. (One in a draft does: see `BoardDraft.current`.) */
const piles = new WeakMap<Page, readonly PileSheet[]>();

/** The page and the cover sheets that lie on it just now, from the lowest to the highest. */
export function pileOf(page: Page): readonly PileSheet[] {
  let pile = piles.get(page);
  if (!pile) piles.set(page, (pile = sorted(page)));
  return pile;
}

function sorted(page: Page): PileSheet[] {
  const material: PlacedItem[] = [];
  const ink: Item[] = [];
  const covers: CoverItem[] = [];
  const on = new Map<Id, { material: PlacedItem[]; ink: Item[] }>();
  for (const item of page.items.values()) {
    if (item.removed) continue;
    if (item.kind === 'cover') {
      if (!item.lifted) covers.push(item);
      continue;
    }
    let sheet = { material, ink };
    if (item.on && page.items.get(item.on)?.kind === 'cover') {
      const known = on.get(item.on);
      if (known) sheet = known;
      else on.set(item.on, (sheet = { material: [], ink: [] }));
    }
    if (isMaterial(item)) sheet.material.push(item);
    else sheet.ink.push(item);
  }
  const pile: PileSheet[] = [{ cover: null, material: material.sort(byOrder), ink }];
  for (const cover of covers.sort(byOrder)) {
    const there = on.get(cover.id);
    pile.push({
      cover,
      material: there?.material.sort(byOrder) ?? [],
      ink: there?.ink ?? [],
    });
  }
  return pile;
}

/** Material on the page itself that is there, from the lowest to the highest. */
export function materialOn(page: Page): readonly PlacedItem[] {
  return pileOf(page)[0]!.material;
}

/** All that is drawn on a page, cover sheets among it, in the order of drawing. */
export function drawnOn(page: Page): Item[] {
  return pileOf(page).flatMap(({ cover, material, ink }) =>
    cover ? [cover, ...material, ...ink] : [...material, ...ink],
  );
}

/** Cover sheets of a page, lifted ones too, in the order of the pile. */
export function coversOn(page: Page): CoverItem[] {
  return itemsOn(page)
    .filter((item): item is CoverItem => item.kind === 'cover')
    .sort(byOrder);
}

/** The cover sheet that is written on at this place; `null` where that is the page itself. */
export function sheetAt(page: Page, p: Point): CoverItem | null {
  const pile = pileOf(page);
  for (let i = pile.length - 1; i > 0; i--)
    if (frameContains(pile[i]!.cover!.frame, p)) return pile[i]!.cover;
  return null;
}

/** The sheets of which something can be touched at this place: the topmost there, and any above it. */
export function pileAt(page: Page, p: Point): readonly PileSheet[] {
  const pile = pileOf(page);
  const top = sheetAt(page, p);
  return pile.slice(pile.findIndex(({ cover }) => cover === top));
}
