import type { PDFDocument, PDFImage } from '@cantoo/pdf-lib';
import { itemsOn, pagesInOrder, picturesOf, placeOf } from '@cuaderno/core';
import type { Board, FileHash, Page, Author } from '@cuaderno/core';
import { lendFonts } from '../lent-fonts/lend.js';
import { AnnotationWriter } from '../pdf-annotations/write.js';
import { setMetadata } from './metadata.js';
import { assemble } from './assemble.js';
import { addBookmarks } from './bookmarks.js';
import type { PageGroup } from './bookmarks.js';
import { ContentWriter } from '../pdf-content/content-writer.js';
import { LayingUnder } from './lay-under.js';
import { mapFor, PageDrawing, writtenOn } from './page-drawing.js';
import { TextFonts } from '../pdf-content/text-fonts.js';
import type { FontLoader } from '../pdf-content/text-fonts.js';

export interface BoardPdfOptions {
  readonly title: string;
  readonly author: string;
  readonly date: Date;
  /**
   * How what is written goes along: drawn into the pages, which is what it does unless it is said otherwise; as
   * annotations that other programs list and edit; or not at all.
   */
  readonly ink?: 'drawn' | 'annotations' | 'none';
  /** Who wrote it; who isn't known here counts as the author. */
  readonly people?: ReadonlyMap<string, Author>;
  /** Whether it is shown whose each line is. */
  readonly signed?: boolean;
  /** Pages that follow the board's own. */
  readonly after?: readonly Page[];
  /** Of its words (BCP 47); not said where it isn't known. */
  readonly language?: string;
  /** What the boards of a record are called, where it is of several: see `core/records`. */
  readonly boards?: readonly string[];
  /** Bytes of an imported file. */
  readonly file: (hash: FileHash) => Promise<Uint8Array>;
  /** Files of our fonts. */
  readonly fonts: FontLoader;
  /** Compresses as zlib does (RFC 1950). */
  readonly deflate: (bytes: Uint8Array) => Uint8Array;
  /** The same for whole pages, while the next one is drawn; where there is none, they are packed one by one. */
  readonly deflateBeside?: (bytes: Uint8Array) => Promise<Uint8Array>;
}

/**
 * A board as PDF. Imported pages stay as they were, with their own text and vectors; ink is drawn
 * on top of them as vectors, in the page's own user space, so that it lands in the right place on
 * cropped and turned pages too. Fonts that their files only name are put in, where we have such ones.
 */
export async function boardPdf(board: Board, options: BoardPdfOptions): Promise<Uint8Array> {
  const own = pagesInOrder(board);
  const { after = [], people = new Map<string, Author>(), signed = false } = options;
  const pages = [...own, ...after];
  const { doc, contents } = await assemble(pages, options.file);
  await lendFonts(doc, options);
  const initials = signed ? [...people.values()].map((person) => person.initials) : [];
  const fonts = await TextFonts.embed(doc, pages, options.fonts, initials);
  const writer = new ContentWriter(fonts);
  const pictures = await embedPictures(doc, pages, options);
  const annotations = new AnnotationWriter(doc, {
    ...{ writer, pictures, deflate: options.deflate },
    nameOf: (id) => people.get(id)?.name ?? options.author,
  });
  const drawing = new PageDrawing(doc, writer, pictures, {
    deflate: options.deflateBeside ?? ((bytes) => Promise.resolve(options.deflate(bytes))),
    ink: options.ink ?? 'drawn',
    authors: signed ? people : new Map<string, Author>(),
    measure: (words, size) => fonts.measure(words, size),
  });
  const under = new LayingUnder(doc, options.ink ?? 'drawn');
  pages.forEach((page, i) => {
    const target = doc.getPage(i);
    under.add(page, target);
    drawing.add(page, target);
    if (options.ink === 'annotations' && i < own.length)
      annotations.add(writtenOn(page), target, mapFor(page));
  });
  await drawing.packed();
  addBookmarks(doc, pages, contents, groupsOf(own, options.boards ?? []));
  setMetadata(doc, options);
  return doc.save({ objectsPerTick: Infinity });
}

/** How many pages each board of a record has; none where it is of one. */
function groupsOf(pages: readonly Page[], boards: readonly string[]): PageGroup[] {
  if (boards.length < 2) return [];
  return boards.map((title, place) => ({
    title,
    count: pages.filter((page) => placeOf(page) === place).length,
  }));
}

/** All pictures that lie on the pages, each once. */
async function embedPictures(
  doc: PDFDocument,
  pages: readonly Page[],
  { file }: BoardPdfOptions,
): Promise<ReadonlyMap<FileHash, PDFImage>> {
  const pictures = new Map<FileHash, PDFImage>();
  for (const page of pages)
    for (const hash of itemsOn(page).flatMap((item) =>
      item.kind === 'ink' ? [] : picturesOf(item),
    )) {
      if (pictures.has(hash)) continue;
      const bytes = await file(hash);
      // Pictures are stored as PNG or JPEG, whatever they were.
      const isPng = bytes[0] === 0x89 && bytes[1] === 0x50;
      pictures.set(hash, await (isPng ? doc.embedPng(bytes) : doc.embedJpg(bytes)));
    }
  return pictures;
}
