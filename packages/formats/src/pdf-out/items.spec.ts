import { PDFDocument } from '@cantoo/pdf-lib';
import { apply, BoardDraft, corners, emptyBoard, newId, operation } from '@cuaderno/core';
import type { Board, PageSpec, Point, ItemSpec } from '@cuaderno/core';
import { somePages } from '@cuaderno/core/testing';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { crc32, deflateSync } from 'node:zlib';
import { boardPdf } from './index.js';
import { testFonts } from '../testing/fonts.js';

const folder = mkdtempSync(join(tmpdir(), 'cuaderno-things-'));
const HASH = 'b'.repeat(64);

/** A PNG (ISO/IEC 15948) of 40 × 40: red and green above, blue and yellow below. */
function quarters(): Uint8Array {
  const chunk = (type: string, data: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(type), data]);
    const out = Buffer.alloc(body.length + 8);
    out.writeUInt32BE(data.length, 0);
    body.copy(out, 4);
    out.writeUInt32BE(crc32(body), body.length + 4);
    return out;
  };
  const header = Buffer.from([0, 0, 0, 40, 0, 0, 0, 40, 8, 2, 0, 0, 0]);
  const rows: number[] = [];
  for (let y = 0; y < 40; y++) {
    rows.push(0);
    for (let x = 0; x < 40; x++)
      rows.push(
        ...(y < 20 ? (x < 20 ? [220, 0, 0] : [0, 160, 0]) : x < 20 ? [0, 0, 220] : [230, 220, 0]),
      );
  }
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10]),
    chunk('IHDR', header),
    chunk('IDAT', deflateSync(Buffer.from(rows))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

const common = { order: 'a0', layer: 'material' } as const;

/** Ids of things that others name. */
const ids = new Map<ItemSpec, { id: string }>();

function boardOf(page: PageSpec, items: readonly ItemSpec[]): Board {
  const draft = new BoardDraft(emptyBoard(newId()));
  const stamp = { by: newId(), at: 1, lesson: null };
  apply(operation({ kind: 'pages.add', pages: [page] }), draft, stamp);
  for (const item of items)
    apply(
      { ...operation({ kind: 'item.add', page: page.id, item }), ...ids.get(item) },
      draft,
      stamp,
    );
  return draft.done();
}

/** The page as poppler draws it, a pixel a point: what colour is where. */
async function drawn(items: readonly ItemSpec[]): Promise<(p: Point) => string> {
  const [page] = somePages(1) as [PageSpec];
  const pdf = await boardPdf(boardOf({ ...page, width: 300, height: 400 }, items), {
    title: 'Tides',
    author: 'Maren',
    date: new Date(0),
    file: () => Promise.resolve(quarters()),
    fonts: testFonts,
    deflate: deflateSync,
  });
  const path = join(folder, `${newId()}.pdf`);
  writeFileSync(path, pdf);
  execFileSync('qpdf', ['--check', path]);
  const ppm = execFileSync('pdftoppm', ['-r', '72', path], { maxBuffer: 1 << 26 });
  const width = Number(/^P6\s+(\d+)/.exec(ppm.toString('latin1', 0, 40))![1]);
  const data = ppm.subarray(ppm.length - 300 * 400 * 3);
  const names: [string, [number, number, number]][] = [
    ['white', [255, 255, 255]],
    ['red', [220, 0, 0]],
    ['green', [0, 160, 0]],
    ['blue', [0, 0, 220]],
    ['yellow', [230, 220, 0]],
    ['black', [0, 0, 0]],
  ];
  return ({ x, y }) => {
    const at = (Math.floor(y) * width + Math.floor(x)) * 3;
    const far = ([r, g, b]: [number, number, number]): number =>
      Math.abs(data[at]! - r) + Math.abs(data[at + 1]! - g) + Math.abs(data[at + 2]! - b);
    return names.sort(([, a], [, b]) => far(a) - far(b))[0]![0];
  };
}

/** A place within a frame, in parts of it, on the page. */
function within(frame: ItemSpec['frame'], u: number, v: number): Point {
  const [a, b, , d] = corners(frame);
  return { x: a.x + u * (b.x - a.x) + v * (d.x - a.x), y: a.y + u * (b.y - a.y) + v * (d.y - a.y) };
}

describe('things in a record’s PDF (drawn by poppler)', () => {
  it('pictures lie where their frame is, turned as it is, the right way up', async () => {
    for (const turn of [0, 30, 90, 200]) {
      const frame = { x: 80, y: 120, width: 120, height: 60, turn };
      const colour = await drawn([{ kind: 'picture', ...common, frame, file: HASH }]);
      const seen = [
        [0.25, 0.25],
        [0.75, 0.25],
        [0.25, 0.75],
        [0.75, 0.75],
      ].map(([u, v]) => colour(within(frame, u!, v!)));
      expect(seen).withContext(`turned by ${turn}`).toEqual(['red', 'green', 'blue', 'yellow']);
      expect(colour(within(frame, -0.1, 0.5))).toBe('white');
      expect(colour(within(frame, 0.5, 1.2))).toBe('white');
    }
  });

  it('shows of a picture only what it is cropped to', async () => {
    const frame = { x: 50, y: 50, width: 100, height: 100, turn: 0 };
    const crop = { x: 0.5, y: 0.25, width: 0.5, height: 0.5 };
    const colour = await drawn([{ kind: 'picture', ...common, frame, file: HASH, crop }]);
    expect(colour({ x: 100, y: 70 })).toBe('green');
    expect(colour({ x: 100, y: 130 })).toBe('yellow');
    expect(colour({ x: 60, y: 70 })).toBe('green');
    expect(colour({ x: 160, y: 70 })).toBe('white');
  });

  it('has shapes filled and outlined, one over another in their order', async () => {
    const shape = { kind: 'shape', ...common, outline: null, fill: null } as const;
    const frame = { x: 50, y: 50, width: 200, height: 200, turn: 0 };
    const outline = { colour: '#000000', width: 6 };
    const colour = await drawn([
      { ...shape, order: 'a2', shape: 'ellipse', frame, fill: '#0000dc' },
      { ...shape, order: 'a1', shape: 'box', frame, fill: '#dc0000', outline },
      {
        ...shape,
        order: 'a3',
        shape: 'line',
        frame: { x: 50, y: 300, width: 200, height: 1, turn: 0 },
        points: [
          [0, 0],
          [1, 0],
        ],
        heads: 'end',
        outline,
      },
    ]);
    expect(colour({ x: 150, y: 150 })).toBe('blue');
    expect(colour({ x: 60, y: 60 })).toBe('red');
    expect(colour({ x: 50, y: 60 })).toBe('black');
    expect(colour({ x: 100, y: 300 })).toBe('black');
    // The head is broader than the line, and comes to a point at its end.
    expect(colour({ x: 232, y: 304 })).toBe('black');
    expect(colour({ x: 60, y: 305 })).toBe('white');
    expect(colour({ x: 252, y: 300 })).toBe('white');
  });

  it('has a cover sheet over what is under it, with what is written on it; a lifted one is gone with that', async () => {
    const shape = { kind: 'shape', ...common, shape: 'box', outline: null } as const;
    const frame = { x: 50, y: 50, width: 100, height: 100, turn: 0 };
    const on = newId();
    const cover = {
      kind: 'cover',
      ...common,
      layer: 'ink',
      order: 'a2',
      tint: '#dc0000',
      frame: { x: 40, y: 40, width: 200, height: 60, turn: 0 },
    } as const;
    const items = (lifted: boolean): ItemSpec[] => {
      const sheet = { ...cover, lifted };
      ids.set(sheet, { id: on });
      return [
        { ...shape, frame, fill: '#0000dc' },
        sheet,
        {
          ...shape,
          on,
          frame: { ...frame, x: 180, y: 60, width: 30, height: 20 },
          fill: '#000000',
        },
      ];
    };
    const laid = await drawn(items(false));
    expect(laid({ x: 60, y: 60 })).toBe('red');
    expect(laid({ x: 190, y: 70 })).toBe('black');
    expect(laid({ x: 100, y: 130 })).toBe('blue');
    const lifted = await drawn(items(true));
    expect(lifted({ x: 60, y: 60 })).toBe('blue');
    expect(lifted({ x: 190, y: 70 })).toBe('white');
  });

  it('writes words that can be found, as wide as they are on screen, in two alphabets', async () => {
    const [page] = somePages(1) as [PageSpec];
    const run = { text: 'Low water, άμπωτη', x: 10, width: 180 };
    const text: ItemSpec = {
      kind: 'text',
      ...common,
      frame: { x: 50, y: 100, width: 200, height: 60, turn: 0 },
      text: [{ runs: [{ text: run.text, bold: true }] }],
      font: 'title',
      size: 20,
      colour: '#0000dc',
      align: 'start',
      slip: '#fdf6e0',
      lines: [{ y: 30, runs: [{ ...run, bold: true }] }],
    };
    const pdf = await boardPdf(boardOf({ ...page, width: 300, height: 400 }, [text]), {
      title: 'Tides',
      author: 'Maren',
      date: new Date(0),
      file: () => Promise.resolve(quarters()),
      fonts: testFonts,
      deflate: deflateSync,
    });
    const path = join(folder, 'words.pdf');
    writeFileSync(path, pdf);
    execFileSync('qpdf', ['--check', path]);
    const boxes = execFileSync('pdftotext', ['-bbox', path, '-']).toString();
    const words = [...boxes.matchAll(/xMin="([\d.]+)".*xMax="([\d.]+)" yMax="([\d.]+)">(.*)</g)];
    expect(words.map(([, , , , word]) => word)).toEqual(['Low', 'water,', 'άμπωτη']);
    expect(Number(words[0]![1])).toBeCloseTo(60, 0);
    expect(Number(words[2]![2])).toBeCloseTo(240, 0);
    const fonts = execFileSync('pdffonts', [path]).toString();
    // Both are in the file, with Unicode; and it is small, for only the letters that are used are.
    expect(fonts.match(/yes\s+\w+\s+yes/g)!.length).toBe(2);
    expect(pdf.length).toBeLessThan(20_000);
  });

  it('writes Hebrew and Arabic in fonts that have their letters, joined, and found as they were typed', async () => {
    const runs = [
      { text: 'שפל (12)', y: 40 },
      { text: 'الجزر والمد', y: 90 },
    ];
    const text: ItemSpec = {
      kind: 'text',
      ...common,
      frame: { x: 40, y: 50, width: 220, height: 120, turn: 0 },
      text: runs.map((run) => ({ runs: [{ text: run.text }] })),
      font: 'title',
      size: 24,
      colour: '#1d2b4f',
      align: 'start',
      slip: null,
      lines: runs.map(({ text: words, y }) => ({
        y,
        runs: [{ text: words, x: 100, width: 100, rtl: true }],
      })),
    };
    const [page] = somePages(1) as [PageSpec];
    const pdf = await boardPdf(boardOf({ ...page, width: 300, height: 400 }, [text]), {
      title: 'Tides',
      author: 'Maren',
      date: new Date(0),
      file: () => Promise.reject(new Error('There is none.')),
      fonts: testFonts,
      deflate: deflateSync,
    });
    const path = join(folder, 'scripts.pdf');
    writeFileSync(path, pdf);
    const fonts = execFileSync('pdffonts', [path]).toString();
    expect(fonts).toContain('Hebrew');
    expect(fonts).toContain('Arabic');
    expect(fonts).not.toContain('Greek');
    // Poppler reads what is seen from right to left back into the order in which it is read.
    const words = execFileSync('pdftotext', [path, '-']).toString().normalize('NFKC');
    expect(words).toContain('שפל');
    expect(words).toContain('12');
    expect(words).toContain('الجزر');
  });

  it('is a PDF with each picture once, however often it lies there', async () => {
    const [page] = somePages(1) as [PageSpec];
    const at = (x: number): ItemSpec => ({
      kind: 'picture',
      ...common,
      file: HASH,
      frame: { x, y: 10, width: 50, height: 50, turn: 0 },
    });
    const pdf = await boardPdf(boardOf(page, [at(10), at(80), at(150)]), {
      title: 'Tides',
      author: 'Maren',
      date: new Date(0),
      file: () => Promise.resolve(quarters()),
      fonts: testFonts,
      deflate: deflateSync,
    });
    const path = join(folder, 'once.pdf');
    writeFileSync(path, pdf);
    const images = execFileSync('pdfimages', ['-list', path])
      .toString()
      .trim()
      .split('\n')
      .slice(2);
    const objects = new Set(images.map((line) => line.trim().split(/\s+/)[10]));
    expect(objects.size).toBe(1);
    expect((await PDFDocument.load(pdf)).getPageCount()).toBe(1);
  });
});
