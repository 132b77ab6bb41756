import {
  apply,
  BoardDraft,
  DIGIT_WIDTHS,
  emptyBoard,
  itemsOn,
  newId,
  operation,
  pagesInOrder,
  placeOfNumber,
} from '@cuaderno/core';
import type { Board, NumberLineSpec } from '@cuaderno/core';
import { somePages } from '@cuaderno/core/testing';
import * as fontkit from 'fontkit';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import { boardJson, itemsOfJson, readBoardFile, writeBoardFile } from '../board-file/index.js';
import { packOwn, unpackOwn } from '../pdf-annotations/own.js';
import { pageSvg } from '../svg-out/index.js';
import { testFonts } from '../testing/fonts.js';
import { boardPdf } from './index.js';

const FONT =
  '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff2';
const LINE: NumberLineSpec = {
  ...{ kind: 'number-line', order: 'a0', layer: 'material', from: -7, to: 13, step: 5 },
  ...{ labels: 'decimal', colour: '#000000', accent: '#c22f2f' },
  points: [{ at: 3, open: false }],
  jumps: [{ from: -7, to: -2 }],
  intervals: [{ from: -2, to: 8, openFrom: true, openTo: false }],
  frame: { x: 60, y: 100, width: 460, height: 110, turn: 0 },
};

function boardWith(line: NumberLineSpec): Board {
  const [page] = somePages(1);
  const draft = new BoardDraft(emptyBoard(newId()));
  const stamp = { by: newId(), at: 1, lesson: null };
  apply(operation({ kind: 'pages.add', pages: [page!] }), draft, stamp);
  apply(operation({ kind: 'item.add', page: page!.id, item: line }), draft, stamp);
  return draft.done();
}

describe('a number line', () => {
  it('measures its numbers as the font has them that is shipped', () => {
    const font = fontkit.openSync(createRequire(import.meta.url).resolve(FONT)) as fontkit.Font;
    for (const [sign, width] of Object.entries(DIGIT_WIDTHS)) {
      const glyph = font.glyphForCodePoint(sign.codePointAt(0)!);
      expect(glyph.advanceWidth / font.unitsPerEm)
        .withContext(sign)
        .toBeCloseTo(width, 3);
    }
  });

  it('is in a PDF with its numbers as words, under their ticks (poppler)', async () => {
    const pdf = await boardPdf(boardWith(LINE), {
      ...{ title: 'Tides', author: 'Maren', date: new Date(0), fonts: testFonts },
      ...{ file: () => Promise.reject(new Error('it is of no file')), deflate: deflateSync },
    });
    const path = join(mkdtempSync(join(tmpdir(), 'cuaderno-number-line-')), 'line.pdf');
    writeFileSync(path, pdf);
    execFileSync('qpdf', ['--check', path]);
    const words = execFileSync('pdftotext', ['-bbox', path, '-']).toString();
    for (const value of [-7, -2, 3, 8, 13]) {
      const text = String(value).replace('-', '−');
      const [, left, right] = new RegExp(
        `xMin="([\\d.]+)" yMin="[\\d.]+" xMax="([\\d.]+)" yMax="[\\d.]+">${text}<`,
      ).exec(words)!;
      // A minus sign stands before the digits, which lie under the tick.
      const middle = value < 0 ? Number(right) - 4 : (Number(left) + Number(right)) / 2;
      expect(Math.abs(middle - placeOfNumber(LINE, value).x))
        .withContext(text)
        .toBeLessThan(4);
    }
  });

  it('is in SVG as lines and words', () => {
    const [page] = pagesInOrder(boardWith(LINE));
    const svg = pageSvg(page!, false, {
      pictures: new Map(),
      print: null,
      fontFaces: '',
      plain: false,
    } as never);
    for (const text of ['−7', '−2', '3', '8', '13']) expect(svg).toContain(`>${text}</text>`);
  });

  it('comes back from a board file, and from a PDF’s annotation, as it was', async () => {
    const board = boardWith(LINE);
    const wish = { ink: 'all', people: null } as const;
    const source = {
      file: () => Promise.reject(new Error('it is of no file')),
      svg: () => Promise.resolve('<svg xmlns="http://www.w3.org/2000/svg"/>'),
    };
    const file = Buffer.concat(await writeBoardFile(board, wish, source));
    const { board: read } = readBoardFile(file, { bytes: 1_000_000, entries: 10 });
    const [item] = itemsOn(pagesInOrder(board)[0]!);
    expect(itemsOfJson(read.pages[0]!.items)).toEqual([item!]);
    expect(boardJson(board, [], wish).pages[0]!.items.length).toBe(1);
    expect(unpackOwn(packOwn(item!))).toEqual({ kind: 'placed', spec: LINE });
  });
});
