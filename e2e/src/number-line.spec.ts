import { execFileSync } from 'node:child_process';
import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { Someone } from './people.js';

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

interface Line {
  readonly kind: string;
  readonly from: number;
  readonly to: number;
  readonly step: number;
  readonly points: readonly { at: number; open: boolean }[];
  readonly jumps: readonly { from: number; to: number }[];
  readonly frame: { readonly x: number; readonly y: number; readonly width: number };
}

/** The number line on the board, as this window has it. */
function lineOf(who: Someone): Promise<Line> {
  return who.stage.evaluate((element) => {
    const { cuaStage } = element as unknown as {
      cuaStage: { board(): { pages: Map<string, { items: Map<string, Line> }> } };
    };
    const items = [...cuaStage.board().pages.values()].flatMap(({ items }) => [...items.values()]);
    return items.find(({ kind }) => kind === 'number-line')!;
  });
}

test('a number line is laid, counted on by a student, found, read out and saved', async ({
  browser,
}) => {
  const maren = await Someone.at(browser, { viewport: { width: 1280, height: 800 } });
  await maren.setUp(server.url);
  await maren.makeCourse('Tides');
  await maren.button('Empty board').click();
  await maren.isOnBoard();
  const [page] = (await maren.pageIds()) as [string];

  // Quarters from 0 to 2, laid by drawing along.
  await maren.page.keyboard.press('n');
  await expect(maren.button('Number line')).toHaveAttribute('aria-pressed', 'true');
  const options = maren.page.getByRole('group', { name: 'Number line', exact: true });
  const numbers = options.getByRole('button', { name: / to .* …$/ });
  await numbers.click();
  await options.getByLabel('To', { exact: true }).fill('2');
  await options.getByLabel('Step').fill('1/4');
  await options.getByLabel('Numbers at the ticks').selectOption({ label: 'Fractions' });
  await maren.draw(page, [
    { x: 60, y: 140 },
    { x: 540, y: 142 },
  ]);
  await expect.poll(() => maren.lines().then((all) => all.length)).toBe(1);
  const laid = await lineOf(maren);
  expect([laid.from, laid.to, laid.step]).toEqual([0, 2, 0.25]);
  /** Where a number is on the page: quarters lie evenly between the first tick and the last. */
  const at = (quarters: number): { x: number; y: number } => {
    const inset = Math.min(laid.frame.width / 4, Math.min(28, 90 * 0.17) * 1.6);
    const room = laid.frame.width - 2 * inset;
    return { x: laid.frame.x + inset + (quarters / 8) * room, y: laid.frame.y + 90 * 0.58 };
  };

  // The tutor marks; the point snaps to its tick, a second touch takes it away.
  await options.getByRole('button', { name: 'Point', exact: true }).click();
  await maren.draw(page, [{ x: at(3).x + 6, y: at(3).y - 4 }]);
  await expect.poll(async () => (await lineOf(maren)).points).toEqual([{ at: 0.75, open: false }]);
  await maren.button('Undo').click();
  await expect.poll(async () => (await lineOf(maren)).points).toEqual([]);

  // A student with hands on counts on it, in jumps; all see them.
  const link = await maren.openLesson();
  const ida = await Someone.at(browser, { viewport: { width: 1280, height: 800 } });
  await ida.join(server.url + link, 'Ida');
  await maren.give('Ida', 'Hands on');
  await ida.button('Number line').click();
  await ida.page.getByRole('button', { name: 'Jump' }).click();
  await ida.draw(page, [at(0), { x: at(2).x, y: at(2).y - 30 }, { x: at(3).x - 5, y: at(3).y }]);
  for (const who of [maren, ida])
    await expect.poll(async () => (await lineOf(who)).jumps).toEqual([{ from: 0, to: 0.75 }]);

  // By keys alone: a jump back by a quarter; the cursor says what it is on.
  const box = (await ida.stage.boundingBox())!;
  let cursor = { x: Math.round(box.width / 2), y: Math.round(box.height / 2) };
  const go = async (quarters: number): Promise<void> => {
    const to = await ida.locate(page, at(quarters));
    const way = {
      x: Math.round((to.x - box.x - cursor.x) / 10),
      y: Math.round((to.y - box.y - cursor.y) / 10),
    };
    for (let i = 0; i < Math.abs(way.x); i++)
      await ida.page.keyboard.press(way.x > 0 ? 'ArrowRight' : 'ArrowLeft');
    for (let i = 0; i < Math.abs(way.y); i++)
      await ida.page.keyboard.press(way.y > 0 ? 'ArrowDown' : 'ArrowUp');
    cursor = { x: cursor.x + way.x * 10, y: cursor.y + way.y * 10 };
  };
  await ida.stage.focus();
  await ida.page.keyboard.press('Enter');
  await go(3);
  await expect(ida.page.getByText(/down the page\. Number line from 0 to 2/)).toBeAttached();
  await ida.page.keyboard.press('Enter');
  await go(2);
  await ida.page.keyboard.press('Enter');
  await expect
    .poll(async () => (await lineOf(maren)).jumps)
    .toEqual([
      { from: 0, to: 0.75 },
      { from: 0.75, to: 0.5 },
    ]);

  // Chosen, it says what it is; its numbers can be changed.
  await maren.page.getByRole('button', { name: 'Select', exact: true }).click();
  await maren.draw(page, [{ x: at(8).x + 20, y: at(8).y }]);
  await expect(
    maren.page
      .locator('cua-selection-actions')
      .getByText(
        'Number line from 0 to 2, 9 ticks, one every 1/4; jump from 0 to 3/4; jump from 3/4 to 1/2',
      ),
  ).toBeAttached();
  await numbers.click();
  await options.getByLabel('From').fill('3');
  await options.getByLabel('From').press('Enter');
  await expect(options.getByRole('alert')).toContainText('larger number than it begins');
  await options.getByLabel('From').fill('-1');
  await options.getByLabel('From').press('Enter');
  await expect.poll(async () => (await lineOf(ida)).from).toBe(-1);

  // Found by its numbers, and there in the PDF.
  await maren.button('Find on this board').click();
  await maren.page.getByRole('searchbox').fill('3/4');
  await expect(maren.page.locator('cua-find-panel').getByText('Page 1').first()).toBeVisible();
  await maren.page.keyboard.press('Escape');
  await maren.button('Save on this machine').click();
  const dialog = maren.page.getByRole('dialog', { name: 'Save on this machine' });
  await dialog.getByText('PDF', { exact: true }).click();
  const [download] = await Promise.all([
    maren.page.waitForEvent('download'),
    dialog.getByRole('button', { name: 'Save' }).click(),
  ]);
  const words = execFileSync('pdftotext', [await download.path(), '-']).toString();
  for (const word of ['−1', '0', '1', '2', '4']) expect(words.split(/\s+/)).toContain(word);
});
