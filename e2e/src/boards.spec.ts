import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

test('boards of a course are named, copied, put in order, taken out and brought back', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Sky-watching');
  await maren.bring('Stars.pdf', await samplePdf(3));
  const [first, second] = await maren.pageIds();
  await maren.draw(first!, [
    { x: 80, y: 200 },
    { x: 200, y: 220 },
  ]);
  // Words are found in what is printed, too, on pages that were never in view.
  await maren.page.keyboard.press('Control+f');
  await maren.page.getByLabel('Words to find').fill('SHEET 3');
  await expect(maren.page.getByText('1 place', { exact: false })).toBeVisible();
  await maren.button(/^Page 3 Sheet 3/).click();
  await expect(maren.page.getByLabel('Go to page number')).toHaveValue('3');
  await maren.page.keyboard.press('Escape');
  await expect(maren.page.getByLabel('Words to find')).toHaveCount(0);
  await maren
    .button(/^Back to/)
    .or(maren.page.getByLabel(/^Back to/))
    .first()
    .click();
  const cards = maren.page.locator('cua-board-list a.card .name');
  await expect(cards).toHaveText(['Stars']);

  const wish = async (board: string, what: string): Promise<void> => {
    await maren.button(`What to do with ${board}`).click();
    await maren.page.getByRole('menuitem', { name: what }).click();
    // One that is still going away would take the next with it.
    await expect(maren.page.getByRole('menu')).toHaveCount(0);
  };
  await wish('Stars', 'Rename');
  await maren.page.getByLabel('Name of the board').fill('Stars of November');
  await maren.page.keyboard.press('Enter');
  await expect(cards).toHaveText(['Stars of November']);
  await wish('Stars of November', 'Copy it…');
  await maren.page.getByRole('textbox', { name: 'Name', exact: true }).fill('For next year');
  await maren.button('Make the copy').click();
  await expect(cards).toHaveText(['For next year', 'Stars of November']);

  // Dragged below the other, and up again by keyboard.
  const box = async (n: number) => (await cards.nth(n).boundingBox())!;
  const [from, to] = [await box(0), await box(1)];
  await maren.page.mouse.move(from.x + 40, from.y + 10);
  await maren.page.mouse.down();
  await maren.page.mouse.move(from.x + 40, from.y + 40, { steps: 5 });
  await maren.page.mouse.move(to.x + 40, to.y + 30, { steps: 10 });
  const isPlaced = (): Promise<unknown> => maren.page.waitForResponse(/\/place$/);
  const dragged = isPlaced();
  await maren.page.mouse.up();
  await expect(cards).toHaveText(['Stars of November', 'For next year']);
  await dragged;
  await maren.page.locator('cua-board-list a.card').nth(1).focus();
  // It is seen there at once; a reload before it was said would be that of somebody who never waits.
  const placed = isPlaced();
  await maren.page.keyboard.press('Alt+ArrowUp');
  await expect(cards).toHaveText(['For next year', 'Stars of November']);
  await placed;
  await maren.page.reload();
  await expect(cards).toHaveText(['For next year', 'Stars of November']);

  await wish('For next year', 'Remove');
  await expect(maren.page.getByText('“For next year” was removed.')).toBeVisible();
  await expect(cards).toHaveText(['Stars of November']);
  await maren.page.reload();
  await maren.page.getByText('Removed: 1').click();
  await maren.button('Restore For next year').click();
  await expect(cards).toHaveText(['For next year', 'Stars of November']);

  // The copy is there with what was prepared; two of its pages go to the other board.
  // Opened while the covers are still being drawn from the same file.
  await maren.page.reload();
  await cards.first().click();
  await maren.isOnBoard();
  await maren.isSharp();
  expect((await maren.lines()).length).toBe(1);
  const copies = await maren.pageIds();
  expect(copies).not.toContain(first);
  await maren.ofPages('Select pages');
  const entry = (n: number) => maren.page.locator('.entry').nth(n);
  await entry(0).click();
  await entry(2).click();
  await expect(maren.page.getByText('2 picked')).toBeVisible();
  await maren.ofPages('Move to board…');
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Move' }).click();
  await expect.poll(() => maren.pageIds()).toEqual([copies[1]]);
  await maren.page.getByRole('link', { name: 'Go there' }).click();
  await expect.poll(async () => (await maren.pageIds()).length).toBe(5);
  expect((await maren.pageIds()).slice(0, 2)).toEqual([first, second]);
  expect((await maren.lines()).length).toBe(2);

  // Two pages set up at once, taken out at once, and back by undo after a reload.
  await entry(2).click();
  await entry(3).click({ modifiers: ['Shift'] });
  await expect(maren.page.getByText('2 picked')).toBeVisible();
  await maren.ofPages('Remove');
  await expect.poll(async () => (await maren.pageIds()).length).toBe(3);
  await maren.page.reload();
  await maren.isOnBoard();
  await maren.button('Undo').click();
  await expect.poll(async () => (await maren.pageIds()).length).toBe(5);
});

test('margins and what is hidden stay with the tutor, until the touch that shows it', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tides');
  await maren.bring('Tides.pdf', await samplePdf(2));
  const [first, answers] = (await maren.pageIds()) as [string, string];
  await maren.button('Private notes').click();
  await maren.page.getByRole('textbox', { name: 'Private notes on page 1' }).click();
  await maren.page.keyboard.type('Low water at ten past four');
  await maren.page.locator('.entry').nth(1).click();
  await expect(maren.page.getByRole('heading', { name: 'Private notes on page 2' })).toBeVisible();
  await maren.ofPages('Hide page');
  await expect(maren.button('Show it now')).toBeVisible();
  await maren.draw(answers, [
    { x: 80, y: 200 },
    { x: 200, y: 220 },
  ]);
  const link = await maren.openLesson();

  const noor = await Someone.at(browser);
  let heard = Buffer.alloc(0);
  noor.page.on('websocket', (socket) =>
    socket.on('framereceived', ({ payload }) => {
      heard = Buffer.concat([heard, Buffer.from(payload)]);
    }),
  );
  await noor.join(server.url + link, 'Noor');
  expect(await noor.pageIds()).toEqual([first]);
  await maren.page.locator('.entry').first().click();
  // In a lesson the class stands beside the page, until something else is asked for.
  await maren.button('Private notes').click();
  await maren.page.getByRole('textbox', { name: 'Private notes on page 1' }).click();
  await maren.page.keyboard.press('Control+End');
  await maren.page.keyboard.type(', or later');
  await maren.page.locator('.entry').nth(1).click();
  await maren.button('Show it now').click();
  await expect.poll(() => noor.pageIds()).toEqual([first, answers]);
  await expect.poll(async () => (await noor.lines()).length).toBe(1);
  await maren.ofPages('Hide page');
  await expect.poll(() => noor.pageIds()).toEqual([first]);
  expect(heard.length).toBeGreaterThan(1000);
  expect(heard.includes('Low water')).toBeFalsy();
  expect(heard.includes('or later')).toBeFalsy();

  // The margin is there after a reload, and for nobody else.
  await maren.page.reload();
  await maren.isOnBoard();
  await maren.page.locator('.entry').first().click();
  await expect(maren.page.getByRole('textbox', { name: 'Private notes on page 1' })).toHaveText(
    'Low water at ten past four, or later',
  );
  await expect(noor.page.getByText('Low water')).toHaveCount(0);
});
