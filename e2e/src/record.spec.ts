import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { hasCome, Someone } from './people.js';

let server: SharedProcessServer;

test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

test('a lesson is seen again as it grew, from any moment', async ({ browser }) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Reading the tides');
  await maren.bring('Tides.pdf', await samplePdf(2));
  const [page] = await maren.pageIds();
  await maren.draw(page!, [
    { x: 100, y: 60 },
    { x: 260, y: 60 },
  ]);
  const link = server.url + (await maren.openLesson());
  const ida = await Someone.at(browser);
  await ida.join(link, 'Ida');
  await maren.give('Ida', 'Writing');
  await ida.isTold('You have a pen');
  await ida.draw(page!, [
    { x: 100, y: 120 },
    { x: 260, y: 120 },
  ]);
  await expect.poll(() => maren.lines().then((lines) => lines.length)).toBe(2);
  await maren.draw(page!, [
    { x: 100, y: 180 },
    { x: 260, y: 180 },
  ]);
  await maren.button('Close the lesson').click();
  const closing = maren.page.getByRole('dialog');
  await hasCome(closing);
  await closing.getByRole('textbox', { name: 'Summary' }).fill('We read the tide table of Solvik.');
  await closing.getByRole('button', { name: 'Close the lesson' }).click();
  await maren.page.waitForURL(/records/);
  const record = maren.page.url();

  const [prepared, idas, marens] = [60, 120, 180].map((y) => ({ x: 180, y }));
  await maren.seesInkAt(page!, marens!);
  await maren.page.getByText('Before', { exact: true }).click();
  await maren.seesInkAt(page!, prepared!);
  await maren.seesPaperAt(page!, idas!);
  await maren.seesPaperAt(page!, marens!);

  await maren.page.getByText('Replay', { exact: true }).click();
  await maren.seesPaperAt(page!, idas!);
  await maren.button('Play').click();
  // Ida's line comes before Maren's, and at the end all is as the lesson left it.
  await maren.seesInkAt(page!, idas!);
  await expect(maren.button('Play')).toBeVisible();
  await maren.seesInkAt(page!, marens!);
  expect((await maren.lines()).length).toBe(3);
  // And back to a moment at which only hers was there.
  const slider = maren.page.getByRole('slider', { name: 'Moment of the lesson' });
  await slider.focus();
  await slider.press('Home');
  await maren.seesPaperAt(page!, idas!);
  await maren.seesInkAt(page!, prepared!);
  await slider.press('End');
  await maren.seesInkAt(page!, marens!);

  // Who wrote what: signed, and one person's alone.
  await maren.button('Who wrote what').click();
  await maren.page.getByLabel('Names on every line').check();
  await expect
    .poll(async () => {
      const [r, g, b] = await maren.colourAt(page!, { x: 180, y: 120 - 4 });
      return Math.max(r, g, b) - Math.min(r, g, b);
    })
    .toBeGreaterThan(30);
  await maren.page.getByLabel('Ida alone').check();
  await maren.seesPaperAt(page!, marens!);
  await maren.seesInkAt(page!, idas!);

  // What was written as it closed stands there; amended, the former version stays.
  const aside = maren.page.getByRole('complementary', { name: 'About this lesson' });
  await expect(aside).toContainText('We read the tide table of Solvik.');
  await maren.button('Amend').click();
  await maren.page.getByRole('textbox', { name: 'Summary' }).fill('We read two tide tables.');
  await maren.button('Keep it').click();
  await expect(aside).toContainText('1 former version');
  await maren.page.getByText('Statistics', { exact: true }).click();
  await expect(maren.page.getByRole('row', { name: /^Ida/ }).last()).toContainText('1');

  // Found again by what Ida's page says, and by who was there.
  await maren.page.goto(`${server.url}/records?words=two+tide`);
  await expect(maren.page.getByRole('link', { name: /Summary/ })).toContainText('two tide tables');
  await maren.page.getByLabel('Words').fill('');
  await maren.page.getByRole('combobox', { name: 'Student' }).click();
  await maren.page.getByRole('option', { name: 'Ida' }).click();
  await maren.page.getByRole('link', { name: /^Tides, / }).click();
  await maren.page.waitForURL(record);

  // And gone on from: a clean copy has what was prepared, and nothing of the lesson.
  await maren.seesInkAt(page!, marens!);
  await maren.button('Continue…').click();
  await maren.page.getByRole('menuitem', { name: 'With a clean copy…' }).click();
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Make the copy' }).click();
  await maren.page.waitForURL(/boards/);
  await maren.isSharp();
  expect((await maren.lines()).length).toBe(1);
});
