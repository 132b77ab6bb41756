import type { BrowserContextOptions } from '@playwright/test';
import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';
import type { PagePoint } from './people.js';

/* Nobody is locked out: by plain http, by a browser that keeps nothing, by an old one, by yesterday's lesson. */

let server: SharedProcessServer;
let maren: Someone;
let join = '';
let first = '';

test.beforeEach(async ({ browser }) => {
  server = await SharedProcessServer.start();
  maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tuesday sky-watching');
  await maren.bring('Star chart.pdf', await samplePdf(2));
  join = server.url + (await maren.openLesson());
  [first] = (await maren.pageIds()) as [string];
});
test.afterEach(() => server.close());

const curve = (y: number): PagePoint[] =>
  Array.from({ length: 9 }, (_, i) => ({ x: 100 + 30 * i, y: y + 30 * Math.sin(i) }));

/** Somebody whose browser is changed before any of our code runs. */
async function withBrowser(
  ...[browser, change, options]: [
    Parameters<typeof Someone.at>[0],
    () => void,
    BrowserContextOptions?,
  ]
): Promise<Someone> {
  const someone = await Someone.at(browser, options);
  await someone.page.addInitScript(change);
  return someone;
}

test('a browser that lets pages keep nothing comes in and writes, a tutor’s too', async ({
  browser,
}) => {
  const deny = () => {
    for (const kind of ['localStorage', 'sessionStorage', 'indexedDB'])
      Object.defineProperty(window, kind, {
        get() {
          throw new DOMException('The operation is insecure.', 'SecurityError');
        },
      });
  };
  const ida = await withBrowser(browser, deny);
  await ida.join(join, 'Ida');
  await maren.give('Ida', 'Writing');
  await ida.isTold('You have a pen');
  await ida.draw(first, curve(220));
  await expect.poll(() => maren.lines().then((lines) => lines.length)).toBe(1);

  const other = await withBrowser(browser, deny);
  await other.page.goto(server.url);
  await other.page.getByLabel('E-mail').fill('maren@solheim.example');
  await other.page.getByLabel('Password').fill('low-water-at-ten');
  await other.button('Sign in').click();
  await expect(other.page.getByRole('heading', { name: /^Today/ })).toBeVisible();
  await other.page.goto(maren.page.url());
  await other.isOnBoard();
  await other.draw(first, curve(320));
  await expect.poll(() => ida.lines().then((lines) => lines.length)).toBe(2);
});

test('a browser that is too old is told so in plain words', async ({ browser }) => {
  const old = await withBrowser(browser, () => {
    Reflect.deleteProperty(Array.prototype, 'toSorted');
  });
  await old.page.goto(join);
  await expect(old.page.getByRole('heading')).toHaveText('This browser is too old for Cuaderno');
  await expect(old.page.getByText('Update it, or open this page in a newer one')).toBeVisible();
});

test('code that doesn’t come over the line is said to be missing, and comes by a reload', async ({
  browser,
}) => {
  const ida = await Someone.at(browser);
  await ida.page.route(/main-\w+\.js/, (route) => route.abort());
  await ida.page.goto(join);
  await expect(ida.page.getByRole('heading')).toHaveText('Cuaderno didn’t load');
  await ida.page.unroute(/main-\w+\.js/);
  await ida.button('Reload').click();
  await expect(ida.page.getByText('with Maren Solheim')).toBeVisible();
});

test('a page whose PDF is still on its way says so, and is drawn when it comes', async ({
  browser,
}) => {
  const ida = await Someone.at(browser);
  let free = (): void => undefined;
  const held = new Promise<void>((done) => (free = done));
  let fails = false;
  await ida.page.route(/\/api\/files\//, async (route) => {
    await held;
    await (fails ? route.abort() : route.continue());
  });
  await ida.join(join, 'Ida');
  await expect(ida.page.getByText('This page is still coming')).toBeAttached();
  fails = true;
  free();
  await expect(ida.page.getByText('This page can’t be fetched just now')).toBeAttached();
  fails = false;
  await ida.isSharp();
  await expect(ida.page.getByText('This page can’t be fetched just now')).not.toBeAttached();
});

test('one lesson is over, and the next one is open to the same browser', async ({ browser }) => {
  const ida = await Someone.at(browser);
  await ida.join(join, 'Ida');
  const board = maren.page.url();
  await maren.button('Close the lesson').click();
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close the lesson' }).click();
  await expect(maren.page.getByText('Who was there')).toBeVisible();
  await expect(ida.page.getByText('The lesson is over')).toBeVisible();
  await ida.page.reload();
  await expect(ida.page.getByText('The lesson is over')).toBeVisible();
  await ida.page.getByRole('link', { name: 'To the next lesson' }).click();
  await expect(ida.page.getByText('The lesson isn’t open yet')).toBeVisible();
  // The tutor opens the next one; who waits there is let in as last time, and hears of no earlier lesson.
  await maren.page.goto(board);
  await maren.openLesson();
  await ida.page.getByLabel('Your first name').fill('Ida');
  await ida.button('Go in').click();
  await ida.isOnBoard();
  await ida.page.goto(`${server.url}/lesson`);
  await ida.isOnBoard();
});
