import { pptxOf } from '@cuaderno/formats/testing';
import { expect, test } from './story.js';
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { PNG } from 'pngjs';
import { turningSky } from '../../apps/server/dist/demo/film.js';
import { openStrings } from '../../apps/server/dist/demo/sound.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { Someone } from './people.js';

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

interface Shown {
  readonly title: string;
  readonly pages: readonly { readonly name: string; readonly items: readonly object[] }[];
}

/** The board as this person has it: all that can be seen of it, and who made it. */
function shown(who: Someone): Promise<Shown> {
  return who.stage.evaluate((element) => {
    const board = (
      element as unknown as {
        cuaStage: {
          board(): {
            title: string;
            pages: Map<
              string,
              {
                order: string;
                name: string;
                removed: object | null;
                items: Map<string, { removed: object | null }>;
              }
            >;
          };
        };
      }
    ).cuaStage.board();
    return {
      title: board.title,
      pages: [...board.pages.values()]
        .filter(({ removed }) => !removed)
        .sort((a, b) => (a.order < b.order ? -1 : 1))
        .map((page) => ({
          ...page,
          items: [...page.items.values()]
            .filter(({ removed }) => !removed)
            .map((item) => JSON.parse(JSON.stringify(item, bytesAsText)) as object),
        })),
    };
    function bytesAsText(_key: string, value: unknown): unknown {
      return value instanceof Uint8Array ? [...value].join(' ') : value;
    }
  });
}

const kinds = async (who: Someone): Promise<string[]> =>
  (await shown(who)).pages
    .flatMap(({ items }) =>
      (items as { kind: string; medium?: string }[]).map((item) => item.medium ?? item.kind),
    )
    .sort();

function picture(): Buffer {
  const png = new PNG({ width: 60, height: 40 });
  png.data.fill(200);
  return PNG.sync.write(png);
}

/** How many dark pixels of one picture have no dark one within a pixel in the other. */
function strangers(one: PNG, other: PNG): number {
  expect([one.width, one.height]).toEqual([other.width, other.height]);
  const darkness = ({ data }: PNG, i: number): number =>
    255 - (data[4 * i]! + data[4 * i + 1]! + data[4 * i + 2]!) / 3;
  let count = 0;
  for (let i = 0; i < one.width * one.height; i++) {
    if (darkness(one, i) < 170) continue;
    let near = false;
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++) near ||= darkness(other, i + dy * one.width + dx) > 60;
    if (!near) count++;
  }
  return count;
}

test('a board is built of a PDF, slides, pictures, a sound, a film, words, shapes and a formula, kept as a file and opened in another course', async ({
  browser,
}) => {
  const maren = await Someone.at(browser, {
    permissions: ['clipboard-read', 'clipboard-write'],
  });
  const complaints: string[] = [];
  maren.page.on('console', (message) => {
    if (message.type() === 'error') complaints.push(message.text());
  });
  maren.page.on('pageerror', (error) => complaints.push(error.message));
  await maren.setUp(server.url);
  await maren.makeCourse('Sky-watching');
  const { film, seconds } = await turningSky();
  const { wav } = openStrings();

  // Slides, with what converting them would lose.
  await maren.page.locator('label.drop input').setInputFiles({
    name: 'The Bear.pptx',
    mimeType: 'application/vnd.openxmlformats-officedocument.presentationml.presentation',
    buffer: Buffer.from(
      pptxOf([
        { title: 'The Great Bear', notes: ['Ask Ida what she saw.'], font: 'Wholly Unknown' },
        {
          title: 'It turns',
          animated: true,
          media: {
            name: 'turning.webm',
            bytes: film,
            at: [914_400, 1_828_800, 4_876_800, 3_657_600],
            kind: 'video',
          },
        },
      ]),
    ),
  });
  await expect(maren.page.getByText(/Turning slides into pages|Reading its pages/)).toBeVisible();
  await maren.isOnBoard();
  await expect(maren.page.getByText('2 slides came in')).toBeVisible({ timeout: 60_000 });
  await maren.button('What changed').first().click();
  await expect(maren.page.getByText('Wholly Unknown isn’t here')).toBeVisible();
  await expect(maren.page.getByText('turning.webm plays where it lay.')).toBeVisible();
  await maren.page.getByRole('dialog').getByRole('button', { name: 'All right' }).click();
  await expect
    .poll(async () => (await shown(maren)).pages.map(({ name }) => name))
    .toEqual(['The Great Bear', 'It turns']);
  await expect.poll(() => kinds(maren)).toEqual(['film']);

  // A PDF becomes a board of its own; the slides are sent to it.
  await maren.page.getByRole('link', { name: /Back to/ }).click();
  await maren.bring('Star chart.pdf', await samplePdf(2));
  await maren.page.getByRole('link', { name: /Back to/ }).click();
  await maren.page.locator('cua-board-list a.card').filter({ hasText: 'The Bear' }).click();
  await maren.isOnBoard();
  await maren.ofPages('Move to board…');
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Move' }).click();
  await maren.page.getByRole('link', { name: 'Go there' }).click();
  await maren.isOnBoard();
  await expect.poll(async () => (await maren.pageIds()).length).toBe(3);
  const [first] = (await maren.pageIds()) as [string];

  // Pictures, a sound and a film, brought together.
  await maren.page.locator('cua-tool-dock input[type=file]').setInputFiles([
    { name: 'Harbour.png', mimeType: 'image/png', buffer: picture() },
    { name: 'Strings.wav', mimeType: 'audio/wav', buffer: Buffer.from(wav) },
    { name: 'Turning.webm', mimeType: 'video/webm', buffer: Buffer.from(film) },
  ]);
  await expect.poll(() => kinds(maren)).toEqual(['film', 'picture', 'sound']);

  // Shapes, words and a slip.
  const pressed = async (name: string): Promise<void> => {
    const button = maren.page.getByRole('button', { name, exact: true });
    await button.click();
    await expect(button).toHaveAttribute('aria-pressed', 'true');
  };
  const touch = async (x: number, y: number): Promise<void> => {
    const at = await maren.locate(first, { x, y });
    await maren.page.mouse.click(at.x, at.y);
  };
  await pressed('Shapes');
  await maren.draw(first, [
    { x: 60, y: 60 },
    { x: 160, y: 90 },
  ]);
  await pressed('Text');
  await touch(60, 130);
  const words = maren.page.getByRole('textbox', { name: 'Text on the page' });
  await expect(words).toBeFocused();
  await maren.page.keyboard.type('Which way is north?');
  await pressed('Slip');
  await touch(400, 130);
  await expect(words).toBeFocused();
  await maren.page.keyboard.type('Bring gloves');
  await expect
    .poll(() => kinds(maren))
    .toEqual(['film', 'picture', 'shape', 'sound', 'text', 'text']);

  // A formula: typed wrongly, put right, and seen as it is typed.
  await pressed('Formula');
  await touch(60, 200);
  const field = maren.page.getByRole('textbox', { name: 'Formula' });
  await expect(field).toBeFocused();
  await maren.button('LaTeX').click();
  await field.fill('\\frac{360}{');
  await expect(maren.page.getByText('A brace is not closed')).toBeVisible();
  await maren.button('Done').click();
  await expect(field).toHaveValue('\\frac{360}{');
  await field.fill('\\frac{360^\\circ}{24}');
  await expect(maren.page.getByText('A brace is not closed')).toBeHidden();
  await field.press('Enter');
  await expect(field).toBeHidden();
  await expect.poll(async () => (await kinds(maren)).includes('formula')).toBeTruthy();
  // Undone and done again, like everything.
  await maren.page.keyboard.press('Control+z');
  await expect.poll(async () => (await kinds(maren)).includes('formula')).toBeFalsy();
  await maren.page.keyboard.press('Control+Shift+z');
  await expect.poll(async () => (await kinds(maren)).includes('formula')).toBeTruthy();

  // A student has all of it, and plays the film for herself.
  const ida = await Someone.at(browser);
  const link = await maren.openLesson();
  await ida.join(server.url + link, 'Ida');
  await expect.poll(() => kinds(ida)).toEqual(await kinds(maren));
  // The film lies far down the page.
  await ida.button('Whole page').click();
  await ida.button('Play Turning.webm').click();
  await expect(ida.page.locator('cua-media-player .time')).toContainText('/ 0:0' + seconds);
  await expect(ida.page.locator('cua-media-player .time')).toContainText(/0:0[1-9] \//);
  const place = ida.page.getByRole('slider', { name: 'Place in it' });
  await place.fill('6');
  await expect(ida.page.locator('cua-media-player .time')).toContainText(/0:0[67] \//);
  await ida.button('Pause Turning.webm').click();
  await ida.button('Stop').click();
  await expect(maren.page.locator('cua-media-player .time')).toHaveCount(0);
  await ida.leave();
  await maren.button('Close the lesson').click();
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close the lesson' }).click();
  await maren.page.waitForURL(/records/);
  await maren.page.goBack();
  await maren.isOnBoard();

  // Put in another order: the slide that turns first, the sheet after it; undone and done again.
  const names = async (): Promise<string[]> => (await shown(maren)).pages.map(({ name }) => name);
  const was = await names();
  await maren.page.locator('cua-page-strip button.entry').nth(2).focus();
  await maren.page.keyboard.press('Alt+ArrowUp');
  await expect.poll(names).toEqual([was[0], was[2], was[1]]);
  await maren.page.keyboard.press('Control+z');
  await expect.poll(names).toEqual(was);
  await maren.page.keyboard.press('Control+Shift+z');
  await expect.poll(names).toEqual([was[0], was[2], was[1]]);
  await maren.page.locator('cua-page-strip button.entry').first().click();
  await maren.isSharp();

  // Kept as a file, and as a PDF that other programs read.
  const saved = async (form: RegExp): Promise<string> => {
    await maren.button('Save on this machine').click();
    await maren.page.getByRole('radio', { name: form }).check();
    const [download] = await Promise.all([
      maren.page.waitForEvent('download'),
      maren.page.getByRole('dialog').getByRole('button', { name: 'Save', exact: true }).click(),
    ]);
    return download.path();
  };
  const pdf = await saved(/^PDF/);
  expect(execFileSync('pdftotext', [pdf, '-'], { encoding: 'utf8' })).toContain(
    'Which way is north?',
  );
  execFileSync('qpdf', ['--check', pdf]);
  const png = PNG.sync.read(readFileSync(await saved(/PNG/)));
  expect(png.width).toBeGreaterThan(1000);
  execFileSync('pdftoppm', [
    ...['-png', '-singlefile', '-f', '1', '-l', '1'],
    ...['-scale-to-x', String(png.width), '-scale-to-y', String(png.height), pdf, pdf],
  ]);
  const byPoppler = PNG.sync.read(readFileSync(`${pdf}.png`));
  expect(strangers(png, byPoppler)).toBe(0);
  expect(strangers(byPoppler, png)).toBe(0);
  const svg = await saved(/SVG/);
  execFileSync('rsvg-convert', ['-o', `${svg}.png`, svg]);
  const file = await saved(/^Board file/);
  const before = await shown(maren);

  // Opened in another course it is the same board.
  await maren.page.goto(server.url);
  await maren.makeCourse('Another evening');
  await maren.page.locator('label.drop input').setInputFiles({
    name: 'Star chart.cuaderno.zip',
    mimeType: 'application/zip',
    buffer: readFileSync(file),
  });
  await maren.isOnBoard();
  await expect.poll(() => shown(maren)).toEqual(before);
  await maren.isSharp();
  expect(complaints).toEqual([]);
});
