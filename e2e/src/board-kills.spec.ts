import { createClient } from '@libsql/client';
import { join } from 'node:path';
import { KillableServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';
import { expect, test } from './story.js';

/*
 * The server is killed while the class is on its way from one board to another. Everyone arrives, and every line that
 * was drawn is there, on the board on which it was.
 */

/** As many as there is time for in every run of the tests; `KILLS=20` before a release. */
const KILLS = Number(process.env['KILLS'] ?? 4);

test('kills while boards are switched lose neither the class nor a line', async ({ browser }) => {
  test.setTimeout(180_000 + KILLS * 60_000);
  const server = await KillableServer.start();
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tides');
  const course = maren.page.url();
  const titles = ['Ebb', 'Flood'] as const;
  for (const title of titles) {
    await maren.page.goto(course);
    await maren.bring(`${title}.pdf`, await samplePdf(2));
  }
  const link = server.url + (await maren.openLesson());
  await maren.page.getByRole('switch', { name: 'In step' }).click();
  const [ida, noor] = [await Someone.at(browser), await Someone.at(browser)];
  await ida.join(link, 'Ida');
  await noor.join(link, 'Noor');
  await maren.button('Writing for all').click();
  for (const who of [ida, noor]) await who.isTold('You have a pen');
  const people = [maren, ida, noor];

  const drawn = new Map<string, number>();
  let from = await maren.boardId();
  for (let kill = 0; kill < KILLS; kill++) {
    await maren.button('Boards').click();
    const dialog = maren.page.getByRole('dialog', { name: 'Boards' });
    await dialog.locator('.board', { hasText: titles[kill % 2] }).click();
    // At times before it was heard of, at times when students are on their way or there.
    await new Promise((go) => setTimeout(go, [0, 40, 150, 600][kill % 4]));
    await server.kill('SIGKILL');
    await server.run();
    await expect.poll(() => maren.boardId()).not.toBe(from);
    from = await maren.boardId();
    for (const who of [ida, noor]) await expect.poll(() => who.boardId()).toBe(from);
    for (const who of people) await expect(who.page.getByText('Connection lost')).toBeHidden();
    const [page] = await maren.pageIds();
    for (const [i, who] of people.entries()) {
      const y = 60 + 30 * i + 7 * kill;
      await who.draw(page!, [
        { x: 80, y },
        { x: 180, y: y + 10 },
      ]);
    }
    drawn.set(from, (drawn.get(from) ?? 0) + people.length);
    for (const who of people)
      await expect.poll(() => who.lines().then((all) => all.length)).toBe(drawn.get(from));
  }
  await server.kill('SIGKILL');
  const db = createClient({ url: `file:${join(server.folder, 'cuaderno.db')}` });
  const { rows } = await db.execute(
    `SELECT b.id, count(*) AS lines FROM operations o JOIN boards b ON b.num = o.board
      WHERE o.kind = 'ink.add' GROUP BY b.id`,
  );
  db.close();
  expect(new Map(rows.map((row) => [String(row['id']), Number(row['lines'])]))).toEqual(drawn);
  await server.run();
  await server.close();
});

test('pens that are taken back while the server is away are back when it is', async ({
  browser,
}) => {
  const server = await KillableServer.start();
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tides');
  await maren.button('Empty board').click();
  await maren.isOnBoard();
  const link = server.url + (await maren.openLesson());
  const ida = await Someone.at(browser);
  await ida.join(link, 'Ida');
  await maren.button('Writing for all').click();
  await ida.isTold('You have a pen');
  await server.kill('SIGKILL');
  await expect(maren.page.getByText('Connection lost')).toBeVisible();
  await maren.button('Take all pens back').click();
  await server.run();
  await ida.isTold('You are watching');
  await server.close();
});
