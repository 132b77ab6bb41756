import { apply, BoardDraft, emptyBoard, newId, operation } from '@cuaderno/core';
import type { PageSpec } from '@cuaderno/core';
import { somePages } from '@cuaderno/core/testing';
import { boardPdf } from '@cuaderno/formats/pdf-out';
import type { FontLoader } from '@cuaderno/formats/pdf-out';
import { unembeddedLines, unembeddedPdf } from '@cuaderno/formats/testing';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import { fontFiles } from './font-files.js';

const HASH = 'a'.repeat(64);

/** A board with the page as it was brought, so often, as PDF. */
async function exported(
  brought: Buffer,
  copies = 1,
  fonts: FontLoader = fontFiles,
): Promise<Uint8Array> {
  const pages: PageSpec[] = somePages(copies).map((page) => ({
    ...page,
    ...{ width: 300, height: 200 },
    paper: { kind: 'pdf', file: HASH, number: 1, box: [0, 0, 300, 200], rotate: 0, unit: 1 },
  }));
  const draft = new BoardDraft(emptyBoard(newId()));
  apply(operation({ kind: 'pages.add', pages }), draft, { by: newId(), at: 1, lesson: null });
  return boardPdf(draft.done(), {
    ...{ title: 'Tides', author: 'Maren', date: new Date(0), deflate: deflateSync },
    file: () => Promise.resolve(new Uint8Array(brought)),
    fonts,
  });
}

describe('fonts lent to a PDF that only names its own', () => {
  let folder: string;
  let path: string;

  beforeAll(() => {
    folder = mkdtempSync(join(tmpdir(), 'cuaderno-lent-'));
    path = join(folder, 'lent.pdf');
  });

  afterAll(() => {
    rmSync(folder, { recursive: true });
  });

  const run = (command: string, ...args: string[]): string =>
    execFileSync(command, args, { stdio: ['ignore', 'pipe', 'ignore'] }).toString();
  const close = (words: string): string => words.replace(/\s/g, '');

  /** Words of the first page as poppler and as MuPDF read them. */
  const words = (): [poppler: string, muPdf: string] => [
    close(run('pdftotext', '-l', '1', path, '-')),
    close(run('mutool', 'draw', '-F', 'text', path, '1')),
  ];

  /** Dark pixels of the first page, at 72 dpi, between these heights and from `left` on. */
  async function inked(file: string, from: number, to: number, left = 0): Promise<number> {
    const image = await loadImage(readFileSync(file));
    const sheet = createCanvas(image.width, image.height).getContext('2d');
    sheet.drawImage(image, 0, 0);
    const { data } = sheet.getImageData(left, from, image.width - left, to - from);
    let count = 0;
    for (let i = 0; i < data.length; i += 4) if (data[i]! < 128) count++;
    return count;
  }

  async function drawn(from: number, to: number, left = 0): Promise<[number, number]> {
    const [poppler, muPdf] = [join(folder, 'poppler.png'), join(folder, 'mupdf.png')];
    run('pdftoppm', '-png', '-r', '72', '-singlefile', path, poppler.slice(0, -4));
    run('mutool', 'draw', '-r', '72', '-o', muPdf, path, '1');
    return [await inked(poppler, from, to, left), await inked(muPdf, from, to, left)];
  }

  it('have its letters drawn and found by other programs, and no more than its letters', async () => {
    const lines = ['月亮潮汐', '月のひかり', '달과바다'] as const;
    const brought = unembeddedPdf([...lines]);
    const pdf = await exported(brought);
    writeFileSync(path, pdf);
    run('qpdf', '--check', path);
    for (const read of words()) for (const line of lines) expect(read).toContain(line);
    const fonts = run('pdffonts', path).trim().split('\n').slice(2);
    expect(fonts.length).toBe(3);
    for (const font of fonts)
      expect(font).toMatch(/CUALEN\+NotoSans\w\w +CID Type 0C .* yes yes yes /);
    // Letters of 40 pt: a line of them has some hundred dark pixels at 72 dpi.
    for (const top of [15, 75, 135])
      for (const count of await drawn(top, top + 45)) expect(count).toBeGreaterThan(500);
    expect(pdf.length).toBeLessThan(brought.length + 20_000);
  });

  it('stand for codes of one and of two bytes, beside Latin letters and half as wide', async () => {
    const lines = unembeddedLines([
      // “潮a汐”, “月のtﾂｷ” and “밀물 t” in the coding of each, by Python's codecs.
      {
        font: 'SimSun',
        encoding: 'GBK-EUC-H',
        ordering: 'GB1',
        hex: 'b3b161cfab',
      },
      {
        ...{ font: 'MS-Gothic,Bold', encoding: '90ms-RKSJ-H', ordering: 'Japan1' },
        hex: '8c8e82cc74c2b7',
      },
      { font: 'Batang', encoding: 'KSCms-UHC-H', ordering: 'Korea1', hex: 'b9d0b9b02074' },
    ]);
    writeFileSync(path, await exported(lines));
    run('qpdf', '--check', path);
    for (const read of words())
      for (const line of ['潮a汐', '月のt', '밀물t']) expect(read).toContain(line);
    for (const top of [15, 75, 135])
      for (const count of await drawn(top, top + 45)) expect(count).toBeGreaterThan(300);
  });

  it('run downwards where the lines do, and in traditional signs', async () => {
    const lines = unembeddedLines([
      { font: 'MingLiU', encoding: 'ETen-B5-H', ordering: 'CNS1', hex: 'aefcbce9' },
      // “潮、汐”
      { font: 'Ryumin-Light', encoding: 'UniJIS-UCS2-V', ordering: 'Japan1', hex: '6f6e30016c50' },
    ]);
    writeFileSync(path, await exported(lines));
    run('qpdf', '--check', path);
    const [poppler] = words();
    expect(poppler).toContain('海潮');
    for (const sign of '潮、汐') expect(poppler).toContain(sign);
    for (const count of await drawn(15, 60)) expect(count).toBeGreaterThan(300);
    // The third sign of the upright line, 80 to 120 pt below its beginning.
    for (const count of await drawn(90, 130, 220)) expect(count).toBeGreaterThan(150);
  });

  it('are lent once where pages are copied into a new file', async () => {
    writeFileSync(path, await exported(unembeddedPdf(['月亮潮汐', '月のひかり', '달과바다']), 3));
    run('qpdf', '--check', path);
    const [poppler] = words();
    expect(poppler).toContain('月亮潮汐');
    const fonts = run('pdffonts', path).trim().split('\n').slice(2);
    expect(fonts.filter((font) => font.includes('NotoSansSC')).length).toBe(1);
  });

  it('leave the file as it came where there are none, or none has its letters', async () => {
    const brought = unembeddedPdf(['月亮潮汐', '月のひかり', '달과바다']);
    for (const fonts of [() => Promise.reject(new Error('gone')), () => Promise.resolve([])]) {
      writeFileSync(path, await exported(brought, 1, fonts));
      run('qpdf', '--check', path);
      // MuPDF knows what the codes of fonts stand for that aren't there, and draws them in one of its own.
      expect(words()[1]).toContain('月亮潮汐');
      expect(run('qpdf', '--qdf', '--object-streams=disable', path, '-')).toContain(
        '/STSong-Light',
      );
    }
  });
});
