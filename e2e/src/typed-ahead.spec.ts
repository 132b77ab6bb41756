import type { Locator } from '@playwright/test';
import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { Someone } from './people.js';

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

/** Each letter is a tool, a cover sheet, or all pens; on a slow tablet they are typed before anything has opened. */
const WORDS = 'Pens over the sheet';

test('letters typed while something opens go there, and change nothing on the board', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Reading the tides');
  await maren.button('Empty board').click();
  await maren.isOnBoard();
  const link = await maren.openLesson();
  const ida = await Someone.at(browser);
  await ida.join(server.url + link, 'Ida');
  await maren.give('Ida', 'Writing');
  await ida.isTold('You have a pen');
  const slow = await maren.page.context().newCDPSession(maren.page);
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 6 });

  const typeInto = async (opener: Locator, field: Locator): Promise<void> => {
    await opener.click();
    await maren.page.keyboard.type(WORDS);
    await expect(field).toBeFocused();
    const came = (): Promise<string> =>
      field.evaluate((one) => (one as HTMLInputElement).value ?? (one as HTMLElement).innerText);
    await expect.poll(async () => (await came()).trim()).toBe(WORDS);
  };
  const penOf = ({ page }: Someone): Locator =>
    page.locator('cua-tool-dock').getByRole('button', { name: 'Pen', exact: true });
  const unchanged = async (): Promise<void> => {
    await expect(penOf(maren)).toHaveAttribute('aria-pressed', 'true');
    await expect(penOf(ida)).toBeVisible();
    const covers = await maren.stage.evaluate(
      (element) =>
        [
          ...(
            element as unknown as {
              cuaStage: { board(): { pages: Map<string, { covers?: unknown[] }> } };
            }
          ).cuaStage
            .board()
            .pages.values(),
        ].flatMap(({ covers = [] }) => covers).length,
    );
    expect(covers).toBe(0);
  };
  const shown = (name: string): Locator => maren.page.getByRole('textbox', { name });

  await typeInto(maren.button('Private notes'), shown('Private notes on page 1'));
  await unchanged();
  await maren.button('Private notes').click();
  await typeInto(maren.button('Find on this board'), maren.page.getByLabel('Words to find'));
  await unchanged();
  await maren.page.keyboard.press('Escape');
  await typeInto(maren.page.locator('cua-board-name button'), shown('Name of the board'));
  await unchanged();
  await maren.page.keyboard.press('Escape');
  await typeInto(maren.button('Close the lesson'), shown('Summary'));
  await unchanged();
});
