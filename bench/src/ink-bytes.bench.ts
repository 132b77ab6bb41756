import { encodeStroke, newId, operation, pack } from '@cuaderno/core';
import type { Entry } from '@cuaderno/core';
import { handwriting } from '@cuaderno/core/testing';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { LogStore } from '../../apps/server/dist/boards/log-store.js';
import type { openDatabase } from '../../apps/server/dist/database/index.js';
import { result } from './result.js';
import type { Result } from './result.js';

const STROKES = 5000;
const POINTS = 60;
const LIMIT = 5;

/**
 * Bytes a point of 5,000 strokes of 60 points: on the wire as the messages that carry them to
 * others, one stroke a message; at rest as the growth of the database file. Compared with the
 * same points as JSON and as InkML text (W3C, 2011).
 */
export async function measure(): Promise<Result[]> {
  const strokes = Array.from({ length: STROKES }, (_, i) => handwriting(i, { count: POINTS }));
  const all = STROKES * POINTS;
  const json = strokes.reduce((sum, { points }) => {
    const short = points.map(({ x, y, pressure, time }) => ({
      x: +x.toFixed(2),
      y: +y.toFixed(2),
      p: +pressure.toFixed(2),
      t: time,
    }));
    return sum + JSON.stringify(short).length;
  }, 0);
  const inkml = strokes.reduce((sum, { points }) => {
    const trace = points
      .map(
        ({ x, y, pressure, time }) =>
          `${x.toFixed(2)} ${y.toFixed(2)} ${pressure.toFixed(2)} ${time}`,
      )
      .join(', ');
    return sum + `<trace>${trace}</trace>`.length;
  }, 0);

  const page = newId();
  const by = newId();
  const entries: Entry[] = strokes.map((stroke, i) => ({
    seq: i + 1,
    by,
    at: 1_795_000_000_000 + i * 800,
    lesson: page,
    op: operation({ kind: 'ink.add', page, ink: encodeStroke(stroke) }),
  }));
  const wire = entries.reduce(
    (sum, { seq, at, op }) => sum + pack({ kind: 'applied', from: seq, by, at, ops: [op] }).length,
    0,
  );

  const folder = mkdtempSync(join(tmpdir(), 'cuaderno-ink-bytes-'));
  const server = resolve(import.meta.dirname, '../../apps/server/dist');
  const database = (await import(pathToFileURL(join(server, 'database/index.js')).href)) as {
    openDatabase: typeof openDatabase;
  };
  const boards = (await import(pathToFileURL(join(server, 'boards/log-store.js')).href)) as {
    LogStore: typeof LogStore;
  };
  const db = await database.openDatabase(folder);
  await db.raw([{ sql: 'PRAGMA wal_checkpoint(TRUNCATE)', params: [] }]);
  const file = join(folder, 'cuaderno.db');
  const before = statSync(file).size;
  const log = new boards.LogStore(db);
  // One commit a stroke, as a lesson writes them.
  for (const entry of entries) await log.append(1, [entry]);
  await db.raw([{ sql: 'PRAGMA wal_checkpoint(TRUNCATE)', params: [] }]);
  const rest = statSync(file).size - before;
  await db.close();
  execFileSync('sync');
  rmSync(folder, { recursive: true });

  console.log(
    `JSON ${(json / all).toFixed(2)}, InkML ${(inkml / all).toFixed(2)} bytes a point; ours coded, without the operation, ${(strokes.reduce((sum, s) => sum + encodeStroke(s).length, 0) / all).toFixed(2)}`,
  );
  const one = (name: string, bytes: number): Result => ({
    ...result(name, 'bytes a point', bytes / all, json / all, 1),
    limit: LIMIT,
    pass: bytes / all <= LIMIT,
  });
  return [one('ink-bytes at rest', rest), one('ink-bytes', Math.max(wire, rest))];
}
