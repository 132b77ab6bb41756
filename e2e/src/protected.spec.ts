import { PDFDocument } from '@cantoo/pdf-lib';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from './story.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

/** The PDF as its maker protects it: anybody may read it, and nobody may print or change it (qpdf). */
async function protectedPdf(pdf: Uint8Array): Promise<Buffer> {
  const folder = mkdtempSync(join(tmpdir(), 'cuaderno-protected-'));
  const [plain, bound] = [join(folder, 'plain.pdf'), join(folder, 'bound.pdf')];
  writeFileSync(plain, pdf);
  execFileSync('qpdf', [
    ...['--encrypt', '', 'the-maker', '256', '--print=none', '--modify=none', '--'],
    ...[plain, bound],
  ]);
  const bytes = readFileSync(bound);
  rmSync(folder, { recursive: true });
  return bytes;
}

test('before a protected PDF is saved, it is said that the copy isn’t protected', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Reading the tides');
  await maren.bring('Tide tables.pdf', await protectedPdf(await samplePdf(1)));
  await maren.button('Save on this machine').click();
  const dialog = maren.page.getByRole('dialog', { name: 'Save on this machine' });
  const said = dialog.getByText('a PDF that is protected against being changed');
  await expect(dialog.getByText('It opens as the same board')).toBeVisible();
  await expect(said).toHaveCount(0);
  await dialog.getByText('PDF', { exact: true }).click();
  await expect(said).toBeVisible();
  const [download] = await Promise.all([
    maren.page.waitForEvent('download'),
    dialog.getByRole('button', { name: 'Save' }).click(),
  ]);
  const path = await download.path();
  expect(execFileSync('qpdf', ['--show-encryption', path]).toString()).toContain('not encrypted');
});

test('it is said, too, before everything of a course is saved', async ({ browser }) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Reading the tides');
  const course = maren.page.url();
  await maren.bring('Tide tables.pdf', await protectedPdf(await samplePdf(1)));
  await maren.page.goto(course);
  await maren.button('Save everything of this course (zip)').click();
  await expect(maren.page.getByText('Copies in the archive are not')).toBeVisible();
  await expect(maren.button('Save the archive')).toBeFocused();
  const [download] = await Promise.all([
    maren.page.waitForEvent('download'),
    maren.button('Save the archive').click(),
  ]);
  expect(download.suggestedFilename()).toBe('Reading the tides.zip');
});

test('it is said, too, where what was written on a protected PDF became ink of ours', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Reading the tides');
  await maren.bring('Tide tables.pdf', await protectedPdf(await withSquare(await samplePdf(1))));
  await maren.button('Save on this machine').click();
  const dialog = maren.page.getByRole('dialog', { name: 'Save on this machine' });
  await dialog.getByText('PDF', { exact: true }).click();
  await expect(dialog.getByText('a PDF that is protected against being changed')).toBeVisible();
});

/** The PDF with a figure on it as another program draws one. */
async function withSquare(pdf: Uint8Array): Promise<Uint8Array> {
  const doc = await PDFDocument.load(pdf);
  const { context } = doc;
  const square = context.obj({
    ...{ Type: 'Annot', Subtype: 'Square', F: 4, Rect: [100, 100, 200, 160], C: [1, 0, 0] },
  });
  doc.getPage(0).node.addAnnot(context.register(square));
  return doc.save();
}
