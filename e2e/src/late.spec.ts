import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

test('who comes late sees all that was written and has what the class has, and undo survives a reload', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tuesday sky-watching');
  await maren.bring('Sky.pdf', await samplePdf(2));
  const link = server.url + (await maren.openLesson());
  const [first, second] = await maren.pageIds();

  const ana = await Someone.at(browser);
  await ana.join(link, 'Ana');
  await maren.button('Writing for all').click();
  await ana.isTold('You have a pen');
  const line = (y: number) => [80, 200, 320].map((x) => ({ x, y }));
  await ana.draw(first!, line(120));
  await maren.draw(first!, line(180));
  await expect.poll(async () => (await maren.lines()).length).toBe(2);
  await maren.page.getByRole('button', { name: 'Page 2' }).click();
  await maren.isSharp();

  // Noor comes late, on a phone: at the tutor's page, with all ink, and with a pen, as all have.
  // Taken in, they are in for who comes next as well.
  const noor = await Someone.at(browser, { viewport: { width: 390, height: 844 }, hasTouch: true });
  await noor.join(link, 'Noor');
  await noor.isTold('You have a pen');
  expect(await noor.lines()).toEqual(await maren.lines());
  // The page that Maren is at is in the upper half; the one before it begins above the window.
  await expect.poll(async () => (await noor.locate(second!, { x: 0, y: 0 })).y).toBeLessThan(422);
  expect((await noor.locate(first!, { x: 0, y: 0 })).y).toBeLessThan(0);
  await noor.stage.evaluate((host, id) => {
    (host as unknown as { cuaStage: { goTo(page: string): void } }).cuaStage.goTo(id);
  }, first!);
  for (const y of [120, 180]) await noor.seesInkAt(first!, { x: 200, y });

  // A reload forgets neither the ink nor what can be undone; Maren's line is not Ana's to undo.
  await ana.page.reload();
  await ana.isOnBoard();
  await ana.button('Undo').click();
  await expect.poll(async () => (await noor.lines()).length).toBe(1);
  await noor.seesPaperAt(first!, { x: 200, y: 120 });
  await noor.seesInkAt(first!, { x: 200, y: 180 });
  await expect(ana.button('Undo')).toBeDisabled();
  await ana.button('Redo').click();
  await expect.poll(async () => (await noor.lines()).length).toBe(2);
});

test('the tools go to the side of the writing hand and stay there; a tutor’s tablet keeps its pages', async ({
  browser,
}) => {
  const maren = await Someone.at(browser, { viewport: { width: 820, height: 1180 } });
  await maren.setUp(server.url);
  await maren.makeCourse('Tides');
  await maren.bring('Tides.pdf', await samplePdf(3));
  await maren.openLesson();
  const dock = maren.page.getByRole('toolbar', { name: 'Writing tools' });
  const left = async (): Promise<number> => (await dock.boundingBox())!.x;
  expect(await left()).toBeLessThan(20);
  await maren.button('To the right').click();
  await expect.poll(left).toBeGreaterThan(300);
  await maren.page.reload();
  await maren.isOnBoard();
  expect(await left()).toBeGreaterThan(300);

  // Nothing lies over the page: tools, people, pages and board stand side by side.
  const boxes = await Promise.all(
    ['cua-tool-dock', 'cua-stage', 'cua-lesson-aside', 'cua-page-strip'].map(
      async (name) => (await maren.page.locator(name).boundingBox())!,
    ),
  );
  boxes.forEach((a, i) =>
    boxes.slice(i + 1).forEach((b) => {
      const apart =
        a.x + a.width <= b.x + 1 ||
        b.x + b.width <= a.x + 1 ||
        a.y + a.height <= b.y + 1 ||
        b.y + b.height <= a.y + 1;
      expect(apart).toBe(true);
    }),
  );
  await maren.page.getByRole('button', { name: 'Page 3' }).click();
  await expect(maren.page.getByRole('button', { name: 'Page 3' })).toHaveAttribute(
    'aria-current',
    'page',
  );
});
