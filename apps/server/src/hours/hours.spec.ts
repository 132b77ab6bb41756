import { newId } from '@cuaderno/core';
import { eq } from 'drizzle-orm';
import { lessons } from '../lessons/tables.js';
import { House } from '../testing/harness.js';
import type { HourRow } from '@cuaderno/contract/hours';

const MINUTE = 60_000;

describe('hours', () => {
  let house: House;
  const opened = Date.UTC(2026, 10, 3, 15, 30);

  beforeEach(async () => {
    house = await House.open('hours');
  });
  afterEach(() => house.close());

  /** A closed lesson that went on for so many minutes. */
  async function taught(at: number, minutes: number): Promise<string> {
    const lesson = await house.openLesson();
    await house.tutor.post(`/lessons/${lesson}/close`);
    const times = { openedAt: at, closedAt: at + minutes * MINUTE };
    await house.app.db.update(lessons).set(times).where(eq(lessons.id, lesson));
    return lesson;
  }

  const rows = async (from: number, to: number): Promise<HourRow[]> =>
    (await house.tutor.get(`/hours?from=${from}&to=${to}`)).json<{ rows: HourRow[] }>().rows;

  it('are from opening to closing, and what is corrected keeps its reason', async () => {
    const lesson = await taught(opened, 63);
    await taught(opened + 86_400_000, 50);
    expect((await rows(0, 9e12)).map(({ minutes }) => minutes)).toEqual([50, 63]);
    await house.tutor.post(`/hours/${lesson}/correct`, { minutes: 60, why: 'Ana came late' });
    await house.tutor.post(`/hours/${lesson}/correct`, { minutes: 50, why: 'As agreed' });
    const [, row] = await rows(0, 9e12);
    expect([row!.measured, row!.minutes]).toEqual([63, 50]);
    expect(row!.corrections.map(({ minutes, why }) => [minutes, why])).toEqual([
      [60, 'Ana came late'],
      [50, 'As agreed'],
    ]);
    expect((await rows(opened, opened + 1)).length).toBe(1);
  });

  it('leave as a table (RFC 4180)', async () => {
    const lesson = await taught(opened, 63);
    await house.tutor.post(`/hours/${lesson}/correct`, { minutes: 60, why: 'Late, "as always"' });
    const table = await house.tutor.get('/hours.csv?from=0&to=9000000000000&zone=Europe/Oslo');
    expect(table.body).toBe(
      '\uFEFFCourse,Students,Opened,Closed,Measured,Minutes,Corrected\r\n' +
        'Tides,,2026-11-03T16:30:00+01:00,2026-11-03T17:33:00+01:00,63,60,"60: Late, ""as always"""\r\n',
    );
  });

  it('leave as a calendar of the lessons as they were held (RFC 5545)', async () => {
    const lesson = await taught(opened, 63);
    const { headers, body } = await house.tutor.get('/hours.ics?from=0&to=9000000000000');
    expect(headers['content-type']).toContain('text/calendar');
    expect(body).toContain(`UID:${lesson}@cuaderno\r\n`);
    expect(body).toContain(
      'DTSTART:20261103T153000Z\r\nDTEND:20261103T163300Z\r\nSUMMARY:Tides\r\n',
    );
    const span = 'from=0&to=9000000000000';
    const ofCourse = async (id: string): Promise<string[]> => [
      (await house.tutor.get(`/hours.ics?${span}&course=${id}`)).body,
      (await house.tutor.get(`/hours.csv?${span}&zone=UTC&course=${id}`)).body,
    ];
    for (const one of await ofCourse(house.course.id)) expect(one).toContain('Tides');
    for (const one of await ofCourse(newId())) expect(one).not.toContain('Tides');
    const other = await house.otherTutor('Sunniva');
    expect((await other.get('/hours.ics?from=0&to=9000000000000')).body).not.toContain('VEVENT');
  });

  it('are corrected by their tutor alone, with a reason', async () => {
    const lesson = await taught(opened, 50);
    const other = await house.otherTutor('Sunniva');
    const correct = (who: House['tutor'], body: object): Promise<number> =>
      who.post(`/hours/${lesson}/correct`, body).then(({ statusCode }) => statusCode);
    expect(await correct(other, { minutes: 10, why: 'x' })).toBe(404);
    for (const bad of [
      { minutes: 10, why: ' ' },
      { minutes: -1, why: 'x' },
      { minutes: 1.5, why: 'x' },
    ])
      expect(await correct(house.tutor, bad)).toBe(400);
    expect((await rows(0, 9e12))[0]!.corrections).toEqual([]);
  });
});
