import type { Deletion, NameLeft } from '../../api/student-data';
import { SAID_SOURCES } from '@cuaderno/core/features';
import type { SaidSource } from '@cuaderno/core/features';
import { SAID } from '../../live/features/in-record';
import { formatDate } from '../../ui/time/format-time';

/** "1 message", "3 messages" */
export function count(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`;
}

const LEFT: Readonly<Record<NameLeft['where'], (title: string, pages: string) => string>> = {
  page: (title, pages) =>
    `It is typed on “${title}”, ${pages}. Open the board and change it there; records keep their pages as they were.`,
  board: (title) => `A board is called “${title}”. Give it another name.`,
  record: (title) => `A record is called “${title}”, as its board was then.`,
  material: (title) => `A file is called “${title}”. Rename it in Materials.`,
};

type SaidCounts = Readonly<Partial<Record<SaidSource, number>>>;

/** "3 messages", "3 messages and 1 caption" */
export function saidCounts(said: SaidCounts): string {
  const some = SAID_SOURCES.filter((source) => (said[source] ?? 0) > 0).map((source) =>
    count(said[source]!, SAID[source].one, SAID[source].many),
  );
  return some.join(' and ') || `no ${SAID[SAID_SOURCES[0]!].many}`;
}

function saidLine(said: SaidCounts): string {
  const all = Object.values(said).reduce((sum, n) => sum + n, 0);
  if (all === 0) return 'There was nothing that they had said, or that was said to them alone.';
  return `${saidCounts(said)} from them or to them alone ${all === 1 ? 'was' : 'were'} deleted.`;
}

/** What was done, sentence by sentence; without the name, which is nowhere any more. */
export function reportLines({ report }: Deletion): string[] {
  const { alias, courses, lessons, ink, boards, entries, said } = report;
  const { links, letters, guestLinks, browsers, renamed } = report;
  const lines = [
    `Their name is now “${alias}”, in ${count(lessons, 'lesson')} of ${courses.join(', ')}: on records, in attendance and beside ink.`,
    ink === 'take-out'
      ? entries === 0
        ? 'There was no ink of theirs on any board.'
        : `Their ink was removed from ${count(boards, 'board')}, of every copy and record of them, and of what replays show: ${count(entries, 'entry', 'entries')} of the log ${entries === 1 ? 'is' : 'are'} empty now.`
      : 'Their ink stays, without their name.',
    saidLine(said),
  ];
  if (links > 0)
    lines.push(
      `${count(links, 'link')} to records that ${links === 1 ? 'was' : 'were'} theirs or named them ${links === 1 ? 'leads' : 'lead'} nowhere any more; who opened ${links === 1 ? 'it' : 'them'}, and ${count(letters, 'letter')}, ${letters === 1 && links === 1 ? 'was' : 'were'} deleted.`,
    );
  if (guestLinks > 0)
    lines.push(`${count(guestLinks, 'guest link')} of theirs ended, and names nobody.`);
  if (browsers > 0)
    lines.push(
      `${count(browsers, 'browser')} of theirs ${browsers === 1 ? 'isn’t' : 'aren’t'} known at the door any more.`,
    );
  lines.push(
    renamed > 0
      ? `“${alias}” stands in place of the name in ${count(renamed, 'text')} of yours: chat, notes, plans, reasons, letters, names of courses and folders.`
      : 'Nothing that you wrote was changed.',
  );
  return lines;
}

/** Where the name still stands. */
export function leftLines({ report }: Deletion): string[] {
  return report.left.map(({ where, title, pages }) =>
    LEFT[where](title, `${pages.length === 1 ? 'page' : 'pages'} ${pages.join(', ')}`),
  );
}

export const BEYOND =
  'Files that were saved before, as PDF, as an archive or as a copy of this server’s folder, are out of reach: delete them where they are.';

/** The report as plain text, to be kept or sent on. */
export function reportText(deletion: Deletion): string {
  const left = leftLines(deletion);
  return [
    `Deleting a student’s data, ${formatDate(deletion.at)}`,
    '',
    ...reportLines(deletion).map((line) => `- ${line}`),
    ...(left.length > 0
      ? ['', 'The name still stands here:', ...left.map((line) => `- ${line}`)]
      : []),
    '',
    BEYOND,
    '',
  ].join('\r\n');
}
