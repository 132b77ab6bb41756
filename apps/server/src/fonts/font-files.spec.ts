import { apply, BoardDraft, emptyBoard, layOutText, newId, operation } from '@cuaderno/core';
import type { RichText, TextSpec } from '@cuaderno/core';
import { somePages } from '@cuaderno/core/testing';
import { boardPdf, measureWith } from '@cuaderno/formats/pdf-out';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import { fontFiles } from './font-files.js';

const codes = (words: string): ReadonlySet<number> =>
  new Set([...words].map((letter) => letter.codePointAt(0)!));
const UPRIGHT = { font: 'plain', bold: false, slant: false } as const;

describe('files of fonts', () => {
  let folder: string;

  beforeAll(() => {
    folder = mkdtempSync(join(tmpdir(), 'cuaderno-fonts-'));
  });

  afterAll(() => {
    rmSync(folder, { recursive: true });
  });

  it('come for East Asia with the letters that are written, and no others', async () => {
    const without = await fontFiles(UPRIGHT, codes('潮 tide'));
    const files = await fontFiles({ ...UPRIGHT, eastAsian: ['chinese'] }, codes('潮 tide'));
    expect(files.length).toBe(without.length + 1);
    expect(files.at(-1)!.length).toBeLessThan(4_000);
  });

  it('write Chinese, Japanese and Korean in a PDF, to be read and found', async () => {
    const lines = ['潮汐 high water 今天', '月のひかりとカモメ', '달과 바다, 밀물과 썰물'];
    const measure = (await measureWith(fontFiles, 'plain'))(24);
    const [page] = somePages(1);
    const draft = new BoardDraft(emptyBoard(newId()));
    const stamp = { by: newId(), at: 1, lesson: null };
    apply(
      operation({ kind: 'pages.add', pages: [{ ...page!, width: 500, height: 400 }] }),
      draft,
      stamp,
    );
    for (const [i, words] of lines.entries()) {
      const text: RichText = [{ runs: [{ text: words, bold: i === 1 }] }];
      const laid = layOutText(text, { size: 24, width: 400, align: 'start' }, measure);
      const item: TextSpec = {
        kind: 'text',
        layer: 'material',
        order: `a${i}`,
        frame: { x: 40, y: 40 + 60 * i, width: 400, height: 40, turn: 0 },
        ...{ text, font: 'plain', size: 24, colour: '#000000', align: 'start', slip: null },
        lines: laid.lines.map(({ y, runs }) => ({ y, runs: [...runs] })),
      };
      apply(operation({ kind: 'item.add', page: page!.id, item }), draft, stamp);
    }
    const pdf = await boardPdf(draft.done(), {
      ...{ title: 'Tides', author: 'Maren', date: new Date(0), deflate: deflateSync },
      file: () => Promise.reject(new Error('none')),
      fonts: fontFiles,
    });
    const path = join(folder, 'east.pdf');
    writeFileSync(path, pdf);
    execFileSync('qpdf', ['--check', path]);
    const read = execFileSync('pdftotext', [path, '-']).toString().replace(/\s/g, '');
    for (const words of lines) expect(read).toContain(words.replace(/\s/g, ''));
    const mutool = execFileSync('mutool', ['draw', '-F', 'text', path]).toString();
    for (const words of lines)
      expect(mutool.replace(/\s/g, '')).toContain(words.replace(/\s/g, ''));
    // Every letter is in the file as part of a font: a few kilobytes each, not whole fonts of ten megabytes.
    const fonts = execFileSync('pdffonts', [path]).toString().trim().split('\n').slice(2);
    for (const font of fonts) expect(font).toMatch(/ yes (yes|no) +yes /);
    expect(fonts.some((font) => font.includes('NotoSansKR'))).toBe(true);
    expect(fonts.some((font) => font.includes('NotoSansJP'))).toBe(true);
    expect(fonts.some((font) => font.includes('NotoSansSC'))).toBe(true);
    expect(pdf.length).toBeLessThan(200_000);
  });
});
