import { homography, mapped } from '@cuaderno/core';
import type { Quad } from '@cuaderno/core';
import { expect, test } from './story.js';
import { PNG } from 'pngjs';
import { SharedProcessServer } from './house.js';
import { hasCome, Someone } from './people.js';

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

const quad = (...corners: [number, number][]): Quad =>
  corners.map(([x, y]) => ({ x, y })) as unknown as Quad;

/** A sheet on a brown table, seen aslant; its left half is red, its right half blue. */
function photograph(): Buffer {
  const png = new PNG({ width: 640, height: 480 });
  const map = homography(
    quad([180, 40], [470, 80], [520, 450], [120, 420]),
    quad([0, 0], [1, 0], [1, 1], [0, 1]),
  )!;
  for (let y = 0; y < png.height; y++)
    for (let x = 0; x < png.width; x++) {
      const on = mapped(map, { x, y });
      const sheet = on.x >= 0 && on.y >= 0 && on.x <= 1 && on.y <= 1;
      const colour = !sheet ? [80, 55, 35] : on.x < 0.5 ? [255, 170, 170] : [190, 190, 255];
      png.data.set([...colour, 255], (y * png.width + x) * 4);
    }
  return PNG.sync.write(png);
}

interface Picture {
  readonly kind: string;
  readonly file: string;
  readonly frame: { x: number; y: number; width: number; height: number };
}

const pictures = (who: Someone): Promise<Picture[]> =>
  who.stage.evaluate((element) => {
    const { pages } = (
      element as unknown as {
        cuaStage: {
          board(): {
            pages: Map<string, { items: Map<string, { kind: string; removed: object | null }> }>;
          };
        };
      }
    ).cuaStage.board();
    return [...pages.values()]
      .flatMap(({ items }) => [...items.values()])
      .filter(({ removed }) => !removed) as unknown as Picture[];
  });

test('a photographed sheet is found, cut to its paper and made straight; that can be undone', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Reading the tides');
  await maren.button('Empty board').click();
  await maren.isOnBoard();
  const [page] = (await maren.pageIds()) as [string];
  await maren.page.locator('cua-tool-dock input[type=file]').setInputFiles({
    name: 'Sheet.png',
    mimeType: 'image/png',
    buffer: photograph(),
  });
  await expect(maren.page.getByText('1 thing chosen')).toBeVisible();
  const [before] = (await pictures(maren)) as [Picture];

  await maren.button(/Straighten a scan/).click();
  const dialog = maren.page.getByRole('dialog');
  const corner = dialog.getByRole('slider', { name: 'Top left' });
  await expect(corner).toBeVisible();
  await hasCome(dialog);
  // By hand as well: a corner is moved with the keys, and put back.
  const found = await corner.getAttribute('aria-valuetext');
  await corner.focus();
  await maren.page.keyboard.press('Shift+ArrowRight');
  await expect(corner).not.toHaveAttribute('aria-valuetext', found!);
  await dialog.getByRole('button', { name: 'As it was found' }).click();
  await expect(corner).toHaveAttribute('aria-valuetext', found!);
  await dialog.getByRole('button', { name: 'Straighten', exact: true }).click();
  await expect(dialog).toBeHidden();

  // In its place lies the sheet alone: no table in any corner, its halves side by side.
  await expect.poll(async () => (await pictures(maren))[0]!.file).not.toBe(before.file);
  const [{ frame }] = (await pictures(maren)) as [Picture];
  expect(frame.width).toBeLessThanOrEqual(before.frame.width + 0.01);
  expect(frame.y).toBeGreaterThanOrEqual(0);
  await maren.page.keyboard.press('Escape');
  await maren.button('Whole page').click();
  const colour = async (u: number, v: number): Promise<[number, number, number]> =>
    maren.colourAt(page, { x: frame.x + frame.width * u, y: frame.y + frame.height * v });
  await expect.poll(async () => (await colour(0.03, 0.03))[0]).toBeGreaterThan(230);
  for (const v of [0.03, 0.5, 0.97]) {
    const [left, right] = [await colour(0.03, v), await colour(0.97, v)];
    expect(left[0] - left[2]).toBeGreaterThan(50);
    expect(right[2] - right[0]).toBeGreaterThan(40);
  }

  await maren.button('Undo').click();
  await expect.poll(async () => (await pictures(maren))[0]!.file).toBe(before.file);
});

test('a shape that lies there can be drawn otherwise', async ({ browser }) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Reading the tides');
  await maren.button('Empty board').click();
  await maren.isOnBoard();
  const [page] = (await maren.pageIds()) as [string];
  await maren.button('Shapes').click();
  await expect(maren.button('Shapes')).toHaveAttribute('aria-pressed', 'true');
  await maren.button('Box').click();
  await maren.draw(page, [
    { x: 100, y: 100 },
    { x: 260, y: 200 },
  ]);
  await maren.page.keyboard.press('c');
  await expect(maren.button('Select').first()).toHaveAttribute('aria-pressed', 'true');
  const edge = await maren.locate(page, { x: 100, y: 150 });
  await maren.page.mouse.click(edge.x, edge.y);
  const look = maren.page.getByRole('group', { name: 'How shapes are drawn' });
  await look.getByRole('button', { name: 'Filled' }).click();
  await look.getByRole('button', { name: 'Dashed' }).click();
  await maren.page.getByRole('group', { name: 'Width' }).getByRole('button').nth(2).click();
  const shape = async (): Promise<{ fill: string | null; outline: object }> =>
    (await pictures(maren))[0] as unknown as { fill: string | null; outline: object };
  await expect.poll(async () => (await shape()).fill).toMatch(/^#/);
  expect((await shape()).outline).toMatchObject({ dashed: true });
  await maren.button('Undo').click();
  await maren.button('Undo').click();
  await expect.poll(async () => (await shape()).outline).not.toMatchObject({ dashed: true });
  expect((await shape()).fill).toMatch(/^#/);
});
