import fc from 'fast-check';
import { boardFor, emptyBoard, fold, newId, pageNumbers } from '../index.js';
import type { Board } from '../index.js';
import { addPages, somePages } from '../testing/index.js';

/** A board of pages, of which those are hidden that are said so. */
function boardOf(hidden: readonly boolean[]): Board {
  const pages = somePages(hidden.length).map((page, i) =>
    hidden[i] ? { ...page, hidden: true } : page,
  );
  return fold(emptyBoard(newId()), [
    { seq: 1, by: newId(), at: 0, lesson: null, op: addPages(pages) },
  ]);
}

describe('numbers of pages', () => {
  it('are in brackets where a page is hidden, and say where it will be', () => {
    const numbers = (...hidden: boolean[]) => [...pageNumbers(boardOf(hidden)).values()];
    expect(numbers(false, false, false)).toEqual(['1', '2', '3']);
    expect(numbers(false, true, false, true, true)).toEqual(['1', '(2)', '2', '(3)', '(4)']);
    expect(numbers(true, false)).toEqual(['(1)', '1']);
    expect(numbers()).toEqual([]);
  });

  it('are the same for tutor and students, whatever is hidden', () => {
    fc.assert(
      fc.property(fc.array(fc.boolean(), { maxLength: 12 }), (hidden) => {
        const board = boardOf(hidden);
        const tutors = pageNumbers(board);
        const students = pageNumbers(boardFor(board, { id: newId(), role: 'student' }));
        expect([...students.values()]).toEqual(
          Array.from({ length: students.size }, (_, i) => String(i + 1)),
        );
        for (const [page, number] of students) expect(tutors.get(page)).toBe(number);
      }),
    );
  });
});
