import { A4, boardFromSnapshot, encodeStroke, keysBetween, newId } from '@cuaderno/core';
import type { BoardSnapshot, ItemSnapshot, PageSnapshot } from '@cuaderno/core';
import { chance, handwriting } from '@cuaderno/core/testing';
import { writeBoardFile } from '@cuaderno/formats/board-file';
import { createHash } from 'node:crypto';
import type { Browser, Page } from 'playwright-core';
import type { z } from 'zod';
import { launch, visitor, whenSharp } from './browser.js';
import { median, result } from './result.js';
import type { Result } from './result.js';
import { BenchServer } from './server.js';

const STROKES = 2000;
/** How often each is moved about, in turns, and for how long, in ms. */
const RUNS = 5;
const MOVING = 4000;

type LoadedItem = z.infer<typeof ItemSnapshot>;

function pageWith(items: readonly LoadedItem[]): PageSnapshot {
  const [order] = keysBetween(null, null, 1);
  const paper = { kind: 'plain' } as const;
  return { id: newId(), order: order!, name: '', ...A4, paper, removed: null, items: [...items] };
}

async function saved(page: PageSnapshot, picture: Buffer | null): Promise<Buffer> {
  const snapshot: BoardSnapshot = {
    ...{ id: 'b', title: 'Full', sheet: null, rules: {}, seq: 0 },
    pages: [page],
  };
  const pieces = await writeBoardFile(
    boardFromSnapshot(snapshot),
    { ink: 'all', people: null },
    {
      file: () => Promise.resolve({ bytes: new Uint8Array(picture!), type: 'image/png' }),
      svg: () => Promise.resolve('<svg xmlns="http://www.w3.org/2000/svg"/>'),
    },
  );
  return Buffer.concat(pieces);
}

/** Made-up handwriting all over a page: 2,000 lines of forty points. */
function strokes(): LoadedItem[] {
  const random = chance(5);
  const by = newId();
  return Array.from({ length: STROKES }, (_, i) => {
    const place = { x: 30 + random() * 470, y: 40 + random() * 760 };
    const ink = encodeStroke(handwriting(i, { count: 40, ...place }));
    return { kind: 'ink', ink, id: newId(), by, at: i, lesson: null, removed: null };
  });
}

async function open(browser: Browser, server: BenchServer, board: string): Promise<Page> {
  const context = await visitor(browser, server.url, server.cookie);
  const window = await context.newPage();
  await window.goto(`${server.url}/boards/${board}`);
  await whenSharp(window);
  return window;
}

/** Frames a second while the page is pushed about and zoomed in and out, with a rest after each, as hands do. */
function framesOf(page: Page): Promise<number> {
  return page.evaluate(
    (MOVING) =>
      new Promise<number>((done) => {
        const host = document.querySelector('cua-stage .host')!;
        const box = host.getBoundingClientRect();
        const at = { clientX: box.x + box.width / 2, clientY: box.y + box.height / 2 };
        const turn = (change: WheelEventInit): boolean =>
          host.dispatchEvent(
            new WheelEvent('wheel', { ...at, ...change, bubbles: true, cancelable: true }),
          );
        const began = performance.now();
        let frames = 0;
        const frame = (now: number): void => {
          frames++;
          const since = now - began;
          const phase = Math.floor(since / 500) % 8;
          // Down, up, in, out; and between them a moment of rest, in which a page is drawn sharp.
          if (phase === 0) turn({ deltaY: 14 });
          else if (phase === 2) turn({ deltaY: -14 });
          else if (phase === 4) turn({ deltaY: -12, ctrlKey: true });
          else if (phase === 6) turn({ deltaY: 12, ctrlKey: true });
          if (since < MOVING) return void requestAnimationFrame(frame);
          done((frames * 1000) / since);
        };
        requestAnimationFrame(frame);
      }),
    MOVING,
  );
}

/** A page with 2,000 strokes, against the same page as one picture: frames a second while it moves and zooms. */
export async function measure(): Promise<Result> {
  const server = await BenchServer.start();
  const browser = await launch();
  const full = (await server.upload('full.zip', await saved(pageWith(strokes()), null))).id;
  const inked = await open(browser, server, full);
  const png = await inked.evaluate(async () => {
    const [canvas] = Array.from(document.querySelectorAll<HTMLCanvasElement>('cua-stage canvas'));
    return canvas!.toDataURL('image/png').split(',')[1]!;
  });
  const picture = Buffer.from(png, 'base64');
  const file = createHash('sha256').update(picture).digest('hex');
  const item = {
    ...{ kind: 'picture', layer: 'material', order: 'a0', file },
    frame: { x: 0, y: 0, ...A4, turn: 0 },
    ...{ id: newId(), by: newId(), at: 0, lesson: null, removed: null },
  } as LoadedItem;
  const flat = (await server.upload('flat.zip', await saved(pageWith([item]), picture))).id;
  const pictured = await open(browser, server, flat);
  const rates: { ours: number; bare: number }[] = [];
  for (let run = 0; run <= RUNS; run++) {
    await pictured.bringToFront();
    const bare = await framesOf(pictured);
    await inked.bringToFront();
    const ours = await framesOf(inked);
    // The first time each is only warmed up.
    if (run > 0) rates.push({ ours, bare });
  }
  await browser.close();
  await server.close();
  console.log(
    `page-load: ${rates.map(({ ours, bare }) => `${ours.toFixed(1)}/${bare.toFixed(1)}`).join(', ')} frames a second`,
  );
  return result(
    'page-load',
    'frames/s',
    median(rates.map(({ ours }) => ours)),
    median(rates.map(({ bare }) => bare)),
    0.9,
    { atLeast: true },
  );
}
