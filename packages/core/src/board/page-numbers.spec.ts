import fc from 'fast-check';
import { boardFor, emptyBoard, fold, newId, pageNumbers } from '../index.js';
import type { Board } from '../index.js';
import { addPages, somePages } from '../testing/index.js';

/** A board of pages, of which those are held back that are said so. */
function boardOf(held: readonly boolean[]): Board {
  const pages = somePages(held.length).map((page, i) => (held[i] ? { ...page, held: true } : page));
  return fold(emptyBoard(newId()), [
    { seq: 1, by: newId(), at: 0, lesson: null, op: addPages(pages) },
  ]);
}

describe('numbers of pages', () => {
  it('are in brackets where a page is held back, and say where it will be', () => {
    const numbers = (...held: boolean[]) => [...pageNumbers(boardOf(held)).values()];
    expect(numbers(false, false, false)).toEqual(['1', '2', '3']);
    expect(numbers(false, true, false, true, true)).toEqual(['1', '(2)', '2', '(3)', '(4)']);
    expect(numbers(true, false)).toEqual(['(1)', '1']);
    expect(numbers()).toEqual([]);
  });

  it('are the same for tutor and students, whatever is held back', () => {
    fc.assert(
      fc.property(fc.array(fc.boolean(), { maxLength: 12 }), (held) => {
        const board = boardOf(held);
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
