import type { Item, PlacedItem } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import { hasEditor } from '../kinds/register';
import type { Tool } from '../tool/tool';
import type { Arranging } from '../editing/arranging';

/** How far an arrow key moves what is chosen, in points; with Shift so many times as far. */
const STEP = 1;
const FAR = 10;
const ARROWS: Record<string, [number, number]> = {
  arrowleft: [-1, 0],
  arrowright: [1, 0],
  arrowup: [0, -1],
  arrowdown: [0, 1],
};

/** What keys need to know of the board, and what they ask of it. */
export interface ByKey {
  tool(): Tool;
  page(): Id | null;
  /** Whether this person lays material on pages, too. */
  arranges(): boolean;
  readonly arranging: Arranging;
  mayRemove(items: readonly Item[]): boolean;
  /** What is written there is opened. */
  write(item: PlacedItem, page: Id): void;
  /** Nothing is chosen any more. */
  rest(): void;
}

/** What keys do with what is chosen; returns whether it was done. */
export function arrangeByKey(event: KeyboardEvent, by: ByKey): boolean {
  if (by.tool() !== 'select') return false;
  const key = event.key.toLowerCase();
  const { arranging } = by;
  const page = by.page();
  const onStage = (event.target as HTMLElement).closest('cua-stage') !== null;
  if (event.ctrlKey || event.metaKey) {
    if (key === 'a' && page) arranging.chooseAll(page);
    else if (key === 'd' && by.mayRemove(arranging.items())) arranging.do({ kind: 'duplicate' });
    else if (!by.arranges()) return false;
    else if (key === 'g') arranging.do({ kind: 'group', together: !event.shiftKey });
    else if (key === ']') arranging.do({ kind: 'order', where: 'front' });
    else if (key === '[') arranging.do({ kind: 'order', where: 'back' });
    else return false;
    return true;
  }
  if (key === 'tab' && onStage && page) return arranging.chooseNext(page, event.shiftKey ? -1 : 1);
  const selection = arranging.selection();
  if (!selection) return false;
  const [only] = arranging.items();
  if (key === 'enter' && onStage && only && hasEditor(only) && !only.fixed) {
    by.write(only, selection.page);
    return true;
  }
  const arrow = ARROWS[key];
  if (arrow && onStage) {
    const step = event.shiftKey ? STEP * FAR : STEP;
    arranging.nudge(arrow[0] * step, arrow[1] * step);
  } else if (key === 'delete' || key === 'backspace') {
    if (by.mayRemove(arranging.items())) arranging.do({ kind: 'remove' });
  } else if (key === 'escape') by.rest();
  else return false;
  event.stopPropagation();
  return true;
}

/** Whether something is written there, or chosen in a dialog. */
export function isField(at: EventTarget | null): boolean {
  const field = 'input, select, textarea, [contenteditable], dialog, [role=dialog], [role=menu]';
  return at instanceof Element && at.closest(field) !== null;
}
