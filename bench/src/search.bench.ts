import { newId } from '@cuaderno/core';
import { chance } from '@cuaderno/core/testing';
import { openDatabase } from '../../apps/server/dist/database/index.js';
import { lessons, people, recordBoards, spans } from '../../apps/server/dist/lessons/tables.js';
import { records } from '../../apps/server/dist/records/tables.js';
import { wordRow } from '../../apps/server/dist/records/words.js';
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

/** As a thousand closed lessons leave them. */
async function fill(server: BenchServer): Promise<void> {
  const db = await openDatabase(server.folder);
  const random = chance(5);
  const word = (): string => `word${Math.floor(random() ** 2 * DIFFERENT)}`;
  const day = 86_400_000;
  for (let n = 0; n < RECORDS; n++) {
    const [lesson, person] = [newId(), newId()];
    const openedAt = Date.now() - n * day;
    const closedAt = openedAt + 3e6;
    const texts = Array.from({ length: PAGES }, (_, i) => {
      const said = Array.from({ length: WORDS }, word).join(' ');
      const text = n === 700 && i === 2 ? `${said} xylophone` : said;
      return wordRow({ lesson, source: 'page', page: newId(), number: i + 1, said: text });
    });
    await db.batch([
      db
        .insert(lessons)
        .values({ id: lesson, course: server.course.id, openedAt, closedAt, aliveAt: closedAt }),
      db.insert(people).values({
        ...{ id: person, lesson, name: ['Ida', 'Jonas', 'Noor'][n % 3]!, nameOrdinal: 1 },
        ...({ role: 'student', trust: 'write', arrivedAt: openedAt } as const),
      }),
      db.insert(spans).values({ lesson, person, fromAt: openedAt, toAt: closedAt }),
      db.insert(recordBoards).values({
        ...{ lesson, place: 0, board: newId(), title: `Lesson ${n}`, seq: 1 },
      }),
      db.insert(records).values({
        ...{ lesson, sealedAt: closedAt, title: `Lesson ${n}`, pageCount: PAGES },
        wholeAt: closedAt,
      }),
    ]);
    await db.raw(texts);
  }
  await db.close();
}

/** From the last key typed to the first records on screen, among a thousand of eight pages of words. */
export async function measure(): Promise<Result> {
  const server = await BenchServer.start();
  await fill(server);
  const browser = await launch();
  const page = await (await visitor(browser, server.url, server.cookie)).newPage();
  await page.goto(`${server.url}/records`);
  await page.locator('cua-record-card').first().waitFor();
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
      while (marked() !== '' || document.querySelector('cua-record-card') === null) await frame();
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
