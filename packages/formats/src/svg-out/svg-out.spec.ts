import {
  apply,
  BoardDraft,
  emptyBoard,
  encodeStroke,
  MM,
  newId,
  operation,
  pagesInOrder,
} from '@cuaderno/core';
import type { Operation, Page, PageSpec, ItemSpec } from '@cuaderno/core';
import { somePages } from '@cuaderno/core/testing';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import { setFormula } from '../formula/index.js';
import { boardPdf } from '../pdf-out/index.js';
import { testFonts } from '../testing/fonts.js';
import { pageSvg } from './index.js';

const folder = mkdtempSync(join(tmpdir(), 'cuaderno-svg-'));
const common = { order: 'a0', layer: 'material' } as const;
const outline = { colour: '#000000', width: 4 } as const;

function pageWith(items: readonly ItemSpec[], change: Partial<PageSpec> = {}): Page {
  const [page] = somePages(1) as [PageSpec];
  const draft = new BoardDraft(emptyBoard('b'));
  const stamp = { by: newId(), at: 1, lesson: null };
  const ops: Operation[] = [
    operation({ kind: 'pages.add', pages: [{ ...page, width: 300, height: 400, ...change }] }),
    ...items.map((item) => operation({ kind: 'item.add', page: page.id, item })),
    operation({
      kind: 'ink.add',
      page: page.id,
      ink: encodeStroke({
        style: { tool: 'pen', ink: 'coal', width: 6 },
        points: [0, 1, 2, 3, 4].map((i) => ({
          x: 40 + i * 50,
          y: 360 - (i % 2) * 20,
          pressure: 0.5,
          time: i * 10,
        })),
      }),
    }),
  ];
  for (const op of ops) apply(op, draft, stamp);
  return pagesInOrder(draft.done())[0]!;
}

/** Which pixels are dark, at two to the point. */
function dark(ppm: Buffer): { width: number; at: Uint8Array } {
  const [head, width, height] = /^P6\s+(\d+)\s+(\d+)\s+\d+\s/.exec(ppm.toString('latin1', 0, 60))!;
  const count = Number(width) * Number(height);
  const pixels = ppm.subarray(head.length);
  const at = Uint8Array.from({ length: count }, (_, i) => (pixels[i * 3]! < 128 ? 1 : 0));
  return { width: Number(width), at };
}

function bySvg(page: Page): ReturnType<typeof dark> {
  const path = join(folder, `${newId()}.svg`);
  writeFileSync(path, pageSvg(page, true, { pictures: new Map() }));
  const png = `${path}.pdf`;
  // By way of PDF, so that both are turned into pixels by the same program.
  execFileSync('rsvg-convert', ['-f', 'pdf', '--dpi-x', '72', '--dpi-y', '72', '-o', png, path]);
  return dark(execFileSync('pdftoppm', ['-r', '144', '-singlefile', png], { maxBuffer: 1 << 26 }));
}

async function byPdf(page: Page): Promise<ReturnType<typeof dark>> {
  const path = join(folder, `${newId()}.pdf`);
  const board = { ...emptyBoard('b'), pages: new Map([[page.id, page]]) };
  const pdf = await boardPdf(board, {
    title: '',
    author: '',
    date: new Date(0),
    file: () => Promise.reject(new Error('no files')),
    fonts: testFonts,
    deflate: deflateSync,
  });
  writeFileSync(path, pdf);
  return dark(execFileSync('pdftoppm', ['-r', '144', path], { maxBuffer: 1 << 26 }));
}

/** How many dark pixels of one picture have no dark one within a pixel in the other. */
function strangers(a: ReturnType<typeof dark>, b: ReturnType<typeof dark>): number {
  let count = 0;
  for (let i = 0; i < a.at.length; i++) {
    if (!a.at[i]) continue;
    let near = false;
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++) near ||= b.at[i + dy * a.width + dx] === 1;
    if (!near) count++;
  }
  return count;
}

describe('a page as SVG', () => {
  it('is drawn by librsvg as poppler draws our PDF, within a pixel at two to the point', async () => {
    const { outline: path, box } = await setFormula('\\frac{-b\\pm\\sqrt{b^2-4ac}}{2a}', 'latex');
    const page = pageWith([
      {
        ...common,
        kind: 'shape',
        shape: 'line',
        heads: 'end',
        points: [
          [0, 0],
          [1, 1],
        ],
        frame: { x: 30, y: 30, width: 120, height: 60, turn: 20 },
        outline,
        fill: null,
      },
      {
        ...common,
        kind: 'shape',
        shape: 'ellipse',
        frame: { x: 180, y: 30, width: 90, height: 60, turn: -30 },
        outline: { ...outline, dashed: true },
        fill: null,
      },
      {
        ...common,
        kind: 'mark',
        mark: 'star',
        colour: '#000000',
        frame: { x: 40, y: 120, width: 50, height: 50, turn: 0 },
      },
      {
        ...common,
        kind: 'formula',
        source: '',
        notation: 'latex',
        colour: '#000000',
        outline: path,
        box,
        frame: { x: 60, y: 190, width: 180, height: (180 * box.height) / box.width, turn: -8 },
      },
      {
        ...common,
        kind: 'media',
        medium: 'film',
        file: 'a'.repeat(64),
        name: 'x',
        length: 1,
        frame: { x: 120, y: 110, width: 120, height: 60, turn: 10 },
      },
    ]);
    const [svg, pdf] = [bySvg(page), await byPdf(page)];
    expect(svg.at.length).toBe(pdf.at.length);
    expect(pdf.at.reduce((sum, is) => sum + is, 0)).toBeGreaterThan(5000);
    expect(strangers(svg, pdf)).toBe(0);
    expect(strangers(pdf, svg)).toBe(0);
  });

  it('holds words as words, whatever letters they are made of', () => {
    const words = `Ebb & <flow> "潮" ${String.fromCharCode(7)}`;
    const page = pageWith(
      [
        {
          ...common,
          kind: 'text',
          frame: { x: 20, y: 20, width: 200, height: 40, turn: 0 },
          text: [{ runs: [{ text: words }] }],
          font: 'plain',
          size: 20,
          colour: '#000000',
          align: 'start',
          slip: null,
          lines: [{ y: 20, runs: [{ text: words, x: 0, width: 150 }] }],
        },
      ],
      { name: 'High & low', paper: { kind: 'squared', spacing: 5 * MM, tint: '#fdf6e0' } },
    );
    const svg = pageSvg(page, true, { pictures: new Map() });
    expect(svg).toContain('Ebb &amp; &lt;flow&gt; &quot;潮&quot; </text>');
    expect(svg).toContain('<title>High &amp; low</title>');
    const path = join(folder, 'words.svg');
    writeFileSync(path, svg);
    // A general reader of XML takes it.
    expect(() => execFileSync('rsvg-convert', ['-o', `${path}.png`, path])).not.toThrow();
  });

  it('leaves out what is written where that is asked for', () => {
    const page = pageWith([]);
    expect(pageSvg(page, true, { pictures: new Map() })).toContain('<path');
    expect(pageSvg(page, false, { pictures: new Map() })).not.toContain('<path');
  });
});
