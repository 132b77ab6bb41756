import { captionCues, nameOf } from '@cuaderno/core';
import type { RecordPart } from '@cuaderno/core';
import { writeWebVtt } from '@cuaderno/formats/webvtt';
import { asc, eq } from 'drizzle-orm';
import { LISTED } from '../kept-part.js';
import type { KeptLesson, KeptPart } from '../kept-part.js';
import { clockIn, dayIn } from '../times.js';
import { captions as table } from './tables.js';

/** Captions of a lesson as WebVTT; times are from its opening, as those of its film are. */
function captionsFile({ captions }: RecordPart<'captions'>, { record, zone }: KeptLesson): string {
  const cues = captionCues(captions).map(({ from, to, text }) => ({
    ...{ from: from - record.openedAt, to: to - record.openedAt, text },
  }));
  const day = dayIn(record.openedAt, zone);
  return writeWebVtt(cues, `${record.courseName}: ${record.title}, ${day}`);
}

/** What was said in a lesson, as somebody typed it. */
export const keptCaptions: KeptPart<'captions'> = {
  tables: ['captions', 'caption_writers'],
  async read(db, lesson) {
    const rows = await db
      .select()
      .from(table)
      .where(eq(table.lesson, lesson))
      .orderBy(asc(table.fromAt), asc(table.at));
    return { captions: rows.map(({ by, text, fromAt, at }) => ({ by, text, from: fromAt, at })) };
  },
  said: ({ captions }) => captions.map(({ text }) => ({ source: 'captions', said: text })),
  of: ({ captions }, people) => ({ captions: captions.filter(({ by }) => people.has(by)) }),
  files: [
    {
      name: 'captions',
      ending: '.vtt',
      type: 'text/vtt; charset=utf-8',
      isEmpty: ({ captions }) => captions.length === 0,
      write: captionsFile,
    },
  ],
  appendix({ captions }, { record, people, zone }) {
    if (captions.length === 0) return null;
    const typed = new Set(captions.map(({ by }) => by));
    const names = people.filter(({ id }) => typed.has(id)).map((person) => nameOf(person));
    const by = names.length > 0 ? `, typed by ${names.join(' and ')}` : '';
    return {
      heading: 'Captions',
      page: 'Captions',
      under: `${dayIn(record.openedAt, zone)}, times in ${zone}${by}`,
      body: {
        kind: 'table',
        widths: [0.1, 0.9],
        header: ['Time', 'Said'],
        rows: captions.map(({ text, from }) => [clockIn(from, zone), text]),
      },
    };
  },
  redact: (people) => [
    { sql: `DELETE FROM captions WHERE "by" ${LISTED}`, params: [people] },
    { sql: `DELETE FROM caption_writers WHERE person ${LISTED}`, params: [people] },
  ],
  count: {
    captions: 'SELECT count(*) FROM captions t WHERE t.lesson = l.id AND t."by" = p.id',
  },
  mentions: [{ table: 'captions', column: 'text' }],
};
