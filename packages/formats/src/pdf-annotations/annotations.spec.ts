import { PDFDocument, PDFDict, PDFName, PDFString } from '@cantoo/pdf-lib';
import {
  apply,
  BoardDraft,
  drawnOn,
  emptyBoard,
  encodeStroke,
  newId,
  operation,
  pagesInOrder,
  specOf,
} from '@cuaderno/core';
import type { Board, Item, PageSpec, Author, Stroke, ItemSpec } from '@cuaderno/core';
import { handwriting, somePages } from '@cuaderno/core/testing';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import { getDocument } from '../pdf-in/engine.js';
import { boardPdf, measureWith } from '../pdf-out/index.js';
import { testFonts } from '../testing/fonts.js';
import { listedByPoppler } from '../testing/poppler.js';
import { takeAnnotations } from './index.js';
import type { Taken, TakenItem } from './index.js';

const folder = mkdtempSync(join(tmpdir(), 'cuaderno-annotations-'));
const HASH = 'c'.repeat(64);
const IDA = newId();
const TUTOR = newId();
const people = new Map<string, Author>([
  [TUTOR, { name: 'Maren Solheim', initials: 'MS', colour: '#0072b2' }],
  [IDA, { name: 'Ida Ødegård', initials: 'IØ', colour: '#d55e00' }],
]);
/** 2026-11-24, 16:05:07 in universal time. */
const AT = Date.UTC(2026, 10, 24, 16, 5, 7);

const frame = (x: number, y: number, width: number, height: number, turn = 0) => ({
  ...{ x, y, width, height, turn },
});
const common = { order: 'a0', layer: 'ink' } as const;
const outline = { colour: '#7a3fa8', width: 3 };

function straight(tool: Stroke['style'], from: [number, number], to: [number, number]): Stroke {
  const points = [0, 1, 2, 3].map((i) => ({
    x: from[0] + ((to[0] - from[0]) * i) / 3,
    y: from[1] + ((to[1] - from[1]) * i) / 3,
    pressure: 0.5,
    time: i * 16,
  }));
  return { style: tool, points };
}

/** One of each that can be written on a page. */
const THINGS: readonly ItemSpec[] = [
  {
    kind: 'shape',
    shape: 'box',
    frame: frame(40, 40, 80, 50),
    outline,
    fill: '#ffe45c',
    ...common,
  },
  {
    kind: 'shape',
    shape: 'ellipse',
    frame: frame(140, 40, 60, 60),
    outline,
    fill: null,
    ...common,
  },
  {
    kind: 'shape',
    shape: 'ellipse',
    frame: frame(220, 40, 60, 30, 30),
    outline,
    fill: null,
    ...common,
  },
  {
    kind: 'shape',
    shape: 'line',
    frame: frame(40, 120, 100, 30),
    points: [
      [0, 0],
      [1, 1],
    ],
    heads: 'end',
    outline: { ...outline, dashed: true },
    fill: null,
    ...common,
  },
  {
    kind: 'shape',
    shape: 'line',
    frame: frame(40, 160, 100, 30),
    points: [
      [0, 0],
      [0.5, 1],
      [1, 0],
    ],
    outline,
    fill: null,
    ...common,
  },
  {
    kind: 'shape',
    shape: 'triangle',
    frame: frame(160, 120, 60, 60),
    outline: null,
    fill: '#2c7a3f',
    ...common,
  },
  { kind: 'mark', mark: 'tick', frame: frame(230, 120, 30, 30), colour: '#c22f2f', ...common },
  {
    kind: 'text',
    frame: frame(40, 210, 180, 40),
    text: [{ runs: [{ text: 'Flo og fjære – ' }, { text: 'høyvann', bold: true }] }],
    font: 'plain',
    size: 14,
    colour: '#1f3a68',
    align: 'start',
    slip: '#fff3c4',
    lines: [{ y: 14, runs: [{ text: 'Flo og fjære – høyvann', x: 0, width: 150 }] }],
    ...common,
  },
  {
    kind: 'formula',
    frame: frame(40, 270, 60, 20),
    source: 'h = a (1 + cos t)',
    notation: 'typed',
    colour: '#22242a',
    outline: 'M0 0L1000 0L1000 300Z',
    box: { width: 1000, height: 300 },
    ...common,
  },
];

/** Numbers of what lies on the page, in the order of drawing: ink first, then things in theirs. */
const STROKES: readonly Stroke[] = [
  handwriting(1, { count: 40, stylus: true, x: 60, y: 300 }),
  handwriting(2, { count: 30, stylus: false, x: 150, y: 320 }),
  straight({ tool: 'highlighter', ink: 'lemon', width: 16 }, [60, 350], [200, 352]),
  {
    style: { tool: 'highlighter', ink: 'sky', width: 10 },
    points: handwriting(3, { count: 40, stylus: false, x: 60, y: 370 }).points,
  },
];

const PLAIN: PageSpec = { ...somePages(1)[0]!, width: 300, height: 400, paper: { kind: 'plain' } };
const TURNED: PageSpec = {
  ...PLAIN,
  ...{ width: 400, height: 300 },
  paper: { kind: 'pdf', file: HASH, number: 1, box: [20, 30, 320, 430], rotate: 90, unit: 1 },
};

function boardOf(page: PageSpec, strokes: readonly Stroke[], placed: readonly ItemSpec[]): Board {
  const draft = new BoardDraft(emptyBoard(newId()));
  const stamp = { by: IDA, at: AT, lesson: null };
  apply(operation({ kind: 'pages.add', pages: [page] }), draft, stamp);
  for (const stroke of strokes)
    apply(operation({ kind: 'ink.add', page: page.id, ink: encodeStroke(stroke) }), draft, stamp);
  for (const item of placed)
    apply(operation({ kind: 'item.add', page: page.id, item }), draft, { ...stamp, by: TUTOR });
  return draft.done();
}

async function turnedFile(): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const page = doc.addPage([340, 460]);
  page.setCropBox(20, 30, 300, 400);
  page.node.set(PDFName.of('Rotate'), doc.context.obj(90));
  return doc.save();
}

async function exported(board: Board): Promise<{ bytes: Uint8Array; path: string }> {
  const file = await turnedFile();
  const bytes = await boardPdf(board, {
    ...{ title: 'Tides', author: 'Maren Solheim', date: new Date(AT), language: 'nb', people },
    ink: 'annotations',
    file: () => Promise.resolve(file),
    fonts: testFonts,
    deflate: deflateSync,
  });
  const path = join(folder, `${newId()}.pdf`);
  writeFileSync(path, bytes);
  execFileSync('qpdf', ['--check', path]);
  return { bytes, path };
}

const measure = await measureWith(testFonts, 'plain');
const take = (bytes: Uint8Array): Promise<Taken | null> => takeAnnotations(bytes, { measure });

function itemsOf(board: Board): Item[] {
  return drawnOn(pagesInOrder(board)[0]!);
}

/** What an item is, in the words of what is taken. */
function own(item: Item): object {
  const said = {
    ...{ name: item.id, author: item.kind === 'ink' ? 'Ida Ødegård' : 'Maren Solheim' },
    at: Date.UTC(2026, 10, 24, 16, 5, 7),
  };
  return item.kind === 'ink'
    ? { kind: 'ink', ink: item.ink, ...said }
    : { kind: 'placed', spec: specOf(item), ...said };
}

/** What pdf.js says of an annotation. */
interface FoundByPdfjs {
  readonly titleObj: { readonly str: string };
  readonly contentsObj: { readonly str: string };
  readonly creationDate: string;
  readonly inkLists: readonly (readonly number[])[];
}

/** A file in which a program changes the annotation at this place on the page. */
async function changed(
  bytes: Uint8Array,
  at: number,
  change: (dict: PDFDict, doc: PDFDocument) => void,
): Promise<Uint8Array> {
  const doc = await PDFDocument.load(bytes);
  change(doc.getPage(0).node.Annots()!.lookup(at, PDFDict), doc);
  return doc.save();
}

describe('ink as annotations', () => {
  for (const [name, page] of [
    ['a page of our own', PLAIN],
    ['a page of a file, cropped and turned', TURNED],
  ] as const) {
    it(`is listed by poppler as we wrote it, on ${name}`, async () => {
      const board = boardOf(page, STROKES, THINGS);
      const { path } = await exported(board);
      const listed = listedByPoppler(path);
      expect(listed.map(({ kind }) => kind)).toEqual([
        ...['ink', 'ink', 'highlight', 'ink'],
        ...[
          'square',
          'circle',
          'polygon',
          'line',
          'poly-line',
          'polygon',
          'stamp',
          'free-text',
          'stamp',
        ],
      ]);
      // Its GLib side knows whose an annotation is of these kinds only; pdf.js says it of all.
      const known = ['highlight', 'square', 'circle', 'line', 'free-text'];
      const authors = [...STROKES.map(() => 'Ida Ødegård'), ...THINGS.map(() => 'Maren Solheim')];
      expect(listed.map(({ author }) => author)).toEqual(
        listed.map(({ kind }, i) => (known.includes(kind) ? authors[i]! : null)),
      );
      expect(listed.map((one) => one.name)).toEqual(itemsOf(board).map(({ id }) => id));
      expect(new Set(listed.map(({ modified }) => modified))).toEqual(
        new Set(['D:20261124160507Z']),
      );
      expect(listed[11]!.contents).toBe('Flo og fjære – høyvann');
      expect(listed[12]!.contents).toBe('h = a (1 + cos t)');
    });

    it(`is listed by pdf.js in the same way, and lies where it was written, on ${name}`, async () => {
      const board = boardOf(page, STROKES, THINGS);
      const { bytes, path } = await exported(board);
      const task = getDocument({ data: bytes.slice() });
      const doc = await task.promise;
      const sheet = await doc.getPage(1);
      const found = (await sheet.getAnnotations()) as FoundByPdfjs[];
      await task.destroy();
      expect(found.map(({ titleObj }) => titleObj.str)).toEqual([
        ...STROKES.map(() => 'Ida Ødegård'),
        ...THINGS.map(() => 'Maren Solheim'),
      ]);
      const poppler = listedByPoppler(path);
      expect(found.map(({ contentsObj }) => contentsObj.str)).toEqual(
        poppler.map(({ contents }) => contents ?? ''),
      );
      expect(new Set(found.map(({ creationDate }) => creationDate))).toEqual(
        new Set(['D:20261124160507Z']),
      );
      expect(found[0]!.inkLists[0]!.length).toBeGreaterThan(20);
    });

    it(`comes back exactly, on ${name}`, async () => {
      const board = boardOf(page, STROKES, THINGS);
      const { bytes } = await exported(board);
      const taken = (await take(bytes))!;
      expect(taken.count).toBe(STROKES.length + THINGS.length);
      expect(taken.stayed).toBe(0);
      expect(taken.pages.get(1)).toEqual(itemsOf(board).map(own) as TakenItem[]);
    });
  }

  it('comes back exactly from a file that another tool has written anew (qpdf)', async () => {
    const board = boardOf(PLAIN, STROKES, THINGS);
    const { path } = await exported(board);
    const anew = join(folder, 'anew.pdf');
    execFileSync('qpdf', ['--qdf', '--object-streams=disable', path, anew]);
    const taken = (await take(new Uint8Array(execFileSync('cat', [anew]))))!;
    expect(taken.pages.get(1)).toEqual(itemsOf(board).map(own) as TakenItem[]);
  });

  it('looks as if it were drawn into the page, dot by dot but for a few at edges (poppler)', async () => {
    const board = boardOf(PLAIN, STROKES, THINGS);
    const { path } = await exported(board);
    const drawn = await boardPdf(board, {
      ...{ title: '', author: '', date: new Date(0), people },
      file: () => Promise.reject(new Error('no file')),
      fonts: testFonts,
      deflate: deflateSync,
    });
    const other = join(folder, 'drawn.pdf');
    writeFileSync(other, drawn);
    const pixels = (file: string): Buffer =>
      execFileSync('pdftoppm', ['-r', '72', '-png', file]) &&
      execFileSync('pdftoppm', ['-r', '72', file]);
    const [a, b] = [pixels(path), pixels(other)];
    expect(a.length).toBe(b.length);
    let off = 0;
    for (let i = 0; i < a.length; i++) if (Math.abs(a[i]! - b[i]!) > 40) off++;
    expect(off / a.length).toBeLessThan(0.002);
    // And there is something to see.
    expect(a.filter((value) => value < 200).length).toBeGreaterThan(5000);
  });

  it('says what it is, whose and in which language', async () => {
    const { path } = await exported(boardOf(PLAIN, STROKES, []));
    const info = execFileSync('pdfinfo', [path]).toString();
    expect(info).toMatch(/Title:\s+Tides/);
    expect(info).toMatch(/Author:\s+Maren Solheim/);
    const xmp = execFileSync('pdfinfo', ['-meta', path]).toString();
    expect(xmp).toContain('<rdf:li xml:lang="x-default">Tides</rdf:li>');
    expect(xmp).toContain('<dc:language><rdf:Bag><rdf:li>nb</rdf:li>');
    expect(
      execFileSync('qpdf', ['--qdf', '--object-streams=disable', path, '-']).toString('latin1'),
    ).toMatch(/\/Lang \(nb\)/);
  });
});

describe('annotations that another program has changed', () => {
  it('are what they say now, not what they were', async () => {
    const board = boardOf(PLAIN, STROKES, THINGS);
    const { bytes } = await exported(board);
    const red = await changed(bytes, 0, (dict, doc) =>
      dict.set(PDFName.of('C'), doc.context.obj([0.8, 0.1, 0.1])),
    );
    const taken = (await take(red))!.pages.get(1)!;
    const [first, ...others] = itemsOf(board).map(own);
    expect(taken.slice(-others.length)).toEqual(others as TakenItem[]);
    expect(taken[0]).not.toEqual(first as TakenItem);
    expect(taken[0]!.kind).toBe('ink');
  });

  it('have the words that were typed elsewhere', async () => {
    const board = boardOf(PLAIN, [], THINGS);
    const { bytes } = await exported(board);
    const typed = await changed(bytes, 7, (dict) =>
      dict.set(PDFName.of('Contents'), PDFString.of('Low water')),
    );
    const text = (await take(typed))!.pages.get(1)![7]!;
    expect(text.kind === 'placed' && text.spec.kind === 'text' && text.spec.text).toEqual([
      { runs: [{ text: 'Low water' }] },
    ]);
  });

  it('are still what they were where only their place has changed: a formula stays one', async () => {
    const board = boardOf(PLAIN, [], THINGS);
    const { bytes } = await exported(board);
    const moved = await changed(bytes, 8, (dict, doc) => {
      const [x0, y0, x1, y1] = [40, 110, 100, 130];
      dict.set(PDFName.of('Rect'), doc.context.obj([x0 + 100, y0 - 50, x1 + 100, y1 - 50]));
    });
    const taken = (await take(moved))!.pages.get(1)![8]!;
    const item = taken.kind === 'placed' ? taken.spec : null;
    expect(item?.kind).toBe('formula');
    expect(item!.frame.x).toBeCloseTo(140, 0);
    expect(item!.frame.y).toBeCloseTo(320, 0);
  });
});
