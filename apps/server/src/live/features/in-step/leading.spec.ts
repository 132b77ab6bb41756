import { changePage, operation } from '@cuaderno/core';
import type { Id, View } from '@cuaderno/core';
import { addPages, somePages } from '@cuaderno/core/testing';
import { House } from '../../../testing/harness.js';

describe('in step', () => {
  let house: House;
  beforeEach(async () => {
    house = await House.open('leading');
  });
  afterEach(() => house.close());

  const part = (page: Id, y = 100): View => ({ page, x: -20, y, width: 400, height: 300 });

  it('students are told what the tutor’s window shows, those who come late as well', async () => {
    const { maren, ana, page, student } = await house.lesson();
    await ana.hears('step', ({ on }) => !on);
    maren.send({ kind: 'view', view: part(page, 1), final: true });
    maren.send({ kind: 'step', on: true });
    maren.send({ kind: 'view', view: part(page, 2), final: false });
    maren.send({ kind: 'view', view: part(page, 3), final: true });
    await ana.hears('view', ({ view }) => view.y === 3);
    // Out of step nobody was told anything.
    expect(ana.told.flatMap((m) => (m.kind === 'view' ? [m.view.y] : []))).toEqual([2, 3]);
    expect(maren.told.some(({ kind }) => kind === 'view')).toBeFalse();

    const late = await house.window(student);
    await late.hears('step', ({ on }) => on);
    expect(await late.hears('view')).toEqual({
      kind: 'view',
      board: house.board,
      view: part(page, 3),
      once: false,
    });

    maren.send({ kind: 'step', on: false });
    await late.hears('step', ({ on }) => !on);
  });

  it('stays as it was when the server is started anew', async () => {
    const { maren, ana, student } = await house.lesson();
    maren.send({ kind: 'step', on: true });
    await ana.hears('step', ({ on }) => on);
    await house.restart();
    await (await house.window(student.movedTo(house.app))).hears('step', ({ on }) => on);
  });

  it('brings all to one place once, and leaves them free', async () => {
    const { maren, ana, page } = await house.lesson();
    maren.send({ kind: 'gather', view: part(page) });
    expect(await ana.hears('view')).toEqual({
      kind: 'view',
      board: house.board,
      view: part(page),
      once: true,
    });
  });

  it('brings one window here once, and none of another lesson, nor for a student', async () => {
    const { maren, ana, student, page } = await house.lesson();
    const tablet = await house.window(student);
    const noor = await house.window(await house.student('Noor'));
    const { windows } = await maren.hears('windows', (m) => m.windows.length === 4);
    const mine = (await tablet.hears('welcome')).window;
    expect(windows.find(({ id }) => id === mine)!.person).toBe((await ana.hears('welcome')).you);
    maren.send({ kind: 'gather.one', to: mine, view: part(page, 5) });
    expect(await tablet.hears('view')).toEqual({
      kind: 'view',
      board: house.board,
      view: part(page, 5),
      once: true,
    });

    // Who isn’t there, and windows of tutors, are brought nowhere; a student brings nobody.
    maren.send({ kind: 'gather.one', to: page, view: part(page) });
    await maren.hearsProblem('window-gone');
    maren.send({ kind: 'gather.one', to: (await maren.hears('welcome')).window, view: part(page) });
    noor.send({ kind: 'gather.one', to: mine, view: part(page) });
    await noor.hearsProblem('tutor-only');
    tablet.socket.close();
    await maren.hears('windows', (m) => m.windows.length === 3);
    maren.send({ kind: 'gather.one', to: mine, view: part(page) });
    maren.send({ kind: 'gather', view: part(page, 9) });
    await Promise.all([ana, noor].map((window) => window.hears('view', (m) => m.view.y === 9)));
    for (const window of [ana, noor])
      expect(window.told.filter(({ kind }) => kind === 'view').length).toBe(1);
    expect(maren.told.some(({ kind }) => kind === 'view')).toBeFalse();
  });

  it('tells windows to all, and on what machines they are to tutors', async () => {
    const { maren, ana, page } = await house.lesson();
    const size = { width: 390, height: 844 };
    ana.send({ kind: 'window', machine: 'phone', size, view: part(page) });
    await maren.hears('windows', (m) => m.windows.some(({ machine }) => machine === 'phone'));
    const noor = await house.window(await house.student('Noor'));
    const { windows } = await noor.hears('windows');
    expect(windows.length).toBe(3);
    expect(windows.every(({ machine }) => machine === null)).toBeTrue();
  });

  it('leads nobody to a page that is hidden', async () => {
    const { maren, ana, page } = await house.lesson();
    const host = (await house.app.bus.host(house.board))!;
    const tutor = { id: page, role: 'tutor', trust: 'hands' } as const;
    const [hidden] = somePages(1) as [ReturnType<typeof somePages>[number]];
    await host.applyAs([addPages([hidden])], tutor);
    const board = await host.between((state) => state);
    await host.applyAs([operation(changePage(board, hidden.id, { hidden: true })!)], tutor);
    maren.send({ kind: 'step', on: true });
    maren.send({ kind: 'view', view: part(hidden.id), final: true });
    maren.send({ kind: 'gather', view: part(hidden.id) });
    maren.send({ kind: 'view', view: part(page, 7), final: true });
    await ana.hears('view', ({ view }) => view.y === 7);
    expect(ana.told.flatMap((m) => (m.kind === 'view' ? [m.view.page] : []))).toEqual([page]);
  });

  it('is the tutor’s alone, and takes no nonsense', async () => {
    const { maren, ana, page } = await house.lesson();
    ana.send({ kind: 'step', on: true });
    ana.send({ kind: 'gather', view: part(page) });
    ana.send({ kind: 'view', view: part(page), final: true });
    ana.send({ kind: 'lead', who: null });
    await ana.hearsTimes('problem', 2);
    // What a window says that has just lost the lead is no mistake of its person: it counts for nothing.
    expect(maren.told.some(({ kind }) => kind === 'view')).toBeFalse();
    maren.send({ kind: 'view', view: { ...part(page), width: 0 }, final: true });
    await maren.hearsProblem('message-wrong-shape');
    expect(maren.told.some((m) => m.kind === 'step' && m.on)).toBeFalse();
  });
});
