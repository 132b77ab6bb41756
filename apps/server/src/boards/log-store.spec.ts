import { emptyBoard, fold, newId } from '@cuaderno/core';
import type { Entry, Operation } from '@cuaderno/core';
import { addInk, addPages, somePages } from '@cuaderno/core/testing';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { lentDatabase, openDatabase } from '../database/index.js';
import { LogStore } from './log-store.js';

describe('a log on disk', () => {
  it('comes back as it was written, whole or in part, also through a lent port', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'cuaderno-log-'));
    const db = await openDatabase(folder);
    const board = newId();
    // A board without a course: only its log is asked for.
    await db.raw([{ sql: 'PRAGMA foreign_keys = OFF', params: [] }]);
    const sql = "INSERT INTO boards (num, id, course, title, created_at) VALUES (7, ?, '', '', 0)";
    await db.raw([{ sql, params: [board] }]);
    const [page] = somePages(1);
    const lesson = newId();
    const sheet = newId();
    // More than are read in one go.
    const entries: Entry[] = Array.from({ length: 4500 }, (_, i) => ({
      seq: i + 1,
      by: `Ída "${i}" \u{1f319}`,
      at: 1_795_000_000_000 + i,
      lesson: i % 2 ? lesson : null,
      op:
        i === 0
          ? addPages([page!])
          : // Every seventh line lies on a cover sheet.
            ({ ...addInk(page!.id, i), ...(i % 7 ? {} : { on: sheet }) } as Operation),
    }));
    const store = new LogStore(db);
    await store.append(7, entries);
    await store.append(8, entries.slice(0, 3));
    expect(await store.entries(7, 0)).toEqual(entries);
    expect(await store.entries(7, 1998, 2003)).toEqual(entries.slice(1998, 2003));
    expect(await store.entries(7, 4500)).toEqual([]);
    expect(await store.entries(9, 0)).toEqual([]);
    const lent = lentDatabase(db.lend());
    const loaded = await new LogStore(lent).load(board, 4000);
    expect(loaded!.seq).toBe(4000);
    expect(loaded!.board).toEqual(fold(emptyBoard(board), entries.slice(0, 4000)));
    await lent.close();
    await db.close();
    rmSync(folder, { recursive: true });
  });
});
