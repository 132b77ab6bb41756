import ICAL from 'ical.js';
import { emptyCalendar } from './write.js';

/** A lesson that was held. */
export interface CompletedLesson {
  readonly id: string;
  readonly summary: string;
  /** When it was opened and closed, in ms since 1970. */
  readonly from: number;
  readonly to: number;
}

/** Lessons as they were held, as an iCalendar (RFC 5545): each an event by itself, in universal time, to the second. */
export function writeCompletedLessons(lessons: readonly CompletedLesson[], now: number): string {
  const calendar = emptyCalendar();
  for (const { id, summary, from, to } of lessons) {
    const event = new ICAL.Component('vevent');
    event.addPropertyWithValue('uid', `${id}@cuaderno`);
    event.addPropertyWithValue('dtstamp', utc(now));
    event.addPropertyWithValue('dtstart', utc(from));
    // An event that begins and ends in one moment has no end (3.6.1).
    if (Math.floor(to / 1000) > Math.floor(from / 1000))
      event.addPropertyWithValue('dtend', utc(to));
    event.addPropertyWithValue('summary', summary);
    event.addPropertyWithValue('status', 'CONFIRMED');
    calendar.addSubcomponent(event);
  }
  return `${calendar.toString()}\r\n`;
}

function utc(ms: number): ICAL.Time {
  return ICAL.Time.fromDateTimeString(`${new Date(ms).toISOString().slice(0, 19)}Z`);
}
