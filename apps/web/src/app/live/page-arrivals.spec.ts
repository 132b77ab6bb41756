import { BoardDraft, emptyBoard } from '@cuaderno/core/board';
import { newId } from '@cuaderno/core/id';
import { apply } from '@cuaderno/core/ops';
import type { Board } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import { addPages, somePages } from '@cuaderno/core/testing';
import { PageArrivals } from './page-arrivals';

describe('what is on pages, while it comes', () => {
  const pages = somePages(12);
  const draft = new BoardDraft(emptyBoard(newId()));
  apply(addPages(pages), draft, { by: newId(), at: 1, lesson: null });
  const board: Board = draft.done();
  const id = (n: number): Id => pages[n]!.id;
  let asked: number[][];
  let arrivals: PageArrivals;
  let now: number;
  let line: boolean;

  beforeEach(() => {
    asked = [];
    line = true;
    now = 1000;
    spyOn(performance, 'now').and.callFake(() => now);
    arrivals = new PageArrivals((ids) => {
      if (line) asked.push(ids.map((one) => pages.findIndex((page) => page.id === one)));
      return line;
    });
    arrivals.expect(new Map(pages.map((page) => [page.id, 100])));
  });

  /** The last that was asked for comes after so many ms. */
  const come = (ms: number, which = asked.at(-1)!): void => {
    now += ms;
    arrivals.arrived(which.map(id));
  };

  it('is asked for from the page in view outwards, one piece after the other', () => {
    arrivals.askOn(board, id(5));
    expect(asked).toEqual([[5]]);
    arrivals.askOn(board, id(5));
    expect(asked.length).toBe(1);
    come(200);
    arrivals.askOn(board, id(5));
    expect(asked.at(-1)).toEqual([6, 4]);
    expect(arrivals.coming().size).toBe(11);
  });

  it('comes in larger pieces where the line is quick, and in smaller ones where it is slow', () => {
    arrivals.arrived([id(0)]);
    arrivals.askOn(board, id(0));
    expect(asked.at(-1)!.length).toBe(2);
    come(10);
    arrivals.askOn(board, id(0));
    expect(asked.at(-1)!.length).toBe(4);
    for (let i = 0; i < 3; i++) {
      come(3000);
      arrivals.askOn(board, id(0));
    }
    expect(asked.at(-1)!.length).toBe(1);
  });

  it('comes next for a page that is turned to, whatever was asked for', () => {
    arrivals.arrived([id(0)]);
    arrivals.askOn(board, id(0));
    arrivals.askOn(board, id(9));
    expect(asked.at(-1)).toEqual([9]);
    arrivals.askOn(board, id(9));
    expect(asked.length).toBe(2);
  });

  it('is announced when it is here, at once if it is', () => {
    const told: string[] = [];
    arrivals.whenHere([id(7), id(8)], () => told.push('both'));
    arrivals.askOn(board, id(0));
    // Anyone who waits is served with the page in view.
    expect(asked.at(-1)).toEqual([0, 7, 8]);
    arrivals.arrived([id(8)]);
    expect(told).toEqual([]);
    arrivals.arrived([id(7), id(0)]);
    expect(told).toEqual(['both']);
    arrivals.whenHere([id(7)], () => told.push('again'));
    expect(told).toEqual(['both', 'again']);
  });

  it('is asked for once more when the line broke, and not while there is none', () => {
    arrivals.askOn(board, id(3));
    arrivals.lost();
    line = false;
    arrivals.askOn(board, id(3));
    line = true;
    arrivals.askOn(board, id(3));
    expect(asked).toEqual([[3], [3]]);
  });
});
