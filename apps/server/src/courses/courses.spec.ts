import { House } from '../testing/harness.js';
import { CODE_LENGTH, newJoinCode, readCode } from './codes.js';
import { nextLesson } from './next-lesson.js';

describe('join codes', () => {
  it('have no letters that look or sound alike', () => {
    const all = Array.from({ length: 300 }, () => newJoinCode()).join('');
    expect(all).not.toMatch(/[01258BDEFILNOPSTUVXZ]/);
  });

  it('are read however they are typed', () => {
    expect(readCode(' acg-hj km ')).toBe('ACGHJKM');
  });

  it('are not found by guessing: an hour from one address is one in nearly nine million', async () => {
    const house = await House.open('guessing');
    try {
      const visitor = house.visitor();
      const answers = await Promise.all(
        Array.from({ length: 400 }, () => visitor.post('/join/find', { code: newJoinCode() })),
      );
      const looked = answers.filter(({ statusCode }) => statusCode === 404).length;
      expect(looked).toBe(15);
      expect(answers.filter(({ statusCode }) => statusCode === 429).length).toBe(400 - looked);
      // Those of one hour and those of the next may come close together.
      expect(16 ** CODE_LENGTH / (2 * looked)).toBeGreaterThan(8.9e6);
      // A right one clears nothing, and anyone who has the link comes in all the same.
      const right = { code: house.course.joinCode };
      expect((await visitor.post('/join/find', right)).statusCode).toBe(429);
      const link = { link: house.course.linkToken };
      expect((await visitor.post('/join/find', link)).statusCode).toBe(200);
    } finally {
      await house.close();
    }
  });
});

describe('the next lesson', () => {
  const slot = { weekday: 2, startsAt: '16:30', minutes: 50, zone: 'Europe/Oslo' };
  const at = (iso: string): string => new Date(nextLesson(slot, Date.parse(iso))).toISOString();

  it('is this week’s until it is over, then next week’s', () => {
    expect(at('2026-11-23T12:00:00Z')).toBe('2026-11-24T15:30:00.000Z');
    expect(at('2026-11-24T16:10:00Z')).toBe('2026-11-24T15:30:00.000Z');
    expect(at('2026-11-24T16:20:00Z')).toBe('2026-12-01T15:30:00.000Z');
  });

  // Europe/Oslo leaves summer time on 25 October 2026 at 01:00 UTC (IANA tz database, rule "EU").
  it('stays at half past four when the clocks change', () => {
    expect(at('2026-10-19T12:00:00Z')).toBe('2026-10-20T14:30:00.000Z');
    expect(at('2026-10-21T12:00:00Z')).toBe('2026-10-27T15:30:00.000Z');
  });
});

describe('courses', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('courses');
  });
  afterEach(() => house.close());

  it('are listed with their next lesson', async () => {
    const slot = { weekday: 4, startsAt: '17:30', minutes: 50, zone: 'Europe/Oslo' };
    await house.tutor.post('/courses', { name: 'Sky', slot });
    const { courses } = (await house.tutor.get('/today')).json<{
      courses: { name: string; nextAt: number | null }[];
    }>();
    expect(courses.map(({ name, nextAt }) => [name, nextAt !== null])).toEqual([
      ['Tides', false],
      ['Sky', true],
    ]);
  });

  it('have names of any script, and say what is wrong with others', async () => {
    const make = (name: string) => house.tutor.post('/courses', { name });
    expect((await make('Чтение приливов 潮汐 <b>')).json<{ name: string }>().name).toBe(
      'Чтение приливов 潮汐 <b>',
    );
    for (const [name, words] of [
      ['   ', 'write a name'],
      ['x'.repeat(10_000), 'too long'],
      ['\u202e', 'write a name'],
    ] as const) {
      const response = await make(name);
      expect(response.statusCode).withContext(words).toBe(400);
      expect(response.json<{ detail: string }>().detail).toContain(words);
    }
  });

  it('refuse a time or a zone that does not exist', async () => {
    const good = { weekday: 2, startsAt: '16:30', minutes: 50, zone: 'Europe/Oslo' };
    for (const bad of [{ zone: 'Europe/Solvik' }, { startsAt: '25:00' }, { weekday: 8 }])
      expect(
        (await house.tutor.post('/courses', { name: 'x', slot: { ...good, ...bad } })).statusCode,
      ).toBe(400);
  });

  it('of another tutor are not there', async () => {
    await house.app.accounts.add('Eve', 'eve@example.org', 'another-password');
    const eve = house.visitor();
    await eve.post('/sign-in', { email: 'eve@example.org', password: 'another-password' });
    for (const path of [`/courses/${house.course.id}`, `/boards/${house.board}`])
      expect((await eve.get(path)).statusCode).toBe(404);
    expect((await eve.post(`/boards/${house.board}/lesson`)).statusCode).toBe(404);
  });
});
