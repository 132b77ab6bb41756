import { itemsOn, newId } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import { addInk } from '@cuaderno/core/testing';
import { execFile } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { House } from '../testing/harness.js';
import { plainPdf } from '../testing/pdf-files.js';

const COMMAND = fileURLToPath(new URL('./main.js', import.meta.url));
const ACCOUNT = fileURLToPath(new URL('../accounts/main.js', import.meta.url));

/** Runs a command of the server as a process of its own. */
function run(
  script: string,
  args: string[],
  folder: string,
): Promise<{ code: number; said: string }> {
  return new Promise((resolve) => {
    const env = { ...process.env, CUADERNO_DATA: folder };
    execFile(process.execPath, [script, ...args], { env }, (error, out, err) =>
      resolve({ code: error ? Number(error.code) : 0, said: `${out}${err}` }),
    );
  });
}

describe('a backup', () => {
  let house: House;
  let place: string;

  beforeEach(async () => {
    house = await House.open('backup');
    place = mkdtempSync(join(tmpdir(), 'cuaderno-backup-'));
  });
  afterEach(async () => {
    await house.close();
    rmSync(place, { recursive: true, force: true });
  });

  it('of a busy server has all that was confirmed before it began, and is put back elsewhere', async () => {
    const pdf = await plainPdf(4);
    await house.tutor.upload(house.course.id, 'Tides.pdf', pdf);
    await house.app.imports.settled();
    const { maren, ana, page } = await house.lesson();
    const confirmed = new Set<Id>();
    let writing = true;
    const write = async (): Promise<void> => {
      for (let i = 0; writing; i++) {
        const line = addInk(page, i % 50);
        const window = i % 2 ? maren : ana;
        window.send({ kind: 'ops', ops: [line] });
        await window.hears('confirmed', ({ ids }) => ids.includes(line.id));
        confirmed.add(line.id);
      }
    };
    const busy = write();
    while (confirmed.size < 30) await maren.hearsTimes('confirmed', confirmed.size / 2 + 1);
    const before = [...confirmed];
    const file = join(place, 'all.tar');
    const { code, said } = await run(COMMAND, ['backup', file], house.folder);
    writing = false;
    await busy;
    expect(code).withContext(said).toBe(0);
    expect(confirmed.size).toBeGreaterThan(before.length);
    expect(readdirSync(house.folder).some((name) => name.startsWith('backup-work'))).toBeFalse();

    const elsewhere = join(place, 'data');
    const back = await run(COMMAND, ['restore', file], elsewhere);
    expect(back.code).withContext(back.said).toBe(0);
    const other = House.at(elsewhere);
    await other.start();
    try {
      const tutor = other.visitor();
      const right = { email: 'maren@example.org', password: 'low-water-at-ten' };
      expect((await tutor.post('/sign-in', right)).statusCode).toBe(204);
      const host = (await other.app.bus.host(house.board))!;
      const items = await host.between((board) => itemsOn(board.pages.get(page)!));
      const there = new Set(items.map(({ id }) => id));
      expect(before.every((id) => there.has(id))).toBeTrue();
      const stored = readdirSync(other.app.files.folder, { recursive: true, withFileTypes: true });
      const [kept] = stored.filter((entry) => entry.isFile());
      expect(readFileSync(join(kept!.parentPath, kept!.name)).equals(pdf)).toBeTrue();
      // A pass that was given out before is good there, too.
      expect(other.app.lessons.onBoard(house.board)).toBeDefined();
    } finally {
      await other.app.close();
    }
  });

  it('that is damaged, cut off or something else changes nothing', async () => {
    const file = join(place, 'all.tar');
    expect((await run(COMMAND, ['backup', file], house.folder)).code).toBe(0);
    const bytes = readFileSync(file);
    const folder = join(place, 'data');
    expect((await run(COMMAND, ['restore', file], folder)).code).toBe(0);
    const was = readFileSync(join(folder, 'cuaderno.db'));
    const bad: [string, Buffer, RegExp][] = [
      ['cut', bytes.subarray(0, bytes.length >> 1), /cut off|damaged/],
      ['other', Buffer.from('a letter '.repeat(500)), /is no backup/],
    ];
    for (const [name, content, words] of bad) {
      writeFileSync(join(place, name), content);
      const { code, said } = await run(COMMAND, ['restore', join(place, name)], folder);
      expect(code).withContext(name).toBe(1);
      expect(said).toMatch(words);
      expect(said).toContain('Nothing was changed');
      expect(readFileSync(join(folder, 'cuaderno.db')).equals(was)).toBeTrue();
    }
    expect((await run(COMMAND, ['restore', join(place, 'nothing')], folder)).said).toContain(
      'There is no file',
    );
    expect((await run(COMMAND, ['backup'], folder)).said).toContain('npm run backup -- FILE');
  });

  it('isn’t put back under a server that is running; afterwards, what was there lies beside it', async () => {
    const file = join(place, 'all.tar');
    await run(COMMAND, ['backup', file], house.folder);
    const { code, said } = await run(COMMAND, ['restore', file], house.folder);
    expect(code).toBe(1);
    expect(said).toContain('Another Cuaderno is using the folder');
    await house.app.close();
    const back = await run(COMMAND, ['restore', file], house.folder);
    expect(back.said).toContain('What was there before lies in');
    expect(readdirSync(house.folder).some((name) => name.startsWith('before-restore'))).toBeTrue();
    await house.start();
  });
});

describe('a tutor who forgot their password', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('forgotten', { address: 'https://boards.example.org' });
  });
  afterEach(() => house.close());

  const email = 'maren@example.org';
  const letters = async () =>
    (await house.tutor.get('/mailbox')).json<{ letters: { to: string; body: string }[] }>().letters;

  it('is sent a letter with a link that is good once, and signed out everywhere', async () => {
    const visitor = house.visitor();
    for (const asked of [email, 'nobody@example.org'])
      expect((await visitor.post('/password/forgotten', { email: asked })).statusCode).toBe(204);
    while ((await letters()).length === 0) await new Promise((resolve) => setImmediate(resolve));
    const [letter, ...others] = await letters();
    expect(others).toEqual([]);
    expect(letter!.to).toBe(email);
    const token = /https:\/\/boards\.example\.org\/reset\/([\w-]+)/.exec(letter!.body)![1]!;
    const window = await house.tutorWindow();
    await window.hears('welcome');
    const password = 'neap-tide-at-noon';
    expect((await visitor.post('/password/reset', { token, password })).statusCode).toBe(204);
    expect(await window.ends()).toBe(4401);
    expect((await house.tutor.get('/today')).statusCode).toBe(401);
    expect((await visitor.get('/today')).statusCode).toBe(200);
    const again = await house.visitor().post('/password/reset', { token, password });
    expect(again.json<{ type: string }>().type).toBe('urn:cuaderno:reset-over');
    const old = await house.visitor().post('/sign-in', { email, password: 'low-water-at-ten' });
    expect(old.statusCode).toBe(401);
    expect((await house.visitor().post('/sign-in', { email, password })).statusCode).toBe(204);
  });

  it('is given a link by the person who runs the server, while it is running', async () => {
    const { code, said } = await run(ACCOUNT, ['reset', email.toUpperCase()], house.folder);
    expect(code).withContext(said).toBe(0);
    const token = /\/reset\/([\w-]+)/.exec(said)![1]!;
    const visitor = house.visitor();
    const password = 'neap-tide-at-noon';
    expect((await visitor.post('/password/reset', { token, password })).statusCode).toBe(204);
    const nobody = await run(ACCOUNT, ['reset', 'nobody@example.org'], house.folder);
    expect([nobody.code, nobody.said.trim()]).toEqual([
      1,
      'Nobody has an account with the e-mail nobody@example.org.',
    ]);
  });

  it('changes it with the old one, and stays signed in there alone', async () => {
    const elsewhere = house.visitor();
    await elsewhere.post('/sign-in', { email, password: 'low-water-at-ten' });
    const change = (old: string) =>
      house.tutor.post('/account/password', { old, password: 'neap-tide-at-noon' });
    expect((await change('guess')).json<{ type: string }>().type).toBe(
      'urn:cuaderno:wrong-password',
    );
    expect((await change('low-water-at-ten')).statusCode).toBe(204);
    expect((await elsewhere.get('/today')).statusCode).toBe(401);
    expect((await house.tutor.get('/account')).json()).toEqual({
      name: 'Maren',
      email,
      zone: null,
    });
  });

  it('keeps a session that is used, and loses one that isn’t', async () => {
    const age = (days: number) =>
      house.app.db.raw([
        { sql: 'UPDATE sessions SET expires_at = expires_at - ?', params: [days * 86_400_000] },
      ]);
    await age(20);
    const used = await house.tutor.get('/today');
    expect(used.statusCode).toBe(200);
    expect(String(used.headers['set-cookie'])).toContain('Max-Age=2592000');
    await age(20);
    expect((await house.tutor.get('/today')).statusCode).toBe(200);
    await age(31);
    expect((await house.tutor.get('/today')).statusCode).toBe(401);
    expect(newId().length).toBe(12);
  });
});
