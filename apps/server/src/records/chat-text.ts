import { nameOf } from '@cuaderno/core';
import { DateTime } from 'luxon';
import type { Attendance, RecordInfo, Timeline } from './shapes.js';

/**
 * The chat of a lesson as people read it: a line for each message, further lines of one set in under it.
 *
 * @param zone IANA name of the time zone in which times are said
 */
export function chatText(
  record: Pick<RecordInfo, 'courseName' | 'title' | 'openedAt'>,
  chat: Timeline['chat'],
  people: readonly Pick<Attendance, 'id' | 'name' | 'nth'>[],
  zone: string,
): string {
  const at = (ms: number, format: string): string =>
    DateTime.fromMillis(ms, { zone }).setLocale('en-GB').toFormat(format);
  const names = new Map(people.map((person) => [person.id, nameOf(person)] as const));
  const called = (id: string): string => names.get(id) ?? 'somebody';
  const to = (whom: string): string =>
    whom === 'all' ? '' : whom === 'tutor' ? ' to the tutor' : ` to ${called(whom)}`;
  const lines = chat.map(({ by, to: whom, text, at: when }) => {
    const head = `${at(when, 'HH:mm')}  ${called(by)}${to(whom)}: `;
    return head + text.split(/\r?\n/).join(`\n${' '.repeat(7)}`);
  });
  return [
    `${record.courseName}: ${record.title}`,
    `${at(record.openedAt, 'cccc d MMMM yyyy')}, times in ${zone}`,
    '',
    ...(lines.length > 0 ? lines : ['Nobody wrote in the chat.']),
    '',
  ].join('\n');
}
