import { A4, boardFromSnapshot, encodeStroke, keysBetween, newId } from '@cuaderno/core';
import type { BoardSnapshot, ItemSnapshot, PageSnapshot } from '@cuaderno/core';
import { handwriting } from '@cuaderno/core/testing';
import { writeBoardFile } from '@cuaderno/formats/board-file';
import { readFileSync } from 'node:fs';
import type { Browser, CDPSession, Page } from 'playwright-core';
import type { z } from 'zod';
import { launch, visitor, whenSharp } from './browser.js';
import { median, percentile, result } from './result.js';
import type { Result } from './result.js';
import { BenchServer } from './server.js';

const PAGES = 100;
const ITEMS = 20_000;
const RUNS = 5;
/** Scrolls of each kind, in turns, each compared with the bare one beside it: the machine has slow moments of its own. */
const SCROLLS = 9;
/** Memory of the tab at most, in MB. */
const MEMORY = 350;
/** Frames that may be dropped beyond those of the bare scroll. */
const DROPPED = 0.05;
/** How long is scrolled, in ms, and how far with each frame, in CSS px. */
const SCROLL = 6000;
const STEP = 40;

type BenchItem = z.infer<typeof ItemSnapshot>;

/** A page with lines of handwriting and marks on it. */
function page(order: string, number: number, items: number): PageSnapshot {
  const by = newId();
  const orders = keysBetween(null, null, items);
  const list = Array.from({ length: items }, (_, i): BenchItem => {
    const origin = { id: newId(), by, at: i, lesson: null, removed: null };
    if (i % 4 > 0) {
      const stroke = handwriting(number * items + i, { count: 40 });
      return { kind: 'ink', ink: encodeStroke(stroke), ...origin };
    }
    const frame = {
      x: 40 + ((i * 37) % 480),
      y: 40 + ((i * 53) % 740),
      width: 30,
      height: 30,
      turn: 0,
    };
    const mark = { mark: 'tick', colour: '#c22f2f', layer: 'material' } as const;
    return { kind: 'mark', ...mark, frame, order: orders[i]!, ...origin };
  });
  return {
    id: newId(),
    order,
    name: `Page ${number}`,
    ...A4,
    paper: { kind: 'plain' },
    removed: null,
    items: list,
  };
}

async function saved(pages: readonly PageSnapshot[]): Promise<Buffer> {
  const snapshot: BoardSnapshot = {
    id: 'b',
    title: 'Heavy',
    sheet: null,
    rules: {},
    seq: 0,
    pages: [...pages],
  };
  const pieces = await writeBoardFile(
    boardFromSnapshot(snapshot),
    { ink: 'all', people: null },
    {
      file: () => Promise.reject(new Error('no files')),
      svg: () => Promise.resolve('<svg xmlns="http://www.w3.org/2000/svg"/>'),
    },
  );
  return Buffer.concat(pieces);
}

/** Until the first page is sharp, in ms, from asking for the address. */
async function opened(browser: Browser, server: BenchServer, board: string): Promise<number> {
  const context = await visitor(browser, server.url, server.cookie);
  const window = await context.newPage();
  // The application is there already, as it is on every day but the first.
  await window.goto(`${server.url}/courses/${server.course.id}`);
  await window.getByText('How students come in').waitFor();
  const began = performance.now();
  await window.goto(`${server.url}/boards/${board}`);
  await whenSharp(window);
  const ms = performance.now() - began;
  await context.close();
  return ms;
}

/** Part of the frames that come late while something is scrolled: `move` is called with every frame. */
function dropped(page: Page, move: string): Promise<number> {
  return page.evaluate(
    ({ move, SCROLL, STEP }) =>
      new Promise<number>((done) => {
        const scroll = new Function('step', move) as (step: number) => void;
        const times: number[] = [];
        const began = performance.now();
        let way = 1;
        const frame = (now: number): void => {
          times.push(now);
          scroll(STEP * way);
          if ((now - began) % 3000 > 2500) way = -1;
          if (now - began < SCROLL) return void requestAnimationFrame(frame);
          const gaps = times.slice(1).map((time, i) => time - times[i]!);
          // At 60 frames a second; a gap of two frames has dropped one.
          const missed = gaps.reduce(
            (sum, gap) => sum + Math.max(0, Math.round(gap / (1000 / 60)) - 1),
            0,
          );
          done(missed / (missed + gaps.length));
        };
        requestAnimationFrame(frame);
      }),
    { move, SCROLL, STEP },
  );
}

/** Memory of the process that draws a page, in MB: what is its own, without what it shares. */
async function memoryOf(browser: Browser, page: Page): Promise<number> {
  const session: CDPSession = await browser.newBrowserCDPSession();
  const { processInfo } = (await session.send('SystemInfo.getProcessInfo')) as {
    processInfo: { type: string; id: number }[];
  };
  await page.bringToFront();
  const own = processInfo
    .filter(({ type }) => type === 'renderer')
    .map(({ id }) => {
      const status = readFileSync(`/proc/${id}/status`, 'utf8');
      return Number(/RssAnon:\s+(\d+) kB/.exec(status)![1]) / 1024;
    });
  return Math.max(...own);
}

/** A board of 100 pages and 20,000 items, against a board with its first page alone. */
export async function measure(): Promise<Result[]> {
  const server = await BenchServer.start();
  const browser = await launch();
  const orders = keysBetween(null, null, PAGES);
  const pages = orders.map((order, i) => page(order, i + 1, ITEMS / PAGES));
  const heavy = (await server.upload('heavy.zip', await saved(pages))).id;
  const light = (await server.upload('light.zip', await saved(pages.slice(0, 1)))).id;
  const many: number[] = [];
  const one: number[] = [];
  await opened(browser, server, light);
  for (let run = 0; run < RUNS; run++) {
    one.push(await opened(browser, server, light));
    many.push(await opened(browser, server, heavy));
  }

  const context = await visitor(browser, server.url, server.cookie);
  const window = await context.newPage();
  await window.goto(`${server.url}/boards/${heavy}`);
  await whenSharp(window);
  const plain = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await plain.setContent(
    `<div id="box" style="height:760px;overflow:auto">${'<canvas width="990" height="1400" style="display:block;margin:20px auto;background:#fff"></canvas>'.repeat(PAGES)}</div>`,
  );
  await plain.evaluate(() => {
    for (const canvas of Array.from(document.querySelectorAll('canvas'))) {
      const context = canvas.getContext('2d')!;
      for (let i = 0; i < 200; i++) context.fillRect((i * 37) % 900, (i * 53) % 1300, 30, 4);
    }
  });
  const scrolls: { ours: number; bare: number }[] = [];
  for (let i = 0; i < SCROLLS; i++) {
    await window.bringToFront();
    const ours = await dropped(
      window,
      `document.querySelector('cua-stage .host').dispatchEvent(new WheelEvent('wheel', { deltaY: step, bubbles: true, cancelable: true }))`,
    );
    await plain.bringToFront();
    const bare = await dropped(plain, `document.getElementById('box').scrollBy(0, step)`);
    scrolls.push({ ours, bare });
  }
  const beyond = median(scrolls.map((scroll) => Math.max(0, scroll.ours - scroll.bare)));
  const ours = median(scrolls.map((scroll) => scroll.ours));
  const bare = median(scrolls.map((scroll) => scroll.bare));
  await plain.close();
  const memory = await memoryOf(browser, window);
  await context.close();
  await browser.close();
  await server.close();
  console.log(
    `one page ${percentile(one, 0.5).toFixed(0)} ms, ${PAGES} pages ${percentile(many, 0.5).toFixed(0)} ms; ` +
      `frames dropped ${(ours * 100).toFixed(1)} %, bare ${(bare * 100).toFixed(1)} %`,
  );
  return [
    result('board-open scrolling', 'part of frames dropped beyond the bare', beyond, DROPPED, 1),
    result('board-open memory', 'MB', memory, MEMORY, 1),
    result('board-open', 'ms', percentile(many, 0.5), percentile(one, 0.5), 1.3),
  ];
}
