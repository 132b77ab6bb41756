import { encodePoints, MAX_BOARDS, newId, operation } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import { addInk } from '@cuaderno/core/testing';
import { House } from '../../../testing/harness.js';
import type { Visitor, Window } from '../../../testing/harness.js';

describe('a lesson on several boards', () => {
  let house: House;
  let moon: Id;

  beforeEach(async () => {
    house = await House.open('many-boards');
    moon = await board('Moon');
  });
  afterEach(() => house.close());

  const board = async (title: string, who = house.tutor, course = house.course.id): Promise<Id> =>
    (await who.post(`/courses/${course}/boards`, { title })).json<{ id: Id }>().id;
  /** Opens a board in a window; resolves with its first page, or with why it can’t be. */
  const opens = async (window: Window, id: Id): Promise<Id | string> => {
    const seen = window.told.length;
    window.send({ kind: 'board.open', board: id, since: -1 });
    return Promise.race([
      window
        .hears('board.opened', (m) => m.board === id && window.told.indexOf(m) >= seen)
        .then(({ outline }) => outline!.pages[0]!.id),
      window
        .hears('board.closed', (m) => m.board === id && window.told.indexOf(m) >= seen)
        .then(({ problem }) => problem.type.replace('urn:cuaderno:', '')),
    ]);
  };
  const has = (window: Window, ...ids: Id[]) =>
    window.hears('boards', ({ boards }) => boards.map((one) => one.id).join() === ids.join());

  it('has the class on another board of the course, with a line that all see and that is in the lesson', async () => {
    const { maren, ana, lesson } = await house.lesson();
    await has(ana, house.board);
    maren.send({ kind: 'board.show', board: moon });
    await has(ana, house.board, moon);
    const page = (await opens(ana, moon)) as Id;
    await opens(maren, moon);
    const line = addInk(page);
    ana.send({ kind: 'ops', board: moon, ops: [line] });
    const told = await maren.hears('applied', ({ ops }) => ops.some(({ id }) => id === line.id));
    const { number } = await maren.hears('board.opened', (m) => m.board === moon);
    expect(told.on).toBe(number);
    const log = (await house.app.logs.whole(moon, Number.MAX_SAFE_INTEGER))!;
    expect(log.find((one) => one.op.id === line.id)!.lesson).toBe(lesson);
  });

  it('tells a window nothing of a board that it hasn’t open, and takes nothing for one', async () => {
    const { maren, ana } = await house.lesson();
    maren.send({ kind: 'board.show', board: moon });
    const page = (await opens(maren, moon)) as Id;
    await has(ana, house.board, moon);
    ana.send({ kind: 'ops', board: moon, ops: [addInk(page)] });
    await ana.hearsProblem('board-not-open');
    const line = addInk(page);
    maren.send({ kind: 'ops', board: moon, ops: [line] });
    await maren.hears('confirmed', ({ ids }) => ids.includes(line.id));
    ana.send({ kind: 'ping', n: 1 });
    await ana.hears('pong');
    expect(ana.told.some((m) => m.kind === 'applied')).toBeFalse();
  });

  it('opens none to students that the class hasn’t, nor to a tutor that isn’t theirs or of another course', async () => {
    const { maren, ana } = await house.lesson();
    const other = (await house.tutor.post('/courses', { name: 'Cello' })).json<{ id: Id }>().id;
    const elsewhere = await board('Practice', house.tutor, other);
    const stranger: Visitor = await house.otherTutor('Olav');
    const strangers = (await stranger.post('/courses', { name: 'Ropes' })).json<{ id: Id }>().id;
    const theirs = await board('Knots', stranger, strangers);
    for (const forged of [moon, elsewhere, theirs, newId()])
      expect(await opens(ana, forged)).toBe('board-not-here');
    for (const forged of [elsewhere, theirs, newId()]) {
      expect(await opens(maren, forged)).toBe('board-not-here');
      maren.send({ kind: 'board.show', board: forged });
    }
    ana.send({ kind: 'board.show', board: moon });
    await ana.hearsProblem('tutor-only');
    // A tutor prepares the next board beside the lesson: it is theirs alone.
    const page = (await opens(maren, moon)) as Id;
    maren.send({ kind: 'ops', board: moon, ops: [addInk(page)] });
    await maren.hears('confirmed');
    maren.send({ kind: 'page.viewed', board: moon, page });
    const { people } = await maren.hears('people', (m) => m.people.some((p) => p.board === moon));
    expect(people.length).toBe(2);
    // Of what students are told, nothing names it but the answer to their own question.
    const told = ana.told.filter(({ kind }) => kind !== 'board.closed');
    expect(JSON.stringify(told)).not.toContain(moon);
    await has(ana, house.board);
  });

  it('takes a board back from the class: their windows hear no more of it, and one always stays', async () => {
    const { maren, ana } = await house.lesson();
    maren.send({ kind: 'board.withdraw', board: house.board });
    await maren.hearsProblem('last-board');
    maren.send({ kind: 'board.show', board: moon });
    await has(ana, house.board, moon);
    const page = (await opens(ana, moon)) as Id;
    await opens(maren, moon);
    ana.send({ kind: 'live.ink', board: moon, stroke: newId(), ...someInk(page) });
    await maren.hears('live.ink');
    maren.send({ kind: 'board.withdraw', board: moon });
    await maren.hears('live.end');
    const { problem } = await ana.hears('board.closed', (m) => m.board === moon);
    expect(problem.type).toBe('urn:cuaderno:board-withdrawn');
    expect(await opens(ana, moon)).toBe('board-not-here');
    const line = addInk(page);
    maren.send({ kind: 'ops', board: moon, ops: [line] });
    await maren.hears('confirmed', ({ ids }) => ids.includes(line.id));
    expect(JSON.stringify(ana.told)).not.toContain(line.id);
    // The tutor still sees it among those of the lesson.
    await maren.hears('boards', ({ boards }) => boards.some((b) => b.id === moon && !b.shown));
  });

  it('has as many boards open in a window as that can show, and no more', async () => {
    const { maren } = await house.lesson();
    for (let i = 0; i < MAX_BOARDS - 1; i++) await opens(maren, await board(`Board ${i}`));
    expect(await opens(maren, moon)).toBe('boards-full');
    maren.send({ kind: 'board.close', board: house.board });
    expect((await opens(maren, moon)).length).toBe(12);
  });

  it('goes on where it was when the server is started anew, on all its boards', async () => {
    const { maren, ana, lesson, student } = await house.lesson();
    maren.send({ kind: 'board.show', board: moon });
    await has(ana, house.board, moon);
    await house.restart();
    const back = await house.window(student.movedTo(house.app));
    await has(back, house.board, moon);
    // Anyone who comes begins on the board that the class was given last.
    expect(back.board).toBe(moon);
    const page = (await opens(back, moon)) as Id;
    const line = addInk(page);
    back.send({ kind: 'ops', board: moon, ops: [line] });
    await back.hears('confirmed', ({ ids }) => ids.includes(line.id));
    const { record } = (await house.tutor.post(`/lessons/${lesson}/close`)).json<{
      record: Id;
    }>();
    await house.app.indexing.settled();
    const opened = (await house.tutor.get(`/records/${record}`)).json<{
      record: { title: string; pageCount: number };
      boards: { board: Id; title: string }[];
    }>();
    // The first was neither seen nor written on for long enough to count, but nobody lost a line of the second.
    expect(opened.boards.map((one) => one.board)).toContain(moon);
    expect(opened.record.title).toContain('Moon');
  });

  it('isn’t removed from its course while a lesson is on it', async () => {
    const { maren, ana } = await house.lesson();
    maren.send({ kind: 'board.show', board: moon });
    await has(ana, house.board, moon);
    const { statusCode } = await house.tutor.post(`/boards/${moon}/remove`);
    expect(statusCode).toBe(409);
  });

  it('is opened from its course: on the board that was used last, or on an empty one', async () => {
    const open = async (on: 'last' | 'empty') => {
      const wish = { on, title: 'Tuesday 1 December' };
      const answer = await house.tutor.post(`/courses/${house.course.id}/lesson`, wish);
      return answer.json<{ id: Id; board: Id; type?: string }>();
    };
    const first = await open('empty');
    const page = await opens(
      await house.window(house.tutor, `/live/boards/${first.board}`),
      first.board,
    );
    expect(page.length).toBe(12);
    expect((await open('last')).type).toBe('urn:cuaderno:lesson-running');
    await house.tutor.post(`/lessons/${first.id}/close`);
    expect((await open('last')).board).toBe(first.board);
  });

  it('has two windows of its tutor on two boards: the one that moved last leads, and one that the class hasn’t leads nobody', async () => {
    const { maren, ana, page } = await house.lesson();
    const beside = await house.tutorWindow();
    await beside.hears('board.opened');
    const moonPage = (await opens(beside, moon)) as Id;
    const view = (of: Id, y: number) => ({ page: of, x: 0, y, width: 400, height: 300 });
    const led = (): (readonly [Id, number])[] =>
      ana.told.flatMap((m) => (m.kind === 'view' ? [[m.board, m.view.y] as const] : []));
    maren.send({ kind: 'step', on: true });
    maren.send({ kind: 'view', board: house.board, view: view(page, 1), final: true });
    await ana.hears('view', (m) => m.view.y === 1);
    // Looked at in private, beside the lesson.
    beside.send({ kind: 'view', board: moon, view: view(moonPage, 2), final: true });
    await beside.isAlive(1);
    maren.send({ kind: 'board.show', board: moon });
    await has(ana, house.board, moon);
    beside.send({ kind: 'view', board: moon, view: view(moonPage, 3), final: true });
    await ana.hears('view', (m) => m.view.y === 3);
    maren.send({ kind: 'view', board: house.board, view: view(page, 4), final: true });
    await ana.hears('view', (m) => m.view.y === 4);
    expect(led()).toEqual([
      [house.board, 1],
      [moon, 3],
      [house.board, 4],
    ]);
    // Closed, the window beside it takes nobody along, and the tutor is still there.
    beside.socket.close();
    await beside.ends();
    await ana.isAlive(2);
    expect(house.app.lessons.onBoard(house.board)!.tutorAwaySince).toBeNull();
  });

  it('is found by words on any of its boards, and counted on all of them', async () => {
    const { maren, ana, anaId, page, lesson } = await house.lesson();
    maren.send({ kind: 'board.show', board: moon });
    await has(ana, house.board, moon);
    const moonPage = (await opens(ana, moon)) as Id;
    await opens(maren, moon);
    const name = (of: Id, to: string) =>
      operation({ kind: 'page.change', page: of, to: { name: to }, from: { name: '' } });
    for (const [board, op] of [
      [house.board, name(page, 'Spring tides')],
      [moon, name(moonPage, 'Craters at dusk')],
    ] as const) {
      maren.send({ kind: 'ops', board, ops: [op] });
      await maren.hears('confirmed', ({ ids }) => ids.includes(op.id));
    }
    for (const [board, on] of [
      [house.board, page],
      [moon, moonPage],
      [moon, moonPage],
    ] as const) {
      const line = addInk(on);
      ana.send({ kind: 'ops', board, ops: [line] });
      await ana.hears('confirmed', ({ ids }) => ids.includes(line.id));
    }
    await house.tutor.post(`/lessons/${lesson}/close`);
    await house.app.indexing.settled();
    const places = async (words: string): Promise<string[]> => {
      const { found } = (await house.tutor.get(`/records?words=${words}`)).json<{
        found: { places: { source: string; number: number; found: string }[] }[];
      }>();
      return found.flatMap((one) => one.places.map((p) => `${p.source} ${p.number}: ${p.found}`));
    };
    expect(await places('tides')).toEqual(['page 1: tides']);
    expect(await places('craters')).toEqual(['page 2: Craters']);
    const { statistics } = (await house.tutor.get(`/records/${lesson}`)).json<{
      statistics: { people: { id: Id; lines: number }[] };
    }>();
    expect(statistics.people.find(({ id }) => id === anaId)!.lines).toBe(3);
  });
});

function someInk(page: Id) {
  const style = { tool: 'pen', ink: 'poppy', width: 2 } as const;
  return { start: { page, style }, points: encodePoints([{ x: 5, y: 5, pressure: 0.5, time: 0 }]) };
}
