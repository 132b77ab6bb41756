import fc from 'fast-check';
import { DateTime } from 'luxon';
import { newId } from '../id/index.js';
import {
  checkRule,
  clashesAmong,
  endedBefore,
  momentOf,
  nextOf,
  occurrencesOf,
  timesOf,
  weekly,
} from './index.js';
import type { Plan } from './index.js';

const HOUR = 3_600_000;

function plan(change: Partial<Plan> = {}): Plan {
  return {
    ...{ id: newId(), course: newId(), topic: '', start: '2026-10-13T16:30', zone: 'Europe/Oslo' },
    ...{ minutes: 50, buffer: 10, rule: weekly(null), changes: [], ...change },
  };
}

const days = (start: string, rule: string, count: number): string[] => {
  const found: string[] = [];
  timesOf(start, rule, (time) => {
    if (found.length === count) return 'stop';
    found.push(time);
    return 'skip';
  });
  return found;
};

describe('times of a series', () => {
  it('are the same, from wherever they are gone through', () => {
    const rule = fc.record({
      freq: fc.constantFrom('DAILY', 'WEEKLY', 'MONTHLY'),
      interval: fc.integer({ min: 1, max: 5 }),
      days: fc.uniqueArray(fc.constantFrom('MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'), {
        maxLength: 4,
      }),
      count: fc.option(fc.integer({ min: 1, max: 60 }), { nil: null }),
      week: fc.constantFrom('MO', 'SU'),
    });
    const day = fc.integer({ min: 0, max: 700 });
    fc.assert(
      fc.property(rule, day, day, ({ freq, interval, days: on, count, week }, began, asked) => {
        const text = [
          `FREQ=${freq};INTERVAL=${interval};WKST=${week}`,
          ...(on.length > 0 && freq !== 'MONTHLY' ? [`BYDAY=${on.join(',')}`] : []),
          ...(count === null ? [] : [`COUNT=${count}`]),
        ].join(';');
        const iso = (n: number): string =>
          new Date(Date.UTC(2024, 0, 1 + n, 16, 30)).toISOString().slice(0, 16);
        const [from, to] = [iso(began + asked), iso(began + asked + 40)];
        const between = (since?: number): string[] =>
          timesOf(
            iso(began),
            text,
            (time) => (time > to ? 'stop' : time >= from ? 'take' : 'skip'),
            since,
          );
        expect(between(Date.parse(`${from}Z`)))
          .withContext(text)
          .toEqual(between());
      }),
      { numRuns: 300 },
    );
  });
});

describe('recurrence rules (examples of RFC 5545, 3.8.5.3)', () => {
  const on = (...list: string[]): string[] => list.map((day) => `${day}T09:00`);
  // Each begins on 2 September 1997 at 9 o'clock in New York, where the RFC doesn't say otherwise.
  const START = '1997-09-02T09:00';

  it('daily for ten occurrences', () => {
    const september = Array.from(
      { length: 10 },
      (_, i) => `1997-09-${String(i + 2).padStart(2, '0')}`,
    );
    expect(days(START, 'FREQ=DAILY;COUNT=10', 99)).toEqual(on(...september));
  });

  it('weekly for ten occurrences, over the end of daylight saving', () => {
    const expected = on(
      ...['1997-09-02', '1997-09-09', '1997-09-16', '1997-09-23', '1997-09-30'],
      ...['1997-10-07', '1997-10-14', '1997-10-21', '1997-10-28', '1997-11-04'],
    );
    expect(days(START, 'FREQ=WEEKLY;COUNT=10', 99)).toEqual(expected);
    // The RFC: the first eight in EDT, the last two in EST.
    const hours = expected.map((time) =>
      new Date(momentOf(time, 'America/New_York')).getUTCHours(),
    );
    expect(hours).toEqual([13, 13, 13, 13, 13, 13, 13, 13, 14, 14]);
  });

  it('every other week on Tuesday and Thursday, for eight occurrences', () => {
    expect(days(START, 'FREQ=WEEKLY;INTERVAL=2;COUNT=8;WKST=SU;BYDAY=TU,TH', 99)).toEqual(
      on(
        ...['1997-09-02', '1997-09-04', '1997-09-16', '1997-09-18'],
        ...['1997-09-30', '1997-10-02', '1997-10-14', '1997-10-16'],
      ),
    );
  });

  it('an example where WKST matters: the week begins on Monday, or on Sunday', () => {
    const from = '1997-08-05T09:00';
    const rule = 'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=';
    expect(days(from, `${rule}MO`, 9)).toEqual(
      on('1997-08-05', '1997-08-10', '1997-08-19', '1997-08-24'),
    );
    expect(days(from, `${rule}SU`, 9)).toEqual(
      on('1997-08-05', '1997-08-17', '1997-08-19', '1997-08-31'),
    );
  });

  it('monthly on the first Friday, for ten occurrences', () => {
    expect(days('1997-09-05T09:00', 'FREQ=MONTHLY;COUNT=10;BYDAY=1FR', 99)).toEqual(
      on(
        ...['1997-09-05', '1997-10-03', '1997-11-07', '1997-12-05', '1998-01-02'],
        ...['1998-02-06', '1998-03-06', '1998-04-03', '1998-05-01', '1998-06-05'],
      ),
    );
  });

  it('every Friday the 13th, forever', () => {
    const found = days(START, 'FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13', 5);
    expect(found).toEqual(on('1998-02-13', '1998-03-13', '1998-11-13', '1999-08-13', '2000-10-13'));
  });

  it('are taken where lessons can be planned by them, and refused in words where not', () => {
    expect(checkRule('FREQ=WEEKLY;BYDAY=TU')).toEqual({ rule: 'FREQ=WEEKLY;BYDAY=TU' });
    for (const bad of ['FREQ=SECONDLY', 'FREQ=HOURLY;INTERVAL=2', 'every Tuesday', ''])
      expect('fault' in checkRule(bad))
        .withContext(bad)
        .toBeTrue();
  });
});

describe('moments of times on the wall (IANA zone data, as this machine has it)', () => {
  it('keep the hour when the clocks change: Oslo, 25 October 2026 and 28 March 2027', () => {
    const found = occurrencesOf(plan(), Date.UTC(2026, 9, 19), Date.UTC(2026, 10, 2));
    expect(found.map(({ at }) => new Date(at).toISOString())).toEqual([
      '2026-10-20T14:30:00.000Z',
      '2026-10-27T15:30:00.000Z',
    ]);
    const spring = occurrencesOf(plan(), Date.UTC(2027, 2, 22), Date.UTC(2027, 3, 1));
    expect(spring.map(({ at }) => new Date(at).getUTCHours())).toEqual([15, 14]);
  });

  it('go by the offset before the gap for a time that isn’t, and are the first of one that comes twice', () => {
    // RFC 5545, 3.3.5: "TZID=America/New_York:20070311T023000" is 20070311T033000 (UTC-4);
    // 20071104T013000 is the one in daylight time (UTC-4).
    expect(new Date(momentOf('2007-03-11T02:30', 'America/New_York')).toISOString()).toBe(
      '2007-03-11T07:30:00.000Z',
    );
    expect(new Date(momentOf('2007-11-04T01:30', 'America/New_York')).toISOString()).toBe(
      '2007-11-04T05:30:00.000Z',
    );
  });

  it('differ from the student’s clock by what their zones differ by on that day', () => {
    // Oslo is eight hours behind Tokyo in winter and seven in summer; Tokyo keeps no summer time.
    const hour = (at: number): number => DateTime.fromMillis(at, { zone: 'Asia/Tokyo' }).hour;
    const [summer, winter] = [plan().start, '2026-11-24T16:30'].map((time) =>
      momentOf(time, 'Europe/Oslo'),
    );
    expect([hour(summer!), hour(winter!)]).toEqual([23, 0]);
  });
});

describe('a plan', () => {
  it('has what was moved where it is, and what was cancelled where it would have been', () => {
    const one = plan({
      changes: [
        { was: '2026-10-20T16:30', now: '2026-10-22T18:00', why: 'Autumn fair' },
        { was: '2026-10-27T16:30', now: null, why: 'Ill' },
      ],
    });
    const found = occurrencesOf(one, Date.UTC(2026, 9, 19), Date.UTC(2026, 10, 4));
    expect(found.map(({ was, state, why }) => [was, state, why])).toEqual([
      ['2026-10-20T16:30', 'moved', 'Autumn fair'],
      ['2026-10-27T16:30', 'cancelled', 'Ill'],
      ['2026-11-03T16:30', 'planned', ''],
    ]);
    expect(new Date(found[0]!.at).toISOString()).toBe('2026-10-22T16:00:00.000Z');
    expect(nextOf([one], Date.UTC(2026, 9, 23))!.was).toBe('2026-11-03T16:30');
  });

  it('ends before the date at which it is ended, and keeps those before', () => {
    const ended = plan({ rule: endedBefore(weekly(null), '2026-11-03T16:30') });
    const found = occurrencesOf(ended, 0, Date.UTC(2030, 0, 1));
    expect(found.map(({ was }) => was)).toEqual([
      '2026-10-13T16:30',
      '2026-10-20T16:30',
      '2026-10-27T16:30',
    ]);
    expect(nextOf([ended], Date.UTC(2026, 10, 1))).toBeNull();
  });

  it('of a single lesson is that one', () => {
    const once = plan({ rule: null });
    expect(occurrencesOf(once, 0, Date.UTC(2030, 0, 1)).length).toBe(1);
    expect(occurrencesOf(once, Date.UTC(2026, 9, 14), Date.UTC(2030, 0, 1))).toEqual([]);
  });

  it('is the same whether it is asked for a year at once or week by week', () => {
    const minutes = fc.integer({ min: 5, max: 600 });
    const rule = fc.constantFrom(
      weekly(null),
      'FREQ=DAILY;INTERVAL=3',
      'FREQ=MONTHLY;BYDAY=2TU',
      'FREQ=WEEKLY;BYDAY=MO,FR',
    );
    fc.assert(
      fc.property(
        minutes,
        rule,
        fc.constantFrom('Europe/Oslo', 'Asia/Tokyo', 'America/New_York'),
        (length, what, zone) => {
          const one = plan({ minutes: length, rule: what, zone });
          const [from, week] = [Date.UTC(2026, 9, 1), 7 * 24 * HOUR];
          const whole = occurrencesOf(one, from, from + 30 * week).map(({ at }) => at);
          const pieces = new Set<number>();
          for (let i = 0; i < 30; i++)
            for (const { at } of occurrencesOf(one, from + i * week, from + (i + 1) * week))
              pieces.add(at);
          expect([...pieces].sort((a, b) => a - b)).toEqual(whole);
        },
      ),
      { numRuns: 30 },
    );
  });
});

describe('clashes', () => {
  const at = (start: string, change: Partial<Plan> = {}): Plan =>
    plan({ start, rule: null, ...change });
  const found = (...plans: Plan[]): string[] =>
    clashesAmong(plans.flatMap((one) => occurrencesOf(one, 0, Date.UTC(2030, 0, 1)))).map(
      ({ how }) => how,
    );

  it('are lessons at one time, and lessons without a breath between them', () => {
    expect(found(at('2026-10-13T16:00'), at('2026-10-13T16:30'))).toEqual(['overlap']);
    expect(found(at('2026-10-13T16:00'), at('2026-10-13T16:55'))).toEqual(['tight']);
    expect(found(at('2026-10-13T16:00'), at('2026-10-13T17:00'))).toEqual([]);
    expect(
      found(
        at('2026-10-13T16:00'),
        at('2026-10-13T16:00', { changes: [{ was: '2026-10-13T16:00', now: null, why: '' }] }),
      ),
    ).toEqual([]);
  });
});
