import type { Item, PlacedItem } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import { hasEditor } from '../kinds/register';
import type { Tool } from '../tool/tool';
import type { Arranging, SelectionCommand } from '../editing/arranging';
import type { Command } from '../shortcuts/table';

/** How far an arrow key moves what is chosen, in points; with Shift so many times as far. */
const STEP = 1;
const FAR = 10;
const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
/** What is asked of those who lay material on pages alone. */
const COMMANDS: readonly [Command, SelectionCommand][] = [
  ['group', { kind: 'group', together: true }],
  ['ungroup', { kind: 'group', together: false }],
  ['to-front', { kind: 'order', where: 'front' }],
  ['to-back', { kind: 'order', where: 'back' }],
];

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

/**
 * What keys do with what is chosen; returns whether it was done.
 * @param asks whether it is the key for something
 */
export function arrangeByKey(
  event: KeyboardEvent,
  asks: (command: Command) => boolean,
  by: ByKey,
): boolean {
  if (by.tool() !== 'select') return false;
  const { arranging } = by;
  const page = by.page();
  const onStage = (event.target as HTMLElement).closest('cua-stage') !== null;
  if (asks('select-all')) {
    if (page) arranging.chooseAll(page);
    return page !== null;
  }
  const step = asks('select-next') ? 1 : asks('select-before') ? -1 : 0;
  if (step !== 0 && onStage && page) return arranging.chooseNext(page, step);
  if (asks('duplicate')) {
    const may = by.mayRemove(arranging.items());
    if (may) arranging.do({ kind: 'duplicate' });
    return may;
  }
  const command = by.arranges() && COMMANDS.find(([name]) => asks(name))?.[1];
  if (command) {
    arranging.do(command);
    return true;
  }
  const selection = arranging.selection();
  if (!selection) return false;
  const [only] = arranging.items();
  if (asks('edit') && onStage && only && hasEditor(only) && !only.fixed) {
    by.write(only, selection.page);
    return true;
  }
  const far = asks('nudge-far');
  const arrow = onStage && (far || asks('nudge')) && ARROWS[event.key];
  if (arrow) {
    const step = far ? STEP * FAR : STEP;
    arranging.nudge(arrow[0] * step, arrow[1] * step);
  } else if (asks('remove')) {
    if (by.mayRemove(arranging.items())) arranging.do({ kind: 'remove' });
  } else if (asks('let-go')) by.rest();
  else return false;
  event.stopPropagation();
  return true;
}

/** Whether something is written there, or chosen in a dialog. */
export function isField(at: EventTarget | null): boolean {
  const field = 'input, select, textarea, [contenteditable], dialog, [role=dialog], [role=menu]';
  return at instanceof Element && at.closest(field) !== null;
}
