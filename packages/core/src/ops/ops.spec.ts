import { emptyBoard, itemsOn, pagesInOrder } from '../board/index.js';
import type { Board, PageSpec } from '../board/index.js';
import { newId } from '../id/index.js';
import type { Id } from '../id/index.js';
import { fold } from '../log/index.js';
import type { Actor } from '../permissions/index.js';
import { addInk, addPages, somePages, student, tutor } from '../testing/index.js';
import { invert, operation, refuse } from './index.js';
import type { Operation } from './index.js';

const maren = tutor();
const ana = student();
const ben = student();

let seq = 0;
function after(board: Board, op: Operation, by: Actor = maren): Board {
  return fold(board, [{ seq: ++seq, by: by.id, at: 1000 + seq, lesson: null, op }]);
}

function undone(board: Board, op: Operation, by: Actor): Board {
  const inverse = invert(op, board, by.id);
  return inverse ? after(board, inverse, by) : board;
}

const [pageA, pageB] = somePages(2) as [
  ReturnType<typeof somePages>[0],
  ReturnType<typeof somePages>[0],
];
const start = after(emptyBoard(newId()), addPages([pageA, pageB]));
const inkOn = (board: Board, page: Id = pageA.id) =>
  itemsOn(board.pages.get(page)!).map((item) => item.id);

describe('every operation', () => {
  const line = addInk(pageA.id);
  const written = after(start, line, ana);
  const erase = operation({ kind: 'items.remove', page: pageA.id, items: [line.id] });
  const samples: [Operation, Board][] = [
    [addPages(somePages(1)), start],
    [line, start],
    [erase, written],
    [
      operation({ kind: 'items.restore', page: pageA.id, items: [line.id] }),
      after(written, erase, ana),
    ],
    [operation({ kind: 'pages.remove', pages: [pageB.id] }), start],
    [operation({ kind: 'board.rename', title: 'Moons', former: '' }), start],
  ];

  it('done twice is the same as done once', () => {
    for (const [op, board] of samples) {
      const once = after(board, op, ana);
      const twice = fold(once, [{ seq: 1, by: ana.id, at: 5, lesson: null, op }]);
      expect(pagesInOrder(twice).map((page) => inkOn(twice, page.id)))
        .withContext(op.kind)
        .toEqual(pagesInOrder(once).map((page) => inkOn(once, page.id)));
    }
  });

  it('leaves the board it was made on as it was', () => {
    for (const [op, board] of samples) {
      const before = JSON.stringify(
        [...board.pages].map(([id, p]) => [id, p.removed, [...p.items]]),
      );
      after(board, op, ana);
      const later = JSON.stringify(
        [...board.pages].map(([id, p]) => [id, p.removed, [...p.items]]),
      );
      expect(later).withContext(op.kind).toBe(before);
    }
  });

  it('does nothing to what isn’t there', () => {
    const nowhere = newId();
    for (const op of [
      addInk(nowhere),
      operation({ kind: 'items.remove', page: nowhere, items: [newId()] }),
      operation({ kind: 'items.restore', page: pageA.id, items: [newId()] }),
      operation({ kind: 'pages.remove', pages: [nowhere] }),
      operation({ kind: 'pages.restore', pages: [nowhere] }),
    ])
      expect(pagesInOrder(after(start, op)).length)
        .withContext(op.kind)
        .toBe(2);
  });
});

describe('undoing', () => {
  it('takes back my line, and redoing brings it again', () => {
    const line = addInk(pageA.id);
    const written = after(start, line, ana);
    const undo = invert(line, written, ana.id)!;
    const gone = after(written, undo, ana);
    expect(inkOn(gone)).toEqual([]);
    expect(inkOn(after(gone, invert(undo, gone, ana.id)!, ana))).toEqual([line.id]);
  });

  it('never touches another’s line', () => {
    const line = addInk(pageA.id);
    const written = after(start, line, ana);
    expect(invert(line, written, ben.id)).toBeNull();
  });

  it('brings back what I erased, but not what another erased before me', () => {
    const one = addInk(pageA.id);
    const two = addInk(pageA.id, 2);
    let board = after(after(start, one, ana), two, ana);
    board = after(
      board,
      operation({ kind: 'items.remove', page: pageA.id, items: [one.id] }),
      maren,
    );
    const mine = operation({ kind: 'items.remove', page: pageA.id, items: [one.id, two.id] });
    board = after(board, mine, ana);
    expect(inkOn(undone(board, mine, ana))).toEqual([two.id]);
  });

  it('puts back a page with all that is on it', () => {
    const line = addInk(pageB.id);
    const written = after(start, line, ana);
    const remove = operation({ kind: 'pages.remove', pages: [pageB.id] });
    const gone = after(written, remove);
    expect(pagesInOrder(gone).map((page) => page.id)).toEqual([pageA.id]);
    const back = undone(gone, remove, maren);
    expect(pagesInOrder(back).map((page) => page.id)).toEqual([pageA.id, pageB.id]);
    expect(inkOn(back, pageB.id)).toEqual([line.id]);
  });

  it('gives the former title back, unless someone has chosen another since', () => {
    const first = operation({ kind: 'board.rename', title: 'Tides', former: '' });
    const second = operation({ kind: 'board.rename', title: 'Spring tides', former: 'Tides' });
    const named = after(after(start, first), second);
    expect(undone(named, second, maren).title).toBe('Tides');
    const renamed = after(
      named,
      operation({ kind: 'board.rename', title: 'Neap tides', former: 'Spring tides' }),
    );
    expect(undone(renamed, second, maren).title).toBe('Neap tides');
  });
});

describe('who may do what', () => {
  const line = addInk(pageA.id);
  const board = after(start, line, ana);
  const erase = operation({ kind: 'items.remove', page: pageA.id, items: [line.id] });
  const erased = after(board, erase, maren);
  const restore = operation({ kind: 'items.restore', page: pageA.id, items: [line.id] });
  const cases: [string, Operation, Board, Actor, ReturnType<typeof refuse>][] = [
    ['a tutor writes', addInk(pageA.id), board, maren, null],
    ['a student with a pen writes', addInk(pageA.id), board, ana, null],
    ['a student with hands on writes', addInk(pageA.id), board, student('hands'), null],
    ['a student who looks on does not', addInk(pageA.id), board, student('view'), 'no-pen'],
    ['ink needs a page', addInk(newId()), board, ana, 'no-such-page'],
    ['own ink can be erased', erase, board, ana, null],
    ['own ink can’t be erased without a pen', erase, board, student('view', ana.id), 'no-pen'],
    ['another’s ink can’t', erase, board, ben, 'not-yours'],
    ['a tutor erases anyone’s ink', erase, board, maren, null],
    ['a student can’t bring back what the tutor erased', restore, erased, ana, 'not-yours'],
    ['the tutor can', restore, erased, maren, null],
    ['a student adds no pages', addPages(somePages(1)), board, student('hands'), 'tutor-only'],
    [
      'a student removes none',
      operation({ kind: 'pages.remove', pages: [pageA.id] }),
      board,
      ana,
      'tutor-only',
    ],
    [
      'a student doesn’t rename',
      operation({ kind: 'board.rename', title: 'x', former: '' }),
      board,
      ana,
      'tutor-only',
    ],
    [
      'a page needs a real place',
      addPages([{ ...pageA, id: newId(), order: 'a' }]),
      board,
      maren,
      'bad-order',
    ],
    [
      'bytes that are no ink',
      { ...line, id: newId(), ink: Uint8Array.of(1, 2) } as Operation,
      board,
      ana,
      'bad-ink',
    ],
  ];
  for (const [what, op, on, who, expected] of cases)
    it(`${what}: ${expected ?? 'taken'}`, () => expect(refuse(op, on, who)).toBe(expected));

  it('lay in pages of files that the board has, and of no other, but for the import', () => {
    const paper: PageSpec['paper'] = {
      kind: 'pdf',
      file: 'b'.repeat(64),
      number: 1,
      box: [0, 0, 300, 400],
      rotate: 0,
      unit: 1,
    };
    const printed = () => addPages(somePages(1).map((page) => ({ ...page, paper })));
    const board = emptyBoard(newId());
    const maren = tutor();
    expect(refuse(printed(), board, maren)).toBe('unknown-file');
    expect(refuse(printed(), board, { ...maren, imports: true })).toBeNull();
    expect(refuse(printed(), after(board, printed()), maren)).toBeNull();
  });
});
