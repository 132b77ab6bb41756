import { checkRule } from '@cuaderno/core/timetable';
import type { PlanChange, WallTime } from '@cuaderno/core/timetable';
import ICAL from 'ical.js';
import { DateTime } from 'luxon';
import { zoneOf } from './zones.js';

/** Largest file, in characters, and most events of one: a school's whole year is a tenth of it. */
const LARGEST = 3_000_000;
const MOST = 1_000;
/** Changes of one series that are kept at most: two years of days. */
const MOST_CHANGES = 800;
/** Longest lesson, in minutes. */
const LONGEST = 600;
const USUAL_MINUTES = 60;

/** What can be planned of an event. */
export interface CalendarPlan {
  readonly summary: string;
  readonly start: WallTime;
  readonly zone: string;
  readonly minutes: number;
  readonly rule: string | null;
  readonly changes: readonly PlanChange[];
}

/** An event that can't be planned, and why, in a sentence. */
export interface Skipped {
  readonly summary: string;
  readonly why: string;
}

export class CalendarError extends Error {
  override readonly name = 'CalendarError';
  constructor(readonly fault: 'not-a-calendar' | 'too-large') {
    super(fault);
  }
}

/**
 * Reads an iCalendar (RFC 5545). Throws `CalendarError` for what isn't one.
 * @param own IANA zone of the person who imports it: for times without one
 * @param candidates zones that a file may mean by a name of its own
 */
export function readICalendar(
  text: string,
  own: string,
  candidates: readonly string[],
): { plans: CalendarPlan[]; skipped: Skipped[] } {
  if (text.length > LARGEST) throw new CalendarError('too-large');
  const calendars = parsed(text);
  const plans: CalendarPlan[] = [];
  const skipped: Skipped[] = [];
  for (const calendar of calendars) {
    const reader = new EventReader(calendar, own, candidates);
    const events = calendar.getAllSubcomponents('vevent');
    if (events.length > MOST) throw new CalendarError('too-large');
    const single = events.filter((event) => !event.hasProperty('recurrence-id'));
    const movedOf = new Map<string, ICAL.Component[]>();
    for (const event of events) {
      if (!event.hasProperty('recurrence-id')) continue;
      const uid = words(event, 'uid');
      movedOf.set(uid, [...(movedOf.get(uid) ?? []), event]);
    }
    for (const event of single) {
      const summary = words(event, 'summary');
      try {
        plans.push(reader.plan(event, movedOf.get(words(event, 'uid')) ?? []));
      } catch (error) {
        const why = error instanceof CantPlan ? error.message : 'It can’t be read.';
        skipped.push({ summary, why });
      }
    }
  }
  return { plans, skipped };
}

class CantPlan extends Error {}

function parsed(text: string): ICAL.Component[] {
  try {
    const found = ICAL.parse(text) as unknown[];
    const list = (typeof found[0] === 'string' ? [found] : found) as [string, ...never[]][];
    const calendars = list.filter(([name]) => name === 'vcalendar');
    if (calendars.length === 0) throw new CalendarError('not-a-calendar');
    return calendars.map((one) => new ICAL.Component(one as never));
  } catch {
    throw new CalendarError('not-a-calendar');
  }
}

class EventReader {
  private readonly zones = new Map<string, string | null>();

  constructor(
    private readonly calendar: ICAL.Component,
    private readonly own: string,
    private readonly candidates: readonly string[],
  ) {}

  plan(event: ICAL.Component, moved: readonly ICAL.Component[]): CalendarPlan {
    const property = event.getFirstProperty('dtstart');
    const value = property?.getFirstValue();
    if (!property || !(value instanceof ICAL.Time)) throw new CantPlan('It has no beginning.');
    if (value.isDate) throw new CantPlan('It is all day long: a lesson has a time.');
    const zone = this.zone(property);
    const start = wall(value);
    const minutes = minutesOf(event, value);
    if (minutes < 1 || minutes > LONGEST) throw new CantPlan('It is longer than a lesson can be.');
    const rules = event.getAllProperties('rrule').map((rule) => String(rule.getFirstValue()));
    if (rules.length > 1) throw new CantPlan('It comes by two rules at once.');
    const checked = rules[0] === undefined ? null : checkRule(localEnd(rules[0], zone));
    if (checked && 'fault' in checked) throw new CantPlan(checked.fault);
    const changes: PlanChange[] = [];
    if (words(event, 'status').toUpperCase() === 'CANCELLED')
      throw new CantPlan('It is cancelled.');
    for (const out of event.getAllProperties('exdate'))
      for (const time of out.getValues() as ICAL.Time[])
        changes.push({ was: this.inZone(time, out, zone), now: null, why: '' });
    for (const one of moved) {
      const id = one.getFirstProperty('recurrence-id')!;
      const was = this.inZone(id.getFirstValue() as ICAL.Time, id, zone);
      const at = one.getFirstProperty('dtstart');
      const off = words(one, 'status').toUpperCase() === 'CANCELLED' || !at;
      const now = off ? null : this.inZone(at.getFirstValue() as ICAL.Time, at, zone);
      changes.push({ was, now, why: '' });
    }
    if (changes.length > MOST_CHANGES)
      throw new CantPlan('It has more exceptions than can be kept.');
    return {
      summary: words(event, 'summary'),
      start,
      zone,
      minutes,
      rule: checked?.rule ?? null,
      changes,
    };
  }

  /** A time as the clock of a zone shows it. */
  private inZone(time: ICAL.Time, property: ICAL.Property, zone: string): WallTime {
    const from = this.zone(property);
    if (from === zone) return wall(time);
    return DateTime.fromISO(wall(time), { zone: from })
      .setZone(zone)
      .toFormat("yyyy-MM-dd'T'HH:mm");
  }

  private zone(property: ICAL.Property): string {
    const value = property.getFirstValue() as ICAL.Time;
    const tzid = property.getFirstParameter('tzid');
    if (!tzid) return value.zone === ICAL.Timezone.utcTimezone ? 'UTC' : this.own;
    let known = this.zones.get(tzid);
    if (known === undefined) {
      const described = this.calendar
        .getAllSubcomponents('vtimezone')
        .find((zone) => words(zone, 'tzid') === tzid);
      known = zoneOf(tzid, described ?? null, [this.own, ...this.candidates], value.year);
      this.zones.set(tzid, known);
    }
    if (known === null) throw new CantPlan(`Its time zone isn’t known here: ${tzid}.`);
    return known;
  }
}

function minutesOf(event: ICAL.Component, start: ICAL.Time): number {
  const duration = event.getFirstPropertyValue('duration');
  if (duration instanceof ICAL.Duration) return Math.round(duration.toSeconds() / 60);
  const end = event.getFirstPropertyValue('dtend');
  if (!(end instanceof ICAL.Time)) return USUAL_MINUTES;
  const ms = Date.parse(`${wall(end)}Z`) - Date.parse(`${wall(start)}Z`);
  return Math.round(ms / 60_000);
}

/** The end of a rule by the clock of its zone. */
function localEnd(rule: string, zone: string): string {
  return rule.replace(/UNTIL=(\d{8}T\d{6})Z/, (_, utc: string) => {
    const at = DateTime.fromFormat(utc, "yyyyMMdd'T'HHmmss", { zone: 'utc' }).setZone(zone);
    return `UNTIL=${at.toFormat("yyyyMMdd'T'HHmmss")}`;
  });
}

function wall(time: ICAL.Time): WallTime {
  return time.toString().slice(0, 16);
}

function words(component: ICAL.Component, name: string): string {
  const value = component.getFirstPropertyValue(name);
  return typeof value === 'string' ? value : '';
}
