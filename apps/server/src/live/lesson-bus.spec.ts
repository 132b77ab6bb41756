import { itemsOn, newId, pagesInOrder } from '@cuaderno/core';
import type { Actor } from '@cuaderno/core';
import { addMark } from '@cuaderno/core/testing';
import { House } from '../testing/harness.js';
import { roomOf } from './lesson-bus.js';
import type { LocalBus } from './lesson-bus.js';

describe('rooms of boards', () => {
  let house: House;
  beforeEach(async () => {
    house = await House.open('lesson-bus');
  });
  afterEach(() => house.close());

  it('that were put away send on whoever still has hold of them: nothing is lost, nothing said twice', async () => {
    const maren: Actor = { id: newId(), role: 'tutor', trust: 'hands' };
    const { bus } = house.app;
    const early = await roomOf(bus, house.board);
    const [page] = await early.between((board) => pagesInOrder(board).map(({ id }) => id));
    await early.take([addMark(page!)], maren);
    // Nobody is there, and so the room is put away some time.
    (bus as LocalBus).putAllAway();
    expect(bus.open(house.board)).toBeUndefined();
    // Someone opens the board anew and writes on it; the old handle writes, too.
    const { student } = await house.lesson();
    expect(student).toBeTruthy();
    const now = await roomOf(bus, house.board);
    expect(now).not.toBe(early);
    await now.take([addMark(page!)], maren);
    await early.take([addMark(page!)], maren);
    await early.bring([{ op: addMark(page!), by: newId(), at: 1, lesson: null }]);
    const count = await now.between((board) => itemsOn(board.pages.get(page!)!).length);
    expect(count).toBe(4);
    expect(await early.between((board) => itemsOn(board.pages.get(page!)!).length)).toBe(4);
    await house.restart();
    const again = await roomOf(house.app.bus, house.board);
    expect(await again.between((board) => itemsOn(board.pages.get(page!)!).length)).toBe(4);
  });
});
