import { silentWav } from '@cuaderno/formats/testing';
import { expect, test } from './story.js';
import type { Locator } from '@playwright/test';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PNG } from 'pngjs';
import { turningSky } from '../../apps/server/dist/demo/film.js';
import { Line, SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

function picture(shade = 200): Buffer {
  const png = new PNG({ width: 60, height: 40 });
  png.data.fill(shade);
  return PNG.sync.write(png);
}

const rows = ({ page }: Someone): Locator => page.locator('.row .name');
const row = ({ page }: Someone, name: string): Locator =>
  page.locator('.row').filter({ hasText: name });
const tree = ({ page }: Someone, name: string): Locator =>
  page.locator('cua-folder-tree .folder').filter({ hasText: name });

async function bring(who: Someone, files: { name: string; buffer: Buffer }[]): Promise<void> {
  await who.page
    .locator('label.upload input')
    .setInputFiles(files.map((file) => ({ ...file, mimeType: 'application/octet-stream' })));
}

test('files are brought together, put in order, laid on a board, put into the bin and brought back', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  const complaints: string[] = [];
  maren.page.on('console', (message) => {
    // A file that can't be taken is told to people, and by browsers as well.
    if (message.type() === 'error' && !message.text().includes('422'))
      complaints.push(message.text());
  });
  maren.page.on('pageerror', (error) => complaints.push(error.message));
  await maren.setUp(server.url);
  await maren.makeCourse('Sky-watching');
  await maren.page.getByRole('link', { name: 'Materials' }).click();
  await expect(maren.page.getByText('Nothing here yet')).toBeVisible();

  // Many at once; what nothing can be made of is told, and the others come.
  const { film } = await turningSky();
  await bring(maren, [
    { name: 'Orion.pdf', buffer: await samplePdf(3) },
    { name: 'Moon.png', buffer: picture() },
    { name: 'Wind.wav', buffer: Buffer.from(silentWav(4)) },
    { name: 'Turning.webm', buffer: Buffer.from(film) },
    { name: 'Broken.pdf', buffer: Buffer.from('%PDF-1.7\nno') },
  ]);
  await expect(rows(maren)).toHaveText(['Moon.png', 'Orion.pdf', 'Turning.webm', 'Wind.wav']);
  await expect(maren.page.getByText('Broken.pdf')).toBeVisible();
  await maren.button('All right').click();
  await expect(row(maren, 'Orion.pdf').locator('img')).toBeVisible();
  await expect(row(maren, 'Turning.webm').locator('img')).toBeVisible();

  // A folder of its own, by carrying and by choosing.
  await maren.button('New folder').click();
  await maren.page.getByLabel('Name of the folder').fill('Winter sky');
  await maren.page.keyboard.press('Enter');
  await expect(tree(maren, 'Winter sky')).toBeVisible();
  await row(maren, 'Orion.pdf').dragTo(tree(maren, 'Winter sky'));
  await expect(rows(maren)).toHaveText(['Winter sky', 'Moon.png', 'Turning.webm', 'Wind.wav']);
  await maren.page.getByLabel('Select Moon.png').check();
  await maren.page.getByLabel('Select Turning.webm').check();
  await maren.button('Put into…').click();
  await maren.page.getByRole('combobox', { name: 'Folder' }).click();
  await maren.page.getByRole('option', { name: 'Winter sky' }).click();
  await maren.button('Put them here').click();
  await expect(rows(maren)).toHaveText(['Winter sky', 'Wind.wav']);

  // Found wherever it lies, with where that is.
  await maren.page.getByLabel('Find among materials').fill('moo');
  await expect(rows(maren)).toHaveText(['Moon.png']);
  await expect(row(maren, 'Moon.png')).toContainText('in Winter sky');
  await maren.page.getByLabel('Find among materials').fill('');
  await expect(rows(maren)).toHaveText(['Winter sky', 'Wind.wav']);

  // A board is made of the PDF; on it, the others are laid.
  await tree(maren, 'Winter sky').getByText('Winter sky').click();
  await row(maren, 'Orion.pdf').getByText('Orion.pdf').click();
  await expect(maren.page.getByText('No board yet.')).toBeVisible();
  await maren.button('Make the board').click();
  await maren.isOnBoard();
  await maren.button('Materials').click();
  await maren.page.locator('cua-chooser-panel').getByText('Moon.png').click();
  await maren.page.locator('cua-chooser-panel').getByText('Turning.webm').click();
  await maren.page.locator('cua-chooser-panel').getByText('Wind.wav').dragTo(maren.stage);
  await expect.poll(async () => (await maren.lines()).length).toBe(3);
  await maren.page.locator('cua-chooser-panel').getByText('Orion.pdf').click();
  await expect.poll(async () => (await maren.pageIds()).length).toBe(6);
  await expect(maren.page.getByText(/The pages of .* are coming/)).toHaveCount(0);
  await maren.stage.focus();
  await maren.page.keyboard.press('Control+z');
  await expect.poll(async () => (await maren.pageIds()).length).toBe(3);
  await maren.page.keyboard.press('Control+Shift+z');
  await expect.poll(async () => (await maren.pageIds()).length).toBe(6);
  // What is brought to the board is in the panel beside it at once.
  await maren.page.locator('cua-tool-dock input[type=file]').setInputFiles({
    name: 'Comet.png',
    mimeType: 'image/png',
    buffer: picture(12),
  });
  await expect(maren.page.locator('cua-chooser-panel').getByText('Comet.png')).toBeVisible();
  await expect.poll(async () => (await maren.lines()).length).toBe(4);

  // Removing what boards use says so, and takes nothing off them.
  await maren.page.getByRole('link', { name: 'All materials' }).click();
  await tree(maren, 'Winter sky').getByText('Winter sky').click();
  await row(maren, 'Orion.pdf').getByText('Orion.pdf').click();
  await expect(maren.page.locator('cua-asset-panel .uses')).toContainText('pages 1–6');
  await maren.page.getByLabel('Select Orion.pdf').check();
  await maren.button('Into the bin').click();
  await expect(maren.page.getByText('What is on “Orion” stays there.')).toBeVisible();
  await expect(rows(maren)).toHaveText(['Moon.png', 'Turning.webm']);
  await maren.button('Restore').click();
  await expect(rows(maren)).toHaveText(['Moon.png', 'Orion.pdf', 'Turning.webm']);
  await row(maren, 'Orion.pdf').dragTo(tree(maren, 'Bin'));
  await tree(maren, 'Bin').getByText('Bin').click();
  await expect(rows(maren)).toHaveText(['Orion.pdf']);
  await maren.button('Empty the bin').click();
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Empty the bin' }).click();
  await expect(maren.page.getByText('The bin is empty.')).toBeVisible();
  await maren.page.goBack();
  await maren.page.goBack();
  await maren.page.goBack();
  await maren.isOnBoard();
  await maren.page.reload();
  await maren.isOnBoard();
  await maren.isSharp();
  expect(await maren.lines()).toHaveLength(4);
  expect(complaints).toEqual([]);
});

test('a large file goes on where it was after the line was cut, and after the window was shut', async ({
  browser,
}) => {
  const line = await Line.to(server.port);
  const folder = mkdtempSync(join(tmpdir(), 'cuaderno-files-'));
  try {
    const maren = await Someone.at(browser);
    await maren.setUp(line.url);
    await maren.page.getByRole('link', { name: 'Materials' }).click();
    await expect(maren.page.getByText('Nothing here yet')).toBeVisible();
    const path = join(folder, 'Wind over Solvik.wav');
    const bytes = Buffer.from(silentWav(4000));
    writeFileSync(path, bytes);
    const send = (): Promise<void> => maren.page.locator('label.upload input').setInputFiles(path);
    const isUnderWay = async (part: number): Promise<void> => {
      const from = line.sent;
      await expect.poll(() => line.sent - from).toBeGreaterThan(bytes.length * part);
    };
    line.pace = 4_000_000;
    line.sent = 0;
    await send();
    await isUnderWay(0.15);
    line.cut();
    await expect(maren.page.getByText('Connection lost')).toBeVisible();
    line.mend();
    await isUnderWay(0.15);

    // The window is shut, and opened again.
    await maren.page.reload();
    await expect(maren.page.getByText('broke off on the way')).toBeVisible();
    await expect(maren.page.getByText('Wind over Solvik.wav')).toBeVisible();
    line.pace = Infinity;
    await send();
    await expect(rows(maren)).toHaveText(['Wind over Solvik.wav']);
    await expect(maren.page.getByText('broke off on the way')).toBeHidden();
    // What was there already was not sent twice, but for what was on the line.
    expect(line.sent).toBeLessThan(bytes.length * 1.2);

    // One that isn't wanted any more can be stopped.
    writeFileSync(join(folder, 'Other.wav'), Buffer.from(silentWav(3000)));
    line.pace = 4_000_000;
    await maren.page.locator('label.upload input').setInputFiles(join(folder, 'Other.wav'));
    await isUnderWay(0.1);
    await maren.button('Stop').click();
    await expect(maren.page.locator('cua-upload-list li')).toHaveCount(0);
    await maren.page.reload();
    await expect(rows(maren)).toHaveText(['Wind over Solvik.wav']);
    await expect(maren.page.getByText('broke off on the way')).toBeHidden();

    // Nor does what was stopped stand in the way of others.
    await maren.page.locator('label.upload input').setInputFiles(
      [1, 2, 3, 4].map((n) => {
        const other = join(folder, `Other ${n}.wav`);
        writeFileSync(other, Buffer.from(silentWav(3000)));
        return other;
      }),
    );
    await isUnderWay(0.1);
    await maren.button('Stop all').click();
    line.pace = Infinity;
    await bring(maren, [{ name: 'Moon.png', buffer: picture() }]);
    await expect(rows(maren)).toHaveText(['Moon.png', 'Wind over Solvik.wav']);
  } finally {
    rmSync(folder, { recursive: true });
    line.close();
  }
});

test('a folder is shared with students, who look, and with another tutor, who uses it, until it is taken back', async ({
  browser,
}) => {
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Sky-watching');
  await maren.bring('Board.pdf', await samplePdf(1));
  const join = await maren.openLesson();
  const ida = await Someone.at(browser, { viewport: { width: 390, height: 844 } });
  await ida.join(server.url + join, 'Ida');
  await expect(ida.button('Handouts')).toBeHidden();

  // What was brought to the course is in materials already; the rest is made beside it.
  await maren.page.goto(`${server.url}/materials`);
  await maren.button('New folder').click();
  await maren.page.getByLabel('Name of the folder').fill('Handouts');
  await maren.page.keyboard.press('Enter');
  await tree(maren, 'Handouts').getByText('Handouts').click();
  await bring(maren, [{ name: 'Stars.pdf', buffer: await samplePdf(3) }]);
  await expect(rows(maren)).toHaveText(['Stars.pdf']);
  await maren.button('Share').click();
  const dialog = maren.page.getByRole('dialog');
  await dialog.getByRole('combobox', { name: 'Course' }).click();
  await maren.page.getByRole('option', { name: 'Sky-watching' }).click();
  await dialog.getByRole('button', { name: 'Let them look' }).click();
  await expect(dialog.getByText('students look')).toBeVisible();

  // It appears to the student by itself; what they see are pictures.
  await ida.button('Handouts').click();
  const sheet = ida.page.locator('cua-page-view img');
  await expect(sheet).toHaveAttribute('alt', 'Page 1 of Stars.pdf');
  await ida.button('Next').click();
  await expect(sheet).toHaveAttribute('alt', 'Page 2 of Stars.pdf');
  const { file } = await maren.page.evaluate(async () => {
    const all = (await (await fetch('/api/materials')).json()) as {
      assets: { name: string; file: string }[];
    };
    return all.assets.find(({ name }) => name === 'Stars.pdf')!;
  });
  const status = (who: Someone): Promise<number> =>
    who.page.evaluate(async (hash) => (await fetch(`/api/files/${hash}`)).status, file);
  expect(await status(ida)).toBe(404);

  // It is there after a reload, for who comes late, and after a break in the line; the board is
  // as it was left, and keys that were pressed meanwhile did nothing to it.
  await maren.page.goBack();
  await maren.page.goBack();
  await maren.isOnBoard();
  await maren.button('Writing for all').click();
  const [sheetOfBoard] = (await ida.pageIds()) as [string];
  await ida.button('Board').click();
  await ida.draw(sheetOfBoard, [
    { x: 100, y: 100 },
    { x: 200, y: 160 },
  ]);
  await expect.poll(async () => (await ida.lines()).length).toBe(1);
  const before = await ida.locate(sheetOfBoard, { x: 100, y: 100 });
  await ida.button('Handouts').click();
  await expect(sheet).toBeVisible();
  await ida.page.keyboard.press('Control+z');
  await maren.draw(sheetOfBoard, [
    { x: 300, y: 300 },
    { x: 400, y: 360 },
  ]);
  await ida.button('Board').click();
  await expect.poll(async () => (await ida.lines()).length).toBe(2);
  await ida.seesInkAt(sheetOfBoard, { x: 350, y: 330 });
  expect(await ida.locate(sheetOfBoard, { x: 100, y: 100 })).toEqual(before);
  await ida.page.reload();
  await ida.isOnBoard();
  await ida.button('Handouts').click();
  await expect(sheet).toHaveAttribute('alt', 'Page 1 of Stars.pdf');
  const jonas = await Someone.at(browser);
  await jonas.join(server.url + join, 'Jonas');
  await jonas.button('Handouts').click();
  await expect(jonas.page.locator('cua-page-view img')).toBeVisible();
  await jonas.leave();
  await maren.page.goto(`${server.url}/materials`);
  await tree(maren, 'Handouts').getByText('Handouts').click();
  await maren.button('Shared').click();

  // Another tutor, who is invited, uses it.
  await dialog.getByRole('button', { name: /Invite them/ }).click();
  const link = await dialog.getByLabel('Invitation link').inputValue();
  const sigrid = await Someone.at(browser);
  await sigrid.page.goto(link);
  await expect(sigrid.page.getByText('Maren Solheim invites you')).toBeVisible();
  await sigrid.page.getByLabel('Your name').fill('Sigrid');
  await sigrid.page.getByLabel('E-mail').fill('sigrid@example.org');
  await sigrid.page.getByLabel('Password').fill('ropes-and-knots');
  await sigrid.button('Make the account').click();
  await expect(sigrid.page.getByRole('heading', { name: /^Today/ })).toBeVisible();
  await sigrid.makeCourse('Stars');
  await dialog.getByRole('button', { name: 'Done' }).click();
  await maren.button('Shared').click();
  await dialog.getByRole('combobox', { name: 'Tutor' }).click();
  await maren.page.getByRole('option', { name: 'Sigrid' }).click();
  await dialog.getByRole('button', { name: 'Let them use it' }).click();
  await expect(dialog.getByText('uses and copies')).toBeVisible();
  await sigrid.page.goto(`${server.url}/materials`);
  await tree(sigrid, 'Handouts').getByText('Handouts').click();
  await row(sigrid, 'Stars.pdf').getByText('Stars.pdf').click();
  await expect(sigrid.page.getByLabel('Name of the file')).toBeHidden();
  expect(await status(sigrid)).toBe(200);

  // Taken back, it is gone for both at once.
  await dialog.getByRole('button', { name: 'Take back from Sigrid' }).click();
  await dialog.getByRole('button', { name: 'Take back from Sky-watching' }).click();
  await expect(dialog.getByText('Nobody but you.')).toBeVisible();
  await expect(sheet).toBeHidden();
  await expect(ida.stage).toBeVisible();
  expect(await status(sigrid)).toBe(404);
  await sigrid.button('Make the board').click();
  await expect(sigrid.page.getByText('There is nothing here.')).toBeVisible();
});
