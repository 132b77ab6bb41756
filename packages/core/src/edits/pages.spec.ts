import fc from 'fast-check';
import { BoardDraft, emptyBoard, itemsOn, pagesInOrder } from '../board/index.js';
import type { Board, Item } from '../board/index.js';
import { newId } from '../id/index.js';
import { apply, invert, operation } from '../ops/index.js';
import type { Operation } from '../ops/index.js';
import { addInk, addPages, somePages } from '../testing/index.js';
import { addPageBeside, copyPages, setPageProps, movePages, removePages } from './index.js';
import type { PageEdit } from './index.js';

const me = newId();

function made(board: Board, ops: readonly Operation[]): Board {
  const draft = new BoardDraft(board);
  for (const op of ops) apply(op, draft, { by: me, at: 1, lesson: null });
  return draft.done();
}

const done = (board: Board, edit: PageEdit | null): Board =>
  made(
    board,
    (edit?.changes ?? []).map((change) => operation(change)),
  );
const specs = somePages(4);
const ids = specs.map(({ id }) => id);
const start = made(emptyBoard(newId()), [addPages(specs), addInk(ids[1]!)]);
const order = (board: Board): string[] => pagesInOrder(board).map(({ id }) => id);

describe('what a tutor does with pages', () => {
  it('adds an empty page before or after another, of its size and paper', () => {
    const squared = setPageProps(start, [ids[1]!], {
      paper: { kind: 'squared', spacing: 14 },
      width: 400,
    });
    const board = done(start, squared);
    for (const [side, at] of [
      ['before', 1],
      ['after', 2],
    ] as const) {
      const edit = addPageBeside(board, ids[1]!, side);
      const after = done(board, edit);
      expect(order(after).indexOf(edit.show)).toBe(at);
      expect(after.pages.get(edit.show)).toEqual(
        jasmine.objectContaining({ width: 400, paper: { kind: 'squared', spacing: 14 } }),
      );
    }
    const atEnd = addPageBeside(board, null, 'after');
    expect(order(done(board, atEnd)).at(-1)).toBe(atEnd.show);
  });

  it('never prints a file’s page on an empty one', () => {
    const paper = {
      kind: 'pdf',
      file: 'a'.repeat(64),
      number: 1,
      box: [0, 0, 9, 9] as [number, number, number, number],
      rotate: 0,
      unit: 1,
    } as const;
    const board = made(emptyBoard(newId()), [addPages([{ ...specs[0]!, paper }])]);
    const edit = addPageBeside(board, ids[0]!, 'after');
    expect(done(board, edit).pages.get(edit.show)!.paper).toEqual({ kind: 'plain' });
  });

  it('copies a page with its ink; the copy’s lines are lines of their own', () => {
    const edit = copyPages(start, [ids[1]!])!;
    const board = done(start, edit);
    expect(order(board)).toEqual([ids[0]!, ids[1]!, edit.show, ids[2]!, ids[3]!]);
    const [one, other] = [ids[1]!, edit.show].map((id) => itemsOn(board.pages.get(id)!));
    const inks = (items: Item[] | undefined) =>
      items!.map((item) => item.kind === 'ink' && item.ink);
    expect(inks(other)).toEqual(inks(one));
    expect(other![0]!.id).not.toBe(one![0]!.id);
    expect(copyPages(start, [newId()])).toBeNull();
  });

  it('moves a page to any place, as an array would', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(3), fc.nat(5)), { maxLength: 30 }), (moves) => {
        let board = start;
        const model = [...ids];
        for (const [from, to] of moves) {
          const id = model[from]!;
          board = done(board, movePages(board, [id], to));
          model.splice(from, 1);
          model.splice(Math.min(to, model.length), 0, id);
          expect(order(board)).toEqual(model);
        }
      }),
    );
    expect(movePages(start, [ids[2]!], 2)).toBeNull();
    expect(movePages(start, [newId()], 0)).toBeNull();
  });

  it('finds a place also where two windows laid pages at the same one', () => {
    const twin = { ...specs[0]!, id: newId(), order: specs[1]!.order };
    const board = made(start, [addPages([twin])]);
    for (const id of order(board)) {
      for (const side of ['before', 'after'] as const) {
        const edit = addPageBeside(board, id, side);
        expect(order(done(board, edit))).toContain(edit.show);
      }
      expect(copyPages(board, [id])).not.toBeNull();
      for (let to = 0; to < 5; to++) expect(() => movePages(board, [id], to)).not.toThrow();
    }
  });

  it('removes a page and goes to its neighbour, but never the last one', () => {
    const edit = removePages(start, [ids[3]!])!;
    expect(edit.show).toBe(ids[2]!);
    expect(order(done(start, edit))).toEqual(ids.slice(0, 3));
    const single = made(emptyBoard(newId()), [addPages(specs.slice(0, 1))]);
    expect(removePages(single, [ids[0]!])).toBeNull();
  });

  it('can all be undone', () => {
    const edits = [
      addPageBeside(start, ids[0]!, 'before'),
      copyPages(start, [ids[1]!])!,
      movePages(start, [ids[0]!], 3)!,
      removePages(start, [ids[2]!])!,
      setPageProps(start, [ids[0]!], { name: 'Ebb' })!,
    ];
    for (const { changes } of edits) {
      const ops = changes.map((change) => operation(change));
      const board = made(start, ops);
      const undo = ops.reverse().flatMap((op) => invert(op, board, me) ?? []);
      const back = made(board, undo);
      expect(order(back)).toEqual(order(start));
      for (const id of ids) expect(back.pages.get(id)!.name).toBe(start.pages.get(id)!.name);
    }
  });
});
