import { BoardDraft, emptyBoard, itemsOn, pagesInOrder } from '../board/index.js';
import type { Board, PageSpec } from '../board/index.js';
import { newId } from '../id/index.js';

import { addInk, addMark, addPages, somePages, student, tutor } from '../testing/index.js';
import { ANY_STUDENT, boardFor, filesForStudents, mixedFiles } from '../viewers/index.js';
import { apply, hiddenOf, operation, projectFor } from './index.js';
import type { Operation, ProjectedOperation } from './index.js';

const maren = tutor();
const ana = student('write');
const ben = student('write');
const pages = somePages(2) as [PageSpec, PageSpec];
const [page, other] = [pages[0].id, pages[1].id];

function after(board: Board, ops: readonly ProjectedOperation[], by = maren.id): Board {
  const draft = new BoardDraft(board);
  for (const op of ops) apply(op, draft, { by, at: 5, lesson: null });
  return draft.done();
}

const line = addInk(page, 1);
const hers = addInk(page, 2);
const mark = addMark(page);
const start = after(after(emptyBoard(newId()), [addPages(pages), line, mark]), [hers], ana.id);
const remove = (...items: string[]): Operation => operation({ kind: 'items.remove', page, items });
const restore = (...items: string[]): Operation =>
  operation({ kind: 'items.restore', page, items });
const told = (op: Operation, board: Board, who = ana.id): ProjectedOperation => {
  const now = after(board, [op], who);
  return projectFor(op, hiddenOf(op, board), now, ANY_STUDENT);
};
const there = (board: Board): string[] =>
  pagesInOrder(board).flatMap((one) => itemsOn(one).map(({ id }) => id));

describe('what was taken away', () => {
  const erased = after(start, [remove(line.id, hers.id, mark.id)]);

  it('is sent to nobody who didn’t draw it: that something was there, and no more', () => {
    const bens = boardFor(erased, ben).pages.get(page)!;
    for (const item of bens.items.values()) {
      expect(item.kind === 'ink' && item.ink.length).toBe(0);
      expect(item.removed).not.toBeNull();
    }
    const anas = boardFor(erased, ana).pages.get(page)!;
    expect(anas.items.get(hers.id)).toBe(erased.pages.get(page)!.items.get(hers.id));
    expect((anas.items.get(line.id) as { ink: Uint8Array }).ink.length).toBe(0);
    expect(boardFor(erased, maren)).toBe(erased);
  });

  it('is sent whole when it comes back, in the place that it had', () => {
    const back = restore(line.id, mark.id);
    const now = after(erased, [back]);
    const bens = after(boardFor(erased, ben), [told(back, erased, maren.id)]);
    expect(there(bens)).toEqual(there(now));
    expect(bens.pages.get(page)!.items.get(line.id)).toEqual(
      now.pages.get(page)!.items.get(line.id)!,
    );
    expect([...bens.pages.get(page)!.items.keys()]).toEqual([...now.pages.get(page)!.items.keys()]);
  });

  it('isn’t told to who missed that it was ever there', () => {
    const missed = projectFor(line, new Set(), erased, ben);
    expect(missed).toEqual(
      jasmine.objectContaining({ kind: 'items.now', gone: [], page }) as never,
    );
    const [here] = missed.kind === 'items.now' ? missed.here : [];
    expect(here?.kind === 'ink' && here.ink.length).toBe(0);
    expect(projectFor(hers, new Set(), erased, ana)).toBe(hers);
  });

  it('isn’t changed in anyone’s sight, and what it was before a change is told to nobody', () => {
    const to = { colour: '#0b6f86' };
    const from = { colour: '#7a1f4f' };
    const change = operation({ kind: 'item.change', page, item: mark.id, to, from });
    expect(told(change, erased).kind).toBe('tombstone');
    expect(told(change, start)).toEqual({ ...change, from: {} } as ProjectedOperation);
    const rename = operation({ kind: 'board.rename', title: 'Tides', former: 'Test for Noor' });
    expect(told(rename, start)).toEqual({ ...rename, former: '' } as ProjectedOperation);
  });

  it('goes and comes with the cover sheet that it was written on', () => {
    const frame = { x: 0, y: 0, width: 100, height: 100, turn: 0 };
    const cover = operation({
      ...{ kind: 'item.add', page },
      item: { kind: 'cover', frame, order: 'a9', layer: 'ink', tint: '#ffffff' },
    });
    const on = { ...addInk(page, 7), on: cover.id } as Operation;
    const covered = after(start, [cover, on]);
    const without = after(covered, [remove(cover.id)]);
    const late = boardFor(without, ben);
    expect((late.pages.get(page)!.items.get(on.id) as { ink: Uint8Array }).ink.length).toBe(0);
    const again = after(late, [told(restore(cover.id), without, maren.id)]);
    expect(there(again)).toEqual(there(covered));
    expect(again.pages.get(page)!.items.get(on.id)).toEqual(
      covered.pages.get(page)!.items.get(on.id)!,
    );
  });

  it('may be a page, with its name and all that is on it', () => {
    const gone = after(start, [operation({ kind: 'pages.remove', pages: [page] })]);
    expect([...boardFor(gone, ana).pages.keys()]).toEqual([other]);
    const add = addInk(page, 9);
    expect(told(add, gone).kind).toBe('tombstone');
    const name = operation({ kind: 'page.change', page, to: { name: 'Secret' }, from: {} });
    expect(told(name, gone).kind).toBe('tombstone');
    const back = operation({ kind: 'pages.restore', pages: [page] });
    const again = after(boardFor(gone, ben), [told(back, gone, maren.id)]);
    expect(there(again).sort()).toEqual(there(start).sort());
  });
});

describe('a file of which a page was taken out', () => {
  const file = 'f'.repeat(64);
  const printed = pages.map((spec, i) => ({
    ...spec,
    paper: { kind: 'pdf', file, number: i + 1, box: [0, 0, 9, 9], rotate: 0, unit: 1 } as const,
  })) as unknown as PageSpec[];
  const board = after(emptyBoard(newId()), [addPages(printed)]);
  const gone = after(board, [operation({ kind: 'pages.remove', pages: [page] })]);

  it('is no student’s until it is taken apart, unless they had it when the lesson began', () => {
    expect([...filesForStudents(board, Infinity)]).toEqual([file]);
    expect([...filesForStudents(gone, Infinity)]).toEqual([]);
    expect(
      mixedFiles(gone, Infinity)
        .get(file)!
        .map(({ kept }) => kept),
    ).toEqual([true, false]);
    // It was taken out at 5.
    expect([...filesForStudents(gone, 4)]).toEqual([file]);
    expect(mixedFiles(gone, 4).size).toBe(0);
    expect([...filesForStudents(gone, 6)]).toEqual([]);
  });
});
