import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

test('students see the page and the part of it that the tutor sees, on a phone and on a tablet', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tuesday sky-watching');
  await maren.bring('Sky.pdf', await samplePdf(4));
  const link = server.url + (await maren.openLesson());
  const pages = await maren.pageIds();
  const [phone, tablet] = [
    await Someone.at(browser, { viewport: { width: 390, height: 844 }, hasTouch: true }),
    await Someone.at(browser, { viewport: { width: 820, height: 1180 }, hasTouch: true }),
  ];
  await phone.join(link, 'Ida');

  /** Whether a place of a page is in someone's window. */
  const sees = async (who: Someone, page: string, x: number, y: number): Promise<boolean> => {
    const box = (await who.stage.boundingBox())!;
    const at = await who.locate(page, { x, y });
    return (
      at.x >= box.x - 2 &&
      at.x <= box.x + box.width + 2 &&
      at.y >= box.y - 2 &&
      at.y <= box.y + box.height + 2
    );
  };
  /** The corners of what the tutor sees, on the page that is in the middle. */
  const corners = async (): Promise<[string, number, number][]> => {
    const part = await maren.stage.evaluate(
      (element) =>
        (
          element as unknown as {
            cuaStage: {
              part: { page: string; x: number; y: number; width: number; height: number };
            };
          }
        ).cuaStage.part,
    );
    const { page, x, y, width, height } = part;
    return [
      [page, x, y],
      [page, x + width, y + height],
    ];
  };
  const seesAll = (who: Someone) =>
    expect
      .poll(async () => {
        const places = await corners();
        return Promise.all(places.map(([page, x, y]) => sees(who, page, x, y)));
      })
      .toEqual([true, true]);

  // One alone is brought to a page, once.
  await maren.page.getByRole('button', { name: 'Page 2' }).click();
  await maren.button('More for Ida').click();
  await maren.page.getByRole('menuitem', { name: 'Bring them here' }).click();
  await seesAll(phone);

  // Each for themselves at first: then one touch, and all see what the tutor sees.
  await maren.page.getByRole('button', { name: 'Page 3' }).click();
  expect(await sees(phone, pages[2]!, 300, 60)).toBeFalsy();
  await maren.page.getByRole('switch', { name: 'In step' }).click();
  await expect(phone.page.getByText('In step with your tutor')).toBeVisible();
  await seesAll(phone);

  // Zooming and turning pages are followed; anyone who comes late is there at once.
  await maren.button('Zoom in').click();
  await maren.button('Zoom in').click();
  await seesAll(phone);
  await tablet.join(link, 'Jonas');
  await seesAll(tablet);
  await maren.page.getByRole('button', { name: 'Page 2' }).click();
  await Promise.all([seesAll(phone), seesAll(tablet)]);

  // A student in step can't move the page, but writes on it, and the tutor sees the line.
  const before = await tablet.locate(pages[1]!, { x: 0, y: 0 });
  await tablet.page.mouse.move(400, 500);
  await tablet.page.mouse.wheel(0, 600);
  await expect(tablet.button('As wide as the window')).toHaveCount(0);
  // It may be larger there, within what the tutor shows, and back.
  const corner = { x: 0, y: 0 };
  const wide = async (): Promise<number> =>
    (await tablet.locate(pages[1]!, { x: 100, y: 0 })).x -
    (await tablet.locate(pages[1]!, corner)).x;
  const asLed = await wide();
  await tablet.button('Zoom in').click();
  await expect.poll(wide).toBeCloseTo(asLed * 1.25, 0);
  await tablet.button('Zoom out').click();
  await expect.poll(wide).toBeCloseTo(asLed, 0);
  await maren.button('Writing for all').click();
  await tablet.isTold('You have a pen');
  const after = await tablet.locate(pages[1]!, { x: 0, y: 0 });
  expect(Math.hypot(after.x - before.x, after.y - before.y)).toBeLessThan(1);
  const [[, x, y]] = (await corners()) as [[string, number, number]];
  await tablet.draw(pages[1]!, [
    { x: Math.max(x, 0) + 60, y: Math.max(y, 0) + 60 },
    { x: Math.max(x, 0) + 160, y: Math.max(y, 0) + 90 },
  ]);
  await expect.poll(async () => (await maren.lines()).length).toBe(1);

  // The page is hidden, and shown: all are brought to it once more.
  await maren.ofPages('Hide page');
  await expect.poll(async () => (await phone.pageIds()).length).toBe(3);
  await maren.button('Show it now').click();
  await expect.poll(async () => (await phone.pageIds()).length).toBe(4);
  await Promise.all([seesAll(phone), seesAll(tablet)]);

  // Free again, they look around; the tutor brings all to one place, once.
  await maren.page.getByRole('switch', { name: 'In step' }).click();
  await expect(phone.page.getByText('In step with your tutor')).toHaveCount(0);
  await tablet.page.mouse.move(400, 500);
  await tablet.page.mouse.wheel(0, 1500);
  await expect.poll(() => tablet.locate(pages[1]!, { x: 0, y: 0 })).not.toEqual(after);
  await maren.button('Bring all here').click();
  await Promise.all([seesAll(phone), seesAll(tablet)]);
  await tablet.page.mouse.wheel(0, 1500);
  await expect.poll(async () => (await tablet.locate(pages[1]!, { x: 0, y: 0 })).y).toBeLessThan(0);
});
