import { CLOSE } from '@cuaderno/core';
import type { Arrival, DoorState } from '@cuaderno/core';
import { House } from '../testing/harness.js';
import type { Visitor, Window } from '../testing/harness.js';

describe('the door of a lesson', () => {
  let house: House;
  let maren: Window;

  beforeEach(async () => {
    house = await House.open('door');
    await house.setDoor('ask');
    await house.openLesson();
    maren = await house.tutorWindow();
    await maren.hears('welcome');
  });
  afterEach(() => house.close());

  const by = () => ({ link: house.course.linkToken });
  const comes = async (who: Visitor, name: string): Promise<DoorState> =>
    (await who.post('/join', { by: by(), name })).json<{ state: DoorState }>().state;
  const atDoor = (who: Visitor): Promise<Window> => house.window(who, '/live/door', null);
  const isTold = (window: Window, state: DoorState) =>
    window.hears('door.state', (m) => m.state === state);
  const arrival = (name: string, state: DoorState = 'waiting'): Promise<Arrival> =>
    maren
      .hears('door', (m) => {
        const last = maren.told.filter(({ kind }) => kind === 'door').at(-1);
        return m === last && m.arrivals.some((a) => a.name === name && a.state === state);
      })
      .then(({ arrivals }) => arrivals.find((a) => a.name === name)!);

  /** Someone who waits, and the window in which they do. */
  async function waits(name: string): Promise<{ who: Visitor; door: Window; id: string }> {
    const who = house.visitor();
    expect(await comes(who, name)).toBe('waiting');
    const door = await atDoor(who);
    return { who, door, id: (await arrival(name)).id };
  }

  it('holds anyone who comes until the tutor lets them in', async () => {
    const { who, door, id } = await waits('Ida');
    await isTold(door, 'waiting');
    expect((await who.get('/lesson')).json<{ type: string }>().type).toBe(
      'urn:cuaderno:at-the-door',
    );
    const early = await house.window(who);
    expect(await early.ends()).toBe(CLOSE.door);
    maren.send({ kind: 'door', who: id, word: 'in' });
    await isTold(door, 'in');
    expect((await who.get('/lesson')).statusCode).toBe(200);
    expect((await (await house.window(who)).hears('welcome')).you).toBe(id);
  });

  it('tells those who wait nothing of the lesson, and nobody but the tutor of them', async () => {
    await house.setDoor('all');
    const ana = await house.student('Ana');
    const inside = await house.window(ana);
    await inside.hears('welcome');
    await house.setDoor('ask');
    const { door } = await waits('Ida');
    maren.send({ kind: 'trust', who: 'all', trust: 'write' });
    await inside.hears('people', ({ people }) => people.some(({ trust }) => trust === 'write'));
    expect(new Set(door.told.map(({ kind }) => kind))).toEqual(new Set(['door.state']));
    expect(JSON.stringify(inside.told)).not.toContain('Ida');
    // A window at the door can’t be made one of the lesson by what it says.
    door.send({ kind: 'hello', protocol: 1, boards: [] });
    await door.hears('pong');
    expect(door.told.some(({ kind }) => kind === 'welcome')).toBeFalse();
  });

  it('lets in all who wait in one go, and not who was told “not now”', async () => {
    const [ida, jonas, noor] = [await waits('Ida'), await waits('Jonas'), await waits('Noor')];
    maren.send({ kind: 'door', who: noor.id, word: 'not-now' });
    await isTold(noor.door, 'not-now');
    maren.send({ kind: 'door', who: 'all', word: 'in' });
    await Promise.all([isTold(ida.door, 'in'), isTold(jonas.door, 'in')]);
    expect((await noor.who.get('/lesson')).statusCode).toBe(403);
    // She knocks once more.
    await noor.who.post('/door/knock');
    expect((await arrival('Noor')).id).toBe(noor.id);
    maren.send({ kind: 'door', who: noor.id, word: 'in' });
    await isTold(noor.door, 'in');
  });

  it('forgets anyone who leaves it, and knows them when they are back', async () => {
    const { who, door, id } = await waits('Ida');
    door.socket.close();
    await maren.hears('door', ({ arrivals }) => arrivals.length === 0 && maren.told.length > 3);
    await atDoor(who);
    expect((await arrival('Ida')).id).toBe(id);
  });

  it('doesn’t hold a student who comes back after a break, also after a restart', async () => {
    const { who, id } = await waits('Ida');
    maren.send({ kind: 'door', who: id, word: 'in' });
    const first = await house.window(who, '/live/door', null);
    await isTold(first, 'in');
    expect(await comes(who, 'Ida')).toBe('in');
    await house.restart();
    const again = who.movedTo(house.app);
    expect((await (await house.window(again)).hears('welcome')).you).toBe(id);
  });

  it('lets in by themselves those who were let in before, if the tutor wishes: browsers, not names', async () => {
    const { who, id } = await waits('Ida');
    maren.send({ kind: 'door', who: id, word: 'in' });
    await maren.hears('people', ({ people }) => people.some(({ name }) => name === 'Ida'));
    await house.setDoor('known');
    const { lesson } = await maren.hears('welcome');
    await house.tutor.post(`/lessons/${lesson!.id}/close`);
    await house.openLesson();
    expect(await comes(who, 'Ida')).toBe('in');
    expect(await comes(house.visitor(), 'Ida')).toBe('waiting');
    // Where the tutor lets everyone in, it says who was here before.
    await house.setDoor('ask');
    expect(await comes(who, 'Ida P.')).toBe('waiting');
    await atDoor(who);
    expect((await arrival('Ida P.')).known).toBe('Ida');
  });

  it('sends someone out at once, who may knock again; or keeps them out of this lesson', async () => {
    const { who, id } = await waits('Ida');
    maren.send({ kind: 'door', who: id, word: 'in' });
    await maren.hears('people', ({ people }) => people.some(({ name }) => name === 'Ida'));
    const inside = await house.window(who);
    await inside.hears('welcome');
    maren.send({ kind: 'door', who: id, word: 'out' });
    expect(await inside.ends()).toBe(CLOSE.door);
    expect((await arrival('Ida', 'out')).id).toBe(id);
    expect((await who.post('/door/knock')).json()).toEqual({ state: 'waiting' });

    maren.send({ kind: 'door', who: id, word: 'in' });
    await maren.hears('door', ({ arrivals }) => arrivals.length === 0);
    maren.send({ kind: 'door', who: id, word: 'barred' });
    await arrival('Ida', 'barred');
    for (const answer of [
      await who.post('/door/knock'),
      await who.post('/join', { by: by(), name: 'Ida' }),
      await who.post('/join', { by: by(), name: 'Somebody else' }),
    ])
      expect(answer.json<{ type: string }>().type).toBe('urn:cuaderno:kept-out');
    // A way back is given on purpose.
    maren.send({ kind: 'door', who: id, word: 'out' });
    await arrival('Ida', 'out');
    expect((await who.post('/door/knock')).json()).toEqual({ state: 'waiting' });
  });

  it('is the tutor’s alone', async () => {
    await house.setDoor('all');
    const ana = await house.window(await house.student('Ana'));
    await ana.hears('welcome');
    await house.setDoor('ask');
    const { who, id } = await waits('Ida');
    ana.send({ kind: 'door', who: id, word: 'in' });
    await ana.hearsProblem('tutor-only');
    expect((await who.get('/lesson')).statusCode).toBe(403);
  });

  it('ends with the lesson for those who wait, and they are in no record', async () => {
    const { door } = await waits('Ida');
    const { lesson } = await maren.hears('welcome');
    await house.tutor.post(`/lessons/${lesson!.id}/close`);
    expect(await door.ends()).toBe(CLOSE.over);
    const record = await house.tutor.get(`/records/${lesson!.id}`);
    expect(record.body).not.toContain('Ida');
  });

  it('is no place to keep the server busy from: who floods there is sent away', async () => {
    await house.setDoor('ask');
    await house.openLesson();
    const visitor = await house.student('Ida');
    const window = await house.window(visitor, '/live/door', null);
    await window.hears('door.state');
    for (let i = 0; i < 500; i++) window.send({ kind: 'ping', n: i });
    expect(await window.ends()).toBe(CLOSE.flood);
    expect(window.told.length).toBeLessThan(30);
  });
});

describe('ways into a course', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('ways-in');
  });
  afterEach(() => house.close());

  const look = (link: string) => house.visitor().post('/join/find', { link });
  const of = (path: string) => `/courses/${house.course.id}/${path}`;

  it('get a new link and code, and the old ones lead nowhere', async () => {
    const { linkToken, joinCode } = house.course;
    const now = (await house.tutor.post(of('link'))).json<{
      linkToken: string;
      joinCode: string;
    }>();
    expect((await look(linkToken)).statusCode).toBe(404);
    expect((await house.visitor().post('/join/find', { code: joinCode })).statusCode).toBe(404);
    expect((await look(now.linkToken)).statusCode).toBe(200);
    expect((await house.visitor().post('/join/find', { code: now.joinCode })).statusCode).toBe(200);
  });

  it('let in one guest by a link of their own: the browser that opened it first', async () => {
    await house.openLesson();
    const guest = (await house.tutor.post(of('guests'), { guest: 'Aunt Liv' })).json<{
      id: string;
      token: string;
    }>();
    expect((await look(guest.token)).json<{ name: string }>().name).toBe('Aunt Liv');
    const by = { link: guest.token };
    const liv = house.visitor();
    expect((await liv.post('/join', { by, name: 'Liv' })).statusCode).toBe(200);
    expect((await liv.post('/join', { by, name: 'Liv' })).statusCode).toBe(200);
    const other = await house.visitor().post('/join', { by, name: 'Liv' });
    expect(other.json<{ type: string }>().type).toBe('urn:cuaderno:guest-link-used');
    expect((await house.tutor.get(of('guests'))).json<{ used: boolean }[]>()[0]!.used).toBeTrue();
    await house.tutor.post(of(`guests/${guest.id}/end`));
    expect((await look(guest.token)).statusCode).toBe(404);
    expect((await house.tutor.get(of('guests'))).json()).toEqual([]);
  });

  it('end when the course is retired, not from under a lesson; taken up again it has new ones', async () => {
    const lesson = await house.openLesson();
    expect((await house.tutor.post(of('retire'))).statusCode).toBe(409);
    await house.tutor.post(`/lessons/${lesson}/close`);
    expect((await house.tutor.post(of('retire'))).statusCode).toBe(204);
    expect((await look(house.course.linkToken)).json<{ type: string }>().type).toBe(
      'urn:cuaderno:course-retired',
    );
    expect((await house.tutor.post(`/boards/${house.board}/lesson`)).statusCode).toBe(410);
    await house.tutor.post(of('resume'));
    expect((await look(house.course.linkToken)).statusCode).toBe(404);
    const { course } = (await house.tutor.get(`/courses/${house.course.id}`)).json<{
      course: { linkToken: string; retiredAt: number | null };
    }>();
    expect(course.retiredAt).toBeNull();
    expect((await look(course.linkToken)).statusCode).toBe(200);
  });

  it('belong to the course’s tutor: nobody else touches them', async () => {
    const other = await house.otherTutor('Orla');
    for (const path of ['door', 'link', 'retire', 'resume', 'guests'])
      expect((await other.post(of(path), { door: 'all', guest: 'X' })).statusCode).toBe(404);
    expect((await house.visitor().post(of('link'))).statusCode).toBe(401);
  });

  it('say when the next lesson is, as a moment that every time zone reads right', async () => {
    const slot = { weekday: 2, startsAt: '16:30', minutes: 60, zone: 'Europe/Oslo' };
    const made = (await house.tutor.post('/courses', { name: 'Sky', slot })).json<{
      linkToken: string;
      nextAt: number;
    }>();
    const { nextAt } = (await look(made.linkToken)).json<{ nextAt: number }>();
    expect(nextAt).toBe(made.nextAt);
    const at = new Intl.DateTimeFormat('en-GB', {
      timeZone: 'Europe/Oslo',
      weekday: 'long',
      hour: '2-digit',
      minute: '2-digit',
    }).format(nextAt);
    expect(at).toBe('Tuesday 16:30');
  });
});

describe('a lesson whose tutor is gone', () => {
  it('stays while they are back in time, and closes itself into a record if they aren’t', async () => {
    const house = await House.open('absence', { awayMs: 400 });
    try {
      const lesson = await house.openLesson();
      const maren = await house.tutorWindow();
      await maren.hears('welcome');
      const ana = await house.window(await house.student('Ana'));
      await ana.hears('welcome');
      maren.socket.terminate();
      await ana.hears('people', ({ people }) => people.some((p) => p.role === 'tutor' && !p.here));
      const back = await house.tutorWindow();
      await back.hears('welcome', (m) => m.lesson?.id === lesson);
      back.socket.terminate();
      expect(await ana.ends()).toBe(CLOSE.over);
      expect((await house.tutor.get(`/records/${lesson}`)).statusCode).toBe(200);
    } finally {
      await house.close();
    }
  });

  it('closes once, also if it is closed twice in one moment', async () => {
    const house = await House.open('absence');
    try {
      const lesson = await house.openLesson();
      const answers = await Promise.all(
        [1, 2, 3].map(() => house.tutor.post(`/lessons/${lesson}/close`)),
      );
      expect(answers.map(({ statusCode }) => statusCode)).toEqual([200, 200, 200]);
      expect((await house.tutor.get(`/records/${lesson}`)).statusCode).toBe(200);
    } finally {
      await house.close();
    }
  });
});
