import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { readConfig } from '../config.js';
import { loggedError } from '../problems/log.js';
import { House } from '../testing/harness.js';
import { plainPdf } from '../testing/pdf-files.js';

describe('who comes to the server', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('guards', { proxies: 1 });
  });
  afterEach(() => house.close());

  const from = (path: string, body: object, headers: Record<string, string>) =>
    house.visitor().request('POST', path, body, headers);

  it('comes from our own pages, and from no sandboxed frame, file or other site', async () => {
    for (const origin of ['null', 'https://elsewhere.example', 'file://', 'about:blank', '%%%']) {
      const response = await from('/sign-in', { email: 'a@b', password: 'x' }, { origin });
      expect([response.statusCode, response.json<{ type: string }>().type])
        .withContext(origin)
        .toEqual([403, 'urn:cuaderno:wrong-origin']);
    }
    const own = await from(
      '/sign-in',
      { email: 'a@b', password: 'x' },
      {
        ...{ origin: 'http://localhost:8080', host: 'localhost:8080' },
      },
    );
    expect(own.statusCode).not.toBe(403);
  });

  it('is where our own proxy says, whatever else stands in the header', async () => {
    // The proxy adds the address of who spoke to it at the end; a guesser writes others before that.
    const answers = await Promise.all(
      Array.from({ length: 400 }, (_, i) =>
        from(
          '/join/find',
          { code: `AAAAA${10 + (i % 90)}` },
          {
            'x-forwarded-for': `10.9.${i % 250}.${i % 200}, 203.0.113.7`,
          },
        ),
      ),
    );
    expect(answers.filter(({ statusCode }) => statusCode === 404).length).toBe(15);
    // Nor does it help to have a whole network of IPv6 addresses, as every house has (RFC 6177).
    const house = await Promise.all(
      Array.from({ length: 40 }, (_, i) =>
        from(
          '/join/find',
          { code: `AAAAA${10 + i}` },
          { 'x-forwarded-for': `2001:db8:7:1::${(i + 1).toString(16)}` },
        ),
      ),
    );
    expect(house.filter(({ statusCode }) => statusCode === 404).length).toBe(15);
    // Somebody else behind the same proxy isn't slowed down by that.
    const other = await from(
      '/join/find',
      { code: 'AAAAAAA' },
      { 'x-forwarded-for': '203.0.113.8' },
    );
    expect(other.statusCode).toBe(404);
  });

  it('makes the first account once, also when five come at once', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'cuaderno-first-'));
    const fresh = House.at(folder);
    await fresh.start();
    const codes = await Promise.all(
      Array.from({ length: 5 }, async (_, i) => {
        const body = { name: `T${i}`, email: `t${i}@example.org`, password: 'low-water-at-ten' };
        return (await fresh.visitor().post('/set-up', body)).statusCode;
      }),
    );
    expect(codes.sort()).toEqual([204, 409, 409, 409, 409]);
    await fresh.app.close();
    rmSync(folder, { recursive: true, force: true });
  });

  it('waits at the door where somebody is kept out, if nobody knows their browser', async () => {
    const { maren, ana, anaId } = await house.lesson();
    const come = (who = house.visitor()) =>
      who.post('/join', { by: { link: house.course.linkToken }, name: 'Somebody' });
    // The door is open to all.
    expect((await come()).json()).toEqual({ state: 'in' });
    const known = house.visitor();
    await come(known);
    maren.send({ kind: 'door', who: anaId, word: 'barred' });
    expect(await ana.ends()).toBe(4403);
    // Ana, without what her browser kept, under another name.
    expect((await come()).json()).toEqual({ state: 'waiting' });
    // Who was here before comes in as before.
    expect((await come(known)).json()).toEqual({ state: 'in' });
  });

  it('is sent files that can do nothing by themselves', async () => {
    const made = await house.tutor.upload(house.course.id, 'a.pdf', await plainPdf(1));
    const { file } = made.json<{ file: string }>();
    const { headers } = await house.tutor.get(`/files/${file}`);
    expect(headers['content-security-policy']).toBe("default-src 'none'; sandbox");
    expect(headers['x-content-type-options']).toBe('nosniff');
  });
});

describe('settings of proxies', () => {
  const read = (CUADERNO_PROXIES: string) => readConfig({ CUADERNO_PROXIES }, null).proxies;

  it('name how many there are, or their addresses, and nothing else', () => {
    expect(read('2')).toBe(2);
    expect(read('10.0.0.1, 10.1.0.0/16,::1')).toEqual(['10.0.0.1', '10.1.0.0/16', '::1']);
    for (const odd of ['all', '10.0.0', '10.0.0.1/x', 'true'])
      expect(() => read(odd))
        .withContext(odd)
        .toThrowError(/number of proxies/);
  });
});

describe('what the server logs', () => {
  it('has no values of statements', () => {
    const error = new Error('Failed query: insert into people\nparams: Ida Solheim,secret');
    error.cause = new Error('UNIQUE failed');
    const logged = JSON.stringify(loggedError(error));
    expect(logged).toContain('insert into people');
    expect(logged).toContain('UNIQUE failed');
    expect(logged).not.toContain('Ida');
    expect(logged).not.toContain('secret');
  });

  it('has no address of a request, and no name', () => {
    const script = fileURLToPath(new URL('../testing/logged-requests.js', import.meta.url));
    const { stdout } = spawnSync(process.execPath, [script], { encoding: 'utf8' });
    expect(stdout).toContain('/api/shared/:token');
    expect(stdout).toContain('request completed');
    for (const secret of ['a-secret-token', 'Flakstad', 'join-me'])
      expect(stdout).withContext(secret).not.toContain(secret);
  });
});
