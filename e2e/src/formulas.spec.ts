import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { Someone } from './people.js';

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

test('a formula is typed, seen by all, read out in words and found by them', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tides');
  await maren.button('Empty board').click();
  await maren.isOnBoard();
  const [page] = (await maren.pageIds()) as [string];
  const link = await maren.openLesson();
  const ida = await Someone.at(browser);
  await ida.join(server.url + link, 'Ida');

  await maren.button('Formula').click();
  await maren.draw(page, [{ x: 120, y: 140 }]);
  await maren.page.getByRole('textbox', { name: 'Formula' }).fill('sqrt(x^2+1)/2');
  await maren.page.keyboard.press('Enter');
  await expect.poll(() => ida.lines().then(({ length }) => length)).toBe(1);

  // Read by a screen reader, at the student's.
  const inWords = ida.page.locator('cua-page-outline');
  await expect(inWords.getByRole('listitem')).toHaveText(
    /Formula: .*the square root of x squared plus 1.*2/,
  );

  await maren.button('Find on this board').click();
  await maren.page.getByRole('searchbox').fill('square root');
  await expect(maren.page.locator('cua-find-panel').getByText('Page 1').first()).toBeVisible();
});
