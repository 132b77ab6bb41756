import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { unembeddedPdf } from '@cuaderno/formats/testing';
import type { Download } from '@playwright/test';
import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { Someone } from './people.js';

/* Letters that are in no font of a small machine: ours come along. This machine's own are never asked for. */

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

const LINES = ['月亮潮汐', '月のひかり', '달과바다'] as const;

/** Families of fonts that somebody's browser has fetched files of. */
const fetched = (who: Someone): Promise<string[]> =>
  who.page.evaluate(() =>
    [...document.fonts]
      .filter(({ status }) => status === 'loaded')
      .map(({ family }) => family.replaceAll('"', '')),
  );

test('a PDF that names Chinese, Japanese and Korean fonts which it hasn’t got is drawn in ours', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Reading the tides');
  await maren.bring('Names of the tides.pdf', unembeddedPdf(LINES));
  await maren.isSharp();
  await expect
    .poll(() => fetched(maren))
    .toEqual(expect.arrayContaining(['STSong', 'HeiseiMin', 'HYSMyeongJo']));
  const [page] = (await maren.pageIds()) as [string];
  // The right stroke of 月: in the box that stands for what is missing, there is nothing.
  await maren.seesInkAt(page, { x: 52, y: 36 });

  // Saved, it is read by who has no such fonts either (poppler without its character maps, MuPDF).
  await maren.button('Save on this machine').click();
  const dialog = maren.page.getByRole('dialog', { name: 'Save on this machine' });
  await dialog.getByText('PDF', { exact: true }).click();
  const [download] = await Promise.all([
    maren.page.waitForEvent('download'),
    dialog.getByRole('button', { name: 'Save' }).click(),
  ]);
  const path = await download.path();
  execFileSync('qpdf', ['--check', path]);
  const words = execFileSync('pdftotext', [path, '-']).toString();
  const drawn = execFileSync('mutool', ['draw', '-F', 'text', path]).toString();
  for (const line of LINES) {
    expect(words).toContain(line);
    expect(drawn).toContain(line);
  }
});

test('Japanese is typed, drawn, found, printed and saved; the page says when letters are still coming', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Reading the tides');
  await maren.button('Empty board').click();
  await maren.isOnBoard();
  const [page] = (await maren.pageIds()) as [string];
  const link = server.url + (await maren.openLesson());
  const ida = await Someone.at(browser);
  let come = (): void => undefined;
  const line = new Promise<void>((done) => (come = done));
  await ida.page.route('**/fonts/noto-sans-**', async (route) => {
    await line;
    await route.continue();
  });
  await ida.join(link, 'Ida');

  await test.step('typed on the page, and told where they are still coming', async () => {
    await maren.button('Text').click();
    const at = await maren.locate(page, { x: 60, y: 80 });
    await maren.page.mouse.click(at.x, at.y);
    await expect(maren.page.getByRole('textbox', { name: 'Text on the page' })).toBeFocused();
    await maren.page.keyboard.insertText('満ち潮と引き潮');
    await maren.page.keyboard.press('Escape');
    await expect.poll(() => fetched(maren)).toContain('Noto Sans JP Variable');
    const told = ida.page.getByRole('status').filter({ hasText: 'Some letters of this page are' });
    await expect(told).toBeAttached();
    come();
    await expect(told).toHaveCount(0);
    await expect.poll(() => fetched(ida)).toContain('Noto Sans JP Variable');
    const row = async (): Promise<number> => {
      const seen = [];
      for (let x = 62; x < 100; x += 2) seen.push(...(await ida.colourAt(page, { x, y: 80 })));
      return Math.min(...seen);
    };
    await expect.poll(row).toBeLessThan(150);
  });

  await maren.button('Close the lesson').click();
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close the lesson' }).click();
  await maren.page.waitForURL(/records/);
  const dialog = maren.page.getByRole('dialog', { name: 'Save from this record' });
  const save = async (form: string): Promise<Download> => {
    await maren.button('Save…').click();
    await dialog.getByText(form, { exact: true }).click();
    const [download] = await Promise.all([
      maren.page.waitForEvent('download'),
      dialog.getByRole('button', { name: 'Save' }).click(),
    ]);
    return download;
  };

  await test.step('in the PDF, as letters of a font that is in it (poppler, MuPDF, qpdf)', async () => {
    const path = await (await save('PDF')).path();
    execFileSync('qpdf', ['--check', path]);
    const drawn = execFileSync('mutool', ['draw', '-F', 'text', path]).toString();
    expect(drawn.replace(/\s/g, '')).toContain('満ち潮と引き潮');
    const fonts = execFileSync('pdffonts', [path]).toString();
    expect(fonts).toMatch(/NotoSansJP\S* +CID TrueType +Identity-H +yes/);
  });

  await test.step('as SVG, with its letters in it', async () => {
    const svg = readFileSync(await (await save('This page as SVG')).path(), 'utf8');
    expect(svg).toContain("@font-face{font-family:'Noto Sans JP Variable'");
    expect(svg.length).toBeLessThan(2_000_000);
  });
});
