import { degrees, PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import {
  BoardDraft,
  emptyBoard,
  encodeStroke,
  newId,
  operation,
  pageToUserSpace,
  PathBuffer,
  transform,
} from '@cuaderno/core';
import type { Board, InkStyle, Matrix, PageSpec, PdfPlacement, Stroke } from '@cuaderno/core';
import { somePages } from '@cuaderno/core/testing';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import { apply } from '@cuaderno/core';
import { boardPdf } from './index.js';
import { testFonts } from '../testing/fonts.js';
import { ContentWriter } from '../pdf-content/content-writer.js';

const folder = mkdtempSync(join(tmpdir(), 'cuaderno-pdf-out-'));

function stroke(style: InkStyle, pressure = 0.5): Stroke {
  const points = [50, 100, 150].map((x, i) => ({
    x,
    y: 60,
    pressure: pressure + i * 0.01,
    time: i * 10,
  }));
  return { style, points };
}

/** A board of these pages, with a red line on each. */
function boardOf(
  pages: PageSpec[],
  styles: InkStyle[] = [{ tool: 'pen', ink: 'poppy', width: 4 }],
): Board {
  const draft = new BoardDraft(emptyBoard(newId()));
  const stamp = { by: newId(), at: 1, lesson: null };
  apply(operation({ kind: 'pages.add', pages }), draft, stamp);
  for (const { id } of pages)
    for (const style of styles)
      apply(
        operation({ kind: 'ink.add', page: id, ink: encodeStroke(stroke(style)) }),
        draft,
        stamp,
      );
  return draft.done();
}

async function source(pages: number): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (let i = 1; i <= pages; i++) {
    const page = doc.addPage([300, 400]);
    page.drawText(`Sheet number ${i}`, { x: 30, y: 350, size: 14, font });
    if (i === 2) page.setRotation(degrees(90));
  }
  return doc.save();
}

const HASH = 'a'.repeat(64);

function sheets(numbers: number[]): PageSpec[] {
  const keys = somePages(numbers.length);
  return numbers.map((number, i) => ({
    ...keys[i]!,
    width: number === 2 ? 400 : 300,
    height: number === 2 ? 300 : 400,
    paper: {
      kind: 'pdf',
      file: HASH,
      number,
      box: [0, 0, 300, 400],
      rotate: number === 2 ? 90 : 0,
      unit: 1,
    },
  }));
}

async function made(board: Board, bytes?: Uint8Array): Promise<string> {
  const pdf = await boardPdf(board, {
    title: 'Tides – 潮汐',
    author: 'Maren',
    date: new Date(0),
    file: () => Promise.resolve(bytes!),
    fonts: testFonts,
    deflate: deflateSync,
  });
  const path = join(folder, `${newId()}.pdf`);
  writeFileSync(path, pdf);
  execFileSync('qpdf', ['--check', path]);
  return path;
}

const run = (command: string, ...args: string[]): string => execFileSync(command, args).toString();

describe('a record as PDF (checked by qpdf and poppler)', () => {
  it('keeps the file’s own text, page by page', async () => {
    const path = await made(boardOf(sheets([1, 2, 3])), await source(3));
    for (const n of ['1', '2', '3'])
      expect(run('pdftotext', '-f', n, '-l', n, path, '-')).toContain(`Sheet number ${n}`);
    expect(run('pdfinfo', path)).toContain('Tides – 潮汐');
  });

  it('puts pages in the board’s order, with empty ones between', async () => {
    const [a, b, c] = sheets([3, 1, 2]) as [PageSpec, PageSpec, PageSpec];
    const plain: PageSpec = {
      ...b,
      id: newId(),
      order: `${b.order}V`,
      width: 500,
      height: 200,
      paper: { kind: 'plain' },
    };
    const path = await made(boardOf([a, b, plain, c]), await source(3));
    const text = (n: string) => run('pdftotext', '-f', n, '-l', n, path, '-').trim();
    expect(['1', '2', '3', '4'].map(text)).toEqual([
      'Sheet number 3',
      'Sheet number 1',
      '',
      'Sheet number 2',
    ]);
    expect(run('pdfinfo', '-f', '3', '-l', '3', path)).toMatch(/500 x 200/);
  });

  it('leaves the file’s own content streams as they were', async () => {
    const bytes = await source(1);
    const original = join(folder, 'original.pdf');
    writeFileSync(original, bytes);
    const contents = (path: string) =>
      run('qpdf', '--qdf', '--object-streams=disable', '--stream-data=uncompress', path, '-');
    const drawn = /BT[\s\S]*?ET/.exec(contents(original))![0];
    expect(contents(await made(boardOf(sheets([1])), bytes))).toContain(drawn);
  });

  it('draws ink as vectors, the highlighter multiplying', async () => {
    const styles: InkStyle[] = [
      { tool: 'pen', ink: 'coal', width: 2 },
      { tool: 'highlighter', ink: 'lemon', width: 16 },
    ];
    const path = await made(boardOf(somePages(1), styles));
    const plain = run('qpdf', '--qdf', '--object-streams=disable', path, '-');
    expect(plain).toContain('/BM /Multiply');
    expect(run('pdfimages', '-list', path).trim().split('\n').length).toBe(2);
  });

  it('prints papers and tints: squares of 5 mm are 5 mm apart on poppler’s page', async () => {
    const [page] = somePages(1) as [PageSpec];
    const spacing = (5 / 25.4) * 72;
    const squared: PageSpec = { ...page, paper: { kind: 'squared', spacing, tint: '#fdf6e0' } };
    const path = await made(boardOf([squared], []));
    // At 254 dots an inch a millimetre is ten pixels.
    const grey = execFileSync('pdftoppm', ['-r', '254', '-gray', path], { maxBuffer: 1 << 26 });
    const [, width, height] = /^P5\s+(\d+)\s+(\d+)\s+255\s/.exec(grey.toString('latin1', 0, 40))!;
    const row = grey
      .subarray(grey.length - Number(width) * (Number(height) - 20))
      .subarray(0, Number(width));
    const paper = row[5]!;
    expect(paper).toBeLessThan(255);
    const dark = [...row.keys()].filter((x) => row[x]! < paper - 20 && !(row[x - 1]! < paper - 20));
    expect(dark.length).toBe(42);
    dark.slice(1).forEach((x, i) => expect(Math.abs(x - dark[i]! - 50)).toBeLessThanOrEqual(1));
  });

  it('is a file also without a line of ink', async () => {
    const path = await made(boardOf(somePages(2), []));
    expect(run('pdfinfo', path)).toMatch(/Pages:\s+2/);
  });
});

describe('content streams', () => {
  /** What is written for one path, drawn with a pen of 1 pt. */
  function written(map: Matrix, make: (path: PathBuffer) => void): string {
    const writer = new ContentWriter();
    writer.start(map);
    const path = new PathBuffer();
    make(path);
    writer.group((sink) => sink.path(path, '#ff0000', 'normal', 1));
    return new TextDecoder().decode(writer.done());
  }

  it('have numbers that PDF knows: whole, never exponential, negative ones too', () => {
    const text = written([1e-7, 0, 0, -1, 0.5, 841.89], (path) => {
      path.moveTo(-0.004, 0.014);
      path.lineTo(-123.45, 99_999.99);
      path.closePath();
    });
    expect(text).toContain('0 0 0 -0.05 0.5 841.89 cm');
    expect(text).toContain('q 1 0 0 1 0 0 cm 1 0 0 RG 20 w 0 0 m -2469 2000000 l h S');
  });

  it('count a stroke’s coordinates from its start', () => {
    const text = written([1, 0, 0, 1, 0, 0], (path) => {
      path.moveTo(100, 200);
      path.lineTo(101, 199);
    });
    expect(text).toContain('1 0 0 1 2000 4000 cm');
    expect(text).toContain('0 0 m 20 -20 l S');
  });

  it('turn quadratic curves into the same cubic ones', () => {
    const text = written([1, 0, 0, 1, 0, 0], (path) => {
      path.moveTo(0, 0);
      path.quadraticCurveTo(3, 3, 6, 0);
    });
    expect(text).toContain('40 40 80 40 120 0 c');
  });

  it('grow as long as they must', () => {
    const text = written([1, 0, 0, 1, 0, 0], (path) => {
      path.moveTo(0, 0);
      for (let i = 0; i < 50_000; i++) path.lineTo(i, -i);
    });
    expect(text.match(/ l /g)!.length).toBe(50_000);
  });

  it('lie in user space where the page is shown (ISO 32000-1, 8.3.2)', () => {
    const turned: PdfPlacement = { box: [10, 20, 310, 420], rotate: 90, unit: 1 };
    expect(transform(pageToUserSpace(turned), { x: 0, y: 0 })).toEqual({ x: 10, y: 20 });
  });
});
