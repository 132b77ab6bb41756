import { pagesInOrder, BoardDraft, emptyBoard } from '@cuaderno/core/board';
import { newId } from '@cuaderno/core/id';
import { apply } from '@cuaderno/core/ops';
import type { Page } from '@cuaderno/core/board';
import type { View } from '@cuaderno/core/features';
import { addPages, somePages } from '@cuaderno/core/testing';
import { Viewing } from './viewing';

/** Pages of 595 by 842 points. */
function pages(count: number): Page[] {
  const draft = new BoardDraft(emptyBoard(newId()));
  apply(addPages(somePages(count)), draft, { by: newId(), at: 0, lesson: null });
  return pagesInOrder(draft.done());
}

describe('what a window shows of a board', () => {
  const list = pages(6);

  function windowOf(width: number, height: number): Viewing {
    const viewing: Viewing = new Viewing(
      () => ({ width, height }),
      () => viewing.settle(),
      () => undefined,
    );
    viewing.lay(list);
    viewing.settle();
    return viewing;
  }
  /** Waits until it is where it goes. */
  async function rests(viewing: Viewing): Promise<void> {
    for (let before = ''; ;) {
      const now = JSON.stringify(viewing.camera);
      if (now === before) return;
      before = now;
      await new Promise((next) => requestAnimationFrame(next));
      await new Promise((next) => requestAnimationFrame(next));
    }
  }
  /** Whether all of a part is in the window, to a point. */
  function shows(
    viewing: Viewing,
    { page, x, y, width, height }: View,
    w: number,
    h: number,
  ): boolean {
    const from = viewing.locate(page, { x, y })!;
    const to = viewing.locate(page, { x: x + width, y: y + height })!;
    const slack = viewing.camera.zoom;
    return from.x >= -slack && from.y >= -slack && to.x <= w + slack && to.y <= h + slack;
  }

  it('is told so that any other window can show the same', async () => {
    const leads = windowOf(1100, 700);
    leads.goTo(list[2]!.id);
    leads.zoomBy(2.3, { x: 300, y: 200 });
    const part = leads.part!;
    for (const [width, height] of [
      [390, 700],
      [820, 1100],
      [1600, 500],
    ] as const) {
      const follows = windowOf(width, height);
      follows.follow(part);
      await rests(follows);
      expect(shows(follows, part, width, height)).toBeTrue();
      // As large as can be: it fills the window one way.
      const { zoom } = follows.camera;
      expect(Math.max((part.width * zoom) / width, (part.height * zoom) / height)).toBeCloseTo(
        1,
        2,
      );
      follows.close();
    }
  });

  it('is the page that was gone to, however many are seen, until the board is moved by hand', () => {
    const upright = windowOf(560, 1100);
    upright.zoomTo(0.4);
    const [first, , third, fourth, , last] = list.map(({ id }) => id) as [string, ...string[]];
    for (const page of [first, third!, last!, first]) {
      upright.goTo(page);
      expect(upright.page()).toBe(page);
      expect(upright.part!.page).toBe(page);
    }
    upright.turn(2);
    expect(upright.page()).toBe(third!);
    // What is found elsewhere on the way is what is looked at.
    upright.reveal(fourth!, { x: 10, y: 10 });
    expect(upright.page()).toBe(fourth!);
    upright.goTo(first);
    upright.resized();
    expect(upright.page()).toBe(first);
    upright.pan(0, -1);
    expect(upright.page()).toBe(list[1]!.id);
  });

  it('can’t be moved by itself while it follows, and can afterwards', async () => {
    const leads = windowOf(1000, 700);
    leads.goTo(list[1]!.id);
    const follows = windowOf(500, 800);
    follows.follow(leads.part);
    await rests(follows);
    const there = follows.camera;
    follows.pan(0, -300);
    follows.turn(1);
    follows.zoomBy(0.5);
    expect(follows.camera).toEqual(there);
    follows.follow(null);
    follows.pan(0, -300);
    expect(follows.camera.y).toBeGreaterThan(there.y);
  });

  it('may be enlarged in step, within what the lead shows, and goes along with that', async () => {
    const leads = windowOf(1000, 700);
    leads.goTo(list[1]!.id);
    const follows = windowOf(500, 800);
    follows.follow(leads.part);
    await rests(follows);
    const base = follows.camera;
    const inside = (): boolean => {
      const { x, y, zoom } = follows.camera;
      const slack = 1e-6;
      return (
        x >= base.x - slack &&
        y >= base.y - slack &&
        x + 500 / zoom <= base.x + 500 / base.zoom + slack &&
        y + 800 / zoom <= base.y + 800 / base.zoom + slack
      );
    };
    // What lies under two fingers stays there.
    const at = { x: 300, y: 200 };
    const place = base.x + at.x / base.zoom;
    follows.pinch(at, 0, 0, 2);
    expect(follows.camera.zoom).toBeCloseTo(base.zoom * 2, 6);
    expect(follows.camera.x + at.x / follows.camera.zoom).toBeCloseTo(place, 6);
    for (const [dx, dy] of [
      [5000, 0],
      [-9000, 0],
      [0, 9000],
      [0, -9000],
    ] as const) {
      follows.pan(dx, dy);
      expect(inside()).toBeTrue();
    }
    // The lead goes on: as much larger, there.
    leads.goTo(list[3]!.id);
    follows.follow(leads.part);
    await rests(follows);
    expect(follows.camera.zoom).toBeCloseTo(base.zoom * 2, 3);
    expect(follows.page()).toBe(list[3]!.id);
    for (let i = 0; i < 20; i++) follows.zoomBy(0.5);
    expect(follows.camera.zoom).toBeCloseTo(base.zoom, 3);
    for (let i = 0; i < 20; i++) follows.zoomBy(2);
    expect(follows.camera.zoom).toBeLessThanOrEqual(base.zoom * 6 + 1e-6);
    follows.follow(null);
    follows.follow(leads.part);
    await rests(follows);
    expect(follows.camera.zoom).toBeCloseTo(base.zoom, 3);
  });

  it('follows far away at once and near in one motion, and stays free after it was brought once', async () => {
    const leads = windowOf(1000, 700);
    const follows = windowOf(1000, 700);
    leads.goTo(list[5]!.id);
    follows.follow(leads.part);
    expect(follows.page()).toBe(list[5]!.id);
    await rests(follows);
    const before = follows.camera.y;
    leads.pan(0, 200);
    follows.follow(leads.part);
    const first = before - follows.camera.y;
    await rests(follows);
    expect(first).toBeGreaterThan(0);
    expect(first).toBeLessThan(before - follows.camera.y);

    const once = windowOf(1000, 700);
    once.show(leads.part!);
    await rests(once);
    expect(once.camera.y).toBeCloseTo(leads.camera.y, 1);
    once.pan(0, 100);
    expect(once.camera.y).toBeLessThan(leads.camera.y);
  });

  it('keeps to what it follows while pages come and the window turns', async () => {
    const leads = windowOf(1000, 700);
    leads.goTo(list[3]!.id);
    const size = { width: 400, height: 800 };
    const follows: Viewing = new Viewing(
      () => size,
      () => follows.settle(),
      () => undefined,
    );
    // Led before it has any page: as anyone who comes late is.
    follows.follow(leads.part);
    follows.lay(list);
    await rests(follows);
    expect(shows(follows, leads.part!, size.width, size.height)).toBeTrue();
    [size.width, size.height] = [800, 400];
    follows.resized();
    expect(shows(follows, leads.part!, size.width, size.height)).toBeTrue();
  });

  describe('with pages of different sizes', () => {
    /** An A4 page among others: a wide one, and the largest that a PDF may have. */
    const sizes = [
      [595, 842],
      [1400, 500],
      [14_400, 14_400],
    ] as const;
    const mixed = pages(3).map((page, i): Page => ({
      ...page,
      ...{ width: sizes[i]![0], height: sizes[i]![1] },
    }));
    const look = (): Viewing => {
      const viewing: Viewing = new Viewing(
        () => ({ width: 1000, height: 700 }),
        () => viewing.settle(),
        () => undefined,
      );
      viewing.lay(mixed);
      viewing.settle();
      return viewing;
    };
    const shownWidth = (viewing: Viewing): number => 1000 / viewing.zoom();

    it('is as wide as the page in view, however wide others are', () => {
      const viewing = look();
      viewing.fitWidth();
      expect(shownWidth(viewing)).toBeCloseTo(595 + 36, 0);
      viewing.turn(1);
      expect(viewing.page()).toBe(mixed[1]!.id);
      expect(shownWidth(viewing)).toBeCloseTo(1400 + 36, 0);
    });

    it('shows all of the largest page that a PDF may have', () => {
      const viewing = look();
      viewing.goTo(mixed[2]!.id);
      viewing.fitPage();
      const from = viewing.locate(mixed[2]!.id, { x: 0, y: 0 })!;
      const to = viewing.locate(mixed[2]!.id, { x: 14_400, y: 14_400 })!;
      expect(from.x).toBeGreaterThanOrEqual(0);
      expect(from.y).toBeGreaterThanOrEqual(0);
      expect(to.y).toBeLessThanOrEqual(700);
      expect(to.x).toBeLessThanOrEqual(1000);
    });

    it('goes no smaller than a quarter of the whole page', () => {
      const viewing = look();
      viewing.fitPage();
      const whole = viewing.zoom();
      viewing.pinch({ x: 500, y: 350 }, 0, 0, 0.001);
      expect(viewing.zoom()).toBeCloseTo(whole / 4, 3);
    });
  });
});
