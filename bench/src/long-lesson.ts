import { encodeStroke, operation } from '@cuaderno/core';
import type { Id, Operation } from '@cuaderno/core';
import { chance, handwriting, somePages } from '@cuaderno/core/testing';
import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { openDatabase } from '../../apps/server/dist/database/index.js';
import type { BenchServer } from './server.js';
import { BareWindow } from './windows.js';

/** How many operations travel in one message. */
const TOGETHER = 50;

/** Lines all over the pages, one in twenty taken away again. */
function* operations(pages: readonly Id[], count: number): Generator<Operation> {
  const random = chance(11);
  const lines: { page: Id; id: Id }[] = [];
  for (let i = 0; i < count; i++) {
    // A class stays on a page for a while.
    const page = pages[Math.floor((i / count) * pages.length * 3) % pages.length]!;
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

export interface LongLesson {
  readonly operations: number;
  readonly pages: number;
  /** In ms. */
  readonly length: number;
}

/** A closed lesson; its operations are made in a minute, and then said to have taken as long as it was. */
export async function longLesson(
  server: BenchServer,
  { operations: count, pages: sheets, length }: LongLesson,
): Promise<string> {
  const { id: board } = await server.post<{ id: string }>(`/courses/${server.course.id}/boards`, {
    title: 'Long',
  });
  const { id } = await server.post<{ id: string }>(`/boards/${board}/lesson`);
  const [window] = await BareWindow.open(
    `ws://127.0.0.1:${server.port}/live/boards/${board}`,
    server.cookie,
  );
  const pages = somePages(sheets);
  await window.keeps([operation({ kind: 'pages.add', pages })]);
  const batch: Operation[] = [];
  for (const op of operations(
    pages.map((page) => page.id),
    count,
  )) {
    batch.push(op);
    if (batch.length === TOGETHER) await window.keeps(batch.splice(0));
  }
  if (batch.length > 0) await window.keeps(batch);
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
      params: [id, length],
    },
    {
      sql: `UPDATE operations SET at = (SELECT opened_at FROM lessons WHERE id = ?1) + ?2 * seq / ?3
        WHERE lesson = ?1`,
      params: [id, length, count + 2],
    },
  ]);
  db.close();
  return id;
}
