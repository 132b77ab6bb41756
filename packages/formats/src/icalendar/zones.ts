import ICAL from 'ical.js';
import { DateTime, IANAZone } from 'luxon';

const HOUR = 3_600_000;
/** Years for which a zone's changes of the clock are written down. */
const YEARS = 12;

/** A zone as iCalendar describes it (RFC 5545, 3.6.5): each change of the clock from a year on. */
export function zoneComponent(zone: string, fromYear: number): ICAL.Component {
  const component = new ICAL.Component('vtimezone');
  component.addPropertyWithValue('tzid', zone);
  const start = Date.UTC(fromYear, 0, 1);
  const offsetAt = (ms: number): number => DateTime.fromMillis(ms, { zone }).offset;
  const add = (at: number, before: number, after: number): void => {
    const summer = DateTime.fromMillis(at, { zone }).isInDST;
    const change = new ICAL.Component(summer ? 'daylight' : 'standard');
    // By the clock as it was until then.
    const wall = new Date(at + before * 60_000).toISOString().slice(0, 19);
    change.addPropertyWithValue('dtstart', ICAL.Time.fromDateTimeString(wall));
    change.addPropertyWithValue('tzoffsetfrom', ICAL.UtcOffset.fromSeconds(before * 60));
    change.addPropertyWithValue('tzoffsetto', ICAL.UtcOffset.fromSeconds(after * 60));
    change.addPropertyWithValue(
      'tzname',
      DateTime.fromMillis(at, { zone, locale: 'en-GB' }).offsetNameShort ?? zone,
    );
    component.addSubcomponent(change);
  };
  add(start, offsetAt(start), offsetAt(start));
  const end = Date.UTC(fromYear + YEARS, 0, 1);
  for (let at = start; at < end; at += 24 * HOUR) {
    const [before, after] = [offsetAt(at), offsetAt(at + 24 * HOUR)];
    if (before === after) continue;
    let [low, high] = [at, at + 24 * HOUR];
    while (high - low > 60_000) {
      const middle = low + Math.floor((high - low) / 120_000) * 60_000;
      if (offsetAt(middle) === before) low = middle;
      else high = middle;
    }
    add(high, before, after);
  }
  return component;
}

/**
 * The IANA zone that a file means. Files call zones as their programs do; then it is the first of the candidates
 * whose clock goes as the file describes it, in summer and in winter. `null` where there is none.
 */
export function zoneOf(
  tzid: string,
  described: ICAL.Component | null,
  candidates: readonly string[],
  year: number,
): string | null {
  // Some put a path before the name: /vendor/Europe/Oslo.
  for (const name of [tzid, tzid.split('/').slice(-2).join('/')])
    if (/[A-Za-z]+\/|^UTC$/.test(name) && IANAZone.isValidZone(name)) return name;
  if (!described) return null;
  const zone = new ICAL.Timezone({ component: described, tzid });
  const samples = Array.from(
    { length: 12 },
    (_, month) => new ICAL.Time({ year, month: month + 1, day: 15, hour: 12 }, zone),
  );
  const goes = (candidate: string): boolean =>
    samples.every((time) => {
      const ms = time.toUnixTime() * 1000;
      return DateTime.fromMillis(ms, { zone: candidate }).offset * 60 === zone.utcOffset(time);
    });
  return candidates.find(goes) ?? null;
}
