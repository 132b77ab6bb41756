import ICAL from 'ical.js';
import { readICalendar, writeCompletedLessons } from './index.js';

const from = Date.UTC(2026, 9, 25, 0, 58, 3);
const lessons = [
  { id: 'l1', summary: 'Tides, Thursday: Ebb; flow\nand “spring” 潮', from, to: from + 3_000_000 },
  { id: 'l2', summary: 'Opened and closed', from: from + 90_000_000, to: from + 90_000_400 },
];
const text = writeCompletedLessons(lessons, Date.UTC(2026, 10, 26));

describe('lessons that were held, as iCalendar', () => {
  it('are what another reader reads (ical.js), to the second, through the night on which clocks change', () => {
    const events = new ICAL.Component(ICAL.parse(text) as never)
      .getAllSubcomponents('vevent')
      .map((event) => new ICAL.Event(event));
    expect(events.map(({ uid, summary }) => [uid, summary])).toEqual(
      lessons.map(({ id, summary }) => [`${id}@cuaderno`, summary]),
    );
    expect(events.map(({ startDate }) => startDate.toJSDate().getTime())).toEqual(
      lessons.map((lesson) => lesson.from),
    );
    expect(events[0]!.endDate.toJSDate().getTime()).toBe(lessons[0]!.to);
  });

  it('have what RFC 5545 asks of a calendar and of an event (3.6, 3.6.1)', () => {
    expect(text.startsWith('BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:')).toBeTrue();
    expect(text.match(/^DTSTAMP:20261126T000000Z\r$/gm)?.length).toBe(2);
    expect(text).toContain('DTSTART:20261025T005803Z\r\n');
    expect(text).toContain('DTEND:20261025T014803Z\r\n');
    for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
  });

  it('come in again as lessons of their length, and one without a length is reported', () => {
    const { plans, skipped } = readICalendar(text, 'Europe/Oslo', ['Europe/Oslo', 'UTC']);
    const [first] = plans;
    expect(plans.length + skipped.length).toBe(2);
    expect(first).toEqual(jasmine.objectContaining({ minutes: 50, rule: null }));
    expect(first!.start).toMatch(/^2026-10-25T0[02]:58$/);
  });

  it('may be none', () => {
    expect(writeCompletedLessons([], 0)).toContain('END:VCALENDAR');
  });
});
