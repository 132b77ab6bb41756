import { itemAt } from '@cuaderno/core/edits';
import { spokenItem } from '@cuaderno/core/kinds';
import type { Point } from '@cuaderno/core/geometry';
import { pageUnder } from './pointer-tool';
import type { Viewing } from './viewing';

/** How near to an item its words are told, in CSS px. */
const NEAR = 6;

/** What lies at a place of the window, in words; ink says nothing of itself. */
export function spokenAt(viewing: Pick<Viewing, 'camera' | 'seen'>, at: Point): string {
  const { camera } = viewing;
  const found = pageUnder(camera, viewing.seen(), at);
  const item = found && itemAt(found.placed.page, found.p, NEAR / camera.zoom);
  return item && item.kind !== 'ink' ? spokenItem(item) : '';
}
