import { KIND_TOOLS } from '../kinds/register';
import type { Tool } from '../tool/tool';
import type { Chord } from './chord';

export const SHORTCUT_GROUPS = [
  'Tools',
  'Steps',
  'Pages and view',
  'What is selected',
  'Lesson',
] as const;
export type ShortcutGroup = (typeof SHORTCUT_GROUPS)[number];

/** Something on a board that keys do. */
export interface Shortcut {
  readonly name: Command;
  readonly group: ShortcutGroup;
  readonly label: string;
  /** Each of them does it. */
  readonly chords: readonly Chord[];
}

/** What keys can ask for on a board, but for tools, which are called as they are. */
export type Command =
  | Tool
  | 'cover'
  | `preset-${1 | 2 | 3 | 4}`
  | 'thinner'
  | 'thicker'
  | 'cursor'
  | 'undo'
  | 'redo'
  | 'page-before'
  | 'page-after'
  | 'page-start'
  | 'page-end'
  | 'pan'
  | 'zoom-in'
  | 'zoom-out'
  | 'fit-width'
  | 'fit-page'
  | 'page-only'
  | 'move-page'
  | 'select-all'
  | 'select-next'
  | 'select-before'
  | 'edit'
  | 'nudge'
  | 'nudge-far'
  | 'duplicate'
  | 'group'
  | 'ungroup'
  | 'to-front'
  | 'to-back'
  | 'remove'
  | 'let-go'
  | 'pens-back'
  | 'microphone'
  | 'find'
  | 'shortcuts';

/** Own pens, in the order of their places. */
export const PRESETS = ['preset-1', 'preset-2', 'preset-3', 'preset-4'] as const;

const ARROWS = ['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight'];

/** Tools in the order in which they stand beside the page. */
const TOOLS: readonly [Command, string, Chord][] = [
  ['pen', 'Pen', 'p'],
  ['highlighter', 'Highlighter', 'h'],
  ['eraser', 'Eraser', 'e'],
  ['hand', 'Move', 'm'],
  ['select', 'Select', 'c'],
  ...KIND_TOOLS.map(({ tool, label, key }): [Command, string, Chord] => [tool, label, key]),
  ['pointer', 'Pointer', 'i'],
  ['lamp', 'Lamp', 'l'],
  ['cover', 'Cover sheet: lay it, take it off', 'o'],
  ['preset-1', 'First own pen', '1'],
  ['preset-2', 'Second own pen', '2'],
  ['preset-3', 'Third own pen', '3'],
  ['preset-4', 'Fourth own pen', '4'],
  ['thinner', 'Thinner line', '['],
  ['thicker', 'Thicker line', ']'],
];

const REST: Readonly<
  Record<Exclude<ShortcutGroup, 'Tools'>, readonly [Command, string, ...Chord[]][]>
> = {
  Steps: [
    ['undo', 'Undo what I did', 'Ctrl+Z'],
    ['redo', 'Redo', 'Ctrl+Shift+Z', 'Ctrl+Y'],
    ['cursor', 'Cursor on the page; pen down and up', 'Enter'],
  ],
  'Pages and view': [
    ['page-before', 'Previous page', 'PageUp'],
    ['page-after', 'Next page', 'PageDown'],
    ['page-start', 'First page', 'Home'],
    ['page-end', 'Last page', 'End'],
    ['pan', 'Move the page, or the cursor', ...ARROWS],
    ['zoom-in', 'Zoom in', '+', '='],
    ['zoom-out', 'Zoom out', '-'],
    ['fit-width', 'As wide as the window', 'w'],
    ['fit-page', 'Whole page', 'f'],
    ['page-only', 'Only the page; all tools again', 'v'],
    ['move-page', 'Move a page, on its picture', 'Alt+ArrowUp', 'Alt+ArrowDown'],
  ],
  'What is selected': [
    ['select-all', 'Select everything on the page', 'Ctrl+A'],
    ['select-next', 'Select the next item', 'Tab'],
    ['select-before', 'Select the item before', 'Shift+Tab'],
    ['edit', 'Write in it', 'Enter'],
    ['nudge', 'Move it a little', ...ARROWS],
    ['nudge-far', 'Move it further', ...ARROWS.map((arrow) => `Shift+${arrow}`)],
    ['duplicate', 'Duplicate', 'Ctrl+D'],
    ['group', 'Group', 'Ctrl+G'],
    ['ungroup', 'Ungroup', 'Ctrl+Shift+G'],
    ['to-front', 'Bring to the front', 'Ctrl+]'],
    ['to-back', 'Send to the back', 'Ctrl+['],
    ['remove', 'Remove', 'Delete', 'Backspace'],
    ['let-go', 'Select nothing; put the lamp out; all tools again', 'Escape'],
  ],
  Lesson: [
    ['pens-back', 'Take all pens back', 'Shift+P'],
    ['microphone', 'Microphone on, or muted', 'Shift+M'],
    ['find', 'Find on this board', 'Ctrl+F'],
    ['shortcuts', 'This list', '?', 'Ctrl+/'],
  ],
};

/** Everything that keys do on a board: what does it, the list of them and what tips say all come from here. */
export const SHORTCUTS: readonly Shortcut[] = [
  ...TOOLS.map(([name, label, chord]) => ({
    ...{ name, group: 'Tools' as const, label },
    chords: [chord.toLowerCase()],
  })),
  ...Object.entries(REST).flatMap(([group, rows]) =>
    rows.map(([name, label, ...chords]) => ({
      ...{ name, group: group as ShortcutGroup, label },
      chords,
    })),
  ),
];

/** What only a tutor does. */
export const TUTORS: ReadonlySet<Command> = new Set([
  ...(['cover', 'group', 'ungroup', 'to-front', 'to-back'] as const),
  ...(['pens-back', 'find', 'move-page'] as const),
]);
