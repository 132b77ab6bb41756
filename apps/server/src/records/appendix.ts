import { nameOf } from '@cuaderno/core';
import type { AppendixPart } from '@cuaderno/core/appendix';
import { DateTime } from 'luxon';
import type { Attendance, RecordInfo, Timeline } from './shapes.js';

/** What can follow the pages of a record. */
export const APPENDIX = ['notes', 'chat', 'attendance'] as const;
export type AppendixName = (typeof APPENDIX)[number];

export interface AppendixContent {
  readonly record: Pick<RecordInfo, 'courseName' | 'title' | 'openedAt' | 'closedAt'>;
  /** What was noted, as it is now; empty where nothing was. */
  readonly summary: string;
  readonly until: string;
  readonly chat: Timeline['chat'];
  readonly people: readonly Attendance[];
}

/**
 * What follows the pages of a record, in words; where nothing was noted or said, nothing follows.
 *
 * @param zone IANA name of the time zone in which times are said
 */
export function appendixOf(
  wanted: ReadonlySet<AppendixName>,
  content: AppendixContent,
  zone: string,
): AppendixPart[] {
  const parts: AppendixPart[] = [];
  if (wanted.has('notes')) parts.push(...notesOf(content, zone));
  if (wanted.has('chat') && content.chat.length > 0) parts.push(chatOf(content, zone));
  if (wanted.has('attendance')) parts.push(attendanceOf(content, zone));
  return parts;
}

function notesOf({ record, summary, until }: AppendixContent, zone: string): AppendixPart[] {
  const under = `${record.courseName} · ${day(record.openedAt, zone)}`;
  const words = (text: string): AppendixPart['body'] => ({ kind: 'words', words: text });
  const parts: AppendixPart[] = [
    ...(summary ? [{ heading: 'Summary', body: words(summary) }] : []),
    ...(until ? [{ heading: 'Until next time', body: words(until) }] : []),
  ];
  return parts.map((part, i) => (i === 0 ? { ...part, page: 'Notes', under } : part));
}

function chatOf({ record, chat, people }: AppendixContent, zone: string): AppendixPart {
  const names = new Map(people.map((person) => [person.id, nameOf(person)] as const));
  const called = (id: string): string => names.get(id) ?? 'somebody';
  const heard = (to: string): string =>
    to === 'all' ? '' : to === 'tutor' ? ' to the tutor' : ` to ${called(to)}`;
  const heading = 'Chat';
  const under = `${day(record.openedAt, zone)}, times in ${zone}`;
  return {
    ...{ heading, page: 'Chat', under },
    body: {
      kind: 'table',
      widths: [0.1, 0.24, 0.66],
      header: ['Time', 'Who', 'Said'],
      rows: chat.map(({ by, to, text, at }) => [clock(at, zone), called(by) + heard(to), text]),
    },
  };
}

function attendanceOf({ record, people }: AppendixContent, zone: string): AppendixPart {
  const minutes = (ms: number): string => `${Math.round(ms / 60_000)} min`;
  return {
    heading: 'Who was there',
    page: 'Attendance',
    under: `${day(record.openedAt, zone)}, ${clock(record.openedAt, zone)} to ${clock(record.closedAt, zone)}, times in ${zone}`,
    body: {
      kind: 'table',
      widths: [0.4, 0.4, 0.2],
      header: ['Name', 'From and to', 'In all'],
      rows: people.map((person) => [
        nameOf(person) + (person.role === 'tutor' ? ' (tutor)' : ''),
        person.spans.map(({ from, to }) => `${clock(from, zone)} – ${clock(to, zone)}`).join('\n'),
        minutes(person.spans.reduce((sum, { from, to }) => sum + to - from, 0)),
      ]),
    },
  };
}

function day(ms: number, zone: string): string {
  return DateTime.fromMillis(ms, { zone }).setLocale('en-GB').toFormat('cccc d MMMM yyyy');
}

function clock(ms: number, zone: string): string {
  return DateTime.fromMillis(ms, { zone }).toFormat('HH:mm');
}
