import { momentOf } from '@cuaderno/core/timetable';
import type { Plan, WallTime } from '@cuaderno/core/timetable';
import ICAL from 'ical.js';
import { zoneComponent } from './zones.js';

/** A plan with what calendars show of it. */
export interface CalendarEntry {
  readonly plan: Plan;
  readonly summary: string;
}

/** Plans as an iCalendar (RFC 5545): series with their rules, moved dates as such, cancelled ones left out. */
export function writeICalendar(entries: readonly CalendarEntry[], now: number): string {
  const calendar = emptyCalendar();
  const zones = new Map<string, number>();
  for (const { plan } of entries) {
    const year = Number(plan.start.slice(0, 4));
    zones.set(plan.zone, Math.min(zones.get(plan.zone) ?? year, year));
  }
  for (const [zone, year] of zones)
    if (zone !== 'UTC') calendar.addSubcomponent(zoneComponent(zone, year));
  for (const entry of entries)
    for (const event of eventsOf(entry, now)) calendar.addSubcomponent(event);
  return `${calendar.toString()}\r\n`;
}

export function emptyCalendar(): ICAL.Component {
  const calendar = new ICAL.Component('vcalendar');
  calendar.addPropertyWithValue('version', '2.0');
  calendar.addPropertyWithValue('prodid', '-//Cuaderno//Timetable//EN');
  calendar.addPropertyWithValue('calscale', 'GREGORIAN');
  return calendar;
}

function eventsOf({ plan, summary }: CalendarEntry, now: number): ICAL.Component[] {
  const event = (start: WallTime): ICAL.Component => {
    const component = new ICAL.Component('vevent');
    component.addPropertyWithValue('uid', `${plan.id}@cuaderno`);
    const stamp = new Date(now).toISOString().slice(0, 19);
    component.addPropertyWithValue('dtstamp', ICAL.Time.fromDateTimeString(`${stamp}Z`));
    addTime(component, 'dtstart', start, plan.zone);
    component.addPropertyWithValue('duration', ICAL.Duration.fromSeconds(plan.minutes * 60));
    component.addPropertyWithValue('summary', summary);
    return component;
  };
  const whole = event(plan.start);
  if (plan.rule)
    whole.addPropertyWithValue('rrule', ICAL.Recur.fromString(withUtcEnd(plan.rule, plan.zone)));
  const moved: ICAL.Component[] = [];
  for (const { was, now: instead } of plan.changes) {
    if (plan.rule === null) continue;
    if (instead === null) {
      addTime(whole, 'exdate', was, plan.zone);
    } else {
      const one = event(instead);
      addTime(one, 'recurrence-id', was, plan.zone);
      moved.push(one);
    }
  }
  if (plan.rule === null && plan.changes[0]) {
    const [{ now: instead }] = plan.changes as [Plan['changes'][number]];
    if (instead === null) whole.addPropertyWithValue('status', 'CANCELLED');
    else return [event(instead)];
  }
  return [whole, ...moved];
}

function addTime(component: ICAL.Component, name: string, time: WallTime, zone: string): void {
  const value = ICAL.Time.fromDateTimeString(`${time}:00${zone === 'UTC' ? 'Z' : ''}`);
  const property = component.addPropertyWithValue(name, value);
  if (zone !== 'UTC') property.setParameter('tzid', zone);
}

/** Where times have a zone, the end of a rule is told in universal time (3.3.10). */
function withUtcEnd(rule: string, zone: string): string {
  return rule.replace(/UNTIL=(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)(?!Z)/, (_, y, mo, d, h, mi) => {
    const utc = new Date(momentOf(`${y}-${mo}-${d}T${h}:${mi}`, zone)).toISOString();
    return `UNTIL=${utc.slice(0, 19).replace(/[-:]/g, '')}Z`;
  });
}
