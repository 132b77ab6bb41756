import { chance } from '@cuaderno/core/testing';
import { launch, visitor, whenSharp } from './browser.js';
import { longLesson } from './long-lesson.js';
import { percentile, result } from './result.js';
import type { Result } from './result.js';
import { BenchServer } from './server.js';

const LESSON = { operations: 20_000, pages: 20, length: 2 * 3_600_000 };
const SEEKS = 40;
const LIMIT_MS = 300;
const LIMIT = 1.5;

/** From choosing a moment until it is drawn, against opening the record at its end. */
export async function measure(): Promise<Result> {
  const server = await BenchServer.start();
  const id = await longLesson(server, LESSON);
  const browser = await launch();
  const page = await (await visitor(browser, server.url, server.cookie)).newPage();
  await page.goto(server.url);
  const began = Date.now();
  await page.goto(`${server.url}/records/${id}`);
  const opened = (await whenSharp(page)) - began;
  await page.getByText('Replay', { exact: true }).click();
  const slider = page.getByRole('slider', { name: 'Moment of the lesson' });
  await slider.waitFor();
  await page.getByLabel('Skip pauses').uncheck();
  const random = chance(3);
  const seeks: number[] = [];
  for (let i = 0; i < SEEKS; i++) {
    const took = await slider.evaluate(async (element, part) => {
      const slider = element as HTMLInputElement;
      const host = document.querySelector('cua-stage .host') as Element & {
        cuaStage: { isSharp: boolean };
      };
      const frame = (): Promise<number> => new Promise((done) => requestAnimationFrame(done));
      const began = performance.now();
      slider.value = String(Number(slider.max) * part);
      slider.dispatchEvent(new Event('input', { bubbles: true }));
      do await frame();
      while (!host.cuaStage.isSharp);
      await frame();
      return performance.now() - began;
    }, random());
    seeks.push(took);
  }
  await browser.close();
  await server.close();
  const most = Math.max(...seeks);
  console.log(
    `opened in ${opened.toFixed(0)} ms; a moment p50 ${percentile(seeks, 0.5).toFixed(0)} ms, most ${most.toFixed(0)} ms`,
  );
  return result('replay-seek', `ms, the slowest of ${SEEKS}`, most, opened, LIMIT, {
    also: most <= LIMIT_MS,
  });
}
