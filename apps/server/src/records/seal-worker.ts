import '../workers/own-response.js';
import { fold, pagesInOrder, recordTitle, SAID_SOURCES, typedOn } from '@cuaderno/core';
import type { Board, Id, Page } from '@cuaderno/core';
import { replayEventsOf, statisticsOf } from '@cuaderno/core/replay';
import { wordsOfPdf } from '@cuaderno/formats/pdf-in';
import { eq } from 'drizzle-orm';
import { readFile } from 'node:fs/promises';
import type { MessagePort } from 'node:worker_threads';
import { LogStore } from '../boards/log-store.js';
import { lentDatabase } from '../database/index.js';
import { filePath } from '../files/store.js';
import { lessons } from '../lessons/tables.js';
import { saidIn } from '../live/features/kept.js';
import { Records } from './service.js';
import { records } from './tables.js';
import { forget, wordRow } from './words.js';

export interface SealTask {
  /** Leads to the database. */
  readonly port: MessagePort;
  readonly lesson: Id;
  /** Folder of stored files. */
  readonly files: string;
  /** Told how many pages are done, and of how many. */
  readonly news: MessagePort;
}

/** Writes down all that a record is found by and counted in; all of it, or nothing. */
export async function sealRecord({ port, lesson, files, news }: SealTask): Promise<void> {
  const db = lentDatabase(port);
  try {
    const [record] = await db.select().from(records).where(eq(records.lesson, lesson));
    const [row] = await db.select().from(lessons).where(eq(lessons.id, lesson));
    if (!record || !row) throw new Error('There is no such record.');
    const logs = new LogStore(db);
    const reader = new Records(db, logs);
    const { before, entries } = await reader.log(record);
    const board = fold(before, entries);
    const pages = pagesInOrder(board);
    const titles = (await reader.boards(record)).map(({ title }) => title);
    const whole = { from: row.openedAt, to: row.closedAt ?? record.sealedAt };
    const beside = await reader.timeline(lesson);
    const people = await reader.attendance(lesson, whole.to);
    const statistics = statisticsOf(
      whole,
      replayEventsOf(entries.filter((entry) => entry.lesson === lesson)),
      beside,
      people.map(({ id }) => id),
      people.find(({ role }) => role === 'tutor')?.id ?? null,
    );
    const words: { sql: string; params: unknown[] }[] = [];
    const printed = await printedWords(board, files, (done) =>
      news.postMessage([done, pages.length]),
    );
    pages.forEach((page, i) => {
      const said = [typedOn(page), printed.get(page.id) ?? ''].filter(Boolean).join('\n');
      words.push(wordRow({ lesson, source: 'page', page: page.id, number: i + 1, said }));
    });
    for (const piece of saidIn(beside))
      words.push(wordRow({ ...piece, lesson, page: null, number: null }));
    await db.raw([
      forget(lesson, ['page', ...SAID_SOURCES]),
      ...words.filter(({ params }) => params[0] !== ''),
      {
        sql: 'UPDATE records SET title = ?, page_count = ?, statistics = ?, whole_at = ? WHERE lesson = ?',
        params: [recordTitle(titles), pages.length, JSON.stringify(statistics), Date.now(), lesson],
      },
    ]);
  } finally {
    news.close();
    await db.close();
  }
}

/** Words of imported pages: each file is opened once, and one that can't be read has none. */
async function printedWords(
  board: Board,
  files: string,
  told: (done: number) => void,
): Promise<Map<Id, string>> {
  const byFile = new Map<string, Page[]>();
  const pages = pagesInOrder(board);
  for (const page of pages)
    if (page.paper.kind === 'pdf')
      byFile.set(page.paper.file, [...(byFile.get(page.paper.file) ?? []), page]);
  const words = new Map<Id, string>();
  let done = pages.length - [...byFile.values()].reduce((sum, list) => sum + list.length, 0);
  told(done);
  for (const [file, list] of byFile) {
    const numberOf = ({ paper }: Page): number => (paper.kind === 'pdf' ? paper.number : 0);
    const numbers = function* (): Generator<number> {
      for (const page of list) {
        yield numberOf(page);
        told(++done);
      }
    };
    const bytes = await readFile(filePath(files, file)).catch(() => null);
    const found = bytes && (await wordsOfPdf(new Uint8Array(bytes), numbers()).catch(() => null));
    for (const page of list) words.set(page.id, found?.get(numberOf(page)) ?? '');
  }
  return words;
}
