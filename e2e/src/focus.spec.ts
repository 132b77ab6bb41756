import type { Locator } from '@playwright/test';
import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';

/* Anyone who has no mouse goes into each dialog, out of it by Escape, and on from where they were (WCAG 2.2, 2.4.3). */

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

/** Opens it by Enter, or by what is chosen of the menu that Enter opens; finds the focus in it, closes it by Escape, and finds the focus where it was. */
async function comesBack(who: Someone, opener: Locator | string, wish?: string): Promise<void> {
  const button = typeof opener === 'string' ? who.button(opener) : opener;
  const inside = (): Promise<boolean> =>
    who.page.evaluate(
      () =>
        document.activeElement?.closest(
          '[role=dialog], dialog, [class*=panel], cua-find-panel, cua-talk-dialog, input',
        ) !== null,
    );
  await test.step(String(opener), async () => {
    await button.focus();
    await expect(button).toBeFocused();
    await who.page.keyboard.press('Enter');
    if (wish) await who.page.getByRole('menuitem', { name: wish }).click();
    // What is pressed may be gone while the field is there that it opened.
    await expect(button.and(who.page.locator(':focus'))).toHaveCount(0);
    await expect.poll(inside).toBe(true);
    await who.page.keyboard.press('Escape');
    // A dialog that is going may have a button of the same name.
    await expect(button).toHaveCount(1);
    await expect(button).toBeFocused();
  });
}

test('the focus goes into each dialog of a tutor, and back', async ({ browser }) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await comesBack(maren, 'New course');
  await maren.makeCourse('Tides');
  const course = maren.page.url();
  await maren.bring('Tides.pdf', await samplePdf(2));
  await comesBack(maren, 'Save on this machine');
  for (const wish of ['Paper', 'Move to board…']) await comesBack(maren, 'This page', wish);
  await comesBack(maren, 'Find on this board');
  await comesBack(maren, maren.page.locator('cua-board-name button'));

  const link = await maren.openLesson();
  const ida = await Someone.at(browser);
  await ida.join(server.url + link, 'Ida');
  for (const name of ['Close the lesson', 'Notices', 'Permissions…']) await comesBack(maren, name);
  await maren.button('Eraser').click();
  await comesBack(maren, 'Wipe …');
  await maren.button('Close the lesson').click();
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close the lesson' }).click();
  await maren.page.waitForURL(/records/);
  for (const name of ['Save…', 'Share…']) await comesBack(maren, name);

  await maren.page.goto(course);
  await comesBack(maren, 'Share…');
  await maren.page.goto(`${server.url}/week`);
  for (const name of ['Import a calendar…', 'Plan lessons']) await comesBack(maren, name);
  await maren.page.goto(`${server.url}/account`);
  await comesBack(maren, 'Delete the account…');
});

test('the focus goes into each sheet of a student, and back', async ({ browser }) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Tides');
  await maren.button('Empty board').click();
  await maren.isOnBoard();
  const link = await maren.openLesson();
  const ida = await Someone.at(browser, { viewport: { width: 390, height: 844 } });
  await ida.join(server.url + link, 'Ida');
  await comesBack(ida, 'Class');
});
