import { PDFName } from '@cantoo/pdf-lib';
import type { PDFDocument, PDFImage, PDFPage } from '@cantoo/pdf-lib';
import {
  drawGrounds,
  drawnOn,
  drawPaper,
  drawSignatures,
  drawStroke,
  drawItem,
  InkColumns,
  isMaterial,
  materialOn,
  pageToUserSpace,
  readStroke,
} from '@cuaderno/core';
import type { FileHash, Item, Matrix, Page, Author } from '@cuaderno/core';
import { MULTIPLY } from '../pdf-content/content-writer.js';
import type { ContentWriter } from '../pdf-content/content-writer.js';
import { packedStream } from '../pdf-content/packed-stream.js';

export interface PageDrawingOptions {
  readonly deflate: (bytes: Uint8Array) => Promise<Uint8Array>;
  readonly ink: 'drawn' | 'annotations' | 'none';
  /** By whose ink it is shown whose it is; empty where it isn't. */
  readonly authors: ReadonlyMap<string, Author>;
  /** How wide words are, in points. */
  readonly measure: (words: string, size: number) => number;
}

/** What is written on a page and lies over its material, in the order of drawing. */
export function writtenOn(page: Page): Item[] {
  const under = new Set<Item>(materialOn(page));
  return drawnOn(page).filter((item) => !under.has(item));
}

/** From points on a page to the user space of its page in the PDF. */
export function mapFor({ paper, height }: Page): Matrix {
  return paper.kind === 'pdf' ? pageToUserSpace(paper) : [1, 0, 0, -1, 0, height];
}

/** Lays tint or print of our own, material and ink over what was imported. */
export class PageDrawing {
  private readonly points = new InkColumns();
  /** What is being packed. */
  private readonly packing: Promise<void>[] = [];

  constructor(
    private readonly doc: PDFDocument,
    private readonly writer: ContentWriter,
    private readonly pictures: ReadonlyMap<FileHash, PDFImage>,
    private readonly options: PageDrawingOptions,
  ) {}

  /** Resolves when all that was drawn is in the file. */
  async packed(): Promise<void> {
    await Promise.all(this.packing);
  }

  add(page: Page, target: PDFPage): void {
    const { ink, authors } = this.options;
    const drawn = ink === 'drawn' ? drawnOn(page) : materialOn(page);
    const written =
      authors.size > 0 && ink !== 'none' ? writtenOn(page).filter((item) => !isMaterial(item)) : [];
    const { kind, tint } = page.paper;
    const print = (kind !== 'pdf' && kind !== 'plain') || tint !== undefined;
    if (!print && drawn.length === 0 && written.length === 0) return;
    this.writer.start(mapFor(page));
    this.writer.group((sink) => drawPaper(page.paper, page, sink));
    const authorOf = (id: string): Author | null => authors.get(id) ?? null;
    if (written.length > 0)
      for (const item of written) this.writer.group((sink) => drawGrounds([item], authorOf, sink));
    for (const item of drawn) this.draw(item);
    if (written.length > 0)
      this.writer.group((sink) => drawSignatures(written, authorOf, this.options.measure, sink));
    this.put(target);
  }

  private draw(item: Item): void {
    if (item.kind !== 'ink') {
      this.writer.group((sink) => drawItem(item, sink));
      return;
    }
    const style = readStroke(item.ink, this.points);
    this.writer.group((sink) => drawStroke(style, this.points, sink));
  }

  /** The content just written, over all that is on the page. */
  private put(target: PDFPage): void {
    const { writer, pictures } = this;
    const { context } = this.doc;
    const drawing = context.nextRef();
    this.packing.push(
      // The writer goes on with the next page meanwhile.
      this.options.deflate(writer.done().slice()).then((packed) => {
        const dict = context.obj({ Length: packed.length, Filter: 'FlateDecode' });
        context.assign(drawing, packedStream(dict, packed));
      }),
    );
    target.node.normalize();
    // The page's own content may leave its graphics state as it likes; ink begins from a clean one.
    target.node.wrapContentStreams(
      context.getPushGraphicsStateContentStream(),
      context.getPopGraphicsStateContentStream(),
    );
    if (writer.multiplies)
      target.node.setExtGState(
        PDFName.of(MULTIPLY),
        context.obj({ Type: 'ExtGState', BM: 'Multiply' }),
      );
    for (const [file, name] of writer.pictures)
      target.node.setXObject(PDFName.of(name), pictures.get(file)!.ref);
    for (const [name, font] of writer.fonts)
      target.node.setFontDictionary(PDFName.of(name), font.ref);
    target.node.addContentStream(drawing);
  }
}
