import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from './story.js';
import { ServerProcess } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';

let server: ServerProcess;
test.beforeEach(async () => {
  server = await ServerProcess.start();
});
test.afterEach(() => server.close());

/** The PDF as its maker protects it: anybody may read it, and nobody may print or change it (qpdf). */
async function protectedPdf(): Promise<Buffer> {
  const folder = mkdtempSync(join(tmpdir(), 'cuaderno-protected-'));
  const [plain, bound] = [join(folder, 'plain.pdf'), join(folder, 'bound.pdf')];
  writeFileSync(plain, await samplePdf(1));
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
  await maren.bring('Tide tables.pdf', await protectedPdf());
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
