import { newId, tokensOf } from '@cuaderno/core';
import { chance } from '@cuaderno/core/testing';
import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { openDatabase } from '../../apps/server/dist/database/index.js';
import { launch, visitor } from './browser.js';
import { percentile, result } from './result.js';
import type { Result } from './result.js';
import { BenchServer } from './server.js';

const RECORDS = 1000;
/** Pages of a record, words on each, and how many different words there are. */
const PAGES = 8;
const WORDS = 120;
const DIFFERENT = 4000;
/** From the last key to the first results on screen, in ms. */
const LIMIT = 150;
/** In one record, in some, in all, in none, and two words that must both be there. */
const ASKED = ['xylophone', 'word17', 'word', 'nowhere', 'word3 word11'] as const;

type BenchStatement = Parameters<Awaited<ReturnType<typeof openDatabase>>['raw']>[0][number];

/** As a thousand closed lessons leave them. */
async function fill(server: BenchServer): Promise<void> {
  const path = resolve(import.meta.dirname, '../../apps/server/dist/database/index.js');
  const database = (await import(pathToFileURL(path).href)) as {
    openDatabase: typeof openDatabase;
  };
  const db = await database.openDatabase(server.folder);
  const random = chance(5);
  const word = (): string => `word${Math.floor(random() ** 2 * DIFFERENT)}`;
  const day = 86_400_000;
  let statements: BenchStatement[] = [];
  const add = (sql: string, ...params: unknown[]): number => statements.push({ sql, params });
  for (let n = 0; n < RECORDS; n++) {
    const [lesson, person, board] = [newId(), newId(), newId()];
    const openedAt = Date.now() - n * day;
    add(
      'INSERT INTO lessons (id, course, board, opened_at, closed_at, alive_at) VALUES (?, ?, ?, ?, ?, ?)',
      ...[lesson, server.course.id, board, openedAt, openedAt + 3e6, openedAt + 3e6],
    );
    add(
      "INSERT INTO people (id, lesson, name, name_ordinal, role, trust, arrived_at) VALUES (?, ?, ?, 1, 'student', 'write', ?)",
      ...[person, lesson, ['Ida', 'Jonas', 'Noor'][n % 3], openedAt],
    );
    add(
      'INSERT INTO spans (lesson, person, from_at, to_at) VALUES (?, ?, ?, ?)',
      ...[lesson, person, openedAt, openedAt + 3e6],
    );
    add(
      'INSERT INTO records (lesson, sealed_at, title, page_count, board, seq, whole_at) VALUES (?, ?, ?, ?, ?, 1, ?)',
      ...[lesson, openedAt + 3e6, `Lesson ${n}`, PAGES, board, openedAt + 3e6],
    );
    for (let p = 1; p <= PAGES; p++) {
      const said = Array.from({ length: WORDS }, word).join(' ');
      const whole = n === 700 && p === 3 ? `${said} xylophone` : said;
      add(
        "INSERT INTO record_words (lesson, source, page, number, said, tokens) VALUES (?, 'page', ?, ?, ?, ?)",
        ...[lesson, newId(), p, whole, tokensOf(whole).join(' ')],
      );
    }
    if (statements.length < 400) continue;
    await db.raw(statements);
    statements = [];
  }
  await db.raw(statements);
  await db.close();
}

/** From the last key typed to the first records on screen, among a thousand of eight pages of words. */
export async function measure(): Promise<Result> {
  const server = await BenchServer.start();
  await fill(server);
  const browser = await launch();
  const page = await (await visitor(browser, server.url, server.cookie)).newPage();
  await page.goto(`${server.url}/records`);
  await page.locator('li.card').first().waitFor();
  const times: number[] = [];
  for (const asked of [...ASKED, ...ASKED]) {
    const took = await page.evaluate(async (words) => {
      const status = (): string => document.querySelector('[role=status]')?.textContent ?? '';
      const marked = (): string => document.querySelector('.places mark')?.textContent ?? '';
      const frame = (): Promise<number> => new Promise((done) => requestAnimationFrame(done));
      const input = document.querySelector<HTMLInputElement>('input[name=words]')!;
      const set = (text: string): void => {
        input.value = text;
        input.dispatchEvent(new Event('input', { bubbles: true }));
      };
      const begins = words.split(' ')[0]!;
      const there = (): boolean =>
        words === 'nowhere'
          ? status().trim() === '' && document.querySelector('[cuaEmpty]') !== null
          : marked().startsWith(begins);
      // All are shown before, so that what is seen is what was asked for.
      set('');
      while (marked() !== '' || document.querySelector('li.card') === null) await frame();
      // The last key comes a tenth of a second after the one before it: common practice, no source.
      for (const until = performance.now() + 100; performance.now() < until; await frame());
      const began = performance.now();
      set(words);
      while (!there()) await frame();
      await frame();
      return performance.now() - began;
    }, asked);
    times.push(took);
  }
  await browser.close();
  await server.close();
  console.log(ASKED.map((one, i) => `“${one}” ${times[i]!.toFixed(0)} ms`).join(', '));
  return result('search', `ms, the slowest of ${times.length}`, percentile(times, 1), LIMIT, 1);
}
