import { expect, test } from './story.js';
import type { Browser } from '@playwright/test';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';
import type { PagePoint } from './people.js';

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

const across = (y: number, from = 80, to = 320): PagePoint[] =>
  [from, (from + to) / 2, to].map((x) => ({ x, y }));

/** Maren’s Tuesday class: Ida at a computer, Jonas with a tablet, Noor with a phone. */
async function tuesday(browser: Browser) {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tuesday sky-watching');
  await maren.bring('Sky.pdf', await samplePdf(3));
  const link = server.url + (await maren.openLesson());
  const pages = await maren.pageIds();
  const ida = await Someone.at(browser);
  const jonas = await Someone.at(browser, {
    viewport: { width: 820, height: 1180 },
    hasTouch: true,
  });
  const noor = await Someone.at(browser, {
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  });
  await ida.join(link, 'Ida');
  await jonas.join(link, 'Jonas');
  await noor.join(link, 'Noor');
  const [first, second] = pages as [string, string];
  return { maren, ida, jonas, noor, first, second };
}

const count = (who: Someone, lines: number) =>
  expect.poll(async () => (await who.lines()).length).toBe(lines);

test('an hour with three: pens, hands, messages, pointing, the lead', async ({ browser }) => {
  const { maren, ida, jonas, noor, first, second } = await tuesday(browser);
  const errors: string[] = [];
  for (const { page } of [maren, ida, jonas, noor]) {
    page.on('pageerror', (error) => errors.push(String(error)));
    page.on('console', (message) => {
      if (message.type() === 'error') errors.push(message.text());
    });
  }

  await test.step('pens are given one by one, and everyone sees who has one', async () => {
    await maren.give('Ida', 'Writing');
    await ida.isTold('You have a pen');
    await noor.isTold('Watching');
    await expect(jonas.page.locator('header cua-class-strip .writes')).toHaveText(/Ida/);
    await ida.draw(first, across(120));
    await noor.seesInkAt(first, { x: 150, y: 120 });
    await maren.button('Writing for all').click();
    await noor.isTold('You have a pen');
  });

  await test.step('a student has all the tools: a slip, an arrow, and parts of lines to rub out', async () => {
    await ida.page.keyboard.press('s');
    const at = await ida.locate(first, { x: 90, y: 300 });
    await ida.page.mouse.click(at.x, at.y);
    await expect(ida.page.locator('cua-text-in-place [contenteditable]')).toBeFocused();
    await ida.page.keyboard.type('Is this Vega?');
    await ida.page.keyboard.press('Escape');
    await count(maren, 2);
    await ida.page.keyboard.press('g');
    await ida.draw(first, across(200));
    await count(noor, 3);
    await ida.page.keyboard.press('e');
    await ida.button('Part of a line').click();
    const line = [
      { x: 200, y: 100 },
      { x: 200, y: 140 },
    ];
    await ida.draw(first, line);
    // The line lies there in two pieces, and the paper is seen between them.
    await count(maren, 4);
    await maren.seesPaperAt(first, { x: 200, y: 120 });
    await maren.seesInkAt(first, { x: 100, y: 120 });
    await ida.button('Undo').click();
    await count(maren, 3);
    await maren.seesInkAt(first, { x: 200, y: 120 });
  });

  await test.step('a page is frozen for everyone but the tutor', async () => {
    await maren.page.getByRole('switch', { name: 'Freeze this page' }).click();
    await noor.isTold('No writing on this page');
    await ida.page.keyboard.press('p');
    await ida.draw(first, across(400));
    await maren.draw(first, across(420));
    await count(ida, 4);
    await maren.page.getByRole('switch', { name: 'Freeze this page' }).click();
    await noor.isTold('You have a pen');
  });

  await test.step('an empty sheet over the page: written on, lifted with its ink, laid again', async () => {
    const before = (await noor.lines()).length;
    await maren.button('Cover').click();
    await maren.button('Two, one above the other').click();
    // What was written on the page is under the sheet now, on every screen.
    for (const who of [maren, ida, noor]) await who.seesPaperAt(first, { x: 150, y: 120 });
    await ida.page.keyboard.press('p');
    await ida.draw(first, across(150));
    await count(noor, before + 3);
    await noor.seesInkAt(first, { x: 150, y: 150 });
    await maren.button('Cover').click();
    await maren.button('Take off: Upper sheet').click();
    await noor.seesInkAt(first, { x: 150, y: 120 });
    await noor.seesPaperAt(first, { x: 150, y: 150 });
    await maren.button('Lay again: Upper sheet').click();
    await noor.seesInkAt(first, { x: 150, y: 150 });
    await ida.page.reload();
    await ida.isOnBoard();
    await ida.seesInkAt(first, { x: 150, y: 150 });
    await ida.seesPaperAt(first, { x: 150, y: 120 });
    await maren.page.keyboard.press('Escape');
    await maren.page.keyboard.press('o');
    await ida.seesInkAt(first, { x: 150, y: 120 });
  });

  await test.step('hands go up in order; signals are counted, for the tutor alone', async () => {
    await jonas.button('Raise hand').click();
    await expect(
      maren.page.getByRole('button', { name: 'Jonas has a hand up, number 1. Lower it' }),
    ).toBeVisible();
    await noor.button('Raise hand').click();
    await maren.button('Jonas has a hand up, number 1. Lower it').click();
    await expect(
      maren.page.getByRole('button', { name: 'Noor has a hand up, number 1. Lower it' }),
    ).toBeVisible();
    await expect(jonas.button('Raise hand')).toBeVisible();
    await ida.button('Signal').click();
    await ida.button('Slower').click();
    const counts = maren.page.getByLabel('Hands and signals');
    await expect(counts.locator('.count', { hasText: 'Slower' })).toContainText('1');
    await expect(jonas.page.getByText('Slower')).toHaveCount(1); // in their own list alone
    await counts.getByRole('button', { name: 'Clear' }).click();
    await expect(counts.locator('.count', { hasText: 'Slower' })).toHaveCount(0);
  });

  await test.step('what is written to the tutor alone is read by nobody else', async () => {
    await ida.button('Class').click();
    await ida.page.getByRole('textbox', { name: 'Message' }).fill('I can’t find Vega');
    await ida.page.getByLabel('Who reads it').selectOption('tutor');
    await ida.button('Send message').click();
    await maren.page.getByRole('button', { name: 'Chat, 1 unread' }).click();
    await expect(maren.page.getByText('I can’t find Vega').first()).toBeVisible();
    await maren.page.getByRole('textbox', { name: 'Message' }).fill('Look at the brightest one');
    await maren.button('Send message').click();
    await jonas.button('Class, 1 unread').click();
    await expect(jonas.page.getByText('Look at the brightest one', { exact: true })).toBeVisible();
    await expect(jonas.page.getByText('I can’t find Vega')).toHaveCount(0);
    await maren.page.getByLabel('Students can write').uncheck();
    await expect(
      jonas.page
        .getByText('Only the tutor writes to the tutor in this class.')
        .or(jonas.page.locator('cua-chat-panel .closed')),
    ).toBeVisible();
    await maren.page.getByRole('button', { name: 'People' }).click();
    await jonas.page.getByRole('button', { name: 'Close' }).click();
    await ida.page.getByRole('button', { name: 'Close' }).click();
  });

  await test.step('the tutor points, leaves an arrow, and lights the lamp', async () => {
    const dots = (who: Someone): Promise<number> =>
      who.stage.evaluate(
        (host) =>
          (host as unknown as { cuaStage: { dots: Map<string, object> } }).cuaStage.dots.size,
      );
    await maren.page.keyboard.press('i');
    const from = await maren.locate(first, { x: 400, y: 340 });
    await maren.page.mouse.move(from.x, from.y);
    await maren.page.mouse.move(from.x + 80, from.y + 20, { steps: 5 });
    await expect.poll(() => dots(noor)).toBe(1);
    await maren.button('Arrow').click();
    await expect.poll(() => dots(noor)).toBe(0);
    await maren.page.mouse.click(from.x, from.y);
    await expect
      .poll(async () => Math.max(...(await ida.colourAt(first, { x: 412, y: 328 }))))
      .toBeLessThan(200);
    await maren.button('Take arrows away').click();
    await ida.seesPaperAt(first, { x: 412, y: 328 });
    await maren.page.keyboard.press('l');
    await maren.draw(first, [
      { x: 380, y: 300 },
      { x: 500, y: 380 },
    ]);
    // The rest is dim for all; what is lit is as bright as ever.
    await noor.seesPaperAt(first, { x: 440, y: 340 });
    await expect
      .poll(async () => Math.max(...(await noor.colourAt(first, { x: 300, y: 250 }))))
      .toBeLessThan(140);
    await maren.page.keyboard.press('Escape');
    await noor.seesPaperAt(first, { x: 300, y: 250 });
  });

  await test.step('Ida leads: all are where she is; the lead is taken back', async () => {
    await maren.page.getByRole('switch', { name: 'In step' }).click();
    await expect(noor.page.getByText('In step with your tutor')).toBeVisible();
    await maren.button('More for Ida').click();
    await maren.page.getByRole('menuitem', { name: 'Hand over the lead' }).click();
    await expect(ida.page.getByText('You lead')).toBeVisible();
    await expect(noor.page.getByText('In step with Ida')).toBeVisible();
    await ida.button('Next page').click();
    const inSight = async (who: Someone): Promise<boolean> => {
      const box = (await who.stage.boundingBox())!;
      const { y } = await who.locate(second, { x: 10, y: 10 });
      return y >= box.y && y <= box.y + box.height;
    };
    for (const who of [noor, jonas, maren]) await expect.poll(() => inSight(who)).toBeTruthy();
    await maren.button('Take the lead back').click();
    await expect(noor.page.getByText('In step with your tutor')).toBeVisible();
    await maren.page.getByRole('switch', { name: 'In step' }).click();
  });

  expect(errors).toEqual([]);
});

test('a child scribbles over everything: all pens in with one touch, and the scribble wiped, the worksheet as it was', async ({
  browser,
}) => {
  const { maren, ida, noor, first } = await tuesday(browser);
  await maren.draw(first, across(100));
  await maren.button('Writing for all').click();
  await ida.isTold('You have a pen');
  for (const y of [150, 170, 190, 210]) await ida.draw(first, across(y));
  await count(noor, 5);
  await ida.penDown(first, across(230));
  await maren.button('Take all pens back').click();
  await ida.isTold('Watching');
  await ida.penUp();
  // No finished line is lost, and the one under way never became one.
  await count(maren, 5);
  await count(noor, 5);
  await ida.draw(first, across(250));
  await expect(maren.penOf('Ida').getByText('Watching')).toBeVisible();

  await maren.button('More for Ida').click();
  await maren.page.getByRole('menuitem', { name: 'Wipe their ink …' }).click();
  await maren.button('Ida on this page, 4 things').click();
  await count(noor, 1);
  await noor.seesPaperAt(first, { x: 150, y: 150 });
  await noor.seesInkAt(first, { x: 150, y: 100 });
  // One step to undo, as everything.
  await maren.page.keyboard.press('Control+z');
  await count(noor, 5);
  await maren.page.keyboard.press('Control+Shift+z');
  await count(noor, 1);
});

test('what lies loose is moved by those with hands on, and by nobody else', async ({ browser }) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tides');
  await maren.bring('Tides.pdf', await samplePdf(1));
  const [page] = (await maren.pageIds()) as [string];
  // Tiles are laid while the board is prepared: they lie under the ink.
  await maren.page.keyboard.press('g');
  await maren.button('Box').click();
  await maren.draw(page, [
    { x: 100, y: 300 },
    { x: 160, y: 340 },
  ]);
  await maren.page.keyboard.press('p');
  const link = server.url + (await maren.openLesson());
  const ida = await Someone.at(browser);
  await ida.join(link, 'Ida');
  const tile = (who: Someone): Promise<number> =>
    who.stage.evaluate((host) => {
      const { cuaStage } = host as unknown as {
        cuaStage: { board(): { pages: Map<string, { items: Map<string, { frame: PagePoint }> }> } };
      };
      return [...[...cuaStage.board().pages.values()][0]!.items.values()][0]!.frame.x;
    });
  const carry = (): Promise<void> =>
    ida.draw(page, [
      { x: 100, y: 320 },
      { x: 220, y: 320 },
    ]);
  const before = await tile(maren);
  await maren.give('Ida', 'Writing');
  await ida.isTold('You have a pen');
  await ida.page.keyboard.press('c');
  await carry();
  expect(await tile(ida)).toBe(before);
  await maren.give('Ida', 'Hands on');
  await ida.isTold('Hands on');
  await carry();
  await expect.poll(() => tile(maren)).toBeGreaterThan(before + 80);
});
