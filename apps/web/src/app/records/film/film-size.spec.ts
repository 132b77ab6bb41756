import { emptyBoard, pagesInOrder } from '@cuaderno/core/board';
import { fold } from '@cuaderno/core/log';
import { addPages, somePages } from '@cuaderno/core/testing';
import { filmSize, HIGHEST, placeOf, STRIP, WIDEST } from './film-size';

describe('the size of a film', () => {
  const [upright, lying] = somePages(2);
  const board = fold(emptyBoard('b'), [
    {
      ...{ seq: 1, by: 'maren', at: 1, lesson: null },
      op: addPages([upright!, { ...lying!, width: 1920, height: 1080 }]),
    },
  ]);
  const pages = pagesInOrder(board);
  const event = (page: string) => ({ by: 'ana', page, kind: 'ink.add' as const, from: 1, to: 2 });

  it('is that of the page on which most was done', () => {
    expect(filmSize(pages, [event(upright!.id)])).toEqual({ width: 764, height: HIGHEST + STRIP });
    expect(filmSize(pages, [event(upright!.id), event(lying!.id), event(lying!.id)])).toEqual({
      ...{ width: WIDEST, height: 720 + STRIP },
    });
  });

  it('has even sides, also for a sliver, and without any page', () => {
    const sliver = { ...pages[0]!, width: 5001, height: 3 };
    expect(filmSize([sliver], [])).toEqual({ width: WIDEST, height: 2 + STRIP });
    const { width, height } = filmSize([], []);
    expect([width % 2, height % 2]).toEqual([0, 0]);
  });

  it('holds every page whole, in its middle', () => {
    const size = filmSize(pages, [event(upright!.id)]);
    for (const page of pages) {
      const { x, y, width, height } = placeOf(page, size);
      expect(Math.min(x, y)).toBeGreaterThanOrEqual(0);
      expect(x + width).toBeLessThanOrEqual(size.width);
      expect(y + height).toBeLessThanOrEqual(size.height - STRIP);
      expect(width / height).toBeCloseTo(page.width / page.height, 1);
    }
  });
});
