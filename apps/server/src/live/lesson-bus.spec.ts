import { itemsOn, newId, pagesInOrder } from '@cuaderno/core';
import type { Actor } from '@cuaderno/core';
import { addMark } from '@cuaderno/core/testing';
import { House } from '../testing/harness.js';
import { hostOf } from './lesson-bus.js';
import type { LocalBus } from './lesson-bus.js';

describe('hosts of boards', () => {
  let house: House;
  const from = { by: newId(), at: 1, lesson: null };
  beforeEach(async () => {
    house = await House.open('lesson-bus');
  });
  afterEach(() => house.close());

  it('that were put away send on anyone who still has hold of them: nothing is lost, nothing said twice', async () => {
    const maren: Actor = { id: newId(), role: 'tutor', trust: 'hands' };
    const { bus } = house.app;
    const early = await hostOf(bus, house.board);
    const [page] = await early.between((board) => pagesInOrder(board).map(({ id }) => id));
    await early.applyAs([addMark(page!)], maren);
    // Nobody is there, and so the board is put away some time.
    (bus as LocalBus).putAllAway();
    expect(bus.open(house.board)).toBeUndefined();
    // Someone opens the board anew and writes on it; the old handle writes, too.
    const { student } = await house.lesson();
    expect(student).toBeTruthy();
    const now = await hostOf(bus, house.board);
    expect(now).not.toBe(early);
    await now.applyAs([addMark(page!)], maren);
    await early.applyAs([addMark(page!)], maren);
    await early.append([{ op: addMark(page!), by: newId(), at: 1, lesson: null }]);
    const count = await now.between((board) => itemsOn(board.pages.get(page!)!).length);
    expect(count).toBe(4);
    expect(await early.between((board) => itemsOn(board.pages.get(page!)!).length)).toBe(4);
    await house.restart();
    const again = await hostOf(house.app.bus, house.board);
    expect(await again.between((board) => itemsOn(board.pages.get(page!)!).length)).toBe(4);
  });

  it('take what the server makes at once in one commit, however much it is', async () => {
    const maren: Actor = { id: newId(), role: 'tutor', trust: 'hands' };
    const host = await hostOf(house.app.bus, house.board);
    const [page] = await host.between((board) => pagesInOrder(board).map(({ id }) => id));
    const append = spyOn(house.app.logs, 'append').and.callThrough();
    const marks = Array.from({ length: 1000 }, () => addMark(page!));
    await host.applyAs(marks, maren);
    await host.append(marks.map((op) => ({ op: { ...op, id: newId() }, ...from })));
    expect(append.calls.allArgs().map(([, entries]) => entries.length)).toEqual([1000, 1000]);
  });

  it('keep what the server makes while logs are changed on disk: it goes on to the board as it is then', async () => {
    const maren: Actor = { id: newId(), role: 'tutor', trust: 'hands' };
    const { bus } = house.app;
    const host = await hostOf(bus, house.board);
    const [page] = await host.between((board) => pagesInOrder(board).map(({ id }) => id));
    const waiting: Promise<unknown>[] = [];
    await bus.shut([house.board], () => {
      waiting.push(host.applyAs([addMark(page!)], maren));
      waiting.push(host.append([{ op: addMark(page!), ...from }]));
      return Promise.resolve();
    });
    await Promise.all(waiting);
    const now = await hostOf(bus, house.board);
    expect(now).not.toBe(host);
    expect(await now.between((board) => itemsOn(board.pages.get(page!)!).length)).toBe(2);
  });

  it('stand still while logs are changed on disk, and then everyone comes back to what is there', async () => {
    const { bus } = house.app;
    const window = await house.tutorWindow();
    const { outline: board } = await window.hears('board.opened');
    const page = board!.pages[0]!.id;
    const seen: string[] = [];
    let join: Promise<unknown> = Promise.resolve();
    await bus.shut([house.board], async () => {
      join = house.tutorWindow().then(async (late) => {
        await late.hears('welcome').catch(() => undefined);
        seen.push('late');
      });
      window.send({ kind: 'ops', ops: [addMark(page)] });
      await new Promise((done) => setImmediate(done));
      seen.push('changed');
    });
    expect(await window.ends()).toBeGreaterThan(0);
    expect(window.told.some(({ kind }) => kind === 'confirmed')).toBeFalse();
    await join;
    expect(seen).toEqual(['changed', 'late']);
    // What goes wrong meanwhile changes nothing, and nobody is sent away.
    const again = await house.tutorWindow();
    await again.hears('welcome');
    await expectAsync(
      bus.shut([house.board], () => Promise.reject(new Error('no'))),
    ).toBeRejected();
    again.send({ kind: 'ops', ops: [addMark(page)] });
    await again.hears('confirmed');
  });
});
