import { readFileSync } from 'node:fs';
import { expect, test } from './story.js';
import { expectNoAxeViolations } from './axe.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { choose, Someone } from './people.js';

/* A file is brought in the lesson, laid where it is wanted, and handed to students, who keep it. */

let server: SharedProcessServer;
test.beforeEach(async () => (server = await SharedProcessServer.start()));
test.afterEach(() => server.close());

test('a file is brought and handed over in the lesson, kept by who may, and seen to be', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Reading the tides');
  await maren.bring('Board.pdf', await samplePdf(2));
  const join = await maren.openLesson();
  const ida = await Someone.at(browser, { viewport: { width: 390, height: 844 } });
  await ida.join(server.url + join, 'Ida');
  const jonas = await Someone.at(browser);
  await jonas.join(server.url + join, 'Jonas');

  await maren.button('Materials').click();
  const panel = maren.page.locator('cua-chooser-panel');
  const table = await samplePdf(1);
  await panel
    .locator('input[type=file]')
    .setInputFiles([{ name: 'Tide table.pdf', mimeType: 'application/pdf', buffer: table }]);
  await expect(panel.getByText('Tide table.pdf')).toBeVisible();

  // Its page goes where it is wanted.
  const before = await maren.pageIds();
  await choose(panel.getByRole('combobox', { name: 'Pages of a PDF go' }), 'before this page');
  await panel.locator('.lay').filter({ hasText: 'Tide table.pdf' }).click();
  await expect.poll(async () => (await maren.pageIds()).slice(1)).toEqual(before);

  await panel.getByRole('button', { name: 'Hand over: Tide table.pdf' }).click();
  const dialog = maren.page.getByRole('dialog');
  await dialog.getByLabel('Some', { exact: true }).check();
  await dialog.getByText('Ida').click();
  await dialog.getByRole('button', { name: 'Hand over', exact: true }).click();
  await expect(dialog.getByText('Nobody has it yet')).toBeVisible();
  await expectNoAxeViolations(maren, 'handing over');

  // Ida is told by a number; Jonas has nothing.
  await ida.button('Files for you, 1 new').click();
  await expectNoAxeViolations(ida, 'files for a student');
  const coming = ida.page.waitForEvent('download');
  await ida.page.getByRole('link', { name: 'Tide table.pdf' }).click();
  const came = await coming;
  expect(came.suggestedFilename()).toBe('Tide table.pdf');
  expect(readFileSync(await came.path()).equals(table)).toBe(true);
  await expect(ida.page.getByText('you have it')).toBeVisible();
  await expect(jonas.page.getByRole('button', { name: /^Files for you/ })).toHaveCount(0);
  await expect(dialog.getByText('Ida has it')).toBeVisible();

  // For all, it is there when the lesson is over, too.
  await dialog.getByLabel('All students of the course').check();
  await dialog.getByRole('button', { name: 'Hand over', exact: true }).click();
  await expect(jonas.button('Files for you, 1 new')).toBeVisible();
  await dialog.getByRole('button', { name: 'Done' }).click();
  await maren.button('Close the lesson').click();
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close the lesson' }).click();
  await expect(jonas.page.getByRole('link', { name: 'Tide table.pdf' })).toBeVisible();
  await jonas.page.reload();
  await expect(jonas.page.getByRole('link', { name: 'Tide table.pdf' })).toBeVisible();
  await jonas.page.goto(server.url + join);
  await expect(jonas.page.getByRole('link', { name: 'Tide table.pdf' })).toBeVisible();
});
