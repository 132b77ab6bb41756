import { A4 } from '../board/index.js';
import type { Page, PlacedItem } from '../board/index.js';
import { newId } from '../id/index.js';
import type { ItemSpec } from '../kinds/index.js';
import { keysBetween } from '../order/index.js';
import { BASELINE, layOutText, LINE_HEIGHT } from '../text/index.js';
import type { Measure, PlacedLine, RichText } from '../text/index.js';

/** A part of what follows a record's own pages: it begins on a page of its own, or under the one before it. */
export interface AppendixPart {
  readonly heading: string;
  /** Name of its pages; a part without one follows the part before it. */
  readonly page?: string;
  /** A line under the heading, of what and when it is. */
  readonly under?: string;
  readonly body: AppendixBody;
}

export type AppendixBody =
  | { readonly kind: 'words'; readonly words: string }
  | {
      readonly kind: 'table';
      /** Parts of the width that each column takes; they come to 1. */
      readonly widths: readonly number[];
      readonly header: readonly string[];
      readonly rows: readonly (readonly string[])[];
    };

/** Fonts of the headings and of everything else, each in a size in points. */
export interface AppendixFonts {
  readonly title: (size: number) => Measure;
  readonly plain: (size: number) => Measure;
}

/** Margins of a page, and sizes of letters, in points. */
const MARGIN = 57;
const WIDTH = A4.width - 2 * MARGIN;
const BOTTOM = A4.height - MARGIN;
const HEADING = 19;
const BODY = 11;
const SMALL = 9.5;
/** Space between columns, between rows, and after a part. */
const GAP = 12;
const ROW = 5;
const AFTER = 22;
const INK = '#22242a';
const SOFT = '#5b5f68';
const RULE = '#c9c6bd';

/** Parts laid out on as many A4 pages as they need; words that don't fit go on on the next one. */
export function appendixPages(parts: readonly AppendixPart[], fonts: AppendixFonts): Page[] {
  const writer = new PageWriter(fonts);
  for (const part of parts) {
    if (part.page !== undefined) writer.begin(part.page);
    writer.words(part.heading, { font: 'title', size: HEADING, bold: true }, 8);
    if (part.under) writer.words(part.under, { size: SMALL, colour: SOFT }, 12);
    if (part.body.kind === 'words') writer.words(part.body.words, {}, AFTER);
    else writer.table(part.body);
  }
  return writer.done();
}

interface AppendixLook {
  readonly font?: 'plain' | 'title';
  readonly size?: number;
  readonly bold?: boolean;
  readonly colour?: string;
}

class PageWriter {
  private readonly pages: { name: string; items: ItemSpec[] }[] = [];
  private y = MARGIN;

  constructor(private readonly fonts: AppendixFonts) {}

  begin(name: string): void {
    this.pages.push({ name, items: [] });
    this.y = MARGIN;
  }

  /** @param after space under it, in points */
  words(words: string, look: AppendixLook, after: number): void {
    let { lines } = this.laid(words, WIDTH, look);
    while (lines.length > 0) {
      const fit = Math.min(lines.length, this.room(look));
      if (fit === 0) {
        this.goOn();
        continue;
      }
      this.place(lines.slice(0, fit), MARGIN, WIDTH, look);
      this.y += heightOf(lines.slice(0, fit), look);
      lines = lines.slice(fit);
    }
    this.y += after;
  }

  table({ widths, header, rows }: Extract<AppendixBody, { kind: 'table' }>): void {
    const head: AppendixLook = { bold: true, size: SMALL, colour: SOFT };
    this.row(header, widths, head);
    for (const row of rows) {
      const before = this.pages.length;
      this.row(row, widths, {}, () => this.row(header, widths, head));
      if (this.pages.length === before) this.rule();
    }
    this.y += AFTER;
  }

  done(): Page[] {
    const orders = keysBetween(null, null, Math.max(1, this.pages.length));
    return this.pages.map(({ name, items }, i): Page => {
      const keys = keysBetween(null, null, Math.max(1, items.length));
      const placed = items.map((item, n): PlacedItem => {
        const id = newId();
        return { ...item, order: keys[n]!, id, by: '', at: 0, lesson: null, removed: null };
      });
      return {
        id: newId(),
        order: orders[i]!,
        name,
        ...A4,
        paper: { kind: 'plain' },
        removed: null,
        items: new Map(placed.map((item) => [item.id, item])),
      };
    });
  }

  /** One row, its cells as high as the highest; a cell that is longer than a page goes on on the next one. */
  private row(
    cells: readonly string[],
    widths: readonly number[],
    look: AppendixLook,
    onNewPage?: () => void,
  ): void {
    let columns = cells.map(
      (words, i) => this.laid(words, (widths[i] ?? 0) * WIDTH - GAP, look).lines,
    );
    while (columns.some((lines) => lines.length > 0)) {
      const fit = Math.min(Math.max(...columns.map((lines) => lines.length)), this.room(look));
      if (fit === 0) {
        this.goOn();
        onNewPage?.();
        continue;
      }
      let x = MARGIN;
      columns.forEach((lines, i) => {
        const wide = (widths[i] ?? 0) * WIDTH;
        if (lines.length > 0) this.place(lines.slice(0, fit), x, wide - GAP, look);
        x += wide;
      });
      this.y += fit * lineOf(look) + ROW;
      columns = columns.map((lines) => lines.slice(fit));
    }
  }

  private rule(): void {
    this.page.items.push({
      kind: 'shape',
      shape: 'line',
      frame: { x: MARGIN, y: this.y - ROW / 2, width: WIDTH, height: 1, turn: 0 },
      points: [
        [0, 0],
        [1, 0],
      ],
      outline: { colour: RULE, width: 0.5 },
      fill: null,
      order: 'a0',
      layer: 'material',
    });
    this.y += ROW / 2;
  }

  private laid(words: string, width: number, look: AppendixLook): { lines: readonly PlacedLine[] } {
    const { font = 'plain', size = BODY } = look;
    return layOutText(textOf(words, look), { size, width, align: 'start' }, this.fonts[font](size));
  }

  private place(lines: readonly PlacedLine[], x: number, width: number, look: AppendixLook): void {
    const { font = 'plain', size = BODY, colour = INK } = look;
    const first = lines[0]!.y - BASELINE * size;
    const said = lines.map(({ runs }) => runs.map(({ text }) => text).join('')).join('\n');
    this.page.items.push({
      kind: 'text',
      frame: { x, y: this.y, width, height: Math.max(1, heightOf(lines, look)), turn: 0 },
      text: textOf(said, look),
      font,
      size,
      colour,
      align: 'start',
      slip: null,
      lines: lines.map(({ y, runs }) => ({ y: y - first, runs: [...runs] })),
      order: 'a0',
      layer: 'material',
    });
  }

  /** Lines that fit on the page. */
  private room(look: AppendixLook): number {
    return Math.max(0, Math.floor((BOTTOM - this.y) / lineOf(look)));
  }

  private goOn(): void {
    this.begin(this.page.name);
  }

  private get page(): { name: string; items: ItemSpec[] } {
    if (this.pages.length === 0) this.begin('');
    return this.pages[this.pages.length - 1]!;
  }
}

function lineOf({ size = BODY }: AppendixLook): number {
  return size * LINE_HEIGHT;
}

function heightOf(lines: readonly PlacedLine[], look: AppendixLook): number {
  return lines.length * lineOf(look);
}

function textOf(words: string, { bold }: AppendixLook): RichText {
  return words
    .split(/\r?\n/)
    .map((text) => ({ runs: text === '' ? [] : [{ text, ...(bold ? { bold } : {}) }] }));
}
