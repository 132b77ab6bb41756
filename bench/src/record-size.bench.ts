import { encodeStroke, keysBetween, newId, operation, thinPoints } from '@cuaderno/core';
import type { Entry, Id, Operation, PageSpec } from '@cuaderno/core';
import { handwriting } from '@cuaderno/core/testing';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { LogStore } from '../../apps/server/dist/boards/log-store.js';
import type { openDatabase } from '../../apps/server/dist/database/index.js';
import { result } from './result.js';
import type { Result } from './result.js';

const HOUR = 3_600_000;
/** People who write all the time, pens down for so much of it (common practice, no source). */
const WRITERS = 2;
const DOWN = 0.68;
/** How long a stroke takes, in ms, and samples of a pen in a second. */
const STROKE = 800;
const SAMPLES = 60;
/** A film of 1 Mbit/s, in bytes, and the part of it that a record may take. */
const FILM = (1_000_000 / 8) * (HOUR / 1000);
const PART = 0.01;

const SERVER = resolve(import.meta.dirname, '../../apps/server/dist');
const server = <T>(path: string): Promise<T> =>
  import(pathToFileURL(join(SERVER, path)).href) as Promise<T>;

/** What two people do in an hour who hardly rest, on a page every five minutes. */
function hour(lesson: Id): Entry[] {
  const pages: PageSpec[] = keysBetween(null, null, 12).map((order) => ({
    ...{ id: newId(), order, name: '', width: 595, height: 842, paper: { kind: 'plain' } },
  }));
  const add: Operation = operation({ kind: 'pages.add', pages });
  const strokes = Math.round((HOUR * DOWN) / STROKE) * WRITERS;
  const people = Array.from({ length: WRITERS }, () => newId());
  const entries: Entry[] = [{ seq: 1, by: people[0]!, at: 0, lesson, op: add }];
  for (let i = 0; i < strokes; i++) {
    const at = Math.round((i / strokes) * HOUR);
    const { style, points } = handwriting(i, {
      count: Math.round((STROKE / 1000) * SAMPLES),
      stylus: i % WRITERS === 0,
      ...{ x: 60 + ((i * 37) % 420), y: 60 + ((i * 53) % 720) },
    });
    const ink = encodeStroke({ style, points: thinPoints(points, style.width) });
    const page = pages[Math.floor((at / HOUR) * pages.length)]!.id;
    const op = operation({ kind: 'ink.add', page, ink });
    entries.push({ seq: i + 2, by: people[i % WRITERS]!, at, lesson, op });
  }
  return entries;
}

/**
 * What an hour of steady writing leaves on disk, without the files it was written on, against a film of the same
 * hour at 1 Mbit/s.
 */
export async function measure(): Promise<Result> {
  const folder = mkdtempSync(join(tmpdir(), 'cuaderno-size-'));
  const database = await server<{ openDatabase: typeof openDatabase }>('database/index.js');
  const store = await server<{ LogStore: typeof LogStore }>('boards/log-store.js');
  const db = await database.openDatabase(folder);
  const run = (sql: string): Promise<unknown> => db.raw([{ sql, params: [] }]);
  const size = async (): Promise<number> => {
    await run('VACUUM');
    await run('PRAGMA wal_checkpoint(TRUNCATE)');
    return statSync(join(folder, 'cuaderno.db')).size;
  };
  await run('PRAGMA foreign_keys = OFF');
  await run(
    `INSERT INTO boards (num, id, course, title, created_at) VALUES (1, '${newId()}', '', 'Bench', 0)`,
  );
  const before = await size();
  const entries = hour(newId());
  for (let i = 0; i < entries.length; i += 500)
    await new store.LogStore(db).append(1, entries.slice(i, i + 500));
  const bytes = (await size()) - before;
  await db.close();
  rmSync(folder, { recursive: true });
  console.log(`${entries.length - 1} lines in ${(bytes / 1e6).toFixed(2)} MB on disk`);
  return result('record-size', 'MB', bytes / 1e6, FILM / 1e6, PART);
}
