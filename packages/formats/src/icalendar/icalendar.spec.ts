import { newId } from '@cuaderno/core';
import { occurrencesOf, weekly } from '@cuaderno/core/timetable';
import type { Plan } from '@cuaderno/core/timetable';
import ICAL from 'ical.js';
import { readICalendar, writeICalendar } from './index.js';
import type { CalendarError } from './index.js';

const OSLO = 'Europe/Oslo';
const read = (text: string): ReturnType<typeof readICalendar> =>
  readICalendar(text, OSLO, ['America/New_York']);
const lines = (...list: string[]): string => `${list.join('\r\n')}\r\n`;
const calendar = (...events: string[]): string =>
  lines('BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//test//EN', ...events, 'END:VCALENDAR');
const event = (...list: string[]): string[] => ['BEGIN:VEVENT', 'UID:1', ...list, 'END:VEVENT'];

const PLAN: Plan = {
  ...{ id: newId(), course: newId(), topic: '', start: '2026-10-13T16:30', zone: OSLO },
  ...{ minutes: 50, buffer: 10, rule: weekly('2026-12-15') },
  changes: [
    { was: '2026-10-20T16:30', now: '2026-10-22T18:00', why: 'Autumn fair' },
    { was: '2026-10-27T16:30', now: null, why: '' },
  ],
};

describe('a timetable as iCalendar', () => {
  const text = writeICalendar(
    [{ plan: PLAN, summary: 'Tides; flo og fjære, på norsk' }],
    Date.UTC(2026, 9, 1),
  );

  it('has lines of at most 75 octets, each ended by CRLF (RFC 5545, 3.1)', () => {
    for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
    expect(text.replace(/\r\n/g, '')).not.toMatch(/[\r\n]/);
    expect(text).toContain('SUMMARY:Tides\\; flo og fjære\\, på norsk');
  });

  it('describes its zone as the IANA data have it: Oslo changes on the last Sundays of March and October', () => {
    const zone = new ICAL.Component(ICAL.parse(text) as never).getFirstSubcomponent('vtimezone')!;
    const changes = [
      ...zone.getAllSubcomponents('daylight'),
      ...zone.getAllSubcomponents('standard'),
    ].map((one) => String(one.getFirstPropertyValue('dtstart')));
    expect(changes).toContain('2026-10-25T03:00:00');
    expect(changes).toContain('2027-03-28T02:00:00');
  });

  it('comes back as the same lessons', () => {
    const { plans, skipped } = read(text);
    expect(skipped).toEqual([]);
    const [back] = plans;
    expect(back!.summary).toBe('Tides; flo og fjære, på norsk');
    const span = [Date.UTC(2026, 0, 1), Date.UTC(2028, 0, 1)] as const;
    const times = (plan: Plan): [number, number, string][] =>
      occurrencesOf(plan, ...span).map(({ at, until, state }) => [at, until, state]);
    expect(times({ ...PLAN, ...back! })).toEqual(times(PLAN));
    expect(times(PLAN).length).toBe(10);
  });

  it('is read by another reader as we mean it (ical.js, its own expansion)', () => {
    const component = new ICAL.Component(ICAL.parse(text) as never);
    for (const zone of component.getAllSubcomponents('vtimezone'))
      ICAL.TimezoneService.register(zone);
    const main = component
      .getAllSubcomponents('vevent')
      .find((one) => !one.hasProperty('recurrence-id'))!;
    const whole = new ICAL.Event(main);
    const found: string[] = [];
    const walk = whole.iterator();
    for (let next = walk.next() as ICAL.Time | null; next; next = walk.next() as ICAL.Time | null)
      found.push(
        new Date(whole.getOccurrenceDetails(next).startDate.toUnixTime() * 1000).toISOString(),
      );
    const ours = occurrencesOf(PLAN, 0, Date.UTC(2028, 0, 1)).filter(
      ({ state }) => state !== 'cancelled',
    );
    expect(found.sort()).toEqual(
      ours.map(({ at }) => new Date(at).toISOString().replace('.000Z', '.000Z')).sort(),
    );
    ICAL.TimezoneService.reset();
  });
});

describe('a calendar from elsewhere', () => {
  it('may call its zones as it likes: they are known by how their clocks go', () => {
    // The rules of New York from 2007 on, as in RFC 5545, 3.6.5.
    const zone = [
      ...['BEGIN:VTIMEZONE', 'TZID:Eastern as we say', 'BEGIN:DAYLIGHT', 'DTSTART:20070311T020000'],
      ...[
        'RRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=2SU',
        'TZOFFSETFROM:-0500',
        'TZOFFSETTO:-0400',
        'END:DAYLIGHT',
      ],
      ...['BEGIN:STANDARD', 'DTSTART:20071104T020000', 'RRULE:FREQ=YEARLY;BYMONTH=11;BYDAY=1SU'],
      ...['TZOFFSETFROM:-0400', 'TZOFFSETTO:-0500', 'END:STANDARD', 'END:VTIMEZONE'],
    ];
    const one = event(
      'DTSTART;TZID=Eastern as we say:20261103T090000',
      'DURATION:PT50M',
      'RRULE:FREQ=WEEKLY',
      'SUMMARY:Tides',
    );
    const { plans, skipped } = read(calendar(...zone, ...one));
    expect(skipped).toEqual([]);
    expect(plans[0]).toEqual(
      jasmine.objectContaining({
        zone: 'America/New_York',
        start: '2026-11-03T09:00',
        minutes: 50,
        rule: 'FREQ=WEEKLY',
      }),
    );
  });

  it('keeps what can be planned, and says of the rest why not', () => {
    const { plans, skipped } = read(
      calendar(
        ...event('DTSTART;TZID=Nowhere Time:20261103T090000', 'SUMMARY:Unknown zone'),
        ...event('DTSTART;VALUE=DATE:20261103', 'SUMMARY:All day'),
        ...event('DTSTART:20261103T090000Z', 'RRULE:FREQ=SECONDLY', 'SUMMARY:Endless seconds'),
        ...event('DTSTART:20261103T090000Z', 'DTEND:20261109T090000Z', 'SUMMARY:A week'),
        ...event('DTSTART:20261103T090000', 'DTEND:20261103T095000', 'SUMMARY:Floating'),
        ...event('DTSTART:20261103T090000Z', 'RRULE:FREQ=DAILY', 'SUMMARY:Endless days'),
        ...event('SUMMARY:No beginning'),
      ),
    );
    expect(plans.map(({ summary, zone }) => [summary, zone])).toEqual([
      ['Floating', OSLO],
      ['Endless days', 'UTC'],
    ]);
    expect(skipped.map(({ summary }) => summary)).toEqual([
      ...['Unknown zone', 'All day', 'Endless seconds', 'A week', 'No beginning'],
    ]);
    expect(skipped[0]!.why).toBe('Its time zone isn’t known here: Nowhere Time.');
  });

  it('is refused as a whole where it isn’t one, or has no end', () => {
    const fault = (text: string): string => {
      try {
        read(text);
        return 'none';
      } catch (error) {
        return (error as CalendarError).fault;
      }
    };
    expect(fault('')).toBe('not-a-calendar');
    expect(fault('BEGIN:VCARD\r\nEND:VCARD\r\n')).toBe('not-a-calendar');
    expect(fault('x'.repeat(6_000_000))).toBe('too-large');
    const many = Array.from({ length: 2001 }, () => event('DTSTART:20261103T090000Z')).flat();
    expect(fault(calendar(...many))).toBe('too-large');
  });
});
