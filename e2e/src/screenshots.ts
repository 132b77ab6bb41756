import type { Browser, BrowserContextOptions, Page } from '@playwright/test';
import { resolve } from 'node:path';
import { DemoServer } from './house.js';
import { Someone } from './people.js';
import type { PagePoint, StageElement } from './people.js';
import { expect, test } from './story.js';

/*
 * Each main view as a picture for the README, of the demo data. Run it when a view has changed (`npm run screenshots`),
 * and look at what it made.
 */

const FOLDER = resolve(import.meta.dirname, '../../docs/screenshots');
const PHONE: BrowserContextOptions = { viewport: { width: 390, height: 844 }, hasTouch: true };
const TABLET: BrowserContextOptions = { viewport: { width: 820, height: 1180 }, hasTouch: true };

let server: DemoServer;

test.beforeAll(async () => {
  server = await DemoServer.start();
});
test.afterAll(() => server.close());

/** What is on screen, once nothing comes any more: it looks as it did half a second before. */
async function take(page: Page, name: string): Promise<void> {
  await page.mouse.move(0, 0);
  await page.waitForLoadState('networkidle');
  const path = `${FOLDER}/${name}.png`;
  let before: Buffer = Buffer.alloc(0);
  await expect(async () => {
    const shot = await page.screenshot({ path, animations: 'disabled', caret: 'hide' });
    const isSame = shot.equals(before);
    before = shot;
    expect(isSame).toBe(true);
  }).toPass({ intervals: [500] });
}

async function isSharp(who: Someone): Promise<void> {
  await who.isOnBoard();
  await who.isSharp();
}

/** How many lines and things lie on a page, as somebody's window has it. */
function linesOn({ stage }: Someone, page: string): Promise<number> {
  return stage.evaluate(
    (element, id) => (element as StageElement).cuaStage.board().pages.get(id)!.items.size,
    page,
  );
}

async function maren(browser: Browser): Promise<Someone> {
  const maren = await Someone.at(browser);
  await maren.page.goto(`${server.url}/sign-in`);
  await maren.button('Continue as Maren Solheim').click();
  await maren.page.getByRole('heading', { name: /^Today/ }).waitFor();
  return maren;
}

test('what a tutor has between lessons', async ({ browser }) => {
  const stranger = await Someone.at(browser);
  await stranger.page.goto(`${server.url}/sign-in`);
  await stranger.button('Continue as Maren Solheim').waitFor();
  await take(stranger.page, 'sign-in');

  const { page } = await maren(browser);
  await page
    .getByRole('link', { name: /Tide diary/ })
    .first()
    .waitFor();
  await take(page, 'today');
  await page.goto(`${server.url}/week`);
  await page
    .getByRole('button', { name: /Cello with Mika/ })
    .first()
    .waitFor();
  await take(page, 'week');
  await page.goto(`${server.url}/hours`);
  await page.locator('cua-chart canvas').first().waitFor();
  await take(page, 'hours');
  await page.goto(`${server.url}/materials`);
  await page.locator('cua-folder-tree').getByText('Star charts', { exact: true }).click();
  await page.locator('[role=list]').getByText('Star chart for November evenings.pdf').click();
  await page.getByRole('link', { name: 'Star chart, first evening' }).waitFor();
  await take(page, 'materials');
  await page.goto(`${server.url}/records?words=moon`);
  await page.locator('mark').first().waitFor();
  await take(page, 'records');
});

test('a record, as its tutor and a parent see it', async ({ browser }) => {
  const tutor = await maren(browser);
  const { page } = tutor;
  await page.goto(server.url);
  await page
    .getByRole('link', { name: /Sky-watching/ })
    .first()
    .click();
  await page
    .getByRole('link', { name: /^Star chart, first evening.*Ida/ })
    .first()
    .click();
  await isSharp(tutor);
  await tutor.button('Page 2').click();
  await isSharp(tutor);
  await take(page, 'record');
  await page.getByText('Statistics', { exact: true }).click();
  await page.locator('cua-chart canvas').first().waitFor();
  await take(page, 'statistics');
  await page.getByText('At the end', { exact: true }).click();
  await tutor.button('Save…').click();
  await page.getByRole('dialog', { name: 'Save from this record' }).waitFor();
  await take(page, 'save');
  await page.keyboard.press('Escape');

  await tutor.button('Share…').click();
  const links = page.getByRole('dialog', { name: /^Share/ });
  await links.getByLabel('For whom').fill('Ida’s parents');
  await links.getByRole('button', { name: 'Make the link' }).click();
  const address = await links.getByLabel('Address').first().inputValue();
  await take(page, 'links');
  const parent = await Someone.at(browser, PHONE);
  await parent.page.goto(server.url + new URL(address).pathname);
  await parent.page.getByRole('img', { name: /^Page 1/ }).waitFor();
  await take(parent.page, 'shared');
});

test('a lesson with three', async ({ browser }) => {
  const tutor = await maren(browser);
  await tutor.page
    .getByRole('link', { name: /Sky-watching/ })
    .first()
    .click();
  await tutor.page.getByRole('heading', { name: 'Records', exact: true }).waitFor();
  await take(tutor.page, 'course');
  await tutor.page
    .getByRole('link', { name: /Star chart for November/ })
    .first()
    .click();
  await isSharp(tutor);
  await take(tutor.page, 'board');
  await tutor.openLesson();
  const door = server.url + server.wayIn;
  const come = async (name: string, options: BrowserContextOptions = {}): Promise<Someone> => {
    const one = await Someone.at(browser, options);
    await one.page.goto(door);
    if (name === 'Ida') {
      await one.page.getByLabel('Your first name').waitFor();
      await take(one.page, 'join');
    }
    await one.knock(door, name);
    return one;
  };
  const letIn = (): Promise<void> => tutor.button(/^Let \w+ in$/).click();
  const ida = await come('Ida');
  await letIn();
  const jonas = await come('Jonas', PHONE);
  await letIn();
  const noor = await come('Noor', { ...TABLET, colorScheme: 'dark' });
  await tutor.button('Let Noor in').waitFor();
  await take(tutor.page, 'door');
  await letIn();
  for (const one of [ida, jonas, noor]) await isSharp(one);
  await tutor.button('Writing for all').click();
  for (const one of [ida, noor]) await one.isTold('You have a pen');
  const [page] = await tutor.pageIds();
  const plough: PagePoint[] = [
    ...[
      { x: 372, y: 298 },
      { x: 345, y: 276 },
      { x: 318, y: 302 },
      { x: 348, y: 330 },
    ],
    ...[
      { x: 372, y: 298 },
      { x: 398, y: 286 },
      { x: 430, y: 280 },
      { x: 456, y: 350 },
    ],
  ];
  const pentagon: PagePoint[] = [0, 1, 2, 3, 4, 5].map((i) => ({
    x: 238 + 66 * Math.sin((i * 2 * Math.PI) / 5),
    y: 440 - 66 * Math.cos((i * 2 * Math.PI) / 5),
  }));
  await ida.draw(page!, plough);
  await noor.draw(page!, pentagon);
  for (const one of [tutor, ida, jonas, noor])
    await expect.poll(() => linesOn(one, page!)).toBeGreaterThanOrEqual(2);
  await take(tutor.page, 'lesson-tutor');
  await take(ida.page, 'lesson-student');
  await take(jonas.page, 'lesson-phone');
  await take(noor.page, 'lesson-tablet-dark');
});
