import { DateTime } from 'luxon';

/** A day, as it is said above what happened on it. @param ms since 1970 @param zone IANA name of its time zone */
export function dayIn(ms: number, zone: string): string {
  return DateTime.fromMillis(ms, { zone }).setLocale('en-GB').toFormat('cccc d MMMM yyyy');
}

/** A moment's hour and minute. @param ms since 1970 @param zone IANA name of its time zone */
export function clockIn(ms: number, zone: string): string {
  return DateTime.fromMillis(ms, { zone }).toFormat('HH:mm');
}
