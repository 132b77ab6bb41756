import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';
import { expect, test } from './story.js';

/* From each main screen to every other, and back to what was looked at. */

let server: SharedProcessServer;
test.beforeEach(async () => (server = await SharedProcessServer.start()));
test.afterEach(() => server.close());

test('every main screen is a touch from every other; a reload and Back find what was looked at', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  const { page } = maren;
  const bar = page.getByRole('navigation', { name: 'Screens' });
  const current = bar.locator('[aria-current=page]');
  await maren.setUp(server.url);
  await maren.makeCourse('Tides');
  await expect(page).toHaveTitle('Tides · Cuaderno');
  await maren.bring('Ebb.pdf', await samplePdf(3));
  await expect(page).toHaveTitle('Ebb · Cuaderno');

  // A board, at its third page.
  const number = page.getByLabel('Go to page number');
  await maren.button('Next page').click();
  await maren.button('Next page').click();
  await expect(number).toHaveValue('3');
  const third = (await maren.pageIds())[2]!;
  await expect(page).toHaveURL(
    `${new URL(page.url()).origin}${new URL(page.url()).pathname}?page=${third}`,
  );
  await page.reload();
  await maren.isOnBoard();
  await expect(number).toHaveValue('3');

  // A lesson, and its record's statistics.
  await maren.openLesson();
  await maren.button('Close the lesson').click();
  await page.getByRole('dialog').getByRole('button', { name: 'Close the lesson' }).click();
  await page.waitForURL(/records/);
  await page.getByText('Statistics', { exact: true }).click();
  const statistics = page.getByRole('heading', { name: 'What each did' });
  await expect(statistics).toBeVisible();
  await page.reload();
  await expect(statistics).toBeVisible();
  await expect(page).toHaveTitle('Ebb · Cuaderno');

  // From screen to screen by the bar, and to a course by its list.
  await page.goto(server.url);
  for (const name of ['Records', 'Materials', 'Hours', 'Mailbox', 'Week']) {
    await bar.getByRole('link', { name, exact: true }).click();
    await expect(current).toHaveText(name);
    await expect(page).toHaveTitle(`${name} · Cuaderno`);
  }
  const week = page.getByRole('heading', { name: /^Week/ });
  const now = await week.textContent();
  await maren.button('The week after').click();
  await expect(week).not.toHaveText(now!);
  const next = await week.textContent();
  await page.reload();
  await expect(week).toHaveText(next!);
  // On paper there is the week, and nothing to press.
  await page.emulateMedia({ media: 'print' });
  await expect(week).toBeVisible();
  await expect(bar).toBeHidden();
  await expect(maren.button('Plan lessons')).toBeHidden();
  await page.emulateMedia({ media: 'screen' });
  await bar.getByRole('button', { name: 'Courses' }).click();
  await page.getByRole('link', { name: 'Tides', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Tides', exact: true })).toBeVisible();
  await page.goBack();
  await expect(week).toHaveText(next!);

  // Today says what waits: the lesson has no summary yet.
  await bar.getByRole('link', { name: 'Today', exact: true }).click();
  const waits = page.getByRole('region', { name: 'No summary yet' });
  await waits.getByRole('link', { name: /Ebb/ }).click();
  const summary = page.getByRole('region', { name: 'Summary' });
  await summary.getByRole('button', { name: 'Write it' }).click();
  await summary.getByRole('textbox').fill('We read the tide table.');
  await summary.getByRole('button', { name: 'Keep it' }).click();
  await expect(summary).toContainText('Written');
  await page.goto(server.url);
  await expect(page.getByRole('heading', { name: 'Recent records' })).toBeVisible();
  await expect(waits).toBeHidden();
});
