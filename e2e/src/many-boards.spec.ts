import { execFileSync } from 'node:child_process';
import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

const LINE = (y: number) => [
  { x: 100, y },
  { x: 260, y },
];

/** The tutor opens a board of the course by its picture: two touches. */
async function open(maren: Someone, title: string): Promise<void> {
  await maren.button('Boards').click();
  const dialog = maren.page.getByRole('dialog', { name: 'Boards' });
  await dialog.locator('.board', { hasText: title }).click();
  await expect(dialog).toBeHidden();
  await expect(maren.page.locator('cua-board-name')).toContainText(title);
  await maren.isOnBoard();
}

/** Brings a PDF to the course as a board, and goes back there. */
async function bring(maren: Someone, name: string, pages: number): Promise<void> {
  await maren.bring(name, await samplePdf(pages));
  await maren.page.getByRole('link', { name: 'Back to Tuesday sky-watching' }).click();
  await expect(maren.page.getByText('How students come in')).toBeVisible();
}

test('three boards in one lesson: in step and not, one late, one away; and their record', async ({
  browser,
}) => {
  test.slow();
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tuesday sky-watching');
  await bring(maren, 'Moon phases.pdf', 3);
  await bring(maren, 'Planets.pdf', 2);
  await maren.bring('Star chart.pdf', await samplePdf(2));
  const link = server.url + (await maren.openLesson());
  const [ida, jonas] = [await Someone.at(browser), await Someone.at(browser)];
  await ida.join(link, 'Ida');
  await jonas.join(link, 'Jonas');
  await maren.button('Writing for all').click();
  await ida.isTold('You have a pen');
  const star = await maren.boardId();
  const [first] = await maren.pageIds();
  await ida.draw(first!, LINE(120));
  await expect.poll(() => maren.lines().then((lines) => lines.length)).toBe(1);

  // Not in step, they are told, stay where they are, and follow with one touch.
  await open(maren, 'Moon phases');
  const moon = await maren.boardId();
  expect(moon).not.toBe(star);
  const told = ida.page.getByText('Your tutor is on “Moon phases”.');
  await expect(told).toBeVisible();
  expect(await ida.boardId()).toBe(star);
  await ida.button('Go there').click();
  await expect.poll(() => ida.boardId()).toBe(moon);
  await expect(told).toBeHidden();
  const [moonPage] = await maren.pageIds();
  await ida.draw(moonPage!, LINE(160));
  await expect.poll(() => maren.lines().then((lines) => lines.length)).toBe(1);

  // Jonas is on the other board still: the tutor sees him write there, in a small picture.
  const elsewhere = maren.page.getByRole('group', { name: 'On other boards' });
  await expect(elsewhere.getByRole('button', { name: /Star chart.*Jonas/ })).toBeVisible();
  await jonas.draw(first!, LINE(200));

  // In step, all go along in one motion, and who comes late begins there.
  await maren.page.getByRole('switch', { name: 'In step' }).click();
  await expect.poll(() => jonas.boardId()).toBe(moon);
  await open(maren, 'Planets');
  const planets = await maren.boardId();
  await expect.poll(() => ida.boardId()).toBe(planets);
  await expect.poll(() => jonas.boardId()).toBe(planets);
  const noor = await Someone.at(browser);
  await noor.join(link, 'Noor');
  expect(await noor.boardId()).toBe(planets);
  const [planetPage] = await maren.pageIds();
  await maren.draw(planetPage!, LINE(240));
  await expect.poll(() => noor.lines().then((lines) => lines.length)).toBe(1);

  // Jonas is away while boards change, draws meanwhile, and loses nothing.
  await jonas.page.context().setOffline(true);
  await expect(jonas.page.getByText(/Connection lost/).first()).toBeVisible();
  await jonas.draw(planetPage!, LINE(280));
  await open(maren, 'Star chart');
  await jonas.page.context().setOffline(false);
  await expect.poll(() => jonas.boardId(), { timeout: 20_000 }).toBe(star);
  await expect.poll(() => maren.lines().then((lines) => lines.length)).toBe(2);

  // A reload keeps the board and the lesson.
  await maren.page.reload();
  await maren.isOnBoard();
  expect(await maren.boardId()).toBe(star);
  await expect(maren.button('Close the lesson')).toBeVisible();
  await open(maren, 'Planets');
  await expect.poll(() => maren.lines().then((lines) => lines.length)).toBe(2);

  // What is taken back from the class is nobody’s but the tutor’s.
  await maren.button('Boards').click();
  await maren.button('Take Moon phases back from the class').click();
  await expect(maren.page.getByText('was taken back')).toBeVisible();
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();

  await maren.button('Close the lesson').click();
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close the lesson' }).click();
  await maren.page.waitForURL(/records/);
  await maren.isOnBoard();
  // Its pages, grouped by board in the order in which the lesson came to them.
  const groups = maren.page.locator('cua-page-strip .group');
  await expect(groups.first()).toHaveText('Star chart');
  expect((await maren.pageIds()).length).toBe(7);
  expect((await maren.lines()).length).toBe(5);
  await expect(maren.page.locator('cua-record-bar .title')).toHaveText(
    'Star chart, Moon phases, Planets',
  );
  await maren.page.getByText('Before', { exact: true }).click();
  await expect.poll(() => maren.lines().then((lines) => lines.length)).toBe(0);
  await maren.page.getByText('Replay', { exact: true }).click();
  const slider = maren.page.getByRole('slider', { name: 'Moment of the lesson' });
  await slider.focus();
  await slider.press('End');
  await expect.poll(() => maren.lines().then((lines) => lines.length)).toBe(5);
  await slider.press('Home');
  await expect.poll(() => maren.lines().then((lines) => lines.length)).toBe(0);

  const { path } = await maren.saveRecord();
  const info = execFileSync('pdfinfo', [path]).toString();
  expect(Number(/Pages:\s+(\d+)/.exec(info)![1])).toBeGreaterThanOrEqual(7);
  // Bookmarks by board and page, as qpdf reads them.
  const outline = execFileSync('qpdf', ['--json', '--json-key=outlines', path]).toString();
  const { outlines } = JSON.parse(outline) as {
    outlines: { title: string; kids: { title: string }[] }[];
  };
  expect(outlines.slice(0, 3).map(({ title }) => title)).toEqual([
    'Star chart',
    'Moon phases',
    'Planets',
  ]);
  expect(outlines.slice(0, 3).map(({ kids }) => kids.length)).toEqual([2, 3, 2]);
});
