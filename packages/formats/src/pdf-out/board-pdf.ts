import { ParseSpeeds, PDFDocument, PDFName, PDFRawStream } from '@cantoo/pdf-lib';
import type { PDFImage, PDFPage } from '@cantoo/pdf-lib';
import {
  drawnOn,
  drawPaper,
  drawStroke,
  drawThing,
  InkColumns,
  itemsOn,
  materialOn,
  pagesInOrder,
  pageToUserSpace,
  readStroke,
} from '@cuaderno/core';
import type { Board, FileHash, Matrix, Page } from '@cuaderno/core';
import { ContentWriter, MULTIPLY } from './content-writer.js';
import { TextFonts } from './text-fonts.js';
import type { FontLoader } from './text-fonts.js';

export interface BoardPdfOptions {
  readonly title: string;
  readonly author: string;
  readonly date: Date;
  /** Whether what is written goes along; it does unless it is said not to. */
  readonly ink?: boolean;
  /** Bytes of an imported file. */
  readonly file: (hash: FileHash) => Promise<Uint8Array>;
  /** Files of our fonts. */
  readonly fonts: FontLoader;
  /** Compresses as zlib does (RFC 1950). */
  readonly deflate: (bytes: Uint8Array) => Uint8Array;
}

/**
 * A board as PDF. Imported pages stay as they were, with their own text and vectors; ink is drawn
 * on top of them as vectors, in the page's own user space, so that it lands in the right place on
 * cropped and turned pages too.
 */
export async function boardPdf(board: Board, options: BoardPdfOptions): Promise<Uint8Array> {
  const pages = pagesInOrder(board);
  const { ink = true } = options;
  const doc = (await wholeFile(pages, options)) ?? (await assembled(pages, options));
  const writer = new ContentWriter(await TextFonts.embed(doc, pages, options.fonts));
  const pictures = await embedPictures(doc, pages, options);
  pages.forEach((page, i) => {
    if (hasDrawing(page, ink)) addDrawing(doc, doc.getPage(i), page, writer, pictures, options);
  });
  doc.setTitle(options.title);
  doc.setAuthor(options.author);
  doc.setCreator('Cuaderno');
  doc.setProducer('Cuaderno');
  doc.setModificationDate(options.date);
  return doc.save({ objectsPerTick: Infinity });
}

/** Opens a PDF that was imported; one that needed no password to read needs none here. */
function load(bytes: Uint8Array): Promise<PDFDocument> {
  return PDFDocument.load(bytes, {
    password: '',
    updateMetadata: false,
    // Nothing else waits for this thread, so there is no need to pause for it.
    parseSpeed: ParseSpeeds.Fastest,
  });
}

/**
 * Where all imported pages are of one file, in its own order, that file is what we write on: its
 * outline, links and forms stay. `null` where they are not.
 */
async function wholeFile(
  pages: readonly Page[],
  { file }: BoardPdfOptions,
): Promise<PDFDocument | null> {
  const papers = pages.flatMap(({ paper }) => (paper.kind === 'pdf' ? [paper] : []));
  const first = papers[0];
  if (!first || !papers.every((paper, i) => paper.file === first.file && paper.number === i + 1))
    return null;
  const doc = await load(await file(first.file));
  if (doc.getPageCount() !== papers.length) return null;
  pages.forEach((page, i) => {
    if (page.paper.kind !== 'pdf') doc.insertPage(i, [page.width, page.height]);
  });
  return doc;
}

/** A new file, with copies of the imported pages in the order of the board. */
async function assembled(pages: readonly Page[], { file }: BoardPdfOptions): Promise<PDFDocument> {
  const doc = await PDFDocument.create();
  const sources = new Map<FileHash, PDFDocument>();
  for (const { paper } of pages) {
    if (paper.kind === 'pdf' && !sources.has(paper.file))
      sources.set(paper.file, await load(await file(paper.file)));
  }
  // Copied in one go for each file: fonts that its pages share are then copied once.
  const copies = new Map<FileHash, PDFPage[]>();
  for (const [hash, source] of sources) {
    const numbers = pages.flatMap(({ paper }) =>
      paper.kind === 'pdf' && paper.file === hash ? [paper.number - 1] : [],
    );
    copies.set(hash, await doc.copyPages(source, numbers));
  }
  for (const page of pages) {
    if (page.paper.kind === 'pdf') doc.addPage(copies.get(page.paper.file)!.shift()!);
    else doc.addPage([page.width, page.height]);
  }
  return doc;
}

/** Whether there is anything to add to what was imported. */
function hasDrawing(page: Page, ink: boolean): boolean {
  const { kind, tint } = page.paper;
  return (
    (kind !== 'pdf' && kind !== 'plain') ||
    tint !== undefined ||
    (ink ? drawnOn(page) : materialOn(page)).length > 0
  );
}

/** All pictures that lie on the pages, each once. */
async function embedPictures(
  doc: PDFDocument,
  pages: readonly Page[],
  { file }: BoardPdfOptions,
): Promise<ReadonlyMap<FileHash, PDFImage>> {
  const pictures = new Map<FileHash, PDFImage>();
  for (const page of pages)
    for (const item of itemsOn(page)) {
      const hash = item.kind === 'picture' ? item.file : item.kind === 'media' && item.poster;
      if (!hash || pictures.has(hash)) continue;
      const bytes = await file(hash);
      // Pictures are stored as PNG or JPEG, whatever they were.
      const isPng = bytes[0] === 0x89 && bytes[1] === 0x50;
      pictures.set(hash, await (isPng ? doc.embedPng(bytes) : doc.embedJpg(bytes)));
    }
  return pictures;
}

/** Lays tint or print of our own, material and the ink of `page` over all that is on `target`. */
function addDrawing(
  doc: PDFDocument,
  target: PDFPage,
  page: Page,
  writer: ContentWriter,
  pictures: ReadonlyMap<FileHash, PDFImage>,
  { deflate, ink = true }: BoardPdfOptions,
): void {
  writer.start(mapFor(page));
  writer.group((sink) => drawPaper(page.paper, page, sink));
  const points = new InkColumns();
  for (const item of ink ? drawnOn(page) : materialOn(page)) {
    if (item.kind !== 'ink') {
      writer.group((sink) => drawThing(item, sink));
      continue;
    }
    const style = readStroke(item.ink, points);
    writer.group((sink) => drawStroke(style, points, sink));
  }
  const packed = deflate(writer.done());
  const { context } = doc;
  const dict = context.obj({ Length: packed.length, Filter: 'FlateDecode' });
  const drawing = context.register(PDFRawStream.of(dict, packed));
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

function mapFor({ paper, height }: Page): Matrix {
  return paper.kind === 'pdf' ? pageToUserSpace(paper) : [1, 0, 0, -1, 0, height];
}
