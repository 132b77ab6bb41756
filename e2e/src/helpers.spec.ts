import { expect, test } from './story.js';
import { expectNoAxeViolations } from './axe.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { choose, Someone } from './people.js';

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

const LINE = (y: number) => [
  { x: 100, y },
  { x: 260, y },
];

test('a helper comes by a link of her own and helps; a grandmother is let in to watch; all see who they are', async ({
  browser,
}) => {
  test.slow();
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tuesday sky-watching', 'ask');

  // The link says what Tove is.
  await maren.page.getByText('The door, guests, and a new link').click();
  await maren.page.getByRole('textbox', { name: 'Guest' }).fill('Tove');
  await choose(maren.page.getByRole('combobox', { name: 'Comes as' }), 'Helper');
  const made = maren.page.waitForResponse(/\/guests$/);
  await maren.button('Make and copy').click();
  const { token } = (await (await made).json()) as { token: string };
  await expect(maren.page.getByText('Tove').locator('..')).toContainText('helps');

  await maren.bring('Star chart.pdf', await samplePdf(2));
  const link = server.url + (await maren.openLesson());
  const tove = await Someone.at(browser);
  await tove.knock(`${server.url}/join/${token}`, 'Tove');
  await expect(maren.page.getByText('came by the link for Tove, to help')).toBeVisible();
  await maren.button('Let Tove in').click();
  await tove.isOnBoard();
  await expect(tove.page.locator('header .helps')).toContainText('Tove helps');

  // A watcher is let in at the door; Ida is let in by Tove, who can't give roles.
  const ebba = await Someone.at(browser, { viewport: { width: 820, height: 1180 } });
  await ebba.knock(link, 'Ebba');
  await maren.button('Ebba as helper or watcher…').click();
  await maren.page.getByRole('menuitem', { name: 'Let in as a watcher' }).click();
  await ebba.isOnBoard();
  await ebba.isTold('You watch');
  const ida = await Someone.at(browser);
  await ida.knock(link, 'Ida');
  await expect(tove.button('Let Ida in')).toBeVisible();
  await expect(tove.button('Ida as helper or watcher…')).toHaveCount(0);
  await tove.button('Let Ida in').click();
  await ida.isOnBoard();
  for (const one of [ida, ebba]) {
    const strip = one.page.getByRole('list', { name: 'Who is here' }).first();
    await expect(strip.getByRole('listitem').filter({ hasText: 'Tove' })).toContainText('helps');
  }
  await expect(
    ida.page
      .getByRole('list', { name: 'Who is here' })
      .first()
      .getByRole('listitem')
      .filter({ hasText: 'Ebba' }),
  ).toContainText('watches');
  const others = maren.page.getByRole('list', { name: 'Who helps and who watches' });
  await expect(others.getByRole('listitem')).toHaveText([/Tove.*helps/s, /Ebba.*watches/s]);

  // Tove gives a pen and takes all back with one touch; her own stays hers.
  await tove.give('Ida', 'Writing');
  await ida.isTold('You have a pen');
  const [first, second] = (await tove.pageIds()) as [string, string];
  await tove.draw(first, LINE(120));
  await ida.draw(first, LINE(160));
  await expect.poll(() => maren.lines().then(({ length }) => length)).toBe(2);
  await expect.poll(() => ebba.lines()).toEqual(await maren.lines());
  await ebba.draw(first, LINE(200));
  await tove.button('Take all pens back').click();
  await ida.isTold('Watching');
  await tove.draw(first, LINE(240));
  await expect.poll(() => ida.lines().then(({ length }) => length)).toBe(3);
  expect(await maren.lines()).toEqual(await ida.lines());

  // She hides a page, which the others don't have from then on; she has no way to remove one, or to close.
  await tove.goTo(second);
  await tove.button('This page').click();
  await expect(tove.page.getByRole('menuitem', { name: 'Remove' })).toHaveCount(0);
  await tove.page.getByRole('menuitem', { name: 'Hide page' }).click();
  await expect.poll(() => ida.pageIds()).toEqual([first]);
  await expect.poll(() => ebba.pageIds()).toEqual([first]);
  expect(await tove.pageIds()).toEqual([first, second]);
  await expect(tove.button('Close the lesson')).toHaveCount(0);

  // She opens an empty board for the class, by the same two touches.
  await tove.button('Boards').click();
  await tove.page
    .getByRole('dialog', { name: 'Boards' })
    .getByRole('button', { name: 'Empty board' })
    .click();
  const star = await maren.boardId();
  await expect.poll(() => tove.boardId()).not.toBe(star);
  await expect(ida.page.getByRole('combobox', { name: 'Board' })).toBeVisible();
  await expectNoAxeViolations(tove, 'the room of one who helps');
  await expectNoAxeViolations(ebba, 'the lesson of one who watches');

  // A reload leaves each what they were.
  await Promise.all([tove.page.reload(), ebba.page.reload()]);
  await Promise.all([tove.isOnBoard(), ebba.isOnBoard()]);
  await expect(tove.page.locator('header .helps')).toContainText('helps');
  await ebba.isTold('You watch');

  // Ebba wants to write after all; what she was sent before isn't hers any more, and all comes anew.
  await maren.button('More for Ebba').click();
  await maren.page.getByRole('menuitem', { name: 'Make them a student' }).click();
  await ebba.isTold('Watching');
  await ebba.isOnBoard();
  await maren.button('More for Ebba').click();
  await maren.page.getByRole('menuitem', { name: 'Make them a watcher' }).click();
  await ebba.isTold('You watch');

  // The record says what they were.
  await maren.button('Close the lesson').click();
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close the lesson' }).click();
  await expect(maren.page.getByRole('heading', { name: 'Who was there' })).toBeVisible();
  const there = maren.page.locator('cua-record-facts tr');
  await expect(there.filter({ hasText: 'Tove' })).toContainText('· helps');
  await expect(there.filter({ hasText: 'Ebba' })).toContainText('· watches');
  await expect(tove.page.getByText('The lesson is over')).toBeVisible();
});
