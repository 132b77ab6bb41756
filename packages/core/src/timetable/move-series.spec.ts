import { newId } from '../id/index.js';
import { moveSeries, occurrencesOf, wallTimeOf, weekly } from './index.js';
import type { Plan } from './index.js';

const plan = (change: Partial<Plan> = {}): Plan => ({
  ...{ id: newId(), course: newId(), topic: '', start: '2026-10-13T16:30', zone: 'Europe/Oslo' },
  ...{ minutes: 50, buffer: 10, rule: weekly(null), changes: [], ...change },
});
/** Times on the wall of all dates of a plan in autumn 2026. */
const dates = (one: Plan): string[] =>
  occurrencesOf(one, Date.parse('2026-10-01'), Date.parse('2026-12-31')).map(({ at, state }) =>
    state === 'cancelled' ? `(${wallTimeOf(at, one.zone)})` : wallTimeOf(at, one.zone),
  );
const parts = (one: Plan, was: string, now: string): [before: string[], after: string[]] => {
  const { before, after } = moveSeries(one, was, now)!;
  return [before === null ? [] : dates({ ...one, rule: before }), dates({ ...one, ...after })];
};

describe('a series that is moved', () => {
  it('from one of its dates on, is at the other day and hour, over the end of summer time as well', () => {
    const [before, after] = parts(plan(), '2026-10-20T16:30', '2026-10-22T15:00');
    expect(before).toEqual(['2026-10-13T16:30']);
    expect(after.slice(0, 3)).toEqual(['2026-10-22T15:00', '2026-10-29T15:00', '2026-11-05T15:00']);
  });

  it('from its first date on, leaves nothing where it was', () => {
    const [before, after] = parts(plan(), '2026-10-13T16:30', '2026-10-12T16:30');
    expect(before).toEqual([]);
    expect(after[0]).toBe('2026-10-12T16:30');
  });

  it('has as many dates as before, whether it is over by a day or by a number', () => {
    for (const rule of [
      weekly('2026-11-10'),
      'FREQ=WEEKLY;COUNT=5',
      'FREQ=WEEKLY;BYDAY=TU;COUNT=5',
    ]) {
      const all = dates(plan({ rule }));
      expect(all.length).toBe(5);
      for (const now of ['2026-10-28T09:00', '2026-10-26T23:00', '2026-11-04T00:00']) {
        const [before, after] = parts(plan({ rule }), '2026-10-27T16:30', now);
        expect([before.length, after.length]).withContext(`${rule} ${now}`).toEqual([2, 3]);
        expect(after[0]).toBe(now);
      }
    }
  });

  it('stays cancelled where it was, and keeps dates with a time of their own', () => {
    const changes = [
      { was: '2026-10-13T16:30', now: null, why: 'Fair' },
      { was: '2026-10-27T16:30', now: null, why: 'Ill' },
      { was: '2026-11-03T16:30', now: '2026-11-04T10:00', why: '' },
    ];
    const rule = weekly('2026-11-10');
    const [before, after] = parts(plan({ rule, changes }), '2026-10-20T16:30', '2026-10-19T16:30');
    expect(before).toEqual(['(2026-10-13T16:30)']);
    expect(after).toEqual([
      ...['2026-10-19T16:30', '(2026-10-26T16:30)', '2026-11-04T10:00', '2026-11-09T16:30'],
    ]);
  });

  it('of one lesson is that lesson; one with days of its own can’t be', () => {
    expect(parts(plan({ rule: null }), '2026-10-13T16:30', '2026-10-14T16:30')[1]).toEqual([
      '2026-10-14T16:30',
    ]);
    expect(
      moveSeries(plan({ rule: 'FREQ=WEEKLY;BYDAY=TU,TH' }), '2026-10-13T16:30', '2026-10-14T16:30'),
    ).toBeNull();
  });
});
