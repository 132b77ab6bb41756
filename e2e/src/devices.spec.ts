import { expect, test } from './story.js';
import type { Browser } from '@playwright/test';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';
import type { PagePoint } from './people.js';

/* Touch, stylus and palm, as browsers report them (Pointer Events, level 3). */

interface Touch {
  readonly id: number;
  readonly type: 'touch' | 'pen';
  readonly at: PagePoint;
  readonly pressure?: number;
  readonly size?: number;
}

/** What pointers do, in order: `down`, `move`, `up`. */
type Motion = readonly ['down' | 'move' | 'up', Touch];

/**
 * Sends pointer events to the stage, as the browser would for devices we don't have here. Those of one call come as
 * quickly one after another as from a hand: this machine may stand still between two calls.
 */
async function pointers(who: Someone, ...motions: readonly Motion[]): Promise<void> {
  await who.stage.evaluate((element, motions) => {
    for (const [kind, { id, type, at, pressure, size }] of motions)
      element.dispatchEvent(
        new PointerEvent(`pointer${kind}`, {
          bubbles: true,
          cancelable: true,
          pointerId: id,
          pointerType: type,
          isPrimary: true,
          button: kind === 'move' ? -1 : 0,
          buttons: kind === 'up' ? 0 : 1,
          clientX: at.x,
          clientY: at.y,
          pressure: pressure ?? (kind === 'up' ? 0 : 0.5),
          width: size ?? 12,
          height: size ?? 12,
        }),
      );
  }, motions);
}

async function stroke(
  who: Someone,
  page: string,
  touch: Omit<Touch, 'at'>,
  y: number,
  press = (i: number) => touch.pressure ?? 0.5 + i * 0,
): Promise<void> {
  for (let i = 0; i <= 8; i++) {
    const at = await who.locate(page, { x: 100 + i * 20, y });
    await pointers(who, [i === 0 ? 'down' : 'move', { ...touch, at, pressure: press(i) }]);
  }
  await pointers(who, ['up', { ...touch, at: await who.locate(page, { x: 260, y }) }]);
}

async function lesson(
  browser: Browser,
  server: SharedProcessServer,
): Promise<{ maren: Someone; noor: Someone; page: string }> {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tablets');
  await maren.bring('Sheet.pdf', await samplePdf(3));
  const link = await maren.openLesson();
  const noor = await Someone.at(browser, {
    viewport: { width: 820, height: 1180 },
    hasTouch: true,
  });
  await noor.join(server.url + link, 'Noor');
  await maren.button('Writing for all').click();
  await noor.isTold('You have a pen');
  return { maren, noor, page: (await maren.pageIds())[0]! };
}

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

test('a finger writes, two fingers move and zoom the page', async ({ browser }) => {
  const { maren, noor, page } = await lesson(browser, server);
  await stroke(noor, page, { id: 5, type: 'touch' }, 200);
  await expect.poll(() => maren.lines().then((l) => l.length)).toBe(1);

  const before = await noor.locate(page, { x: 200, y: 200 });
  const [a, b] = [
    { x: 350, y: 500 },
    { x: 450, y: 500 },
  ];
  const motions: Motion[] = [
    ['down', { id: 6, type: 'touch', at: a }],
    ['move', { id: 6, type: 'touch', at: { x: a.x + 2, y: a.y } }],
    ['down', { id: 7, type: 'touch', at: b }],
  ];
  for (let i = 1; i <= 10; i++)
    motions.push(
      ['move', { id: 6, type: 'touch', at: { x: a.x - i * 8, y: a.y } }],
      ['move', { id: 7, type: 'touch', at: { x: b.x + i * 8, y: b.y } }],
    );
  motions.push(['up', { id: 6, type: 'touch', at: a }], ['up', { id: 7, type: 'touch', at: b }]);
  await pointers(noor, ...motions);
  const [p, q] = [
    await noor.locate(page, { x: 200, y: 200 }),
    await noor.locate(page, { x: 300, y: 200 }),
  ];
  expect(p).not.toEqual(before);
  expect((q.x - p.x) / 100).toBeGreaterThan(2);
  // What the first of the two fingers had begun is no line.
  expect((await noor.lines()).length).toBe(1);
});

test('a stylus writes with pressure while a palm rests; then fingers only move the page', async ({
  browser,
}) => {
  const { maren, noor, page } = await lesson(browser, server);
  await pointers(noor, ['down', { id: 9, type: 'touch', at: { x: 600, y: 900 }, size: 70 }]);
  await stroke(noor, page, { id: 2, type: 'pen' }, 240, (i) => 0.2 + i * 0.08);
  const palm = { id: 9, type: 'touch', at: { x: 620, y: 905 }, size: 70 } as const;
  await pointers(noor, ['move', palm], ['up', palm]);
  await expect.poll(() => maren.lines().then((l) => l.length)).toBe(1);
  await maren.seesInkAt(page, { x: 240, y: 240 });

  // Longer than the hand that holds the stylus is taken for resting.
  await noor.page.evaluate(() => new Promise((done) => setTimeout(done, 800)));
  const before = await noor.locate(page, { x: 0, y: 0 });
  await stroke(noor, page, { id: 10, type: 'touch' }, 300);
  const finger = { id: 11, type: 'touch', at: { x: 400, y: 700 } } as const;
  await pointers(
    noor,
    ['down', { ...finger, at: { x: 400, y: 800 } }],
    ['move', finger],
    ['up', finger],
  );
  await expect.poll(() => noor.locate(page, { x: 0, y: 0 })).not.toEqual(before);
  expect((await noor.lines()).length).toBe(1);
});

test('everything but drawing can be reached by keyboard', async ({ browser }) => {
  const { maren, noor, page } = await lesson(browser, server);
  await maren.draw(page, [
    { x: 100, y: 100 },
    { x: 300, y: 100 },
  ]);
  await expect.poll(() => noor.lines().then((l) => l.length)).toBe(1);
  await maren.stage.focus();
  await maren.page.keyboard.press('Control+z');
  await expect.poll(() => noor.lines().then((l) => l.length)).toBe(0);
  await maren.page.keyboard.press('Control+Shift+z');
  await expect.poll(() => noor.lines().then((l) => l.length)).toBe(1);
  for (const [key, name] of [
    ['e', 'Eraser'],
    ['h', 'Highlighter'],
    ['m', 'Move'],
    ['p', 'Pen'],
  ] as const) {
    await maren.page.keyboard.press(key);
    await expect(maren.page.getByRole('button', { name, exact: true })).toHaveAttribute(
      'aria-pressed',
      'true',
    );
  }
  await maren.page.keyboard.press('PageDown');
  await expect(maren.page.getByLabel('Go to page number')).toHaveValue('2');
  const zoom = await maren.page.locator('.percent').textContent();
  await maren.page.keyboard.press('+');
  await expect(maren.page.locator('.percent')).not.toHaveText(zoom!);
  await maren.penOf('Noor').getByRole('radio', { name: 'Writing' }).focus();
  await maren.page.keyboard.press('ArrowLeft');
  await noor.isTold('Watching');
});

test('a name of markup is letters on every screen; two of one name are told apart', async ({
  browser,
}) => {
  const { maren, noor } = await lesson(browser, server);
  const link = await maren.page.evaluate(async () => {
    const id = location.pathname.split('/').pop()!;
    const answer = (await (await fetch(`/api/boards/${id}`)).json()) as {
      course: { linkToken: string };
    };
    return `/join/${answer.course.linkToken}`;
  });
  const other = await Someone.at(browser);
  await other.join(server.url + link, 'Noor');
  const odd = await Someone.at(browser);
  await odd.join(server.url + link, '<b onclick=alert(1)>Ида</b>');
  await expect(
    maren.page.locator('cua-people-panel').getByText('Noor (2)', { exact: true }),
  ).toBeVisible();
  await expect(
    maren.page
      .locator('cua-people-panel')
      .getByText('<b onclick=alert(1)>Ида</b>', { exact: true }),
  ).toBeVisible();
  await noor.isTold(/Watching|You have a pen/);
});

test('a file that is no PDF is told in plain words, and the upload list goes on', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Files');
  await maren.page.locator('input[type=file]').setInputFiles({
    name: 'letter.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from('Dear all'),
  });
  await expect(maren.page.getByRole('alert')).toContainText('though its name says so');
  await maren.button('All right').click();
  await maren.bring('Sheet.pdf', await samplePdf(1));
});

test('a student comes in with the code as it was read out, on a phone; a wrong one is told kindly', async ({
  browser,
}) => {
  const { maren } = await lesson(browser, server);
  const code = await maren.page.locator('cua-join-card .code').textContent();
  const ida = await Someone.at(browser, { viewport: { width: 390, height: 844 }, hasTouch: true });
  await ida.page.goto(`${server.url}/join`);
  await ida.page.getByLabel('Join code').fill('AAA AAAA');
  await ida.button('Go on').click();
  await expect(ida.page.getByRole('alert')).toContainText('Check each letter with your tutor');
  await ida.page.getByLabel('Join code').fill(` ${code!.toLowerCase()} `);
  await ida.button('Go on').click();
  await ida.page.getByLabel('Your first name').fill('Ida');
  await ida.button('Go in').click();
  await ida.isOnBoard();
  await expect(maren.penOf('Ida')).toBeVisible();
});

test('the description of all routes opens in a browser, under its own strict policy', async ({
  browser,
}) => {
  const reader = await Someone.at(browser);
  await reader.page.goto(`${server.url}/api/docs`);
  await expect(reader.page.getByText('Make a board of a PDF').first()).toBeVisible();
});

test('no page runs inline script, asks another origin for anything, or fetches many files', async ({
  browser,
}) => {
  const { maren, noor } = await lesson(browser, server);
  for (const { page } of [maren, noor]) {
    const asked: string[] = [];
    const complaints: string[] = [];
    page.on('request', (request) => asked.push(request.url()));
    page.on('console', (message) => {
      if (message.type() === 'error') complaints.push(message.text());
    });
    const response = await page.reload();
    expect(response!.headers()['content-security-policy']).toContain(
      "script-src 'self' 'wasm-unsafe-eval';",
    );
    await expect(page.locator('cua-stage .host')).toBeVisible();
    await page.waitForLoadState('networkidle');
    const outside = asked.filter(
      (url) => !url.startsWith(server.url) && !/^(data|blob|ws):/.test(url),
    );
    expect(outside).toEqual([]);
    expect(complaints).toEqual([]);
    // Each is a request that a thin line waits for: `scripts/merge-chunks.mjs`.
    expect(asked.filter((url) => url.endsWith('.js')).length).toBeLessThanOrEqual(40);
  }
});
