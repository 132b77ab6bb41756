import type { RecordPart } from '@cuaderno/core';
import type { KeptLesson } from '../kept-part.js';
import { clockIn, dayIn } from '../times.js';
import { calledIn } from './called.js';

/**
 * The chat of a lesson as people read it: a line for each message, further lines of one set in under it.
 */
export function chatText(
  { chat }: RecordPart<'talk'>,
  { record, people, zone }: KeptLesson,
): string {
  const { name, whom } = calledIn(people);
  const lines = chat.map(({ by, to, text, at }) => {
    const head = `${clockIn(at, zone)}  ${name(by)}${whom(to)}: `;
    return head + text.split(/\r?\n/).join(`\n${' '.repeat(7)}`);
  });
  return [
    `${record.courseName}: ${record.title}`,
    `${dayIn(record.openedAt, zone)}, times in ${zone}`,
    '',
    ...(lines.length > 0 ? lines : ['Nobody wrote in the chat.']),
    '',
  ].join('\n');
}
