import { encodeStroke, itemsOn, newId, operation, pagesInOrder } from '@cuaderno/core';
import type { Board, Id } from '@cuaderno/core';
import { addInk, addPages, handwriting, somePages } from '@cuaderno/core/testing';
import { closeSync, openSync, readFileSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { House } from '../testing/harness.js';

const PAGE = 4096;

describe('a board of which something on the disk is damaged', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('damaged');
  });
  afterEach(() => house.close());

  const board = async (): Promise<Board> =>
    (await house.app.bus.host(house.board))!.between((state) => state);
  /** Stops the server, changes its database's bytes, and starts it again. */
  const damage = async (change: (file: string) => void): Promise<void> => {
    await house.app.db.raw([{ sql: 'PRAGMA wal_checkpoint(TRUNCATE)', params: [] }]);
    await house.app.close();
    change(join(house.folder, 'cuaderno.db'));
    await house.start();
    house.tutor = house.tutor.movedTo(house.app);
  };
  const write = async (lines: number): Promise<{ page: Id; lines: Id[] }> => {
    const page = pagesInOrder(await board())[0]!.id;
    const host = (await house.app.bus.host(house.board))!;
    const ops = Array.from({ length: lines }, (_, i) =>
      operation({ kind: 'ink.add', page, ink: encodeStroke(handwriting(i, { count: 120 })) }),
    );
    await host.applyAs(ops, { id: newId(), role: 'tutor', trust: 'hands' });
    return { page, lines: ops.map(({ id }) => id) };
  };

  it('opens without what can’t be read, says so, and goes on being written on', async () => {
    const { page, lines } = await write(40);
    await damage((file) => {
      const bytes = readFileSync(file);
      // The body of one line, as it was coded.
      const ink = Buffer.from(encodeStroke(handwriting(7, { count: 120 })));
      const at = bytes.indexOf(ink.subarray(0, 60));
      expect(at).toBeGreaterThan(0);
      const handle = openSync(file, 'r+');
      writeSync(handle, Buffer.alloc(60, 0x7f), 0, 60, at);
      closeSync(handle);
    });
    const window = await house.tutorWindow();
    const seen = await window.wholeBoard();
    expect(seen.pages.get(page)!.unreadable).toBe(1);
    expect(itemsOn(seen.pages.get(page)!).map(({ id }) => id)).toEqual(
      lines.filter((_, i) => i !== 7),
    );
    const more = addInk(page);
    window.send({ kind: 'ops', ops: [more] });
    await window.hears('confirmed', ({ ids }) => ids.includes(more.id));
    const report = await house.tutor.get(`/boards/${house.board}/unreadable`);
    expect(report.json<{ entries: unknown[] }>().entries).toEqual([
      jasmine.objectContaining({ page, kind: 'line', at: jasmine.any(Number) }),
    ]);
    // What others have written is sealed, exported and copied without it, too.
    expect((await house.tutor.get(`/boards/${house.board}/pdf`)).statusCode).toBe(200);
  });

  it('opens also where a page of the database is gone, and whatever it held with it', async () => {
    const { page, lines } = await write(400);
    await damage((file) => {
      const bytes = readFileSync(file);
      const ink = Buffer.from(encodeStroke(handwriting(200, { count: 120 })));
      const at = bytes.indexOf(ink.subarray(0, 60));
      const start = Math.floor(at / PAGE) * PAGE;
      const handle = openSync(file, 'r+');
      // A leaf of a tree begins with 10 or 13; zeros are none.
      const kind = bytes[start];
      expect([2, 5, 10, 13]).toContain(kind!);
      writeSync(handle, Buffer.alloc(PAGE), 0, PAGE, start);
      closeSync(handle);
    });
    const window = await house.tutorWindow();
    const seen = await window.wholeBoard();
    const left = itemsOn(seen.pages.get(page)!).map(({ id }) => id);
    expect(left.length).toBeGreaterThan(350);
    expect(left.length).toBeLessThan(400);
    expect(left.every((id) => lines.includes(id))).toBeTrue();
    const { entries } = (await house.tutor.get(`/boards/${house.board}/unreadable`)).json<{
      entries: unknown[];
    }>();
    expect(entries.length).toBe(400 - left.length);
  });

  it('keeps what was written on a page that can’t be read itself', async () => {
    const host = (await house.app.bus.host(house.board))!;
    const spec = {
      ...somePages(1)[0]!,
      name: 'Spring tides at the old pier, with all their names',
    };
    const line = addInk(spec.id, 3);
    await host.applyAs([addPages([spec]), line], { id: newId(), role: 'tutor', trust: 'hands' });
    await damage((file) => {
      const bytes = readFileSync(file);
      const at = bytes.indexOf('Spring tides at the old pier');
      const handle = openSync(file, 'r+');
      writeSync(handle, Buffer.alloc(40, 0xc1), 0, 40, at - 20);
      closeSync(handle);
    });
    const seen = await board();
    const page = seen.pages.get(spec.id)!;
    expect(page.name).toBe('A page that can’t be read');
    expect(itemsOn(page).map(({ id }) => id)).toEqual([line.id]);
    expect(pagesInOrder(seen).at(-1)).toBe(page);
  });
});

describe('a server that can’t write just now', () => {
  it('tells who meant to change something, and goes on', async () => {
    const house = await House.open('read-only');
    try {
      const { maren, ana, anaId, page } = await house.lesson(false);
      const pragma = (value: string) =>
        house.app.db.raw([{ sql: `PRAGMA query_only = ${value}`, params: [] }]);
      await pragma('ON');
      // What holds in the lesson holds, whether it can be written down or not.
      maren.send({ kind: 'trust', who: 'all', trust: 'write' });
      maren.send({ kind: 'rules', who: anaId, over: { turn: false } });
      maren.send({ kind: 'plan', endsAt: Date.now() + 1000 });
      maren.send({ kind: 'step', on: true });
      await ana.hears('people', ({ people }) =>
        people.some(({ id, trust }) => id === anaId && trust === 'write'),
      );
      maren.send({ kind: 'chat', id: newId(), to: 'all', text: 'Hello' });
      await maren.hearsProblem('chat-not-kept');
      maren.send({ kind: 'door', who: anaId, word: 'out' });
      await ana.ends();
      await pragma('OFF');
      maren.send({ kind: 'door', who: anaId, word: 'in' });
      const line = addInk(page);
      maren.send({ kind: 'ops', ops: [line] });
      await maren.hears('confirmed', ({ ids }) => ids.includes(line.id));
      expect((await house.tutor.get('/health')).json()).toEqual(
        jasmine.objectContaining({ status: 'ok', uncaught: 0 }),
      );
    } finally {
      await house.close();
    }
  });
});
