import { createClient } from '@libsql/client';
import { expect, test } from './story.js';
import { join } from 'node:path';
import { KillableServer } from './house.js';
import { Someone } from './people.js';

/*
 * The server is killed again and again at moments that nobody chose, while three people write, rub out and
 * undo. Afterwards every screen, and the disk, have the same; and every line that was finished is there.
 */

/** As many as there is time for in every run of the tests; `KILLS=50` before a release. */
const KILLS = Number(process.env['KILLS'] ?? 10);

/** Repeatable chance (mulberry32), so that a run that failed can be seen again. */
function chance(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Draws, rubs out and undoes until it is told to stop. */
async function write(who: Someone, page: string, seed: number, goOn: () => boolean) {
  const random = chance(seed);
  let drawn = 0;
  for (let n = 1; goOn(); n++) {
    const at = { x: 60 + random() * 330, y: 60 + random() * 150 };
    const to = { x: at.x + 20 + random() * 60, y: at.y + random() * 40 };
    // No faster than a hand: the machine has servers to start as well.
    await who.page.waitForTimeout(120);
    if (n % 9 === 0) await who.page.keyboard.press('Control+z');
    else if (n % 13 === 0) {
      await who.page.keyboard.press('e');
      await who.draw(page, [at, to]);
      await who.page.keyboard.press('p');
    } else {
      await who.draw(page, [at, to]);
      drawn++;
    }
  }
  return drawn;
}

interface Seen {
  readonly id: string;
  readonly by: string;
  readonly gone: boolean;
  readonly ink: string;
}

/** All of a board: what was taken away as well, and every byte of ink. */
function all(who: Someone): Promise<Seen[]> {
  return who.stage.evaluate((element) => {
    const stage = (
      element as unknown as {
        cuaStage: {
          board(): {
            pages: Map<
              string,
              {
                items: Map<
                  string,
                  { id: string; by: string; removed: object | null; ink?: Uint8Array }
                >;
              }
            >;
          };
        };
      }
    ).cuaStage;
    return [...stage.board().pages.values()]
      .flatMap((page) => [...page.items.values()])
      .map(({ id, by, removed, ink }) => ({
        ...{ id, by, gone: removed !== null },
        ink: [...(ink ?? [])].join(' '),
      }))
      .sort((a, b) => (a.id < b.id ? -1 : 1));
  });
}

/**
 * What every screen has alike. Of what was taken away, students have what it was only where it was theirs or they saw it go:
 * to all others it is an empty place.
 */
function alike(seen: readonly Seen[]): object[] {
  return seen.map((one) => (one.gone ? { id: one.id, gone: true } : one));
}

test('kills at random moments under load lose nothing', async ({ browser }) => {
  test.setTimeout(180_000 + KILLS * 30_000);
  const server = await KillableServer.start();
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tides');
  await maren.button('Empty board').click();
  await maren.isOnBoard();
  const link = server.url + (await maren.openLesson());
  const [page] = (await maren.pageIds()) as [string];
  const [ida, noor] = [await Someone.at(browser), await Someone.at(browser)];
  await ida.join(link, 'Ida');
  await noor.join(link, 'Noor');
  await maren.button('Writing for all').click();
  for (const who of [ida, noor]) await who.isTold('You have a pen');
  const people = [maren, ida, noor];

  const seed = Number(process.env['KILLS_SEED'] ?? Date.now() % 1e6);
  console.log(`KILLS_SEED=${seed}`);
  const random = chance(seed);
  let done = false;
  const writing = people.map((who, i) => write(who, page, seed + i, () => !done));
  for (let kill = 0; kill < KILLS; kill++) {
    // At times before anyone is back, at times long after.
    const wait = 20 + random() * (kill % 3 === 0 ? 200 : 900);
    await new Promise((go) => setTimeout(go, wait));
    await server.kill('SIGKILL');
    await server.run();
  }
  done = true;
  const drawn = await Promise.all(writing);

  for (const who of people) await expect(who.page.getByText('Connection lost')).toBeHidden();
  const [first, ...others] = people;
  let state: Seen[] = [];
  await expect(async () => {
    state = await all(first!);
    for (const who of others) expect(alike(await all(who))).toEqual(alike(state));
  }).toPass({ timeout: 45_000 });

  // Every line that was finished is there once, no matter who drew it, taken away or not.
  const counts = new Map<string, number>();
  for (const { by } of state) counts.set(by, (counts.get(by) ?? 0) + 1);
  expect([...counts.values()].sort()).toEqual([...drawn].sort());
  expect(Math.min(...drawn)).toBeGreaterThan(20);

  // And so is it on the disk: for a server that knows nothing but that, and in the rows themselves.
  await server.kill('SIGKILL');
  const db = createClient({ url: `file:${join(server.folder, 'cuaderno.db')}` });
  const { rows } = await db.execute(
    "SELECT id, hex(body) AS ink FROM operations WHERE kind = 'ink.add' ORDER BY id",
  );
  const hex = ({ ink }: Seen): string =>
    Buffer.from(ink.split(' ').map(Number)).toString('hex').toUpperCase();
  expect(new Map(rows.map((row) => [String(row['id']), String(row['ink'])]))).toEqual(
    new Map(state.map((one) => [one.id, hex(one)])),
  );
  const places = await db.execute(
    'SELECT count(*) AS n, count(DISTINCT seq) AS places, count(DISTINCT id) AS ids FROM operations',
  );
  const { n, places: seqs, ids } = places.rows[0]!;
  expect([seqs, ids]).toEqual([n, n]);
  db.close();
  await server.run();
  const late = await Someone.at(browser);
  await late.join(link, 'Jonas');
  await expect
    .poll(async () => JSON.stringify(alike(await all(late))))
    .toBe(JSON.stringify(alike(state)));
  // Who came late is sent nothing of what was taken away before.
  const gone = (await all(late)).filter((one) => one.gone);
  expect(gone.length).toBeGreaterThan(0);
  expect(gone.every(({ ink }) => ink === '')).toBe(true);
  await server.close();
});
