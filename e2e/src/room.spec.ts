import { expect, test } from './story.js';
import { expectNoAxeViolations } from './axe.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';

/* How much of the window the page has in a lesson, whatever stands open beside it; and that nothing lies over it. */

let server: SharedProcessServer;
test.beforeEach(async () => (server = await SharedProcessServer.start()));
test.afterEach(() => server.close());

/** The part of the window's area that is for drawing. */
async function share({ page, stage }: Someone): Promise<number> {
  const { width, height } = (await stage.boundingBox())!;
  const window = page.viewportSize()!;
  return (width * height) / (window.width * window.height);
}

/** Names of what lies over the middle, the corners and the edges of the drawing area. */
function over({ stage }: Someone): Promise<string[]> {
  return stage.evaluate((host) => {
    const { left, top, width, height } = host.getBoundingClientRect();
    const at = [0.02, 0.5, 0.98];
    return at
      .flatMap((x) => at.map((y) => document.elementFromPoint(left + x * width, top + y * height)))
      .flatMap((element) => (element && !host.contains(element) ? [element.outerHTML] : []));
  });
}

/** What is in sight and is cut off by the window or by what it is in. */
function cut({ page }: Someone): Promise<string[]> {
  return page.evaluate(() =>
    [...document.querySelectorAll('cua-tool-dock button, .bar button, .bar input, header button')]
      .filter((element) => {
        const { left, right, top, bottom, width } = element.getBoundingClientRect();
        if (width === 0 || element.matches('.unseen')) return false;
        return left < -1 || right > innerWidth + 1 || top < -1 || bottom > innerHeight + 1;
      })
      .map((element) => element.getAttribute('aria-label') ?? element.textContent!.trim()),
  );
}

test('the page has the room, with four students and whatever stands beside it', async ({
  browser,
}) => {
  const maren = await Someone.at(browser, { viewport: { width: 1280, height: 800 } });
  await maren.setUp(server.url);
  await maren.makeCourse('Sky-watching');
  await maren.bring('Sky.pdf', await samplePdf(3));
  const link = server.url + (await maren.openLesson());
  const students = ['Ida', 'Jonas', 'Noor', 'Mika'];
  for (const name of students) await (await Someone.at(browser)).join(link, name);
  for (const name of students) await expect(maren.penOf(name)).toBeVisible();

  const has = async (least: number): Promise<void> => {
    await expect.poll(() => share(maren)).toBeGreaterThanOrEqual(least);
    expect(await over(maren)).toEqual([]);
    expect(await cut(maren)).toEqual([]);
  };
  await has(0.6);
  for (const name of ['Private notes', 'Materials']) {
    await maren.page.getByRole('button', { name, exact: true }).click();
    await has(0.54);
  }
  // Whatever tool is in hand, the page stays where it is.
  const before = await maren.stage.boundingBox();
  for (const tool of [
    ...['Highlighter', 'Eraser', 'Move', 'Select', 'Shapes', 'Marks', 'Text', 'Slip', 'Formula'],
    ...['Number line', 'Pointer', 'Lamp'],
  ]) {
    await maren.page.locator('cua-tool-dock').getByText(tool, { exact: true }).click();
    expect([tool, await maren.stage.boundingBox()]).toEqual([tool, before]);
    expect(await cut(maren)).toEqual([]);
  }
  await maren.page.getByRole('button', { name: 'Materials', exact: true }).click();
  await maren.button('Page pictures').click();
  await has(0.8);
  // Needed in one second, and a touch away.
  for (const name of ['Take all pens back', 'Next page', 'Undo', 'Close the lesson'])
    await expect(maren.button(name)).toBeVisible();

  // It is found as it was left, and in a larger window the page has more.
  await maren.page.reload();
  await maren.isOnBoard();
  await has(0.8);
  await maren.button('Page pictures').click();
  await maren.button('People').click();
  await maren.page.setViewportSize({ width: 1440, height: 900 });
  await has(0.66);
});

test('there is only the page, for tutor and student, with what is needed at once', async ({
  browser,
}) => {
  const maren = await Someone.at(browser, { viewport: { width: 1280, height: 800 } });
  await maren.setUp(server.url);
  await maren.makeCourse('Sky-watching', 'ask');
  await maren.bring('Sky.pdf', await samplePdf(3));
  const link = server.url + (await maren.openLesson());
  const ida = await Someone.at(browser, {
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  });
  await ida.knock(link, 'Ida');
  await maren.button('Let Ida in').click();
  await ida.isOnBoard();
  await maren.give('Ida', 'Writing');
  await ida.isTold('You have a pen');
  const [first] = await maren.pageIds();

  // A student, on a phone.
  await ida.button('Only the page').click();
  await expect.poll(() => share(ida)).toBeGreaterThanOrEqual(0.85);
  expect([await over(ida), await cut(ida)]).toEqual([[], []]);
  await ida.draw(first!, [
    { x: 80, y: 80 },
    { x: 160, y: 120 },
  ]);
  await ida.button('Undo').click();
  await expect(ida.button('Raise hand')).toBeVisible();
  await ida.button('All tools again').click();
  await expect(ida.page.locator('header')).toBeVisible();

  // The tutor, by key; pens are taken back there, by touch as well.
  await maren.stage.focus();
  await maren.page.keyboard.press('v');
  await expect.poll(() => share(maren)).toBeGreaterThanOrEqual(0.9);
  expect([await over(maren), await cut(maren)]).toEqual([[], []]);
  await maren.button('Next page').click();
  await expect(maren.page.getByLabel('Go to page number')).toHaveValue('2');
  await maren.button('Take all pens back').click();
  await ida.isTold('You are watching');

  // Who comes meanwhile is told there, and is a touch away.
  const jonas = await Someone.at(browser);
  await jonas.knock(link, 'Jonas');
  await maren.button('1 at the door').click();
  await maren.button('Let Jonas in').click();
  await expect(maren.button('Close the lesson')).toBeVisible();
});

test('keys are listed, changed and turned off, and the account keeps them', async ({ browser }) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tides');
  await maren.bring('Tides.pdf', await samplePdf(1));
  await maren.stage.focus();
  await maren.page.keyboard.press('?');
  const list = maren.page.getByRole('dialog', { name: 'Keyboard shortcuts' });
  await list.getByRole('button', { name: 'Key for Eraser: E' }).click();
  await maren.page.keyboard.press('q');
  await expect(list.getByRole('button', { name: 'Key for Eraser: Q' })).toBeVisible();
  await expectNoAxeViolations(maren, 'the list of keys');
  await list.getByRole('button', { name: 'Done' }).click();
  await expect(list).toBeHidden();

  // On another machine of hers, too.
  const elsewhere = await Someone.at(browser);
  await elsewhere.signIn(server.url);
  await elsewhere.page.goto(maren.page.url());
  await elsewhere.isOnBoard();
  const inHand = elsewhere.page.locator('cua-tool-dock [aria-pressed=true]');
  await elsewhere.stage.focus();
  await elsewhere.page.keyboard.press('q');
  await expect(inHand).toHaveText('Eraser');
  await elsewhere.page.keyboard.press('Control+/');
  await elsewhere.page.getByRole('switch').click();
  await elsewhere.page.keyboard.press('Escape');
  await expect(elsewhere.page.getByRole('dialog')).toBeHidden();
  await elsewhere.stage.focus();
  await elsewhere.page.keyboard.press('p');
  await expect(inHand).toHaveText('Eraser');
});

test('on a phone on its side a student has most of the window for the page', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tides');
  await maren.bring('Tides.pdf', await samplePdf(2));
  const link = server.url + (await maren.openLesson());
  const ida = await Someone.at(browser, {
    viewport: { width: 844, height: 390 },
    hasTouch: true,
    isMobile: true,
  });
  await ida.join(link, 'Ida');
  await maren.give('Ida', 'Writing');
  await ida.isTold('You have a pen');
  await expect.poll(() => share(ida)).toBeGreaterThanOrEqual(0.6);
  expect(await cut(ida)).toEqual([]);
});
