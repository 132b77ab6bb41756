import { A4, BoardDraft, emptyBoard, Paper } from '../board/index.js';
import type { Board, PageSpec } from '../board/index.js';
import { newId } from '../id/index.js';
import { addPages, somePages, student, tutor } from '../testing/index.js';
import { apply, changePage, invert, operation, refuse } from './index.js';
import type { Operation } from './index.js';

const maren = tutor();
const [first, second] = somePages(2) as [PageSpec, PageSpec];
const printed: Paper = {
  kind: 'pdf',
  file: 'a'.repeat(64),
  number: 1,
  box: [0, 0, 300, 400],
  rotate: 0,
  unit: 1,
};

function after(board: Board, ...ops: Operation[]): Board {
  const draft = new BoardDraft(board);
  for (const op of ops) apply(op, draft, { by: maren.id, at: 1, lesson: null });
  return draft.done();
}

const sheet = { ...first, id: newId(), order: 'a5', paper: printed };
const start = after(emptyBoard(newId()), addPages([first, second, sheet]));
const change = (board: Board, page: string, to: Parameters<typeof changePage>[2]): Operation =>
  operation(changePage(board, page, to)!);

describe('changing a page', () => {
  it('gives it a name, a place, a size, a paper; and undo gives back what it had', () => {
    const op = change(start, first.id, {
      name: 'Ebb',
      order: 'a9',
      width: 500,
      paper: { kind: 'squared', spacing: 15 },
    });
    const changed = after(start, op);
    expect(changed.pages.get(first.id)).toEqual(
      jasmine.objectContaining({ name: 'Ebb', order: 'a9', width: 500, height: A4.height }),
    );
    const back = after(changed, invert(op, changed, maren.id)!);
    expect(back.pages.get(first.id)).toEqual(start.pages.get(first.id));
    expect(after(changed, op)).toEqual(changed);
  });

  it('is nothing where nothing would change', () => {
    expect(changePage(start, first.id, { name: first.name, paper: { kind: 'plain' } })).toBeNull();
    expect(changePage(start, newId(), { name: 'Ebb' })).toBeNull();
  });

  it('undoes only what nobody has changed since', () => {
    const mine = change(start, first.id, { name: 'Ebb', width: 500 });
    const once = after(start, mine);
    const twice = after(once, change(once, first.id, { name: 'Neap' }));
    const undo = invert(mine, twice, maren.id)!;
    expect(after(twice, undo).pages.get(first.id)).toEqual(
      jasmine.objectContaining({ name: 'Neap', width: A4.width }),
    );
    expect(invert(mine, after(twice, undo), maren.id)).toBeNull();
  });

  it('is the tutor’s alone, of a page that is there, at a place that can be', () => {
    const op = change(start, first.id, { name: 'Ebb' });
    expect(refuse(op, start, student('hands'))).toBe('tutor-only');
    expect(refuse(op, emptyBoard(newId()), maren)).toBe('no-such-page');
    expect(refuse(op, start, maren)).toBeNull();
    const odd = operation({ kind: 'page.change', page: first.id, to: { order: '0' }, from: {} });
    expect(refuse(odd, start, maren)).toBe('bad-order');
  });

  it('leaves an imported page as it was printed, but for its tint', () => {
    const refused = (to: object) =>
      refuse(operation({ kind: 'page.change', page: sheet.id, to, from: {} }), start, maren);
    expect(refused({ paper: { ...printed, tint: '#fdf6e0' } })).toBeNull();
    expect(refused({ name: 'Ebb', order: 'a9' })).toBeNull();
    expect(refused({ paper: { kind: 'plain' } })).toBe('printed-page');
    expect(refused({ paper: { ...printed, number: 2 } })).toBe('printed-page');
    expect(refused({ width: 200 })).toBe('printed-page');
    const slip = { kind: 'page.change', page: first.id, to: { paper: printed }, from: {} } as const;
    expect(refuse(operation(slip), start, maren)).toBe('printed-page');
  });
});

describe('a paper', () => {
  it('has lines neither too near nor too far apart, and a tint that ink can be read on', () => {
    const takes = (paper: object) => Paper.safeParse(paper).success;
    expect(takes({ kind: 'ruled', spacing: 23 })).toBeTrue();
    expect(takes({ kind: 'ruled', spacing: 1 })).toBeFalse();
    expect(takes({ kind: 'squared', spacing: 500 })).toBeFalse();
    expect(takes({ kind: 'plain', tint: '#fdf6e0' })).toBeTrue();
    expect(takes({ kind: 'plain', tint: '#444444' })).toBeFalse();
    expect(takes({ kind: 'plain', tint: 'cream' })).toBeFalse();
  });
});
