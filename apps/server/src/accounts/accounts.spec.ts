import { House } from '../testing/harness.js';
import { Passwords } from './passwords.js';
import type { ProblemError } from '../problems/index.js';
import { Guesses } from './guesses.js';

describe('passwords', () => {
  const passwords = new Passwords();

  it('are kept as salted scrypt hashes that tell nothing', async () => {
    const [a, b] = await Promise.all([
      passwords.hash('low water at ten'),
      passwords.hash('low water at ten'),
    ]);
    expect(a).not.toBe(b);
    expect(a).toMatch(/^scrypt\$32768\$8\$1\$/);
    expect(await passwords.check('low water at ten', a)).toBeTrue();
    expect(await passwords.check('high water at ten', a)).toBeFalse();
  });

  it('are the same however their accents were typed', async () => {
    expect(
      await passwords.check('Zoe\u0308 at ten', await passwords.hash('Zo\u00eb at ten')),
    ).toBeTrue();
  });

  it('that were kept at another cost still fit', async () => {
    const kept = await new Passwords(2 ** 10).hash('low water at ten');
    expect(kept).toMatch(/^scrypt\$1024\$/);
    expect(await passwords.check('low water at ten', kept)).toBeTrue();
    expect(await passwords.check('high water at ten', kept)).toBeFalse();
  });

  it('never fit where there is no account', async () => {
    expect(await passwords.check('anything', undefined)).toBeFalse();
  });
});

describe('guessing', () => {
  const tries = async (guesses: Guesses, times: number): Promise<number> => {
    const all = Array.from({ length: times }, () =>
      guesses.begin('k').then(
        () => true,
        () => false,
      ),
    );
    return (await Promise.all(all)).filter(Boolean).length;
  };

  it('ends after so many wrong ones, also at once, and says for how long', async () => {
    const guesses = new Guesses(30);
    expect(await tries(guesses, 400)).toBe(30);
    const refused = await guesses.begin('k').catch((error: unknown) => error as ProblemError);
    expect((refused as ProblemError).problem.detail).toMatch(/Wait 60 minutes/);
    expect((refused as ProblemError).retryAfter).toBeLessThanOrEqual(3600);
    await guesses.begin('another');
  });

  it('isn’t forgiven for a right one', async () => {
    const guesses = new Guesses(30);
    await tries(guesses, 29);
    await guesses.begin('k');
    await guesses.right('k');
    expect(await tries(guesses, 10)).toBe(1);
  });

  it('is over after an hour, whatever the clock says by then', async () => {
    jasmine.clock().install();
    jasmine.clock().mockDate(new Date('2026-11-29T12:00:00Z'));
    try {
      const guesses = new Guesses(3);
      expect(await tries(guesses, 5)).toBe(3);
      // Somebody sets the clock back by two days.
      jasmine.clock().mockDate(new Date('2026-11-27T12:00:00Z'));
      const refused = await guesses.begin('k').catch((error: unknown) => error as ProblemError);
      expect((refused as ProblemError).retryAfter).toBeLessThanOrEqual(3600);
      jasmine.clock().tick(3_600_001);
      expect(await tries(guesses, 5)).toBe(3);
    } finally {
      jasmine.clock().uninstall();
    }
  });
});

/** Keys for so many commands. */
function many(count: number): [string, string][] {
  return Array.from({ length: count }, (_, i) => [`command-${i}`, 'q']);
}

describe('signing in', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('accounts');
  });
  afterEach(() => house.close());

  const right = { email: 'maren@example.org', password: 'low-water-at-ten' };

  it('works with the right words, in any case of letters, until signing out', async () => {
    const visitor = house.visitor();
    expect((await visitor.get('/today')).statusCode).toBe(401);
    expect(
      (await visitor.post('/sign-in', { ...right, email: 'Maren@Example.org' })).statusCode,
    ).toBe(204);
    expect((await visitor.get('/today')).statusCode).toBe(200);
    const { cookie } = visitor;
    await visitor.post('/sign-out');
    visitor.cookie = cookie;
    expect((await visitor.get('/today')).statusCode).toBe(401);
  });

  it('never says which part was wrong', async () => {
    const visitor = house.visitor();
    const wrongPassword = await visitor.post('/sign-in', { ...right, password: 'x' });
    const wrongEmail = await visitor.post('/sign-in', { ...right, email: 'nobody@example.org' });
    expect(wrongPassword.statusCode).toBe(401);
    expect(wrongPassword.body).toBe(wrongEmail.body);
    expect(wrongPassword.headers['content-type']).toContain('application/problem+json');
  });

  it('slows down after ten tries, the right password too, and says for how long', async () => {
    const visitor = house.visitor();
    for (let i = 0; i < 10; i++)
      await visitor.post('/sign-in', { ...right, password: `guess ${i}` });
    const response = await visitor.post('/sign-in', right);
    expect(response.statusCode).toBe(429);
    expect(Number(response.headers['retry-after'])).toBeGreaterThan(0);
    expect(response.json<{ detail: string }>().detail).toMatch(/Wait \d+ minutes/);
  });

  it('keeps its cookie from scripts and other sites', async () => {
    const response = await house.visitor().post('/sign-in', right);
    expect(String(response.headers['set-cookie'])).toMatch(/HttpOnly; SameSite=Strict/);
  });

  it('makes the first account only once', async () => {
    const response = await house.visitor().post('/set-up', { name: 'Eve', ...right });
    expect(response.statusCode).toBe(409);
  });

  it('refuses requests that come from another site', async () => {
    const response = await house
      .visitor()
      .request('POST', '/sign-in', right, { origin: 'https://elsewhere.example' });
    expect(response.json<{ type: string }>().type).toBe('urn:cuaderno:wrong-origin');
  });

  it('keeps what was changed about the keys of a board, and nothing that is none of it', async () => {
    const usual = { singleKeys: true, changed: {} };
    const changed = { singleKeys: false, changed: { pen: 'q', eraser: null, lamp: 'Shift+L' } };
    const read = async (): Promise<unknown> => (await house.tutor.get('/account/shortcuts')).json();
    expect(await read()).toEqual(usual);
    expect((await house.tutor.post('/account/shortcuts', changed)).statusCode).toBe(204);
    expect(await read()).toEqual(changed);
    for (const wrong of [
      { singleKeys: true },
      { ...changed, more: 1 },
      { singleKeys: true, changed: { pen: 'F2' } },
      { singleKeys: true, changed: { pen: '\u0000' } },
      { singleKeys: true, changed: { __proto__x: 'q', 'A b': 'q' } },
      { singleKeys: true, changed: Object.fromEntries(many(101)) },
    ])
      expect((await house.tutor.post('/account/shortcuts', wrong)).statusCode).toBe(400);
    expect(await read()).toEqual(changed);
    // Another tutor has their own, and who is none is asked to sign in.
    expect((await house.visitor().get('/account/shortcuts')).statusCode).toBe(401);
    // What was put there by other hands counts as nothing changed.
    await house.app.db.raw([{ sql: `UPDATE tutors SET shortcuts = '{"a":1}'`, params: [] }]);
    expect(await read()).toEqual(usual);
  });

  it('has no one-click sign-in where this is no demo', async () => {
    expect((await house.visitor().post('/demo/sign-in')).statusCode).toBe(404);
  });
});
