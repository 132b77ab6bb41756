import { readFile } from 'node:fs/promises';
import { expectNoAxeViolations } from './axe.js';
import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { choose, Someone } from './people.js';

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

test('somebody types what is said; all read it as large as they like, and it lies in the record', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Reading the tides');
  await maren.bring('Tides.pdf', await samplePdf(2));
  const link = server.url + (await maren.openLesson());
  const ida = await Someone.at(browser);
  await ida.join(link, 'Ida');
  const noor = await Someone.at(browser, {
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  });
  await noor.join(link, 'Noor');
  const captions = ({ page }: Someone) => page.getByRole('log', { name: 'Captions' });
  const field = ida.page.getByRole('textbox', { name: 'Type what is said' });

  await test.step('the tutor names who types', async () => {
    await expect(captions(noor)).toHaveCount(0);
    await maren.page.getByRole('combobox', { name: 'Captions typed by' }).click();
    await maren.page.getByRole('option', { name: 'Ida' }).click();
    await expect(field).toBeVisible();
    await expect(captions(noor)).toBeVisible();
  });

  await test.step('what is typed is read at once, below the page and never over it', async () => {
    await field.click();
    await ida.page.keyboard.type('Low wat');
    await expect(captions(noor)).toContainText('Low wat');
    await ida.page.keyboard.type('er is at ten.');
    await ida.page.keyboard.press('Enter');
    for (const one of [maren, ida, noor])
      await expect(captions(one).getByText('Low water is at ten.')).toBeVisible();
    for (const one of [maren, noor]) {
      const [bar, stage] = await Promise.all([
        captions(one).boundingBox(),
        one.stage.boundingBox(),
      ]);
      expect(bar!.y).toBeGreaterThanOrEqual(stage!.y + stage!.height - 1);
    }
  });

  await test.step('the last line is corrected, and each reader has letters of their size', async () => {
    await ida.page.keyboard.press('ArrowUp');
    await ida.page.keyboard.press('End');
    for (let i = 0; i < 4; i++) await ida.page.keyboard.press('Backspace');
    await ida.page.keyboard.type('eleven.');
    await ida.page.keyboard.press('Enter');
    await expect(captions(noor).getByText('Low water is at eleven.')).toBeVisible();
    const sizeOf = (one: Someone) =>
      captions(one).evaluate((box) => parseFloat(getComputedStyle(box).fontSize));
    const before = await sizeOf(noor);
    await noor.button('Larger captions').tap();
    await noor.button('Larger captions').tap();
    expect(await sizeOf(noor)).toBeGreaterThan(before);
    expect(await sizeOf(maren)).toBe(before);
    await expectNoAxeViolations(noor, 'captions on a phone');
    await expectNoAxeViolations(ida, 'typing captions');
    await noor.page.reload();
    await expect(captions(noor).getByText('Low water is at eleven.')).toBeVisible();
    expect(await sizeOf(noor)).toBeGreaterThan(before);
    await noor.button('Hide captions').tap();
    await expect(captions(noor)).toHaveCount(0);
    await noor.button('Show captions').tap();
  });

  await test.step('what is typed while the line is away goes when it is back', async () => {
    await ida.page.context().setOffline(true);
    await expect(ida.page.getByText('Connection lost')).toBeVisible();
    await field.fill('The tide turns.');
    await ida.page.keyboard.press('Enter');
    await expect(ida.page.getByText('One line is on its way.')).toBeVisible();
    await ida.page.context().setOffline(false);
    await expect(captions(maren).getByText('The tide turns.')).toBeVisible();
    await expect(ida.page.getByText('One line is on its way.')).toHaveCount(0);
  });

  await test.step('the record has it: in its replay, as a file that a browser reads, and found', async () => {
    await maren.button('Close the lesson').click();
    await maren.page.getByRole('dialog').getByRole('button', { name: 'Close the lesson' }).click();
    await expect(maren.button('Save…')).toBeVisible();
    await maren.page.getByRole('button', { name: 'Save…' }).click();
    await maren.page.getByText('Captions as WebVTT').click();
    const coming = maren.page.waitForEvent('download');
    await maren.page.getByRole('dialog').getByRole('button', { name: 'Save' }).click();
    const file = await (await coming).path();
    const vtt = await readFile(file, 'utf8');
    // Chromium's own parser of WebVTT reads it.
    const cues = await maren.page.evaluate(async (text) => {
      const video = document.createElement('video');
      const track = document.createElement('track');
      track.src = URL.createObjectURL(new Blob([text], { type: 'text/vtt' }));
      video.append(track);
      document.body.append(video);
      track.track.mode = 'hidden';
      await new Promise((done, failed) => {
        track.addEventListener('load', done);
        track.addEventListener('error', failed);
      });
      const read = [...(track.track.cues ?? [])].map((cue) => (cue as VTTCue).text);
      video.remove();
      return read;
    }, vtt);
    expect(cues).toEqual(['Low water is at eleven.', 'The tide turns.']);
    await maren.page.getByText('Replay', { exact: true }).click();
    await maren.page.getByText('As a table').click();
    const said = maren.page.getByRole('listitem').filter({ hasText: 'The tide turns.' });
    await expect(said).toContainText('Said, as Ida typed it');
    await said.getByRole('button').click();
    await expect(captions(maren)).toContainText('The tide turns.');
    // What a record is found by is written down after it has opened.
    await expect(maren.page.locator('.sealing')).toHaveCount(0);
    await maren.page.goto(`${server.url}/records`);
    await maren.page
      .getByRole('searchbox')
      .or(maren.page.getByLabel('Words'))
      .first()
      .fill('eleven');
    await expect(maren.page.getByText('Captions', { exact: true })).toBeVisible();
  });
});

test('who types captions is named anew, also after a reload, and is nobody who was sent out', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Reading the tides');
  await maren.bring('Tides.pdf', await samplePdf(2));
  const link = server.url + (await maren.openLesson());
  const ida = await Someone.at(browser);
  await ida.join(link, 'Ida');
  const typist = maren.page.getByRole('combobox', { name: 'Captions typed by' });
  await choose(typist, 'Ida');
  const field = ida.page.getByRole('textbox', { name: 'Type what is said' });
  for (const t of [
    'Today we read a tide table: each row is one day.',
    'Low water is at ten, and again in the evening.',
  ]) {
    await field.fill(t);
    await ida.page.keyboard.press('Enter');
  }
  const noor = await Someone.at(browser, {
    viewport: { width: 844, height: 390 },
    hasTouch: true,
    isMobile: true,
  });
  await noor.join(link, 'Noor');
  await expect(noor.page.getByText('Low water is at ten, and again in the evening.')).toBeVisible();
  await noor.page.reload();
  await expect(noor.page.getByText('Low water is at ten, and again in the evening.')).toBeVisible();
  await maren.page.reload();
  await expect(maren.page.getByRole('combobox', { name: 'Captions typed by' })).toContainText(
    'Ida',
  );
  await choose(typist, 'Noor');
  await expect(noor.page.getByRole('textbox', { name: 'Type what is said' })).toBeVisible();
  await expect(noor.button('Correct the last line')).toHaveCount(0);
  await maren.button('More for Noor').click();
  await maren.page.getByRole('menuitem', { name: 'Send out, may knock again' }).click();
  await expect(maren.page.getByRole('combobox', { name: 'Captions typed by' })).toContainText(
    'Nobody',
  );
  await expect(ida.page.getByRole('log', { name: 'Captions' })).toHaveCount(0);
  await choose(typist, 'Me');
  await maren.page.getByRole('textbox', { name: 'Type what is said' }).fill('I type it myself.');
  await maren.page.keyboard.press('Enter');
  await expect(ida.page.getByText('I type it myself.')).toBeVisible();
  // One who thinks again at once opens the list while it is still going out of sight.
  await choose(typist, 'Ida');
  await choose(typist, 'Me');
  await choose(typist, 'Nobody');
  await expect(ida.page.getByRole('log', { name: 'Captions' })).toHaveCount(0);
});
