import { CLOSE } from '@cuaderno/core';
import type { Waiting } from '@cuaderno/core';
import { EarlyComers, GONE_AFTER } from './early.js';
import { House } from '../testing/harness.js';
import type { Visitor, Window } from '../testing/harness.js';

describe('who waits for a lesson to open', () => {
  it('is there while their window asks, once a minute at least, and announced once', () => {
    jasmine.clock().install();
    jasmine.clock().mockDate();
    const told: string[][] = [];
    const early = new EarlyComers((course) =>
      told.push(early.of(course).map((name) => name ?? '?')),
    );
    early.seen('c1', 'a', null);
    early.seen('c1', 'a', 'Ida');
    for (let i = 0; i < 5; i++) {
      jasmine.clock().tick(60_000);
      early.seen('c1', 'a', 'Ida');
    }
    early.seen('c1', 'b', 'Noor');
    jasmine.clock().tick(40_000);
    early.seen('c1', 'b', 'Noor');
    jasmine.clock().tick(GONE_AFTER - 30_000);
    expect(told).toEqual([['?'], ['Ida'], ['Ida', 'Noor'], ['Noor']]);
    jasmine.clock().tick(GONE_AFTER);
    expect(early.waitedFor).toEqual([]);
    early.close();
    jasmine.clock().uninstall();
  });
});

describe('who waits, told to the tutor on any screen', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('waiting');
    await house.setDoor('ask');
  });
  afterEach(() => house.close());

  const watch = (who = house.tutor): Promise<Window> => house.window(who, '/live/waiting', null);
  const link = () => ({ link: house.course.linkToken });
  const looks = (who: Visitor, name?: string) =>
    who.post('/join/find', { ...link(), ...(name ? { name } : {}) });
  /** The last that was told is this. */
  const isTold = (window: Window, fits: (who: readonly Waiting[]) => boolean) =>
    window.hears('waiting', (m) => {
      const last = window.told.filter(({ kind }) => kind === 'waiting').at(-1);
      return m === last && fits(m.who);
    });
  const names = (who: readonly Waiting[]) => who.flatMap((one) => one.names);

  it('is at the door of an open lesson, with the board that leads there, until they are in', async () => {
    const desk = await watch();
    expect((await isTold(desk, (who) => who.length === 0)).who).toEqual([]);
    await house.openLesson();
    const ida = await house.student('Ida');
    await house.window(ida, '/live/door', null);
    const { who } = await isTold(desk, (who) => names(who).join() === 'Ida');
    expect(who).toEqual([
      { course: house.course.id, courseName: 'Tides', board: house.board, names: ['Ida'] },
    ]);
    const maren = await house.tutorWindow();
    await maren.hears('door');
    maren.send({ kind: 'door', who: 'all', word: 'in' });
    await isTold(desk, (who) => who.length === 0);
  });

  it('is somebody who came before the lesson is open, by the name that they say or were known by', async () => {
    const early = house.visitor();
    expect((await looks(early)).json<{ open: boolean }>().open).toBeFalse();
    // A window that comes later is told, too.
    const desk = await watch();
    const { who } = await isTold(desk, (who) => who.length === 1);
    expect(who[0]).toEqual(jasmine.objectContaining({ board: null, names: [null] }));
    await looks(early, 'Ida');
    await isTold(desk, (who) => names(who).join() === 'Ida');
    // Asked again and again, they are one.
    for (let i = 0; i < 3; i++) await looks(early, 'Ida');
    await looks(house.visitor(), 'Noor');
    await isTold(desk, (who) => names(who).join() === 'Ida,Noor');
    await house.openLesson();
    await isTold(desk, (who) => who.length === 0);
  });

  it('is known to the tutor of the course alone, and to nobody who was signed out', async () => {
    const other = await watch(await house.otherTutor('Nils'));
    const desk = await watch();
    await looks(house.visitor(), 'Ida');
    await isTold(desk, (who) => who.length === 1);
    expect(names(other.told.flatMap((m) => (m.kind === 'waiting' ? m.who : [])))).toEqual([]);
    expect(await (await watch(house.visitor())).ends()).toBe(CLOSE.notIn);
    await house.tutor.post('/sign-out');
    expect(await desk.ends()).toBe(CLOSE.notIn);
  });

  it('is no place to keep the server busy from, nor to fill with made-up names', async () => {
    for (let i = 0; i < 40; i++) await looks(house.visitor(), `Nobody ${i}`);
    const desk = await watch();
    const { who } = await isTold(desk, (who) => who.length === 1);
    expect(who[0]!.names.length).toBe(20);
    expect((await looks(house.visitor(), 'x'.repeat(500))).statusCode).toBe(400);
    desk.socket.send('x'.repeat(300));
    expect(await desk.ends()).toBe(CLOSE.flood);
  });
});
