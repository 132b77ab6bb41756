import { expect, test } from './story.js';
import { expectNoAxeViolations } from './axe.js';
import { Line, SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';
import type { PagePoint } from './people.js';

/* Writing has stopped, or the lesson is over, while a student's line is away: what they wrote meanwhile isn't lost. */

let server: SharedProcessServer;
let line: Line;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
  line = await Line.to(server.port);
});
test.afterEach(async () => {
  line.close();
  await server.close();
});

const across = (y: number): PagePoint[] => [80, 160, 240].map((x) => ({ x, y }));

test('what was written while the line was away waits for the tutor, who adds it or leaves it', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tuesday sky-watching');
  await maren.bring('Star chart.pdf', await samplePdf(2));
  const board = maren.page.url();
  const way = await maren.openLesson();
  const [first] = (await maren.pageIds()) as [string];
  const ida = await Someone.at(browser);
  await ida.join(line.url + way, 'Ida');
  await maren.button('Writing for all').click();
  await ida.isTold('You have a pen');
  await ida.draw(first, across(120));
  await expect.poll(() => maren.lines().then((lines) => lines.length)).toBe(1);
  const atFirst = await maren.lines();

  // Pens are taken in while Ida's line is away.
  line.cut();
  await expect(ida.page.getByText('Connection lost')).toBeVisible();
  await maren.button('Take all pens back').click();
  await ida.draw(first, across(200));
  await ida.draw(first, across(240));
  const written = await ida.lines();
  expect(written.length).toBe(3);
  line.mend();
  await ida.isTold('Watching');
  await expect(
    ida.page.getByText('2 lines that you wrote while the connection was lost are with your tutor'),
  ).toBeVisible();
  await expect.poll(() => ida.lines()).toEqual(atFirst);
  expect(await maren.lines()).toEqual(atFirst);

  await maren.button('2 late lines').click();
  const dialog = maren.page.getByRole('dialog', { name: 'Late lines' });
  await expect(dialog.getByText('Ida: 2 lines')).toBeVisible();
  await expect(dialog.getByText('Page 1 as it is')).toBeVisible();
  await expectNoAxeViolations(maren, 'late lines');
  await dialog.getByRole('button', { name: 'Add to the page' }).click();
  await expect(dialog).toBeHidden();
  await expect.poll(() => maren.lines()).toEqual(written);
  await expect.poll(() => ida.lines()).toEqual(written);
  await expect(ida.page.getByText('Your tutor added 2 lines')).toBeVisible();
  await ida.button('All right').click();
  await expect(ida.page.getByText('Your tutor added 2 lines')).toBeHidden();

  // The lesson is closed while it is away once more, and her window is shut before it is back.
  await maren.button('Writing for all').click();
  await ida.isTold('You have a pen');
  line.cut();
  await expect(ida.page.getByText('Connection lost')).toBeVisible();
  await ida.draw(first, across(300));
  await maren.button('Close the lesson').click();
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close the lesson' }).click();
  await expect(maren.page.getByText('Who was there')).toBeVisible();
  await ida.page.goto('about:blank');
  line.mend();
  await ida.page.goto(`${line.url}/lesson`);
  await expect(ida.page.getByText('The lesson is over')).toBeVisible();
  await expect(
    ida.page.getByText('One line that you wrote while the connection was lost is with your tutor'),
  ).toBeVisible();
  await expect(ida.page.getByText('All that was written is kept')).toBeHidden();

  // The tutor is told on the first screen, and adds it to the record.
  await maren.page.goto(server.url);
  await maren.page.getByRole('link', { name: /Ida.*one line/ }).click();
  await maren.button('Look').click();
  await dialog.getByRole('button', { name: 'Add to the record' }).click();
  await expect(dialog).toBeHidden();
  await expect.poll(() => maren.lines().then((lines) => lines.length)).toBe(4);
  await maren.page.reload();
  await expect.poll(() => maren.lines().then((lines) => lines.length)).toBe(4);
  // It is in the record alone; and Ida is told, next time.
  await maren.page.goto(board);
  await maren.isOnBoard();
  await expect.poll(() => maren.lines()).toEqual(written);
  await ida.page.goto(line.url + way);
  await expect(ida.page.getByText('Your tutor added a line')).toBeVisible();
});
