import { emptyBoard, itemsOn } from '../board/index.js';
import { newId } from '../id/index.js';
import { operation } from '../ops/index.js';
import type { Operation } from '../ops/index.js';
import { addInk, addPages, somePages } from '../testing/index.js';
import { fold, History, predict, receive, replica, withdraw } from './index.js';
import type { Entry } from './index.js';

describe('a replica', () => {
  const page = somePages(1);
  const first: Entry = { seq: 1, by: newId(), at: 1, lesson: null, op: addPages(page) };
  const stamp = { by: newId(), at: 9, lesson: null };

  it('shows my line at once and keeps it when it is confirmed', () => {
    const line = addInk(page[0]!.id);
    const board = receive(replica(emptyBoard(newId()), 0), [first])!;
    const predicted = predict(board, line, stamp);
    expect(itemsOn(predicted.view.pages.get(page[0]!.id)!).length).toBe(1);
    const confirmed = receive(predicted, [{ ...stamp, seq: 2, op: line }])!;
    expect(confirmed.unconfirmed).toEqual([]);
    expect(itemsOn(confirmed.view.pages.get(page[0]!.id)!).length).toBe(1);
  });

  it('takes my line back when it is refused', () => {
    const line = addInk(page[0]!.id);
    const board = receive(replica(emptyBoard(newId()), 0), [first])!;
    const refused = withdraw(predict(board, line, stamp), line.id);
    expect(itemsOn(refused.view.pages.get(page[0]!.id)!)).toEqual([]);
  });

  it('says when entries are missing in between', () => {
    const board = replica(emptyBoard(newId()), 0);
    expect(receive(board, [{ ...first, seq: 2 }])).toBeNull();
  });
});

describe('history', () => {
  const page = somePages(1)[0]!;
  const me = newId();

  it('undoes all that one sweep of the eraser took away as one step', () => {
    const lines = [addInk(page.id, 1), addInk(page.id, 2)];
    const sweep = {};
    const erase = lines.map(({ id }) =>
      operation({ kind: 'items.remove', page: page.id, items: [id] }),
    );
    const entries = [addPages([page]), ...lines, ...erase].map((op, i) => ({
      seq: i + 1,
      by: me,
      at: i,
      lesson: null,
      op,
    }));
    const history = new History(me);
    for (const op of lines) history.record(op);
    for (const op of erase) history.record(op, sweep);
    const board = fold(emptyBoard(newId()), entries);
    expect(history.undo(board).length).toBe(2);
    expect(history.canRedo).toBeTrue();
  });

  it('passes over a step whose work someone else has removed since', () => {
    const lines = [addInk(page.id, 1), addInk(page.id, 2)];
    const history = new History(me);
    for (const op of lines) history.record(op);
    const other = newId();
    const board = fold(emptyBoard(newId()), [
      ...[addPages([page]), ...lines].map((op, i) => ({
        seq: i + 1,
        by: me,
        at: i,
        lesson: null,
        op,
      })),
      {
        seq: 4,
        by: other,
        at: 4,
        lesson: null,
        op: operation({ kind: 'items.remove', page: page.id, items: [lines[1]!.id] }),
      },
    ]);
    expect(history.undo(board)).toEqual([
      jasmine.objectContaining({ kind: 'items.remove', items: [lines[0]!.id] }),
    ]);
    expect(history.undo(board)).toEqual([]);
  });

  it('goes on after a reload: my lines of this lesson, the last one first', () => {
    const lesson = newId();
    const of = (seq: number, by: string, where: string | null): Entry => ({
      seq,
      by,
      at: 100 - seq,
      lesson: where,
      op: addInk(page.id, seq),
    });
    const mine = [of(2, me, lesson), of(3, me, lesson)];
    const entries = [
      { ...of(1, me, lesson), op: addPages([page]) },
      ...mine,
      of(4, newId(), lesson),
      of(5, me, null),
    ];
    const board = fold(emptyBoard(newId()), entries);
    const history = new History(me);
    history.resume(board, lesson);
    // The one whose time is later: `at` counts, for it is what both of several windows agree on.
    expect(history.undo(board)).toEqual([jasmine.objectContaining({ items: [mine[0]!.op.id] })]);
    expect(history.undo(board)).toEqual([jasmine.objectContaining({ items: [mine[1]!.op.id] })]);
    expect(history.canUndo).toBeFalse();
  });

  it('undoes what was done since first, and each thing once, when the rest of a board comes late', () => {
    const lines = [1, 2, 3].map((seed) => addInk(page.id, seed));
    const [before, since, gone] = lines as [Operation, Operation, Operation];
    const erase = operation({ kind: 'items.remove', page: page.id, items: [gone.id] });
    const history = new History(me);
    history.record(since);
    history.record(erase);
    const entries = [addPages([page]), before, gone, since, erase].map((op, i): Entry => ({
      seq: i + 1,
      by: me,
      at: i,
      lesson: null,
      op,
    }));
    const board = fold(emptyBoard(newId()), entries);
    history.resume(board, null);
    const undone = [1, 2, 3, 4].flatMap(() =>
      history.undo(board).flatMap((op) => ('items' in op ? [[op.kind, ...op.items]] : [])),
    );
    expect(undone).toEqual([
      ['items.restore', gone.id],
      ['items.remove', since.id],
      ['items.remove', before.id],
    ]);
  });

  it('brings pages back after a reload, all that were taken out in one go', () => {
    const pages = somePages(3);
    const entries: Entry[] = [
      { seq: 1, by: me, at: 1, lesson: null, op: addPages(pages) },
      {
        seq: 2,
        by: me,
        at: 5,
        lesson: null,
        op: operation({ kind: 'pages.remove', pages: [pages[0]!.id, pages[2]!.id] }),
      },
    ];
    const board = fold(emptyBoard(newId()), entries);
    const history = new History(me);
    history.resume(board, null);
    const back = history.undo(board).flatMap((op) => (op.kind === 'pages.restore' ? op.pages : []));
    expect(back.sort()).toEqual([pages[0]!.id, pages[2]!.id].sort());
    const other = new History(newId());
    other.resume(board, null);
    expect(other.canUndo).toBeFalse();
  });
});
