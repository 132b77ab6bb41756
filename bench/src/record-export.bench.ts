import {
  decodeStroke,
  displayStroke,
  encodeStroke,
  keysBetween,
  newId,
  operation,
  thinPoints,
  writePathData,
} from '@cuaderno/core';
import type { Entry, Operation, PageSpec } from '@cuaderno/core';
import { handwriting } from '@cuaderno/core/testing';
import { createHash } from 'node:crypto';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Worker } from 'node:worker_threads';
import type { ResourceLimits } from 'node:worker_threads';
import type { LogStore } from '../../apps/server/dist/boards/log-store.js';
import type { BoardPdfTask } from '../../apps/server/dist/records/board-pdf-worker.js';
import type { openDatabase } from '../../apps/server/dist/database/index.js';
import type { InkPath } from './export-runner.js';
import { median, result } from './result.js';
import type { Result } from './result.js';
import { workbook } from './workbook.js';

const PAGES = 60;
const STROKES = 5000;
/** With annotations a run takes a quarter of a minute, and varies less. */
const RUNS = { drawn: 9, annotations: 3 } as const;
const MEMORY_LIMIT = 400;

const SERVER = resolve(import.meta.dirname, '../../apps/server/dist');
const server = <T>(path: string): Promise<T> =>
  import(pathToFileURL(join(SERVER, path)).href) as Promise<T>;

/** The log of a board with 60 pages of a file and 5,000 strokes, half of them with pressure. */
function log(file: string): Entry[] {
  const pages: PageSpec[] = keysBetween(null, null, PAGES).map((order, i) => ({
    id: newId(),
    order,
    name: '',
    width: 595,
    height: 842,
    paper: { kind: 'pdf', file, number: i + 1, box: [0, 0, 595, 842], rotate: 0, unit: 1 },
  }));
  const ops: Operation[] = [operation({ kind: 'pages.add', pages })];
  for (let i = 0; i < STROKES; i++) {
    const x = 60 + ((i * 37) % 380);
    const y = 60 + ((i * 53) % 720);
    // Drawn with 60 samples, and thinned as the pen does before it is kept.
    const { style, points } = handwriting(i, { count: 60, stylus: i % 2 === 0, x, y });
    const ink = encodeStroke({ style, points: thinPoints(points, style.width) });
    ops.push(operation({ kind: 'ink.add', page: pages[i % PAGES]!.id, ink }));
  }
  const by = newId();
  return ops.map((op, i) => ({ seq: i + 1, by, at: 1 + i, lesson: null, op }));
}

/** The ink of a log, path by path, as the PDF library's own calls take it. */
function pathsOf(entries: readonly Entry[]): InkPath[] {
  const numbers = new Map<string, number>();
  return entries.flatMap(({ op }): InkPath[] => {
    if (op.kind === 'pages.add') op.pages.forEach(({ id }, i) => numbers.set(id, i));
    if (op.kind !== 'ink.add') return [];
    return displayStroke(decodeStroke(op.ink)).map(({ path, colour, blend, paint }) => ({
      ...{ page: numbers.get(op.page)!, data: writePathData(path, 2), colour },
      multiply: blend === 'multiply',
      width: paint === 'fill' ? null : paint.width,
    }));
  });
}

/**
 * 60 pages with 5,000 strokes to PDF, from the log on disk to the file's last byte, in the worker that the server uses.
 * Drawn in, against the same ink drawn on the same sheets by the PDF library's own calls, in a worker too, for which
 * every path is there as text already. As annotations, against loading and saving the same file with that library.
 */
export async function measure(): Promise<Result[]> {
  const drawn = await measured('drawn', 'record-export', 1);
  return [drawn, await measured('annotations', 'record-export-annotations', 6)];
}

async function measured(
  ink: 'drawn' | 'annotations',
  name: string,
  limit: number,
): Promise<Result> {
  const folder = mkdtempSync(join(tmpdir(), 'cuaderno-export-'));
  const bytes = await workbook(PAGES);
  const hash = createHash('sha256').update(bytes).digest('hex');
  const { filePath } = await server<{ filePath(folder: string, hash: string): string }>(
    'files/store.js',
  );
  const path = filePath(folder, hash);
  mkdirSync(dirname(path), { recursive: true });
  writeFileSync(path, bytes);
  const database = await server<{ openDatabase: typeof openDatabase }>('database/index.js');
  const store = await server<{ LogStore: typeof LogStore }>('boards/log-store.js');
  const db = await database.openDatabase(folder);
  const board = newId();
  // A board without a course: only its log is asked for.
  await db.raw([{ sql: 'PRAGMA foreign_keys = OFF', params: [] }]);
  const sql =
    "INSERT INTO boards (num, id, course, title, created_at) VALUES (1, ?, '', 'Bench', 0)";
  await db.raw([{ sql, params: [board] }]);
  const entries = log(hash);
  await new store.LogStore(db).append(1, entries);
  const { MAKING } = await server<{ MAKING: ResourceLimits }>('workers/worker-pool.js');
  // A fresh thread for each: a record is exported once, after the server's worker has been idle.
  const ask = async (
    what: { load: string } | { draw: { sheets: string; ink: string } } | { keep: string | null },
  ): Promise<number> => {
    const port = db.lend();
    const worker = new Worker(new URL('./export-runner.js', import.meta.url), {
      resourceLimits: MAKING,
      transferList: [port],
      workerData: {
        exporter: join(SERVER, 'records/board-pdf-worker.js'),
        what,
        task: {
          port,
          of: { board },
          ink,
          files: folder,
          title: 'Bench',
          author: 'Maren',
          date: 0,
        } satisfies BoardPdfTask,
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
  const made = join(folder, 'record.pdf');
  const paths = join(folder, 'ink.json');
  writeFileSync(paths, JSON.stringify(pathsOf(entries)));
  const same = ink === 'drawn' ? { draw: { sheets: path, ink: paths } } : { load: made };
  await ask({ keep: made });
  const runs: { sheets: number; same: number; ours: number }[] = [];
  let memory = 0;
  const before = process.memoryUsage().rss;
  const watch = setInterval(() => {
    memory = Math.max(memory, process.memoryUsage().rss - before);
  }, 10);
  for (let i = 0; i < RUNS[ink]; i++) {
    runs.push({
      sheets: await ask({ load: path }),
      same: await ask(same),
      ours: await ask({ keep: null }),
    });
  }
  // All of a run were measured within a second: what slows the machine for longer slows all.
  const [middle] = runs
    .sort((a, b) => a.ours / a.same - b.ours / b.same)
    .slice(Math.floor(RUNS[ink] / 2));
  clearInterval(beat);
  clearInterval(watch);
  await db.close();
  rmSync(folder, { recursive: true });
  const megabytes = memory / 1024 / 1024;
  console.log(
    `memory over the idle process ${megabytes.toFixed(0)} MB; longest stall of the main thread ${stall.toFixed(0)} ms`,
  );
  const bare = median(runs.map(({ ours, sheets }) => ours / sheets));
  console.log(`${bare.toFixed(2)} times as long as loading and saving the sheets without any ink`);
  return result(name, 'ms', middle!.ours, middle!.same, limit, {
    also: megabytes < MEMORY_LIMIT,
  });
}
