import { changePage, CLOSE, newId, operation, pagesInOrder } from '@cuaderno/core';
import type { Arrival, GivenRole, Person } from '@cuaderno/core';
import { addInk, addPages, somePages } from '@cuaderno/core/testing';
import { House } from '../testing/harness.js';
import type { Visitor, Window } from '../testing/harness.js';

describe('one who helps, and one who watches', () => {
  let house: House;
  let maren: Window;

  beforeEach(async () => {
    house = await House.open('roles');
    await house.setDoor('ask');
    await house.openLesson();
    maren = await house.tutorWindow();
    await maren.hears('welcome');
  });
  afterEach(() => house.close());

  const arrival = (name: string): Promise<Arrival> =>
    maren
      .hears('door', ({ arrivals }) => arrivals.some((one) => one.name === name))
      .then(({ arrivals }) => arrivals.find((one) => one.name === name)!);

  /** Somebody knocks by the class's link, and is let in as this. */
  async function comes(
    name: string,
    as?: GivenRole,
  ): Promise<{ who: Visitor; window: Window; id: string }> {
    const who = house.visitor();
    await who.post('/join', { by: { link: house.course.linkToken }, name });
    await house.window(who, '/live/door', null);
    const { id } = await arrival(name);
    maren.send({ kind: 'door', who: id, word: 'in', ...(as && { as }) });
    await isHere(name);
    const window = await house.window(who);
    await window.hears('welcome');
    return { who, window, id };
  }
  const isHere = (name: string, what: (person: Person) => boolean = () => true): Promise<unknown> =>
    maren.hears('people', ({ people }) =>
      people.some((person) => person.name === name && what(person)),
    );
  const codeOf = (answer: { json<T>(): T }): string =>
    answer.json<{ type: string }>().type.replace('urn:cuaderno:', '');

  it('is what the tutor says at the door, and all are told what they are', async () => {
    const tove = await comes('Tove', 'helper');
    const ebba = await comes('Ebba', 'watcher');
    const ana = await comes('Ana');
    const { people } = await ana.window.hears('people', (m) => m.people.length === 4);
    expect(people.map(({ name, role }) => [name, role])).toEqual([
      ['Maren', 'tutor'],
      ['Tove', 'helper'],
      ['Ebba', 'watcher'],
      ['Ana', 'student'],
    ]);
    for (const [one, role] of [
      [tove, 'helper'],
      [ebba, 'watcher'],
    ] as const) {
      expect((await one.window.hears('welcome')).role).toBe(role);
      expect((await one.who.get('/lesson')).json<{ role: string }>().role).toBe(role);
    }
    // Also after the server was started anew.
    await house.restart();
    const again = await house.window(tove.who.movedTo(house.app));
    expect((await again.hears('welcome')).role).toBe('helper');
  });

  it('is what a link of their own says; the class’s link makes a student of them', async () => {
    const link = await house.tutor.post(`/courses/${house.course.id}/guests`, {
      guest: 'Aunt Liv',
      role: 'watcher',
    });
    const { token, role } = link.json<{ token: string; role: string }>();
    expect(role).toBe('watcher');
    const liv = house.visitor();
    await liv.post('/join', { by: { link: token }, name: 'Liv' });
    await house.window(liv, '/live/door', null);
    const { id, role: comesAs } = await arrival('Liv');
    expect(comesAs).toBe('watcher');
    maren.send({ kind: 'door', who: id, word: 'in' });
    await isHere('Liv', (person) => person.role === 'watcher');
    const wrong = await house.tutor.post(`/courses/${house.course.id}/guests`, {
      guest: 'Max',
      role: 'tutor',
    });
    expect(wrong.statusCode).toBe(400);
  });

  it('helps: gives pens, lets in, writes to one, hides a page and sees it', async () => {
    const tove = await comes('Tove', 'helper');
    const ana = await comes('Ana');
    tove.window.send({ kind: 'trust', who: ana.id, trust: 'write' });
    await isHere('Ana', ({ trust }) => trust === 'write');
    // What the tutor takes back from all, who helps keeps.
    maren.send({ kind: 'trust', who: 'all', trust: 'view' });
    await isHere('Ana', ({ trust }) => trust === 'view');
    const [first] = pagesInOrder(await tove.window.wholeBoard());
    const line = addInk(first!.id);
    tove.window.send({ kind: 'ops', board: house.board, ops: [line] });
    await maren.hears('applied', ({ ops }) => ops.some(({ id }) => id === line.id));
    const hide = operation(
      changePage(await tove.window.wholeBoard(), first!.id, { hidden: true })!,
    );
    const extra = addPages(somePages(1));
    tove.window.send({ kind: 'ops', board: house.board, ops: [extra, hide] });
    await tove.window.hears('confirmed', ({ ids }) => ids.includes(hide.id));
    expect(pagesInOrder(await (await house.window(tove.who)).wholeBoard()).length).toBe(2);
    expect(pagesInOrder(await (await house.window(ana.who)).wholeBoard()).length).toBe(1);

    const noor = house.visitor();
    await noor.post('/join', { by: { link: house.course.linkToken }, name: 'Noor' });
    await house.window(noor, '/live/door', null);
    const { arrivals } = await tove.window.hears('door', (m) =>
      m.arrivals.some(({ name }) => name === 'Noor'),
    );
    const { id } = arrivals.find(({ name }) => name === 'Noor')!;
    tove.window.send({ kind: 'door', who: id, word: 'in' });
    await isHere('Noor');
    tove.window.send({ kind: 'chat', id: newId(), to: ana.id, text: 'Look at the hour.' });
    await ana.window.hears('chat', ({ lines }) => lines.some(({ to }) => to === ana.id));
  });

  it('helps, but closes, removes, shares and gives roles to nobody', async () => {
    const tove = await comes('Tove', 'helper');
    const noor = house.visitor();
    await noor.post('/join', { by: { link: house.course.linkToken }, name: 'Noor' });
    await house.window(noor, '/live/door', null);
    const { id } = await arrival('Noor');
    tove.window.send({ kind: 'door', who: id, word: 'in', as: 'helper' });
    await tove.window.hearsProblem('tutor-only');
    tove.window.send({ kind: 'chat.empty' });
    await tove.window.hearsProblem('tutor-only');
    const [first] = pagesInOrder(await tove.window.wholeBoard());
    maren.send({ kind: 'ops', board: house.board, ops: [addInk(first!.id)] });
    await tove.window.hears('applied');
    const remove = operation({ kind: 'pages.remove', pages: [first!.id] });
    tove.window.send({ kind: 'ops', board: house.board, ops: [remove] });
    const refused = await tove.window.hears('refused', (m) => m.id === remove.id);
    expect(refused.problem.type).toBe('urn:cuaderno:tutor-only');
    const lesson = house.app.lessons.ofCourse(house.course.id)!.id;
    for (const [path, body] of [
      [`/lessons/${lesson}/close`, {}],
      [`/boards/${house.board}/remove`, {}],
      [`/boards/${house.board}/name`, { title: 'Mine' }],
      [`/courses/${house.course.id}/guests`, { guest: 'Max', role: 'helper' }],
    ] as const)
      expect(codeOf(await tove.who.post(path, body)))
        .withContext(path)
        .toBe('not-signed-in');
  });

  it('is made something else while in the lesson, and comes back as that, with what that one has', async () => {
    const ana = await comes('Ana');
    const [first] = pagesInOrder(await maren.wholeBoard());
    const hide = operation(changePage(await maren.wholeBoard(), first!.id, { hidden: true })!);
    const extra = addPages(somePages(1));
    maren.send({ kind: 'ops', board: house.board, ops: [extra, hide] });
    await ana.window.hears('applied');
    maren.send({ kind: 'lead', who: ana.id });
    await ana.window.hears('class', ({ lead }) => lead === ana.id);

    maren.send({ kind: 'door', who: ana.id, word: 'in', as: 'helper' });
    expect(await ana.window.ends()).toBe(CLOSE.again);
    await isHere('Ana', ({ role, trust }) => role === 'helper' && trust === 'hands');
    const helping = await house.window(ana.who);
    expect((await helping.hears('class')).lead).toBeNull();
    expect(pagesInOrder(await helping.wholeBoard()).length).toBe(2);

    // Not by one who helps, and to watch as well.
    const tove = await comes('Tove', 'helper');
    tove.window.send({ kind: 'door', who: ana.id, word: 'in', as: 'watcher' });
    await tove.window.hearsProblem('tutor-only');
    maren.send({ kind: 'door', who: ana.id, word: 'in', as: 'watcher' });
    await isHere('Ana', ({ role, trust }) => role === 'watcher' && trust === 'view');
    expect(pagesInOrder(await (await house.window(ana.who)).wholeBoard()).length).toBe(1);
  });

  it('helps in this course alone: its boards and files, and no other’s', async () => {
    const tove = await comes('Tove', 'helper');
    const other = await house.otherTutor('Bo');
    const course = (await other.post('/courses', { name: 'Chess' })).json<{ id: string }>();
    const theirs = (await other.post(`/courses/${course.id}/boards`, { title: 'Openings' })).json<{
      id: string;
    }>();
    const second = (
      await house.tutor.post(`/courses/${house.course.id}/boards`, { title: 'Last week' })
    ).json<{ id: string }>();
    const list = (await tove.who.get('/lesson/boards')).json<{ id: string }[]>();
    expect(list.map((board) => board.id)).toContain(second.id);
    expect((await tove.who.get(`/boards/${second.id}/cover`)).statusCode).toBe(200);
    expect((await tove.who.get(`/boards/${theirs.id}/cover`)).statusCode).toBe(401);
    const made = await tove.who.post(`/courses/${course.id}/boards`, { title: 'Mine' });
    expect(made.statusCode).toBe(401);
    tove.window.send({ kind: 'board.open', board: theirs.id, since: -1 });
    await tove.window.hears('board.closed', ({ board }) => board === theirs.id);
    tove.window.send({ kind: 'board.open', board: second.id, since: -1 });
    await tove.window.hears('board.opened', ({ board }) => board === second.id);
    // A student doesn't see it, and has no list.
    const ana = await comes('Ana');
    expect(codeOf(await ana.who.get('/lesson/boards'))).toBe('tutor-only');
    expect((await ana.who.get(`/boards/${second.id}/cover`)).statusCode).toBe(401);
    ana.window.send({ kind: 'board.open', board: second.id, since: -1 });
    await ana.window.hears('board.closed', ({ board }) => board === second.id);
    // Sent out, nothing of it is theirs any more.
    maren.send({ kind: 'door', who: tove.id, word: 'out' });
    await tove.window.ends();
    expect((await tove.who.get('/lesson/boards')).statusCode).toBe(403);
    expect((await tove.who.get(`/boards/${second.id}/cover`)).statusCode).toBe(401);
  });

  it('watches: sees what students see, and says nothing', async () => {
    const ebba = await comes('Ebba', 'watcher');
    const [first] = pagesInOrder(await ebba.window.wholeBoard());
    maren.send({ kind: 'trust', who: 'all', trust: 'hands' });
    maren.send({ kind: 'rules', who: 'all', over: { addPages: true } });
    const line = addInk(first!.id);
    ebba.window.send({ kind: 'ops', board: house.board, ops: [line] });
    const refused = await ebba.window.hears('refused', (m) => m.id === line.id);
    expect(refused.problem.type).toBe('urn:cuaderno:no-pen');
    for (const message of [
      { kind: 'chat', id: newId(), to: 'tutor', text: 'Hello' },
      { kind: 'hand', up: true },
      { kind: 'arrow', board: house.board, at: null },
    ] as const) {
      const before = ebba.window.told.length;
      ebba.window.send(message);
      await ebba.window.hears('problem', (m) => ebba.window.told.indexOf(m) >= before);
    }
    await ebba.window.hearsProblem('watches-only');
    maren.send({ kind: 'chat', id: newId(), to: 'all', text: 'To all of you.' });
    await ebba.window.hears('chat', ({ lines }) => lines.length > 0);
    const ana = await comes('Ana');
    const alone = newId();
    maren.send({ kind: 'chat', id: alone, to: ana.id, text: 'To Ana alone.' });
    await ana.window.hears('chat', ({ lines }) => lines.some(({ id }) => id === alone));
    await ebba.window.isAlive(7);
    expect(JSON.stringify(ebba.window.told)).not.toContain('To Ana alone');
    expect(house.app.lessons.ofCourse(house.course.id)!.person(ebba.id)!.trust).toBe('view');
  });

  it('keeps a lesson going while the tutor’s connection is lost', async () => {
    const lesson = house.app.lessons.ofCourse(house.course.id)!;
    const tove = await comes('Tove', 'helper');
    maren.socket.close();
    await tove.window.hears('people', ({ people }) =>
      people.some(({ role, here }) => role === 'tutor' && !here),
    );
    expect(lesson.tutorAwaySince).toBeNull();
    tove.window.socket.close();
    await tove.window.ends();
    const ana = await house.window(tove.who);
    await ana.hears('welcome');
    expect(lesson.isTaught).toBeTrue();
  });
});
