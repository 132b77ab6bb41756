import { newId } from '@cuaderno/core';
import { addInk } from '@cuaderno/core/testing';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { House } from '../testing/harness.js';
import { plainPdf } from '../testing/pdf-files.js';
import { TABLES } from './account-deletion.js';

describe('deleting an account', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('account-deletion');
  });
  afterEach(() => house.close());

  const password = 'low-water-at-ten';
  const ask = async (sql: string): Promise<unknown[][]> =>
    (await house.app.db.raw([{ sql, params: [] }]))[0] as unknown[][];

  it('reaches every table that there is', async () => {
    const rows = await ask(
      "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite%' AND name NOT LIKE 'record_index%'",
    );
    const there = rows.map(([name]) => String(name)).filter((name) => !name.startsWith('__'));
    // Files are shared by content: those that nobody names any more go.
    expect(there.filter((name) => name !== 'files').sort()).toEqual(
      TABLES.map(([table]) => table).sort(),
    );
  });

  it('leaves nothing of it, and everything of others', async () => {
    const { maren, ana, page, lesson } = await house.lesson();
    ana.send({ kind: 'chat', id: newId(), to: 'all', text: 'A word that is only here: Flakstad' });
    await maren.hears('chat');
    const line = addInk(page);
    ana.send({ kind: 'ops', ops: [line] });
    await ana.hears('confirmed');
    await house.tutor.upload(house.course.id, 'Own.pdf', await plainPdf(2));
    const shared = await plainPdf(3);
    await house.tutor.upload(house.course.id, 'Shared.pdf', shared);
    const other = await house.otherTutor('Other');
    const course = (await other.post('/courses', { name: 'Knots' })).json<{ id: string }>();
    await other.upload(course.id, 'Shared.pdf', shared);
    await house.app.imports.settled();

    // Not while a lesson is open, and not without the password.
    expect((await house.tutor.post('/account/delete', { password })).json()).toEqual(
      jasmine.objectContaining({ type: 'urn:cuaderno:lesson-open' }),
    );
    await house.tutor.post(`/lessons/${lesson}/close`);
    await house.app.indexing.settled();
    const wrong = await house.tutor.post('/account/delete', { password: 'high-water' });
    expect(wrong.json<{ type: string }>().type).toBe('urn:cuaderno:wrong-password');

    const files = (): number =>
      readdirSync(house.app.files.folder, { recursive: true, withFileTypes: true }).filter(
        (entry) => entry.isFile(),
      ).length;
    expect(files()).toBeGreaterThan(1);
    expect((await house.tutor.post('/account/delete', { password })).statusCode).toBe(204);
    expect(await maren.ends()).toBe(4401);
    expect((await house.tutor.get('/today')).statusCode).toBe(401);
    const again = await house.visitor().post('/sign-in', { email: 'maren@example.org', password });
    expect(again.statusCode).toBe(401);
    for (const [table] of TABLES) {
      const [[count]] = (await ask(`SELECT count(*) FROM ${table}`)) as [[number]];
      if (['people', 'lessons', 'chat_lines', 'records', 'spans'].includes(table))
        expect(count).withContext(table).toBe(0);
    }
    // What the other tutor has of the same content stays, and nothing else.
    expect(files()).toBe(1);
    expect((await other.get(`/courses/${course.id}`)).statusCode).toBe(200);
    for (const name of ['cuaderno.db', 'cuaderno.db-wal']) {
      const bytes = readFileSync(join(house.folder, name)).toString('latin1');
      expect(bytes).withContext(name).not.toContain('Flakstad');
      expect(bytes).withContext(name).not.toContain('maren@example.org');
    }
  });
});
