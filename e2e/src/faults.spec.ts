import { expect, test } from './story.js';
import type { Browser } from '@playwright/test';
import { Line, KillableServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';
import type { PagePoint } from './people.js';

/* What goes wrong on students' machines, and must not cost a line. */

let server: KillableServer;
let line: Line;
test.beforeEach(async () => {
  server = await KillableServer.start();
  line = await Line.to(server.port);
});
test.afterEach(async () => {
  line.close();
  await server.close();
});

const DAY = 24 * 3600_000;
const HOUR = 3600_000;

/** The clocks of a machine are so many ms ahead of what they should be; they can be moved on. */
async function clocksOff(who: Someone, ms: number): Promise<void> {
  await who.page.addInitScript((ms) => {
    const off = { wall: ms, since: 0 };
    const { now } = Date;
    const mono = performance.now.bind(performance);
    Date.now = () => now() + off.wall;
    performance.now = () => mono() + off.since;
    const plain = Date;
    window.Date = new Proxy(plain, {
      construct: (of, args: []) =>
        args.length > 0 ? Reflect.construct(of, args) : new plain(plain.now()),
    });
    (window as unknown as { sleepFor: (ms: number) => void }).sleepFor = (ms) => {
      off.wall += ms;
      off.since += ms;
    };
  }, ms);
}

const across = (y: number): PagePoint[] => [80, 160, 240].map((x) => ({ x, y }));

async function lesson(browser: Browser) {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tuesday sky-watching');
  await maren.bring('Sky.pdf', await samplePdf(2));
  const way = await maren.openLesson();
  const [first] = (await maren.pageIds()) as [string];
  return { maren, way, first };
}

const agree = (a: Someone, b: Someone, lines: number) =>
  expect(async () => {
    const [left, right] = [await a.lines(), await b.lines()];
    expect(left.length).toBe(lines);
    expect(right).toEqual(left);
  }).toPass();

test('a clock that is a day wrong, ahead or behind, changes nothing', async ({ browser }) => {
  const { maren, way, first } = await lesson(browser);
  const [early, late] = [await Someone.at(browser), await Someone.at(browser)];
  await clocksOff(early, -DAY);
  await clocksOff(late, DAY);
  await early.join(server.url + way, 'Ida');
  await late.join(server.url + way, 'Noor');
  await maren.button('Writing for all').click();
  await early.isTold('You have a pen');
  await late.isTold('You have a pen');
  await early.draw(first, across(120));
  await late.draw(first, across(160));
  await agree(maren, early, 2);
  await agree(maren, late, 2);
  // Undo goes by the order in which things happened, not by anyone's clock; after a reload as well.
  await late.page.reload();
  await late.isOnBoard();
  await late.button('Undo').click();
  await agree(maren, early, 1);

  // A tutor whose machine is a day ahead reads the lesson's time as it is.
  const ahead = await Someone.beside(maren);
  await clocksOff(ahead, DAY);
  await ahead.page.goto(maren.page.url());
  await expect(ahead.page.getByRole('timer')).toHaveText(/open \d min/);
});

test('a browser that slept for an hour catches up by itself, and has what it wrote', async ({
  browser,
}) => {
  const { maren, way, first } = await lesson(browser);
  const ida = await Someone.at(browser);
  await clocksOff(ida, 0);
  await ida.join(line.url + way, 'Ida');
  await maren.button('Writing for all').click();
  await ida.isTold('You have a pen');
  await ida.draw(first, across(120));
  await agree(maren, ida, 1);

  // The lid is shut: the network is gone, and time goes by without the page.
  line.cut();
  await ida.draw(first, across(140));
  const browserOfIda = await ida.page.context().newCDPSession(ida.page);
  await ida.page.evaluate(
    (ms) => (window as unknown as { sleepFor(ms: number): void }).sleepFor(ms),
    HOUR,
  );
  await browserOfIda.send('Page.setWebLifecycleState', { state: 'frozen' });
  await maren.draw(first, across(160));
  await maren.draw(first, across(180));
  await expect(maren.page.getByText('away')).toBeVisible();
  line.mend();
  await browserOfIda.send('Page.setWebLifecycleState', { state: 'active' });
  await expect(ida.page.getByText('Connection lost')).toBeHidden();
  await agree(maren, ida, 4);
  await ida.draw(first, across(200));
  await agree(maren, ida, 5);
});

test('two tabs of one student are one person; both write, both see, and one may close', async ({
  browser,
}) => {
  const { maren, way, first } = await lesson(browser);
  const ida = await Someone.at(browser);
  await ida.join(line.url + way, 'Ida');
  await maren.button('Writing for all').click();
  await ida.isTold('You have a pen');
  const tab = await Someone.beside(ida);
  await tab.page.goto(ida.page.url());
  await tab.isOnBoard();
  await expect(maren.page.getByRole('group', { name: /^Pen of / })).toHaveCount(1);
  await ida.draw(first, across(120));
  await tab.draw(first, across(140));
  await agree(ida, tab, 2);
  await agree(maren, tab, 2);

  // What each has written while the line is away is its own to send: nothing comes twice, nothing is left.
  line.cut();
  await expect(ida.page.getByText('Connection lost')).toBeVisible();
  await expect(tab.page.getByText('Connection lost')).toBeVisible();
  await ida.draw(first, across(160));
  await tab.draw(first, across(180));
  line.mend();
  await agree(maren, ida, 4);
  await agree(maren, tab, 4);
  await tab.page.close();
  await ida.draw(first, across(200));
  await agree(maren, ida, 5);
  await expect(maren.page.getByText('away')).toBeHidden();
});

test('the same student on two devices is let in twice, and told apart', async ({ browser }) => {
  const { maren, way, first } = await lesson(browser);
  const [tablet, phone] = [
    await Someone.at(browser, { viewport: { width: 820, height: 1180 }, hasTouch: true }),
    await Someone.at(browser, { viewport: { width: 390, height: 844 }, hasTouch: true }),
  ];
  await tablet.join(server.url + way, 'Noor');
  await phone.join(server.url + way, 'Noor');
  await maren.button('Writing for all').click();
  await expect(maren.penOf('Noor')).toBeVisible();
  await expect(maren.penOf('Noor (2)')).toBeVisible();
  await maren.give('Noor (2)', 'Watching');
  await phone.isTold('Watching');
  await tablet.isTold('You have a pen');
  await tablet.draw(first, across(120));
  await agree(maren, phone, 1);
});

test('two who write while the line of one comes and goes end with the same page', async ({
  browser,
}) => {
  const { maren, way, first } = await lesson(browser);
  const ida = await Someone.at(browser);
  await ida.join(line.url + way, 'Ida');
  await maren.button('Writing for all').click();
  await ida.isTold('You have a pen');
  for (let turn = 0; turn < 4; turn++) {
    const y = 100 + turn * 40;
    // The line breaks while a line is being drawn.
    await ida.penDown(first, across(y));
    line.cut();
    await ida.penUp();
    await expect(ida.page.getByText('Connection lost')).toBeVisible();
    await maren.draw(first, across(y + 10));
    await ida.draw(first, across(y + 20));
    line.mend();
    await expect(ida.page.getByText('Connection lost')).toBeHidden();
    await agree(maren, ida, (turn + 1) * 3);
  }
  // Pens are taken in while the line is away: what was finished before the word came is decided by the server.
  line.cut();
  await expect(ida.page.getByText('Connection lost')).toBeVisible();
  await maren.button('Take all pens back').click();
  await ida.draw(first, across(300));
  line.mend();
  await ida.isTold('Watching');
  await agree(maren, ida, 12);
});

test('a screen that didn’t come over the line says so, and comes when it is asked for again', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(line.url);
  line.cut();
  await maren.page.getByRole('link', { name: 'Week', exact: true }).click();
  // What Today was loading meanwhile may say that it can't be reached, too.
  const told = maren.page.getByRole('alert').filter({ hasText: 'This part of Cuaderno' });
  await expect(told).toContainText('didn’t come. Check the connection');
  line.mend();
  await told.getByRole('button', { name: 'Reload' }).click();
  await expect(maren.page.getByRole('heading', { name: /^Today/ })).toBeVisible();
  await maren.page.getByRole('link', { name: 'Week', exact: true }).click();
  await expect(maren.button('Plan lessons')).toBeVisible();
});
