import { itemsOn, MAX_OPERATIONS, newId, operation, pack, CLOSE } from '@cuaderno/core';
import type { Board, Id, Operation } from '@cuaderno/core';
import { addInk, somePages } from '@cuaderno/core/testing';
import { House } from '../testing/harness.js';
import type { Window } from '../testing/harness.js';

describe('a live lesson', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('live');
  });
  afterEach(() => house.close());

  const keeps = (window: Window, op: Operation): Promise<unknown> =>
    window.hears('confirmed', ({ ids }) => ids.includes(op.id));
  const isShown = (window: Window, op: Operation): Promise<unknown> =>
    window.hears('applied', ({ ops }) => ops.some(({ id }) => id === op.id));
  const refuses = async (window: Window, op: Operation): Promise<string> =>
    (await window.hears('refused', ({ id }) => id === op.id)).problem.type;

  async function onBoard(): Promise<string[]> {
    return itemsOfBoard(await (await house.tutorWindow()).wholeBoard());
  }

  it('confirms a line to its writer and shows it to the others, with its author', async () => {
    const { maren, ana, anaId, page } = await house.lesson();
    const line = addInk(page);
    ana.send({ kind: 'ops', ops: [line] });
    await keeps(ana, line);
    const { by, ops } = await maren.hears('applied');
    expect([by, ops[0]!.id]).toEqual([anaId, line.id]);
    expect(ana.told.some(({ kind }) => kind === 'applied')).toBeFalse();
  });

  it('passes a stroke on while it is being drawn, and stores nothing of it', async () => {
    const { maren, ana, anaId, page } = await house.lesson();
    const stroke = newId();
    const points = Uint8Array.of(1, 10, 10, 0);
    const style = { tool: 'pen', ink: 'poppy', width: 2.4 } as const;
    ana.send({ kind: 'live.ink', stroke, start: { page, style }, points });
    const heard = await maren.hears('live.ink');
    expect([heard.by, heard.start.page]).toEqual([anaId, page]);
    // The id of the line that it will be is Ana’s alone until that is kept.
    expect(JSON.stringify(maren.told)).not.toContain(stroke);
    const piece = Uint8Array.of(64, 8, 8);
    ana.send({ kind: 'live.more', piece });
    const more = await maren.hears('live.more');
    expect([more.n, [...more.piece]]).toEqual([heard.n, [...piece]]);
    ana.send({ kind: 'live.end', stroke });
    await maren.hears('live.end');
    expect(await onBoard()).toEqual([]);
  });

  it('takes nothing more once the pen was taken back, and stops the stroke under way', async () => {
    const { maren, ana, anaId, page } = await house.lesson();
    const stroke = newId();
    const style = { tool: 'pen', ink: 'poppy', width: 2.4 } as const;
    ana.send({
      kind: 'live.ink',
      stroke,
      start: { page, style },
      points: Uint8Array.of(1, 10, 10, 0),
    });
    const { n } = await maren.hears('live.ink');
    maren.send({ kind: 'trust', who: anaId, trust: 'view' });
    expect(await maren.hears('live.end')).toEqual({ kind: 'live.end', n, item: null });
    await ana.hears('people', ({ people }) =>
      people.some((p) => p.id === anaId && p.trust === 'view'),
    );
    const line = addInk(page);
    ana.send({ kind: 'ops', ops: [line] });
    expect(await refuses(ana, line)).toBe('urn:cuaderno:no-pen');
    expect(await onBoard()).toEqual([]);
  });

  it('gives everyone who joins what applies: students look on at first', async () => {
    const { ana, page } = await house.lesson(false);
    const line = addInk(page);
    ana.send({ kind: 'ops', ops: [line] });
    expect(await refuses(ana, line)).toBe('urn:cuaderno:no-pen');
  });

  it('confirms a line sent twice at its first place, and keeps it once', async () => {
    const { ana, maren, page } = await house.lesson();
    const line = addInk(page);
    ana.send({ kind: 'ops', ops: [line] });
    await keeps(ana, line);
    ana.send({ kind: 'ops', ops: [line] });
    await ana.hears(
      'confirmed',
      (m) => ana.told.indexOf(m) > 0 && ana.told.filter((t) => t.kind === 'confirmed').length === 2,
    );
    await isShown(maren, line);
    expect(await onBoard()).toEqual([line.id]);
  });

  it('lets a student erase and restore own lines, and nobody else’s', async () => {
    const { ana, maren, page } = await house.lesson();
    const [mine, hers] = [addInk(page), addInk(page, 2)];
    ana.send({ kind: 'ops', ops: [mine] });
    maren.send({ kind: 'ops', ops: [hers] });
    await Promise.all([keeps(ana, mine), keeps(maren, hers)]);
    const wrong = operation({ kind: 'items.remove', page, items: [hers.id] });
    const right = operation({ kind: 'items.remove', page, items: [mine.id] });
    ana.send({ kind: 'ops', ops: [wrong, right] });
    expect(await refuses(ana, wrong)).toBe('urn:cuaderno:not-yours');
    await keeps(ana, right);
    expect(await onBoard()).toEqual([hers.id]);
  });

  it('sends what was missed to a window that comes back, and only that', async () => {
    const { ana, maren, page, student } = await house.lesson();
    const { seq } = (await ana.hears('board.opened')).outline!;
    ana.socket.close();
    const lines = [1, 2, 3].map((seed) => addInk(page, seed));
    maren.send({ kind: 'ops', ops: lines });
    await keeps(maren, lines[2]!);
    const back = await house.window(student, '/live/lesson', seq);
    expect((await back.hears('board.opened')).outline).toBeNull();
    const { from, ops } = await back.hears('applied');
    expect([from, ops.map(({ id }) => id)]).toEqual([seq + 1, lines.map(({ id }) => id)]);
  });

  it('keeps board, people and pens over a restart of the server', async () => {
    const { ana, page, student } = await house.lesson();
    const line = addInk(page);
    ana.send({ kind: 'ops', ops: [line] });
    await keeps(ana, line);
    await house.restart();
    const back = await house.window(student);
    const { you } = await back.hears('welcome');
    expect(itemsOfBoard(await back.wholeBoard())).toEqual([line.id]);
    const { people } = await back.hears('people', (m) =>
      m.people.some((p) => p.id === you && p.here),
    );
    expect(people.find(({ id }) => id === you)?.trust).toBe('write');
    const next = addInk(page, 2);
    back.send({ kind: 'ops', ops: [next] });
    await keeps(back, next);
  });

  it('keeps until when they were there of those who are, or go, as it is shut down', async () => {
    const { ana } = await house.lesson();
    ana.socket.terminate();
    const failed = spyOn(house.app.live, 'failed').and.callThrough();
    const closed = spyOn(house.app.lessons, 'windowClosed').and.callThrough();
    await house.restart();
    expect(closed).toHaveBeenCalledTimes(2);
    expect(failed).not.toHaveBeenCalled();
  });

  it('counts what each has written over a restart, too: nobody may keep as much again', async () => {
    const { maren, ana, anaId, page, lesson } = await house.lesson();
    const [line, tutors] = [addInk(page), addInk(page, 2)];
    ana.send({ kind: 'ops', ops: [line] });
    maren.send({ kind: 'ops', ops: [tutors] });
    await Promise.all([keeps(ana, line), keeps(maren, tutors)]);
    await house.restart();
    const restored = house.app.lessons.get(lesson)!;
    const all = 24_000_000;
    expect(restored.mayKeep(newId(), all)).toBeTrue();
    expect(restored.mayKeep(anaId, all)).toBeFalse();
    expect(restored.mayKeep(anaId, all - 2000)).toBeTrue();
  });

  it('tells two students of one name apart, also when it is typed in another way', async () => {
    const { maren } = await house.lesson();
    for (const name of ['Ana', 'ana']) await house.window(await house.student(name));
    const { people } = await maren.hears('people', (m) => m.people.length === 4);
    expect(people.slice(1).map(({ name, nameOrdinal }) => [name, nameOrdinal])).toEqual([
      ['Ana', 1],
      ['Ana', 2],
      ['ana', 3],
    ]);
  });

  it('tells only the tutor where students look', async () => {
    const { maren, ana, anaId, page } = await house.lesson();
    ana.send({ kind: 'page.viewed', page });
    await maren.hears('people', ({ people }) =>
      people.some((p) => p.id === anaId && p.page === page),
    );
    maren.send({ kind: 'trust', who: 'all', trust: 'view' });
    await ana.hears('people', ({ people }) =>
      people.every((p) => p.role === 'tutor' || p.trust === 'view'),
    );
    const told = ana.told.flatMap((m) => (m.kind === 'people' ? m.people : []));
    expect(told.every((person) => person.page === null)).toBeTrue();
  });

  it('ends for students when the lesson is closed: nothing more is taken', async () => {
    const { maren, ana, page, lesson } = await house.lesson();
    await house.tutor.post(`/lessons/${lesson}/close`);
    await ana.hears('over');
    expect(await ana.ends()).toBe(CLOSE.over);
    await maren.hears('over');
    const line = addInk(page);
    maren.send({ kind: 'ops', ops: [line] });
    await keeps(maren, line);
  });

  describe('bad messages are answered in plain words, and the lesson goes on', () => {
    let ana: Window;
    let maren: Window;
    let page: Id;
    let student: Awaited<ReturnType<House['lesson']>>['student'];

    beforeEach(async () => {
      ({ ana, maren, page, student } = await house.lesson());
    });
    const goesOn = async (): Promise<void> => {
      const line = addInk(page);
      ana.send({ kind: 'ops', ops: [line] });
      await Promise.all([keeps(ana, line), isShown(maren, line)]);
    };

    it('not JSON', async () => {
      ana.socket.send('hello, is anyone there?');
      const problem = await ana.hearsProblem('message-not-readable');
      expect(problem.status).toBe(400);
      expect(problem.detail).toContain('kept');
      await goesOn();
    });

    it('no MessagePack', async () => {
      ana.socket.send(Buffer.from([0xc7, 0xff, 0x00]));
      await ana.hearsProblem('message-not-readable');
      await goesOn();
    });

    it('of the wrong shape', async () => {
      ana.socket.send(pack({ kind: 'ops', board: house.board, ops: [{ kind: 'ink.add', id: 7 }] }));
      await ana.hearsProblem('message-wrong-shape');
      await goesOn();
    });

    it('with bytes that are no ink', async () => {
      const wrong = { ...addInk(page), ink: Uint8Array.of(1, 2, 3) } as Operation;
      ana.send({ kind: 'ops', ops: [wrong] });
      expect(await refuses(ana, wrong)).toBe('urn:cuaderno:bad-ink');
      const start = { page, style: { tool: 'pen', ink: 'poppy', width: 2 } } as const;
      const points = Uint8Array.of(255, 255);
      ana.send({ kind: 'live.ink', stroke: newId(), start, points });
      await ana.hearsProblem('message-wrong-shape');
      await goesOn();
      // Of a stroke that was never begun, nothing is passed on; in one that was, nothing that is no ink.
      ana.send({ kind: 'live.more', piece: Uint8Array.of(64, 8, 8) });
      ana.send({
        ...{ kind: 'live.ink', stroke: newId(), start },
        points: Uint8Array.of(1, 10, 10, 0),
      });
      ana.send({ kind: 'live.more', piece: Uint8Array.of(255) });
      await ana.hearsProblem('message-wrong-shape');
      await goesOn();
    });

    it('too large', async () => {
      ana.socket.send(Buffer.alloc(2_000_000));
      await ana.hearsProblem('message-too-large');
      await goesOn();
    });

    it('far too large: the connection ends, and coming back is enough', async () => {
      ana.socket.send(Buffer.alloc(5_000_000));
      expect(await ana.ends()).toBe(1009);
      ana = await house.window(student);
      await ana.hears('welcome');
      await goesOn();
    });

    it('too many operations at once', async () => {
      const ops = Array.from({ length: MAX_OPERATIONS + 1 }, (_, i) => addInk(page, i));
      ana.socket.send(pack({ kind: 'ops', board: house.board, ops }));
      await ana.hearsProblem('message-wrong-shape');
      await goesOn();
    });

    it('too many messages: turned away, and in the end shown out', async () => {
      for (let i = 0; i < 3000; i++) ana.send({ kind: 'ping', n: i });
      expect((await ana.hearsProblem('message-too-many')).status).toBe(429);
      expect(await ana.ends()).toBe(CLOSE.flood);
      ana = await house.window(student);
      await ana.hears('welcome');
      await goesOn();
    });

    it('in another’s name: there is no place for a name in any message', async () => {
      const tutor = (await maren.hears('welcome')).you;
      const line = addInk(page);
      ana.socket.send(pack({ kind: 'ops', board: house.board, by: tutor, ops: [line] }));
      await ana.hearsProblem('message-wrong-shape');
      ana.socket.send(pack({ kind: 'ops', board: house.board, ops: [{ ...line, by: tutor }] }));
      await ana.hearsTimes('problem', 2);
      await goesOn();
    });

    it('for a page of another board', async () => {
      const elsewhere = addInk(somePages(1)[0]!.id);
      ana.send({ kind: 'ops', ops: [elsewhere] });
      expect(await refuses(ana, elsewhere)).toBe('urn:cuaderno:no-such-page');
      await goesOn();
    });

    it('giving oneself a pen', async () => {
      ana.send({ kind: 'trust', who: 'all', trust: 'hands' });
      expect((await ana.hearsProblem('tutor-only')).status).toBe(403);
      await goesOn();
    });

    it('before saying hello', async () => {
      const early = await house.window(student, '/live/lesson', null);
      early.send({ kind: 'ops', ops: [addInk(page)] });
      await early.hearsProblem('message-wrong-shape');
      await goesOn();
    });

    it('of another protocol', async () => {
      const old = await house.window(student, '/live/lesson', null);
      old.send({ kind: 'hello', protocol: 99, boards: [] });
      await old.hearsProblem('other-protocol');
      expect(await old.ends()).toBe(CLOSE.old);
      await goesOn();
    });
  });

  describe('nobody gets in', () => {
    it('to another board with a student’s pass', async () => {
      const { student } = await house.lesson();
      const window = await house.window(student, `/live/boards/${house.board}`);
      await window.hearsProblem('not-signed-in');
      expect(await window.ends()).toBe(CLOSE.notIn);
    });

    it('without a pass, or with one that was made up', async () => {
      await house.openLesson();
      for (const cookie of ['', 'cuaderno_pass=abc.def']) {
        const stranger = house.visitor();
        stranger.cookie = cookie;
        const window = await house.window(stranger);
        await window.hearsProblem('pass-expired');
        expect(await window.ends()).toBe(CLOSE.notIn);
      }
    });

    it('with an expired pass', async () => {
      const lesson = await house.openLesson();
      const visitor = house.visitor();
      visitor.cookie = `cuaderno_pass=${house.app.passes.issue(lesson, newId(), Date.now() - 24 * 3600_000)}`;
      const window = await house.window(visitor);
      const problem = await window.hearsProblem('pass-expired');
      expect(problem.detail).toContain('join link');
      expect(await window.ends()).toBe(CLOSE.notIn);
    });

    it('from another site', async () => {
      const { student } = await house.lesson();
      const response = await house.app.inject({
        method: 'GET',
        url: '/live/lesson',
        headers: {
          cookie: student.cookie,
          origin: 'https://elsewhere.example',
          upgrade: 'websocket',
        },
      });
      expect(response.statusCode).toBe(403);
    });
  });

  it('loses nothing confirmed and tells nobody of the rest when the disk refuses', async () => {
    const { ana, maren, page, student } = await house.lesson();
    const before = addInk(page);
    ana.send({ kind: 'ops', ops: [before] });
    await keeps(ana, before);
    spyOn(house.app.logs, 'append').and.rejectWith(new Error('disk full'));
    const lost = addInk(page, 2);
    ana.send({ kind: 'ops', ops: [lost] });
    expect(await ana.ends()).toBe(CLOSE.again);
    expect(await maren.ends()).toBe(CLOSE.again);
    (house.app.logs.append as jasmine.Spy).and.callThrough();
    const back = await house.window(student);
    expect(itemsOfBoard(await back.wholeBoard())).toEqual([before.id]);
    back.send({ kind: 'ops', ops: [lost] });
    await keeps(back, lost);
  });
});

function itemsOfBoard(board: Board): string[] {
  return [...board.pages.values()].flatMap((page) => itemsOn(page).map(({ id }) => id));
}
