import { createClient } from '@libsql/client';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { KillableServer } from './house.js';
import { writtenOnPdf } from './pdfs.js';
import { expect, test } from './story.js';

/*
 * The server is killed while PDFs are brought that other programs have written on, and while PDFs are made, at moments
 * that nobody chose.
 */

const KILLS = 8;
const PAGES = 30;
const LINES = 60;

let server: KillableServer;
test.beforeEach(async () => {
  server = await KillableServer.start();
});
test.afterEach(() => server.close());

/** A tutor at a browser of which only the requests count. */
class Tutor {
  private cookie = '';
  course = '';

  private constructor() {}

  static async setUp(): Promise<Tutor> {
    const tutor = new Tutor();
    const { headers } = await tutor.post('/set-up', {
      ...{ name: 'Maren', email: 'maren@example.org', password: 'low-water-at-ten' },
    });
    tutor.cookie = headers.getSetCookie()[0]!.split(';')[0]!;
    const made = await tutor.post('/courses', { name: 'Reading the tides' });
    tutor.course = ((await made.json()) as { id: string }).id;
    return tutor;
  }

  get(path: string): Promise<Response> {
    return fetch(`${server.url}/api${path}`, { headers: { cookie: this.cookie } });
  }

  post(path: string, body: object): Promise<Response> {
    const headers = { cookie: this.cookie, 'content-type': 'application/json' };
    const url = `${server.url}/api${path}`;
    return fetch(url, { method: 'POST', headers, body: JSON.stringify(body) });
  }

  bring(name: string, pdf: Buffer): Promise<Response> {
    const headers = { cookie: this.cookie, 'content-type': 'application/octet-stream' };
    const url = `${server.url}/api/courses/${this.course}/boards/import?name=${name}`;
    return fetch(url, { method: 'POST', headers, body: new Uint8Array(pdf) });
  }

  async boards(): Promise<{ id: string; title: string }[]> {
    const { boards } = (await (await this.get(`/courses/${this.course}`)).json()) as {
      boards: { id: string; title: string }[];
    };
    return boards;
  }
}

test('a server killed while written-on PDFs are brought loses no page and no line of any that was confirmed', async () => {
  const tutor = await Tutor.setUp();
  const pdf = await writtenOnPdf(PAGES, LINES);
  const began = performance.now();
  expect((await tutor.bring('0.pdf', pdf)).status).toBe(201);
  const took = performance.now() - began;
  const told = ['0'];
  for (let kill = 1; kill <= KILLS; kill++) {
    const answer = tutor.bring(`${kill}.pdf`, pdf).then(
      ({ status }) => status === 201 && told.push(String(kill)),
      () => undefined,
    );
    // From its first bytes until some time after it was announced.
    await new Promise((done) => setTimeout(done, (kill / KILLS) * 1.6 * took));
    await server.kill();
    await answer;
    await server.run();
  }
  const boards = await tutor.boards();
  expect(boards.map(({ title }) => title)).toEqual(expect.arrayContaining(told));
  await server.kill();
  const db = createClient({ url: `file:${join(server.folder, 'cuaderno.db')}` });
  const { rows } = await db.execute(
    `SELECT b.title, sum(o.kind = 'ink.add') AS lines,
       (SELECT pages FROM board_files f WHERE f.board = b.id) AS pages
     FROM boards b LEFT JOIN operations o ON o.board = b.num GROUP BY b.num`,
  );
  db.close();
  expect(rows.length).toBe(boards.length);
  for (const { title, lines, pages } of rows)
    expect([title, pages, lines]).toEqual([title, PAGES, PAGES * LINES]);
  await server.run();
});

test('a server killed while PDFs are made of a board makes them again when it is back', async () => {
  const tutor = await Tutor.setUp();
  await tutor.bring('Tides.pdf', await writtenOnPdf(PAGES, LINES));
  const [board] = await tutor.boards();
  const folder = mkdtempSync(join(tmpdir(), 'cuaderno-crash-'));
  const path = join(folder, 'board.pdf');
  const save = async (): Promise<number> => {
    const response = await tutor.get(`/boards/${board!.id}/pdf?ink=all`);
    writeFileSync(path, Buffer.from(await response.arrayBuffer()));
    return response.status;
  };
  const began = performance.now();
  expect(await save()).toBe(200);
  const took = performance.now() - began;
  for (let kill = 0; kill < 4; kill++) {
    const broken = save().then(
      () => 'all',
      () => 'broken off',
    );
    await new Promise((done) => setTimeout(done, ((kill + 0.5) / 4) * took * 0.8));
    await server.kill();
    await broken;
    await server.run();
    expect(await save()).toBe(200);
    execFileSync('qpdf', ['--check', path]);
    expect(execFileSync('pdfinfo', [path]).toString()).toContain(`Pages:           ${PAGES}`);
  }
  rmSync(folder, { recursive: true });
});
