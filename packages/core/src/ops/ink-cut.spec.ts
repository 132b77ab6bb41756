import { emptyBoard, itemsOn } from '../board/index.js';
import type { Board } from '../board/index.js';
import { strokeOf } from '../edits/index.js';
import { newId } from '../id/index.js';
import type { Id } from '../id/index.js';
import { cutStroke, encodeStroke } from '../ink/index.js';
import { fold, History } from '../log/index.js';
import type { Actor } from '../permissions/index.js';
import { addInk, addPages, handwriting, somePages, student, tutor } from '../testing/index.js';
import { changePage, invert, operation, refuse } from './index.js';
import type { Operation } from './index.js';

const [maren, ida, noor] = [tutor(), student(), student()];
const [page] = somePages(1) as [ReturnType<typeof somePages>[0]];
const line = { ...addInk(page.id), ink: encodeStroke(handwriting(3, { count: 60 })) } as Extract<
  Operation,
  { kind: 'ink.add' }
>;

let seq = 0;
const after = (board: Board, op: Operation, by: Actor): Board =>
  fold(board, [{ seq: ++seq, by: by.id, at: 1000 + seq, lesson: null, op }]);
const start = after(after(emptyBoard(newId()), addPages([page]), maren), line, ida);
const there = (board: Board) => itemsOn(board.pages.get(page.id)!);

function cut(board: Board, item: Id = line.id): Extract<Operation, { kind: 'ink.cut' }> {
  const ink = board.pages.get(page.id)!.items.get(item);
  const stroke = strokeOf((ink as { ink: Uint8Array }).ink);
  const middle = stroke.points[Math.floor(stroke.points.length / 2)]!;
  const pieces = cutStroke(stroke, middle, middle, 3)!;
  return operation({
    kind: 'ink.cut',
    page: page.id,
    item,
    pieces: pieces.map((piece) => ({ id: newId(), ink: encodeStroke(piece) })),
  }) as never;
}

describe('rubbing out a part of a line', () => {
  it('leaves pieces that are still their writer’s, no matter who rubbed', () => {
    const op = cut(start);
    expect(refuse(op, start, maren)).toBeNull();
    const left = there(after(start, op, maren));
    expect(left.length).toBe(op.pieces.length);
    expect(left.every(({ by }) => by === ida.id)).toBeTrue();
  });

  it('is undone and done again, by who did it', () => {
    const op = cut(start);
    const done = after(start, op, maren);
    const mended = after(done, invert(op, done, maren.id)!, maren);
    expect(there(mended).map(({ id }) => id)).toEqual([line.id]);
    const again = after(mended, invert(invert(op, done, maren.id)!, mended, maren.id)!, maren);
    expect(there(again).map(({ id }) => id)).toEqual(op.pieces.map(({ id }) => id));
    expect(invert(op, done, ida.id)).toBeNull();
    // What someone did with a piece since is theirs.
    const [piece] = op.pieces;
    const erased = after(
      done,
      operation({ kind: 'items.remove', page: page.id, items: [piece!.id] }),
      ida,
    );
    expect(invert(op, erased, maren.id)).toBeNull();
  });

  it('of two who rub at once, counts for the first', () => {
    const [first, second] = [cut(start), cut(start)];
    const done = after(start, first, maren);
    expect(refuse(second, done, ida)).toBe('no-such-item');
    expect(there(after(done, second, ida))).toEqual(there(done));
  });

  it('is for one’s own lines only, with a pen, and leaves nothing that wasn’t there', () => {
    const op = cut(start);
    expect(refuse(op, start, ida)).toBeNull();
    expect(refuse(op, start, noor)).toBe('not-yours');
    expect(refuse(op, start, { ...ida, trust: 'view' })).toBe('no-pen');
    const elsewhere = encodeStroke(handwriting(3, { count: 20, x: 400 }));
    const other = encodeStroke({
      ...handwriting(3, { count: 5 }),
      style: { tool: 'pen', ink: 'poppy', width: 9 },
    });
    for (const ink of [elsewhere, other, Uint8Array.of(1, 2)])
      expect(refuse({ ...op, pieces: [{ id: newId(), ink }] }, start, maren)).toBe('bad-ink');
    const taken = { ...op, pieces: [{ ...op.pieces[0]!, id: line.id }] };
    expect(refuse(taken, start, maren)).toBe('bad-ink');
  });

  it('can be undone after a reload as well', () => {
    const op = cut(start);
    const done = after(start, op, ida);
    const history = new History(ida.id);
    history.resume(done, null);
    const board = history.undo(done).reduce((now, undo) => after(now, undo, ida), done);
    expect(there(board).map(({ id }) => id)).toEqual([line.id]);
  });
});

describe('pens on a page', () => {
  const frozen = after(
    start,
    operation(changePage(start, page.id, { rules: { trust: 'view' } })!),
    maren,
  );

  it('are in for all but the tutor, and the student is told so', () => {
    expect(refuse(addInk(page.id), frozen, maren)).toBeNull();
    expect(refuse(addInk(page.id), frozen, ida)).toBe('pens-in');
    expect(refuse(cut(frozen), frozen, ida)).toBe('pens-in');
    expect(refuse(addInk(page.id), frozen, { ...ida, trust: 'view' })).toBe('no-pen');
  });

  it('are in on a whole board, too', () => {
    const op = operation({ kind: 'board.rules', to: { trust: 'view' }, from: {} });
    expect(refuse(op, start, ida)).toBe('tutor-only');
    const board = after(start, op, maren);
    expect(refuse(addInk(page.id), board, ida)).toBe('pens-in');
    expect(after(board, invert(op, board, maren.id)!, maren).rules).toEqual({});
  });
});

describe('a student who may add pages', () => {
  const adds = { ...ida, person: { addPages: true } };

  it('adds empty ones, and nothing of the tutor’s', () => {
    const [spec] = somePages(1);
    expect(refuse(addPages([spec!]), start, adds)).toBeNull();
    expect(refuse(addPages([spec!]), start, ida)).toBe('tutor-only');
    for (const more of [
      { hidden: true },
      { privateNotes: [] },
      { rules: {} },
      { paper: { kind: 'pdf', file: 'a'.repeat(64) } as never },
    ])
      expect(refuse(addPages([{ ...spec!, ...more }]), start, adds)).toBe('tutor-only');
    const here = operation({ kind: 'pages.remove', pages: [page.id] });
    expect(refuse(here, start, adds)).toBe('tutor-only');
  });
});
