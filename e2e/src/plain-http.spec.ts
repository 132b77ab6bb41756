import { chromium } from '@playwright/test';
import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';

/* A school's network without https: another name than localhost is no secure context to a browser. */

test('by plain http strokes are whole, links are copied, and what can’t be done is said', async ({
  launchOptions,
}) => {
  const server = await SharedProcessServer.start();
  const browser = await chromium.launch({
    ...launchOptions,
    args: [
      ...(launchOptions.args ?? []),
      '--host-resolver-rules=MAP board.school.example 127.0.0.1',
    ],
  });
  try {
    const url = `http://board.school.example:${server.port}`;
    const maren = await Someone.at(browser);
    // Only the browser knows that address.
    await maren.firstVisit(url);
    expect(await maren.page.evaluate(() => isSecureContext)).toBe(false);
    await maren.makeCourseByForm('Tuesday sky-watching');
    await maren.button('Copy link').click();
    await expect(maren.button('Copied')).toBeVisible();
    await maren.bring('Star chart.pdf', await samplePdf(2));
    const join = url + (await maren.openLesson());
    const ida = await Someone.at(browser);
    await ida.join(join, 'Ida');
    await maren.give('Ida', 'Writing');
    await ida.isTold('You have a pen');
    const [page] = (await ida.pageIds()) as [string];
    const places = Array.from({ length: 9 }, (_, i) => ({
      x: 100 + 30 * i,
      y: 220 + 20 * (i % 3),
    }));
    await ida.draw(page, places);
    await expect.poll(() => maren.lines().then((lines) => lines.length)).toBe(1);
    // Who lays nothing on pages copies and pastes words, and the board keeps none of it from them.
    const kept = await ida.page.evaluate(() =>
      ['copy', 'cut', 'paste', 'dragover'].filter(
        (type) =>
          !document
            .querySelector('cua-stage')!
            .dispatchEvent(new Event(type, { bubbles: true, cancelable: true })),
      ),
    );
    expect(kept).toEqual([]);
    // From its first place to its last, and no dot.
    for (const place of [places[0]!, places[4]!, places[8]!]) await maren.seesInkAt(page, place);

    await maren.button('Save on this machine').click();
    const dialog = maren.page.getByRole('dialog', { name: 'Save on this machine' });
    await dialog.getByText('This page as PNG').click();
    await dialog.getByRole('button', { name: 'Copy the page' }).click();
    await expect(dialog.getByRole('alert')).toContainText('Without https');
  } finally {
    await browser.close();
    await server.close();
  }
});
