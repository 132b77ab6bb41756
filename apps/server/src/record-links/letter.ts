import { DateTime } from 'luxon';
import type { RecordLink } from '@cuaderno/contract/record-links';

export interface LetterAbout {
  readonly link: Pick<RecordLink, 'token' | 'forWhom' | 'until' | 'may'>;
  readonly tutor: string;
  readonly course: string;
  /** The one record; `null` where it is all of the course. */
  readonly record: { readonly title: string; readonly openedAt: number } | null;
  /** Where this server is found, as `https://…`. */
  readonly origin: string;
  /** IANA name of the time zone in which days are said. */
  readonly zone: string;
}

/** The letter that brings somebody a link. */
export function letterOf({ link, tutor, course, record, origin, zone }: LetterAbout): {
  subject: string;
  body: string;
} {
  const day = (ms: number): string =>
    DateTime.fromMillis(ms, { zone }).setLocale('en-GB').toFormat('cccc d MMMM yyyy');
  const what = record
    ? `the lesson of ${day(record.openedAt)}`
    : 'our lessons, those to come included';
  const may =
    link.may === 'download' ? 'look at every page and keep it as a PDF' : 'look at every page';
  return {
    subject: record ? `${course}: ${day(record.openedAt)}` : `${course}: what we do in our lessons`,
    body: [
      `Hello ${link.forWhom},`,
      `here are the records of ${what} (${course}):`,
      `${origin}/shared/${link.token}`,
      `You can ${may}, on a phone or a computer; there is nothing to install and no account to make. It opens until ${day(link.until)}.`,
      `This link is yours alone. Please don’t pass it on.`,
      tutor,
    ].join('\n\n'),
  };
}
