import { emptyBoard, itemsOn, pagesInOrder } from '../board/index.js';
import type { Board } from '../board/index.js';
import { newId } from '../id/index.js';
import { fold } from '../log/index.js';
import type { Entry } from '../log/index.js';
import { addInk, addMark, addPages, somePages } from '../testing/index.js';
import { copiesOf } from './index.js';

const [maren, ana, lesson] = [newId(), newId(), newId()];
const [page] = somePages(1);
const made: [Entry['op'], string, string | null][] = [
  [
    addPages([{ ...page!, hidden: true, privateNotes: [{ runs: [{ text: 'Ask Ida' }] }] }]),
    maren,
    null,
  ],
  [addInk(page!.id, 1), maren, null],
  [addInk(page!.id, 2), ana, lesson],
  [addMark(page!.id, { layer: 'material' }), maren, lesson],
  [addMark(page!.id, { layer: 'ink' }), ana, lesson],
];
const entries = made.map(([op, by, where], i) => ({ seq: i + 1, op, by, at: i, lesson: where }));
const board = fold(emptyBoard(newId()), entries);

function copied(lessonInk: boolean): Board {
  const copies = copiesOf(pagesInOrder(board), ['a0'], { by: maren, at: 99, lessonInk });
  return fold(
    emptyBoard(newId()),
    copies.entries.map((entry, i) => ({ ...entry, seq: i + 1 })),
  );
}
const itemsOf = (some: Board) => pagesInOrder(some).flatMap(itemsOn);

describe('copies of pages on another board', () => {
  it('have everything, its makers, times and lessons, under ids of their own', () => {
    const [old, anew] = [itemsOf(board), itemsOf(copied(true))];
    const bare = (items: typeof old) => items.map((item) => ({ ...item, id: '' }));
    expect(bare(anew)).toEqual(bare(old));
    expect(anew.some(({ id }) => old.some((item) => item.id === id))).toBeFalse();
  });

  it('are clean without what lessons wrote, but keep material that was laid in one', () => {
    expect(itemsOf(copied(false)).map(({ by, kind }) => [by, kind])).toEqual([
      [maren, 'ink'],
      [maren, 'mark'],
    ]);
  });

  it('keep the page’s margin, and that it is hidden', () => {
    const [copy] = pagesInOrder(copied(false));
    expect([copy!.hidden, copy!.privateNotes]).toEqual([true, [{ runs: [{ text: 'Ask Ida' }] }]]);
  });
});
