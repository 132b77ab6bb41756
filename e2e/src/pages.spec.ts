import { expect, test } from './story.js';
import { execFileSync } from 'node:child_process';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

test('pages are added, set up, copied, put in order and taken out while a student looks on', async ({
  browser,
}) => {
  const maren = await Someone.at(browser, { viewport: { width: 1280, height: 900 } });
  await maren.setUp(server.url);
  await maren.makeCourse('Sky-watching');
  await maren.bring('Sky.pdf', await samplePdf(2));
  const noor = await Someone.at(browser);
  await noor.join(server.url + (await maren.openLesson()), 'Noor');
  const [sky, second] = await maren.pageIds();
  const agree = async (ids: (string | undefined)[]): Promise<void> => {
    for (const who of [maren, noor]) await expect.poll(() => who.pageIds()).toEqual(ids);
  };

  // An empty page after the one in view, squared and tinted: both see the tint.
  await maren.button('Empty page').click();
  await expect.poll(async () => (await maren.pageIds()).length).toBe(3);
  const empty = (await maren.pageIds())[1]!;
  await agree([sky, empty, second]);
  await maren.page.getByRole('button', { name: 'Page 2', exact: true }).click();
  await maren.ofPages('Paper');
  await maren.page.getByLabel('Name', { exact: true }).fill('Where the planets stand');
  await maren.button('Squared').click();
  await maren.button('Straw').click();
  await maren.button('Apply').click();
  await expect(maren.button('Page 2, Where the planets stand')).toBeVisible();
  await noor.stage.evaluate((host, id) => {
    (host as unknown as { cuaStage: { goTo(page: string): void } }).cuaStage.goTo(id);
  }, empty);
  for (const who of [maren, noor]) {
    await expect
      .poll(async () => {
        const [red, , blue] = await who.colourAt(empty, { x: 35, y: 35 });
        return red - blue;
      })
      .toBeGreaterThan(30);
  }

  // Dragged to the top, and back by undo; by keyboard, too.
  const entry = (n: number) => maren.page.locator('.entry').nth(n);
  await maren.page.locator('cdk-virtual-scroll-viewport').evaluate((list) => (list.scrollTop = 0));
  const from = (await entry(1).boundingBox())!;
  const to = (await entry(0).boundingBox())!;
  await maren.page.mouse.move(from.x + 70, from.y + 70);
  await maren.page.mouse.down();
  await maren.page.mouse.move(from.x + 70, from.y + 40, { steps: 5 });
  await maren.page.mouse.move(to.x + 70, to.y + 30, { steps: 10 });
  await maren.page.mouse.up();
  await agree([empty, sky, second]);
  await maren.button('Undo').click();
  await agree([sky, empty, second]);
  await maren.button('Page 2, Where the planets stand').focus();
  await maren.page.keyboard.press('Alt+ArrowDown');
  await agree([sky, second, empty]);

  // A copy has the ink; a page taken out comes back, also after something else was done.
  await maren.page.getByRole('button', { name: 'Page 1', exact: true }).click();
  await maren.draw(sky!, [
    { x: 60, y: 100 },
    { x: 200, y: 120 },
  ]);
  await expect.poll(async () => (await noor.lines()).length).toBe(1);
  await maren.ofPages('Copy');
  await expect.poll(async () => (await noor.pageIds()).length).toBe(4);
  await expect.poll(async () => (await noor.lines()).length).toBe(2);
  const copy = (await maren.pageIds())[1]!;
  await maren.page.getByRole('button', { name: 'Page 1', exact: true }).click();
  await maren.ofPages('Remove');
  await expect(maren.page.getByText('Page 1 was removed.')).toBeVisible();
  await agree([copy, second, empty]);
  await maren.button('Restore').click();
  await agree([sky, copy, second, empty]);

  // The record has the pages in this order, with their own text, and the squared paper.
  await maren.button('Close the lesson').click();
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close the lesson' }).click();
  const { path } = await maren.saveRecord();
  execFileSync('qpdf', ['--check', path]);
  const text = execFileSync('pdftotext', [path, '-']).toString().split('\f');
  expect(text.slice(0, 4).map((page) => page.trim() !== '')).toEqual([true, true, true, false]);
  expect(text[1]).toBe(text[0]);
});
