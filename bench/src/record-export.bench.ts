import {
  apply,
  BoardDraft,
  boardSnapshot,
  emptyBoard,
  encodeStroke,
  keysBetween,
  newId,
  operation,
  pack,
  thinPoints,
} from '@cuaderno/core';
import type { PageSpec } from '@cuaderno/core';
import { handwriting } from '@cuaderno/core/testing';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Worker } from 'node:worker_threads';
import type { ResourceLimits } from 'node:worker_threads';
import { median, result } from './result.js';
import type { Result } from './result.js';
import { workbook } from './workbook.js';

const PAGES = 60;
const STROKES = 5000;
const RUNS = 5;
const MEMORY_LIMIT = 400;

/**
 * 60 pages with 5,000 strokes, half of them with pressure, to PDF, in the worker that the server
 * uses; against loading and saving the same file with the PDF library alone, in a worker too.
 */
export async function measure(): Promise<Result> {
  const folder = mkdtempSync(join(tmpdir(), 'cuaderno-export-'));
  const path = join(folder, 'workbook.pdf');
  writeFileSync(path, await workbook(PAGES));
  const hash = 'a'.repeat(64);
  const draft = new BoardDraft(emptyBoard(newId()));
  const stamp = { by: newId(), at: 1, lesson: null };
  const pages: PageSpec[] = keysBetween(null, null, PAGES).map((order, i) => ({
    id: newId(),
    order,
    name: '',
    width: 595,
    height: 842,
    paper: { kind: 'pdf', file: hash, number: i + 1, box: [0, 0, 595, 842], rotate: 0, unit: 1 },
  }));
  apply(operation({ kind: 'pages.add', pages }), draft, stamp);
  for (let i = 0; i < STROKES; i++) {
    const x = 60 + ((i * 37) % 380);
    const y = 60 + ((i * 53) % 720);
    // Drawn with 60 samples, and thinned as the pen does before it is kept.
    const { style, points } = handwriting(i, { count: 60, stylus: i % 2 === 0, x, y });
    const ink = encodeStroke({ style, points: thinPoints(points, style.width) });
    apply(operation({ kind: 'ink.add', page: pages[i % PAGES]!.id, ink }), draft, stamp);
  }
  const board = pack(boardSnapshot(draft.done(), 1));

  const { RECORD_MEMORY } = (await import(
    pathToFileURL(resolve(import.meta.dirname, '../../apps/server/dist/workers/plugin.js')).href
  )) as { RECORD_MEMORY: ResourceLimits };
  // A fresh thread for each: a record is exported once, after the server's worker has been idle.
  const ask = async (kind: 'plain' | 'record'): Promise<number> => {
    const worker = new Worker(new URL('./export-runner.js', import.meta.url), {
      resourceLimits: RECORD_MEMORY,
      workerData: {
        exporter: resolve(import.meta.dirname, '../../apps/server/dist/workers/record-worker.js'),
        kind,
        path,
        task: { board, title: 'Bench', author: 'Maren', sealedAt: 0, files: { [hash]: path } },
      },
    });
    const ms = await new Promise<number>((done) => worker.once('message', done));
    await worker.terminate();
    return ms;
  };
  // Off the event loop: what this thread feels meanwhile.
  let stall = 0;
  let last = performance.now();
  const beat = setInterval(() => {
    const now = performance.now();
    stall = Math.max(stall, now - last - 5);
    last = now;
  }, 5);
  const plain: number[] = [];
  const ours: number[] = [];
  let memory = 0;
  const before = process.memoryUsage().rss;
  const watch = setInterval(() => {
    memory = Math.max(memory, process.memoryUsage().rss - before);
  }, 10);
  for (let i = 0; i < RUNS; i++) {
    plain.push(await ask('plain'));
    ours.push(await ask('record'));
  }
  clearInterval(beat);
  clearInterval(watch);
  rmSync(folder, { recursive: true });
  const megabytes = memory / 1024 / 1024;
  console.log(
    `memory over the idle process ${megabytes.toFixed(0)} MB; longest stall of the main thread ${stall.toFixed(0)} ms`,
  );
  return result('record-export', 'ms', median(ours), median(plain), 4, {
    also: megabytes < MEMORY_LIMIT,
  });
}
