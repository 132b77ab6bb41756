import { launch, visitor, whenSharp } from './browser.js';
import { percentile, result } from './result.js';
import type { Result } from './result.js';
import { BenchServer } from './server.js';
import { workbook } from './workbook.js';

const PAGES = 300;
/** From the last key to what was found, in ms. */
const LIMIT = 200;
/** Longest until all pages are read, in ms. */
const PATIENCE = 120_000;
/** On one page, on some, on none, and on every line of every page. */
const WORDS = ['217.31 The tide', '17.4', 'xylophone', 'lamps are lit', 'tide'] as const;

/** From the last key typed to the places on screen, among 300 pages of a PDF that have been read. */
export async function measure(): Promise<Result> {
  const server = await BenchServer.start();
  const browser = await launch();
  const { id } = await server.upload('workbook.pdf', await workbook(PAGES));
  const page = await (await visitor(browser, server.url, server.cookie)).newPage();
  await page.goto(`${server.url}/boards/${id}`);
  await whenSharp(page);
  await page.waitForFunction(
    (count) =>
      (
        document.querySelector('cua-stage .host') as unknown as {
          cuaStage: { board(): { pages: Map<string, unknown> } };
        }
      ).cuaStage.board().pages.size === count,
    PAGES,
    { timeout: PATIENCE },
  );
  await page.keyboard.press('Control+f');
  const field = page.getByRole('searchbox', { name: 'Words to find' });
  await field.waitFor();
  await page.waitForFunction(
    () => !document.querySelector('cua-find-panel')?.textContent?.includes('still to be read'),
    undefined,
    { timeout: PATIENCE },
  );
  const times: number[] = [];
  for (const word of WORDS) {
    await field.fill(word.slice(0, -1));
    // Painted, and quiet again.
    await page.evaluate(
      () => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))),
    );
    times.push(
      await page.evaluate(
        (whole) =>
          new Promise<number>((done) => {
            const input = document.querySelector<HTMLInputElement>('cua-find-panel input')!;
            const began = performance.now();
            input.value = whole;
            input.dispatchEvent(new Event('input', { bubbles: true }));
            // The frame after the one in which it was laid out has been painted.
            requestAnimationFrame(() =>
              requestAnimationFrame(() => done(performance.now() - began)),
            );
          }),
        word,
      ),
    );
  }
  await browser.close();
  await server.close();
  console.log(WORDS.map((word, i) => `“${word}” ${times[i]!.toFixed(0)} ms`).join(', '));
  return result('find-words', 'ms, the slowest of five', percentile(times, 1), LIMIT, 1);
}
