import type { Page } from 'playwright-core';
import { PNG } from 'pngjs';
import { launch, visitor, whenSharp } from './browser.js';
import { percentile, result } from './result.js';
import type { Result } from './result.js';
import { BenchServer } from './server.js';
import { workbook } from './workbook.js';

const FILES = 1000;
/** From the last key to the files on screen, in ms. */
const LIMIT = 200;
const AT_ONCE = 4;
/** Longest until the pictures of those on screen are there, in ms. */
const PATIENCE = 60_000;

const SUBJECTS = ['Orion', 'Ebb tables', 'Bow exercise', 'Moon', 'Spring tide', 'Scales in D'];
/** All of one subject, one of all, some, none, and every one. */
const WORDS = ['orion', 'moon 777', 'tables december 4', 'xylophone', 'e'] as const;

/** A picture like no other. */
function picture(n: number): Buffer {
  const png = new PNG({ width: 32, height: 24 });
  for (let i = 0; i < png.data.length; i++) png.data[i] = i % 4 === 3 ? 255 : (i * (n + 7)) % 251;
  png.data.writeUInt32LE(n);
  png.data[3] = 255;
  return PNG.sync.write(png);
}

async function bring(server: BenchServer, n: number): Promise<void> {
  const name = `${SUBJECTS[n % SUBJECTS.length]}, ${n % 2 ? 'November' : 'December'} ${n}.png`;
  const body = picture(n);
  const response = await fetch(`${server.url}/api/materials/uploads`, {
    method: 'POST',
    headers: {
      cookie: server.cookie,
      'tus-resumable': '1.0.0',
      'upload-length': String(body.length),
      'upload-metadata': `name ${Buffer.from(name).toString('base64')}`,
      'content-type': 'application/offset+octet-stream',
    },
    body: new Uint8Array(body),
  });
  if (!response.ok) throw new Error(`${response.status} ${await response.text()}`);
}

/** From each last key to what is chosen, painted. */
async function choose(page: Page, field: string): Promise<number[]> {
  const times: number[] = [];
  for (const word of WORDS) {
    await page.locator(field).fill(word.slice(0, -1));
    await page.evaluate(
      () => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))),
    );
    times.push(
      await page.evaluate(
        ([selector, whole]) =>
          new Promise<number>((done) => {
            const input = document.querySelector<HTMLInputElement>(selector)!;
            const began = performance.now();
            input.value = whole;
            input.dispatchEvent(new Event('input', { bubbles: true }));
            // The frame after the one in which it was laid out has been painted.
            requestAnimationFrame(() =>
              requestAnimationFrame(() => done(performance.now() - began)),
            );
          }),
        [field, word] as const,
      ),
    );
  }
  return times;
}

/** Choosing among 1,000 files, on the screen of materials and beside a board. */
export async function measure(): Promise<Result[]> {
  const server = await BenchServer.start();
  const browser = await launch();
  const { id } = await server.upload('workbook.pdf', await workbook(3));
  let next = 0;
  await Promise.all(
    Array.from({ length: AT_ONCE }, async () => {
      while (next < FILES) await bring(server, next++);
    }),
  );
  const page = await (await visitor(browser, server.url, server.cookie)).newPage();
  const pictured = (list: string): Promise<unknown> =>
    page.waitForFunction(
      (where) => {
        const all = Array.from(document.querySelectorAll<HTMLImageElement>(`${where} img`));
        return all.length > 3 && all.every((image) => image.complete);
      },
      list,
      { timeout: PATIENCE },
    );
  await page.goto(`${server.url}/materials`);
  await pictured('cua-materials .rows');
  const screen = await choose(page, 'cua-materials input[type=search]');
  await page.goto(`${server.url}/boards/${id}`);
  await whenSharp(page);
  await page.getByRole('button', { name: 'Materials' }).click();
  await pictured('cua-chooser-panel');
  const beside = await choose(page, 'cua-chooser-panel input[type=search]');
  await browser.close();
  await server.close();
  for (const [where, times] of [
    ['on the screen', screen],
    ['beside a board', beside],
  ] as const)
    console.log(
      `${where}: ${WORDS.map((word, i) => `“${word}” ${times[i]!.toFixed(0)} ms`).join(', ')}`,
    );
  const worst = percentile([...screen, ...beside], 1);
  return [result('choose-materials', 'ms, the slowest of ten', worst, LIMIT, 1)];
}
