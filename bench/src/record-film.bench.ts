import { execFileSync } from 'node:child_process';
import { launch, visitor } from './browser.js';
import { longLesson } from './long-lesson.js';
import { result } from './result.js';
import type { Result } from './result.js';
import { BenchServer } from './server.js';

/** Two people who write two thirds of the time, one after the other: some 330 ms a line. */
const LESSON = { operations: 1200, pages: 4, length: 600_000 };
const LIMIT = 1;

/** Making a film of a lesson at the speed at which it was, against the length of the film. */
export async function measure(): Promise<Result> {
  const server = await BenchServer.start();
  const id = await longLesson(server, LESSON);
  const browser = await launch();
  const page = await (await visitor(browser, server.url, server.cookie)).newPage();
  await page.goto(`${server.url}/records/${id}`);
  await page.getByRole('button', { name: 'Save…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByText('Film as WebM').click();
  await dialog.getByRole('combobox', { name: 'How fast' }).click();
  await page.getByRole('option', { name: 'as it was' }).click();
  await dialog.getByText('It will be').waitFor();
  const saved = page.waitForEvent('download', { timeout: LESSON.length });
  const began = performance.now();
  await dialog.getByRole('button', { name: 'Save' }).click();
  const download = await saved;
  const took = (performance.now() - began) / 1000;
  const path = await download.path();
  const probe = ['-v', 'error', '-show_entries', 'format=duration,size', '-of', 'csv=p=0', path];
  const [length, bytes] = execFileSync('ffprobe', probe).toString().split(',').map(Number);
  await browser.close();
  await server.close();
  console.log(
    `a film of ${length!.toFixed(0)} s made in ${took.toFixed(0)} s, ${(bytes! / 1e6).toFixed(1)} MB`,
  );
  return result('record-film', 's', took, length!, LIMIT);
}
