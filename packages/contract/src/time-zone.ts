import * as z from 'zod';

/** Whether this machine knows a time zone of that name (IANA). */
export function isTimeZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    return true;
  } catch {
    return false;
  }
}

/** The time zone in which times are said: that of the person who asks. */
export const Zone = z.object({
  zone: z.string().max(100).refine(isTimeZone, 'a time zone, as Europe/Oslo').default('UTC'),
});

/** An IANA time zone. */
export const ZoneName = z.string().max(100).refine(isTimeZone, 'There is no such time zone.');
