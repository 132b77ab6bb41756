import { nameOf, SAID_SOURCES } from '@cuaderno/core';
import type { RecordTimeline } from '@cuaderno/core';
import type { AppendixPart } from '@cuaderno/core/appendix';
import type { AppendixName, Attendance, RecordInfo } from '@cuaderno/contract/records';
import { keptAppendix } from '../live/features/kept.js';
import { clockIn, dayIn } from '../live/features/times.js';

export interface AppendixContent {
  readonly record: Pick<RecordInfo, 'courseName' | 'title' | 'openedAt' | 'closedAt'>;
  /** What was noted, as it is now; empty where nothing was. */
  readonly summary: string;
  readonly until: string;
  /** What was said beside the pages. */
  readonly timeline: RecordTimeline;
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
  for (const source of SAID_SOURCES) {
    const said = wanted.has(source) && keptAppendix(source, content.timeline, { ...content, zone });
    if (said) parts.push(said);
  }
  if (wanted.has('attendance')) parts.push(attendanceOf(content, zone));
  return parts;
}

function notesOf({ record, summary, until }: AppendixContent, zone: string): AppendixPart[] {
  const under = `${record.courseName} · ${dayIn(record.openedAt, zone)}`;
  const words = (text: string): AppendixPart['body'] => ({ kind: 'words', words: text });
  const parts: AppendixPart[] = [
    ...(summary ? [{ heading: 'Summary', body: words(summary) }] : []),
    ...(until ? [{ heading: 'Until next time', body: words(until) }] : []),
  ];
  return parts.map((part, i) => (i === 0 ? { ...part, page: 'Notes', under } : part));
}

const ROLE: Record<Attendance['role'], string> = {
  tutor: ' (tutor)',
  helper: ' (helped)',
  watcher: ' (watched)',
  student: '',
};

function attendanceOf({ record, people }: AppendixContent, zone: string): AppendixPart {
  const minutes = (ms: number): string => `${Math.round(ms / 60_000)} min`;
  return {
    heading: 'Who was there',
    page: 'Attendance',
    under: `${dayIn(record.openedAt, zone)}, ${clockIn(record.openedAt, zone)} to ${clockIn(record.closedAt, zone)}, times in ${zone}`,
    body: {
      kind: 'table',
      widths: [0.4, 0.4, 0.2],
      header: ['Name', 'From and to', 'In all'],
      rows: people.map((person) => [
        nameOf(person) + ROLE[person.role],
        person.spans
          .map(({ from, to }) => `${clockIn(from, zone)} – ${clockIn(to, zone)}`)
          .join('\n'),
        minutes(person.spans.reduce((sum, { from, to }) => sum + to - from, 0)),
      ]),
    },
  };
}
