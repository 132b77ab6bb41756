import { encodeStroke, operation } from '@cuaderno/core';
import type { Id, Operation } from '@cuaderno/core';
import { chance, handwriting, somePages } from '@cuaderno/core/testing';
import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { openDatabase } from '../../apps/server/dist/database/index.js';
import { launch, visitor, whenSharp } from './browser.js';
import { percentile, result } from './result.js';
import type { Result } from './result.js';
import { BenchServer } from './server.js';
import { BareWindow } from './windows.js';

const OPERATIONS = 20_000;
const PAGES = 20;
/** How many operations travel in one message. */
const TOGETHER = 50;
const LESSON = 2 * 3_600_000;
const SEEKS = 40;
const LIMIT_MS = 300;
const LIMIT = 1.5;

/** Lines all over twenty pages, one in twenty taken away again. */
function* operations(pages: readonly Id[]): Generator<Operation> {
  const random = chance(11);
  const lines: { page: Id; id: Id }[] = [];
  for (let i = 0; i < OPERATIONS; i++) {
    // A class stays on a page for a while.
    const page = pages[Math.floor((i / OPERATIONS) * PAGES * 3) % PAGES]!;
    const gone =
      i % 20 === 19 ? lines.splice(Math.floor(random() * lines.length), 1)[0] : undefined;
    if (gone) {
      yield operation({ kind: 'items.remove', page: gone.page, items: [gone.id] });
      continue;
    }
    const place = { x: 30 + random() * 470, y: 40 + random() * 760 };
    const ink = encodeStroke(handwriting(i, { count: 40, ...place }));
    const op = operation({ kind: 'ink.add', page, ink });
    lines.push({ page, id: op.id });
    yield op;
  }
}

/** A closed lesson of two hours; its operations are made in a minute, and then said to have taken two hours. */
async function lesson(server: BenchServer): Promise<string> {
  const { id: board } = await server.post<{ id: string }>(`/courses/${server.course.id}/boards`, {
    title: 'Long',
  });
  const { id } = await server.post<{ id: string }>(`/boards/${board}/lesson`);
  const [window] = await BareWindow.open(
    `ws://127.0.0.1:${server.port}/live/boards/${board}`,
    server.cookie,
  );
  const send = async (ops: Operation[]): Promise<void> => {
    const last = ops.at(-1)!.id;
    const confirmed = window.hears('confirmed', ({ ids }) => ids.includes(last));
    window.say({ kind: 'ops', ops });
    await confirmed;
  };
  const pages = somePages(PAGES);
  await send([operation({ kind: 'pages.add', pages })]);
  const batch: Operation[] = [];
  for (const op of operations(pages.map((page) => page.id))) {
    batch.push(op);
    if (batch.length === TOGETHER) await send(batch.splice(0));
  }
  if (batch.length > 0) await send(batch);
  window.close();
  await server.post(`/lessons/${id}/close`);
  const path = resolve(import.meta.dirname, '../../apps/server/dist/database/index.js');
  const database = (await import(pathToFileURL(path).href)) as {
    openDatabase: typeof openDatabase;
  };
  const db = await database.openDatabase(server.folder);
  await db.raw([
    {
      sql: 'UPDATE lessons SET opened_at = closed_at - ?2 WHERE id = ?1',
      params: [id, LESSON],
    },
    {
      sql: `UPDATE operations SET at = (SELECT opened_at FROM lessons WHERE id = ?1) + ?2 * seq / ?3
        WHERE lesson = ?1`,
      params: [id, LESSON, OPERATIONS + 2],
    },
  ]);
  db.close();
  return id;
}

/** From choosing a moment until it is drawn, against opening the record as it stood. */
export async function measure(): Promise<Result> {
  const server = await BenchServer.start();
  const id = await lesson(server);
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
