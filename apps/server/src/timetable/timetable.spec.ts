import { newId } from '@cuaderno/core';
import { DateTime } from 'luxon';
import { lessons } from '../lessons/tables.js';
import { House } from '../testing/harness.js';
import type { ClashShape, Planned } from '@cuaderno/contract/timetable';

const OSLO = 'Europe/Oslo';
const WEEK = 7 * 86_400_000;

describe('the timetable', () => {
  let house: House;
  /** A Tuesday at half past four, in three weeks or so. */
  const first = DateTime.now()
    .setZone(OSLO)
    .plus({ weeks: 3 })
    .set({ weekday: 2, hour: 16, minute: 30, second: 0, millisecond: 0 });
  const wall = (at: DateTime): string => at.toFormat("yyyy-MM-dd'T'HH:mm");
  const [from, to] = [first.toMillis() - 86_400_000, first.toMillis() + 4 * WEEK - 86_400_000];

  beforeEach(async () => {
    house = await House.open('timetable');
  });
  afterEach(() => house.close());

  async function planned(wish: object = {}): Promise<string> {
    const response = await house.tutor.post(`/courses/${house.course.id}/plans`, {
      ...{ start: wall(first), zone: OSLO, minutes: 50, buffer: 10, weekly: true, ...wish },
    });
    expect(response.statusCode).withContext(response.body).toBe(201);
    return response.json<{ plan: string }>().plan;
  }

  async function week(): Promise<{ lessons: Planned[]; clashes: ClashShape[] }> {
    return (await house.tutor.get(`/timetable?from=${from}&to=${to}`)).json();
  }

  it('has a lesson every week; one date is moved, another cancelled, and both have their reason', async () => {
    const plan = await planned();
    const dates = [0, 1, 2, 3].map((weeks) => wall(first.plus({ weeks })));
    expect((await week()).lessons.map(({ was }) => was)).toEqual(dates);
    const moved = wall(first.plus({ weeks: 1, days: 2 }));
    await house.tutor.post(`/plans/${plan}/change`, {
      was: dates[1],
      now: moved,
      why: 'Autumn fair',
    });
    await house.tutor.post(`/plans/${plan}/change`, { was: dates[2], now: null, why: 'Ill' });
    expect((await week()).lessons.map(({ wall: at, state, why }) => [at, state, why])).toEqual([
      [dates[0], 'planned', ''],
      [moved, 'moved', 'Autumn fair'],
      [dates[2], 'cancelled', 'Ill'],
      [dates[3], 'planned', ''],
    ] as never);
    await house.tutor.post(`/plans/${plan}/restore`, { was: dates[2] });
    expect((await week()).lessons[2]!.state).toBe('planned');
  });

  it('ends a series where it is ended, and takes a single lesson out', async () => {
    const plan = await planned();
    await house.tutor.post(`/plans/${plan}/end`, { was: wall(first.plus({ weeks: 2 })) });
    expect((await week()).lessons.length).toBe(2);
    const once = await planned({ weekly: false, start: wall(first.plus({ days: 1 })) });
    expect((await week()).lessons.length).toBe(3);
    await house.tutor.post(`/plans/${once}/end`, { was: wall(first.plus({ days: 1 })) });
    expect((await week()).lessons.length).toBe(2);
  });

  it('reports lessons that get in each other’s way', async () => {
    await planned({ weekly: false });
    await planned({ weekly: false, start: wall(first.plus({ minutes: 30 })) });
    await planned({ weekly: false, start: wall(first.plus({ minutes: 85 })) });
    expect((await week()).clashes.map(({ how }) => how)).toEqual(['overlap', 'tight']);
  });

  it('says to students when the next lesson is, moved or not, and plans its end as it opens', async () => {
    const soon = DateTime.now().setZone(OSLO).plus({ minutes: 10 }).startOf('minute');
    const plan = await planned({ start: wall(soon) });
    const by = { link: house.course.linkToken };
    const nextAt = async (): Promise<number | null> =>
      (await house.visitor().post('/join/find', by)).json<{ nextAt: number | null }>().nextAt;
    expect(await nextAt()).toBe(soon.toMillis());
    const lesson = await house.openLesson();
    expect(house.app.lessons.ofCourse(house.course.id)!.endsAt).toBe(soon.toMillis() + 50 * 60_000);
    await house.tutor.post(`/lessons/${lesson}/close`);
    const later = soon.plus({ days: 1 });
    await house.tutor.post(`/plans/${plan}/change`, { was: wall(soon), now: wall(later), why: '' });
    expect(await nextAt()).toBe(later.toMillis());
  });

  it('goes on to the next lesson when one was held and closed before its time was over', async () => {
    const began = DateTime.now().setZone(OSLO).minus({ minutes: 40 }).startOf('minute');
    await planned({ start: wall(began) });
    const by = { link: house.course.linkToken };
    const nextAt = async (): Promise<number | null> =>
      (await house.visitor().post('/join/find', by)).json<{ nextAt: number | null }>().nextAt;
    const isHidden = (minutes: number): Promise<unknown> => {
      const openedAt = began.minus({ minutes: 5 }).toMillis();
      const closedAt = began.plus({ minutes }).toMillis();
      const { id: course } = house.course;
      const row = {
        id: newId(),
        course,
        board: house.board,
        openedAt,
        closedAt,
        aliveAt: closedAt,
      };
      return Promise.resolve(house.app.db.insert(lessons).values(row));
    };
    expect(await nextAt()).toBe(began.toMillis());
    // Opened and closed by mistake, it is still to come.
    await isHidden(3);
    expect(await nextAt()).toBe(began.toMillis());
    await isHidden(35);
    expect(await nextAt()).toBe(began.plus({ weeks: 1 }).toMillis());
  });

  it('leaves as a calendar and comes back as the same lessons', async () => {
    const plan = await planned();
    await house.tutor.post(`/plans/${plan}/change`, {
      was: wall(first.plus({ weeks: 1 })),
      now: null,
      why: '',
    });
    const before = (await week()).lessons
      .filter(({ state }) => state === 'planned')
      .map(({ at }) => at);
    const calendar = await house.tutor.get('/timetable.ics');
    expect(calendar.headers['content-type']).toBe('text/calendar; charset=utf-8');
    const other = (await house.tutor.post('/courses', { name: 'Copy' })).json<{ id: string }>();
    await house.tutor.post(`/plans/${plan}/end`, { was: wall(first) });
    const brought = await house.tutor.request(
      'POST',
      `/courses/${other.id}/plans/import?zone=${OSLO}`,
      Buffer.from(calendar.body),
      {
        'content-type': 'text/calendar',
      },
    );
    expect(brought.json<{ made: number }>()).toEqual(jasmine.objectContaining({ made: 1 }));
    const after = (await week()).lessons
      .filter(({ state }) => state === 'planned')
      .map(({ at }) => at);
    expect(after).toEqual(before);
    const nothing = await house.tutor.request(
      'POST',
      `/courses/${other.id}/plans/import?zone=${OSLO}`,
      Buffer.from('Dear diary'),
      {
        'content-type': 'text/calendar',
      },
    );
    expect([nothing.statusCode, nothing.json<{ type: string }>().type]).toEqual([
      400,
      'urn:cuaderno:not-a-calendar',
    ]);
  });

  it('is its tutor’s, and takes no dates and times that aren’t', async () => {
    const plan = await planned();
    const other = await house.otherTutor('Sunniva');
    const change = { was: wall(first), now: null };
    expect((await other.post(`/plans/${plan}/change`, change)).statusCode).toBe(404);
    expect(
      (await other.get(`/timetable?from=${from}&to=${to}`)).json<{ lessons: object[] }>().lessons,
    ).toEqual([]);
    const off = { was: wall(first.plus({ days: 1 })), now: null };
    expect((await house.tutor.post(`/plans/${plan}/change`, off)).statusCode).toBe(404);
    for (const bad of [
      { start: '2026-02-31T10:00' },
      { start: 'tomorrow' },
      { zone: 'Middle/Earth' },
      { minutes: 0 },
      { weekly: true, until: wall(first.minus({ days: 1 })).slice(0, 10) },
    ])
      expect(
        (
          await house.tutor.post(`/courses/${house.course.id}/plans`, {
            ...{ start: wall(first), zone: OSLO, minutes: 50, buffer: 10, weekly: false },
            ...bad,
          })
        ).statusCode,
      )
        .withContext(JSON.stringify(bad))
        .toBe(400);
    expect((await house.tutor.get(`/timetable?from=0&to=${8e15}`)).statusCode).toBe(400);
  });

  it('moves a date and all after it; what was cancelled stays so', async () => {
    const plan = await planned();
    const at = (weeks: number, more = {}): string => wall(first.plus({ weeks, ...more }));
    await house.tutor.post(`/plans/${plan}/change`, { was: at(2), now: null, why: 'Ill' });
    const answer = await house.tutor.post(`/plans/${plan}/move`, {
      was: at(1),
      now: at(1, { days: 1 }),
    });
    const { plan: next } = answer.json<{ plan: string }>();
    expect(next).not.toBe(plan);
    const { lessons: all } = await week();
    expect(all.map(({ plan: of, wall: time, state }) => [of, time, state])).toEqual([
      [plan, at(0), 'planned'],
      [next, at(1, { days: 1 }), 'planned'],
      [next, at(2, { days: 1 }), 'cancelled'],
      [next, at(3, { days: 1 }), 'planned'],
    ]);
    // From its first date on it is the same plan, elsewhere.
    const whole = await house.tutor.post(`/plans/${plan}/move`, {
      was: at(0),
      now: at(0, { hours: 1 }),
    });
    expect(whole.json()).toEqual({ plan });
    const gone = await house.tutor.post(`/plans/${plan}/move`, { was: at(0), now: at(0) });
    expect(gone.json<{ type: string }>().type).toBe('urn:cuaderno:not-planned');
    const other = await house.otherTutor('Bo');
    expect((await other.post(`/plans/${next}/move`, { was: at(1), now: at(0) })).statusCode).toBe(
      404,
    );
  });

  it('says which lessons took place, and for which date', async () => {
    const lesson = newId();
    const at = first.minus({ weeks: 4 });
    await planned({ start: wall(at), weekly: false });
    await house.app.db.insert(lessons).values({
      ...{ id: lesson, course: house.course.id, openedAt: at.plus({ minutes: 3 }).toMillis() },
      ...{ closedAt: at.plus({ minutes: 55 }).toMillis(), aliveAt: 0 },
    });
    const span = `from=${at.minus({ days: 1 }).toMillis()}&to=${at.plus({ days: 1 }).toMillis()}`;
    const past = (await house.tutor.get(`/timetable?${span}`)).json<{
      lessons: Planned[];
      held: { lesson: string; at: number }[];
    }>();
    expect(past.held.map((one) => [one.lesson, one.at])).toEqual([
      [lesson, at.plus({ minutes: 3 }).toMillis()],
    ]);
    expect(past.lessons.map(({ heldAs }) => heldAs)).toEqual([lesson]);
    const other = await house.otherTutor('Bo');
    expect((await other.get(`/timetable?${span}`)).json<{ held: [] }>().held).toEqual([]);
  });

  it('goes by the time zone of the tutor’s account, once there is one', async () => {
    const zone = async (): Promise<string | null> =>
      (await house.tutor.get(`/timetable?from=${from}&to=${to}`)).json<{ zone: string | null }>()
        .zone;
    expect(await zone()).toBeNull();
    expect((await house.tutor.post('/account/zone', { zone: OSLO })).statusCode).toBe(204);
    expect(await zone()).toBe(OSLO);
    expect((await house.tutor.post('/account/zone', { zone: 'Solvik/Pier' })).statusCode).toBe(400);
    expect((await (await house.otherTutor('Bo')).get('/account')).json()).toEqual(
      jasmine.objectContaining({ zone: null }),
    );
    await house.tutor.post('/account/zone', { zone: null });
    expect(await zone()).toBeNull();
  });
});
