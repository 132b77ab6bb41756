import { expect, test } from './story.js';
import { PNG } from 'pngjs';
import { SharedProcessServer } from './house.js';
import { Someone } from './people.js';
import type { PagePoint } from './people.js';

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

/** A blue picture of 120 × 80. */
function bluePicture(): Buffer {
  const png = new PNG({ width: 120, height: 80 });
  for (let i = 0; i < png.data.length; i += 4) png.data.set([20, 60, 200, 255], i);
  return PNG.sync.write(png);
}

/** Whether a colour is more of one kind than of the others. */
const isBlue = ([r, g, b]: readonly number[]): boolean => b! > 150 && b! > r! + 60 && b! > g! + 60;
const isReddish = ([r, , b]: readonly number[]): boolean => r! > b! + 15;

async function sees(
  who: Someone,
  page: string,
  place: PagePoint,
  kind: (colour: readonly number[]) => boolean,
): Promise<void> {
  await expect.poll(async () => kind(await who.colourAt(page, place))).toBeTruthy();
}

test('shapes, marks and pictures are laid, arranged, hidden and copied to another board', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tides');
  await maren.button('Empty board').click();
  await maren.isOnBoard();
  const noor = await Someone.at(browser, { viewport: { width: 1280, height: 800 } });
  const link = await maren.openLesson();
  await noor.join(server.url + link, 'Noor');
  const [page] = (await maren.pageIds()) as [string];
  const pressed = async (name: string): Promise<void> => {
    const button = maren.page.getByRole('button', { name, exact: true });
    await button.click();
    await expect(button).toHaveAttribute('aria-pressed', 'true');
  };

  // A filled box, seen by both; taken hold of and moved; back by undo.
  await pressed('Shapes');
  await pressed('Box');
  await pressed('Filled');
  await maren.draw(page, [
    { x: 60, y: 60 },
    { x: 200, y: 160 },
  ]);
  for (const who of [maren, noor]) await sees(who, page, { x: 130, y: 110 }, isReddish);
  await pressed('Select');
  await maren.draw(page, [
    { x: 130, y: 110 },
    { x: 330, y: 210 },
  ]);
  for (const who of [maren, noor]) await sees(who, page, { x: 330, y: 210 }, isReddish);
  await noor.seesPaperAt(page, { x: 100, y: 110 });
  await maren.button('Undo').click();
  for (const who of [maren, noor]) await sees(who, page, { x: 130, y: 110 }, isReddish);

  // Nothing of it is a student's to move or rub out.
  await maren.button('Writing for all').click();
  await noor.button('Eraser').click();
  await noor.draw(page, [
    { x: 50, y: 110 },
    { x: 220, y: 110 },
  ]);
  await sees(noor, page, { x: 130, y: 80 }, isReddish);
  // What is laid under the ink is the tutor's to bring.
  expect(await noor.page.getByText('Insert', { exact: true }).count()).toBe(0);

  // A picture from this machine, in the middle of what is seen; sized by its corner.
  await maren.page
    .locator('cua-tool-dock input[type=file]')
    .setInputFiles({ name: 'sea.png', mimeType: 'image/png', buffer: bluePicture() });
  await expect.poll(async () => (await maren.lines()).length).toBe(2);
  const frame = async (): Promise<{ x: number; y: number; width: number; height: number }> =>
    maren.stage.evaluate((element, id) => {
      const { cuaStage } = element as unknown as {
        cuaStage: { board(): { pages: Map<string, { items: Map<string, unknown> }> } };
      };
      const items = [...cuaStage.board().pages.get(id)!.items.values()] as {
        kind: string;
        frame: { x: number; y: number; width: number; height: number };
      }[];
      return items.find(({ kind }) => kind === 'picture')!.frame;
    }, page);
  const came = await frame();
  const middle = { x: came.x + came.width / 2, y: came.y + came.height / 2 };
  for (const who of [maren, noor]) await sees(who, page, middle, isBlue);
  expect(came.width / came.height).toBeCloseTo(1.5, 2);
  await maren.draw(page, [
    { x: came.x + came.width, y: came.y + came.height },
    { x: came.x + came.width + 45, y: came.y + came.height + 30 },
  ]);
  await expect.poll(async () => (await frame()).width - came.width).toBeCloseTo(45, -1);
  const sized = await frame();
  expect(sized.width / sized.height).toBeCloseTo(1.5, 2);
  await sees(noor, page, { x: came.x + came.width + 20, y: middle.y }, isBlue);

  // Hidden, it is on no student's machine; one touch shows it.
  await maren.button('Hide until its moment').click();
  await noor.seesPaperAt(page, middle);
  expect((await noor.lines()).length).toBe(1);
  await sees(maren, page, middle, ([r, , b]) => b! > r! + 20);
  await maren.button('Show it to students').click();
  await sees(noor, page, middle, isBlue);

  // Who comes late has it, too, and so has the tutor after a reload.
  const late = await Someone.at(browser);
  await late.join(server.url + link, 'Ben');
  await sees(late, page, middle, isBlue);
  await late.leave();

  // Fixed, it stays where it is, whatever is drawn over it.
  await maren.button('Fix in place').click();
  await maren.draw(page, [middle, { x: middle.x, y: middle.y + 150 }]);
  expect(await frame()).toEqual(sized);
  await maren.button('Loosen').click();

  await maren.page.reload();
  await maren.isOnBoard();
  await sees(maren, page, middle, isBlue);
  await pressed('Select');

  // By keyboard: everything chosen, moved a step, copied and pasted on another board.
  await maren.stage.focus();
  await maren.page.keyboard.press('Control+a');
  await expect(maren.page.getByText('2 things chosen')).toBeVisible();
  await maren.page.keyboard.press('Shift+ArrowDown');
  await expect.poll(async () => (await frame()).y - sized.y).toBeCloseTo(10, 5);
  await maren.page.keyboard.press('Control+c');
  await maren.page.getByLabel(/^Back to/).click();
  await maren.button('Empty board').click();
  await maren.isOnBoard();
  const [other] = (await maren.pageIds()) as [string];
  expect(other).not.toBe(page);
  await maren.stage.focus();
  await maren.page.keyboard.press('Control+v');
  await expect.poll(async () => (await maren.lines()).length).toBe(2);
  await sees(maren, other, { x: middle.x, y: middle.y + 10 }, isBlue);
  await maren.page.keyboard.press('Delete');
  await expect.poll(async () => (await maren.lines()).length).toBe(0);
  await maren.page.keyboard.press('Control+z');
  await expect.poll(async () => (await maren.lines()).length).toBe(2);
});
