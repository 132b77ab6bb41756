import { expect, test } from './story.js';
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PNG } from 'pngjs';
import { KillableServer } from './house.js';
import { oddPdf } from './pdfs.js';
import { Someone } from './people.js';

/*
 * The stage and poppler, a PDF reader that knows nothing of us, must put the same ink in the same
 * place: within a pixel, on pages cropped and turned in all four ways.
 */

const INK = { r: 0xc2, g: 0x2f, b: 0x2f };

/** Edges of all pixels in about the ink's colour. */
function inkBox(png: PNG): {
  left: number;
  top: number;
  right: number;
  bottom: number;
  count: number;
} {
  const box = { left: Infinity, top: Infinity, right: -1, bottom: -1, count: 0 };
  for (let y = 0; y < png.height; y++)
    for (let x = 0; x < png.width; x++) {
      const i = (y * png.width + x) * 4;
      const far =
        Math.abs(png.data[i]! - INK.r) +
        Math.abs(png.data[i + 1]! - INK.g) +
        Math.abs(png.data[i + 2]! - INK.b);
      if (far > 120) continue;
      box.count++;
      box.left = Math.min(box.left, x);
      box.right = Math.max(box.right, x);
      box.top = Math.min(box.top, y);
      box.bottom = Math.max(box.bottom, y);
    }
  return box;
}

test('ink lies where poppler draws it, on cropped and turned pages', async ({ browser }) => {
  const server = await KillableServer.start();
  const maren = await Someone.at(browser);
  await maren.setUp(server.url);
  await maren.makeCourse('Turned sheets');
  await maren.bring('Turned.pdf', await oddPdf());
  await expect.poll(async () => (await maren.pageIds()).length).toBe(4);
  const pages = await maren.pageIds();
  await maren.openLesson();
  await maren.button('Poppy red').click();

  const shots: PNG[] = [];
  const zooms: number[] = [];
  for (const [i, page] of pages.entries()) {
    await maren.button(`Page ${i + 1}`).click();
    await maren.button('Whole page').click();
    await maren.isSharp();
    // An L that no turn or mirror maps on itself.
    await maren.draw(page, [
      { x: 60, y: 50 },
      { x: 60, y: 210 },
      { x: 140, y: 210 },
    ]);
    await expect.poll(() => maren.lines().then((list) => list.length)).toBe(i + 1);
    await maren.isSharp();
    await maren.page.mouse.move(5, 5);
    const [a, b] = await Promise.all([
      maren.locate(page, { x: 0, y: 0 }),
      maren.locate(page, { x: 100, y: 100 }),
    ]);
    const zoom = (b.x - a.x) / 100;
    zooms.push(zoom);
    const [width, height] = i % 2 === 0 ? [360, 480] : [480, 360];
    shots.push(
      PNG.sync.read(
        await maren.page.screenshot({
          clip: { x: a.x, y: a.y, width: width * zoom, height: height * zoom },
        }),
      ),
    );
  }

  await maren.button('Close the lesson').click();
  await maren.page.getByRole('dialog').getByRole('button', { name: 'Close the lesson' }).click();
  const { path } = await maren.saveRecord();
  execFileSync('qpdf', ['--check', path]);
  const text = execFileSync('pdftotext', [path, '-']).toString();
  for (const turn of [0, 90, 180, 270]) expect(text).toContain(`Turned by ${turn}`);

  for (const [i, shot] of shots.entries()) {
    const out = join(server.folder, `page-${i}`);
    const number = String(i + 1);
    execFileSync('pdftoppm', [
      '-png',
      '-singlefile',
      '-cropbox',
      '-f',
      number,
      '-l',
      number,
      '-r',
      String(72 * zooms[i]!),
      path,
      out,
    ]);
    const [seen, drawn] = [inkBox(shot), inkBox(PNG.sync.read(readFileSync(`${out}.png`)))];
    expect(seen.count).toBeGreaterThan(100);
    for (const edge of ['left', 'top', 'right', 'bottom'] as const)
      expect(Math.abs(seen[edge] - drawn[edge]), `page ${number}, ${edge}`).toBeLessThanOrEqual(1);
  }
  await maren.leave();
  await server.close();
});
