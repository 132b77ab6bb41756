import { operation } from '@cuaderno/core';
import { somePages } from '@cuaderno/core/testing';
import type { Page } from 'playwright-core';
import { launch, visitor, whenSharp } from './browser.js';
import { median, result } from './result.js';
import type { Result } from './result.js';
import { BenchServer } from './server.js';
import { BareWindow } from './windows.js';
import { BenchWriter, FRAME } from './writer.js';

const STUDENTS = 8;
/** How often the pictures are there and away, by turns: a machine that is busy elsewhere slows both. */
const TURNS = 5;
/** How long frames are counted in each, in ms. */
const COUNTED = 4000;
/** Part of the frames that must be left. */
const LEAST = 0.9;

/** Frames a second that a window draws while the tutor's own pen goes over the page. */
async function framesOf(page: Page): Promise<number> {
  const box = (await page.locator('cua-stage .host').boundingBox())!;
  const counted = page.evaluate(
    (counted) =>
      new Promise<number>((done) => {
        const began = performance.now();
        let frames = 0;
        const frame = (now: number): void => {
          frames++;
          if (now - began < counted) requestAnimationFrame(frame);
          else done((1000 * frames) / (now - began));
        };
        requestAnimationFrame(frame);
      }),
    COUNTED,
  );
  let isCounted = false;
  void counted.finally(() => (isCounted = true));
  await page.mouse.move(box.x + 200, box.y + 200);
  await page.mouse.down();
  for (let i = 0; !isCounted; i++) {
    const turn = i / 9;
    const [x, y] = [Math.cos(turn), Math.sin(turn)].map((part) => 300 + (80 + (i % 60)) * part);
    await page.mouse.move(box.x + x!, box.y + y!);
  }
  await page.mouse.up();
  return counted;
}

/**
 * Eight students write, each on a page of their own, and the tutor's window shows all these pages as small live
 * pictures while the tutor writes: frames of the stage, against those without the pictures.
 */
export async function measure(): Promise<Result[]> {
  const server = await BenchServer.start();
  const { id } = await server.post<{ id: string }>(`/courses/${server.course.id}/boards`, {
    title: 'Pages',
  });
  await server.post(`/boards/${id}/lesson`);
  const url = `ws://127.0.0.1:${server.port}/live`;
  const [own] = await BareWindow.open(`${url}/boards/${id}`, server.cookie);
  const pages = somePages(STUDENTS);
  await own.keeps([operation({ kind: 'pages.add', pages })]);
  own.close();

  const browser = await launch();
  const tutor = await (await visitor(browser, server.url, server.cookie)).newPage();
  // So high that all of the pictures are in sight.
  await tutor.setViewportSize({ width: 1280, height: 1400 });
  await tutor.goto(`${server.url}/boards/${id}`);
  await whenSharp(tutor);
  const windows = await Promise.all(
    pages.map(async (_, i) => {
      const cookie = await server.join(`Student ${i}`);
      return (await BareWindow.open(`${url}/lesson`, cookie))[0];
    }),
  );
  await tutor.getByRole('button', { name: 'Writing for all' }).click();
  const writers = windows.map((window, i) => new BenchWriter(window, pages[i]!.id, i));
  const began = performance.now();
  let frames = 0;
  const timer = setInterval(() => {
    for (; frames * FRAME < performance.now() - began; frames++)
      for (const writer of writers) writer.frame(frames * FRAME);
  }, 4);
  const pictures = tutor.getByRole('button', { name: 'Page pictures' });
  const strip = tutor.locator('cua-page-strip');
  const counts = { with: [] as number[], without: [] as number[] };
  for (let turn = 0; turn < TURNS; turn++) {
    await strip.locator('cua-page-thumb').nth(STUDENTS).waitFor();
    counts.with.push(await framesOf(tutor));
    await pictures.click();
    await strip.waitFor({ state: 'detached' });
    counts.without.push(await framesOf(tutor));
    await pictures.click();
  }
  clearInterval(timer);
  for (const window of windows) window.close();
  await browser.close();
  await server.close();
  console.log(
    Object.entries(counts)
      .map(([name, all]) => `${name}: ${all.map((one) => one.toFixed(1)).join(', ')} frames/s`)
      .join('; '),
  );
  return [
    result('class-strip', 'frames/s', median(counts.with), median(counts.without), LEAST, {
      atLeast: true,
    }),
  ];
}
