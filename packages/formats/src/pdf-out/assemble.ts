import { ParseSpeeds, PDFDocument, PDFName } from '@cantoo/pdf-lib';
import type { PDFPage, PDFRef } from '@cantoo/pdf-lib';
import type { FileHash, Page } from '@cuaderno/core';
import { dropActive } from '../pdf-source/active.js';
import { Destinations } from '../pdf-source/destinations.js';
import { cutLinks, keyOf, originOf, tieLinks } from '../pdf-source/links.js';
import type { PageKey } from '../pdf-source/links.js';
import { readOutline } from '../pdf-source/outline.js';
import type { OutlineEntry, WrittenEntry } from '../pdf-source/outline.js';
import { readPageLabels, writePageLabels } from '../pdf-source/page-labels.js';
import type { PageLabel } from '../pdf-source/page-labels.js';
import { dropUnreachable } from '../pdf-source/reachable.js';
import { dropStrayPages, SourceFile } from '../pdf-source/source-file.js';

/** A PDF with a page for each of the board's, on which nothing is written yet. */
export interface Assembled {
  readonly doc: PDFDocument;
  /** The contents that the brought files have, as far as they lead to pages of this one. */
  readonly contents: readonly WrittenEntry[];
}

/** Where a file has names for its places, and for more (ISO 32000-1, 7.7.4). */
const NAMES = ['Names', 'Dests'];

/** Bytes of a brought file. */
export type FileLoader = (hash: FileHash) => Promise<Uint8Array>;

/**
 * Puts brought pages and empty ones in the order of the board. Brought pages stay as they were, with their text,
 * links, contents and labels; what acts by itself and what is attached to a file stays behind.
 */
export async function assemble(pages: readonly Page[], file: FileLoader): Promise<Assembled> {
  return (await wholeFile(pages, file)) ?? (await copied(pages, file));
}

/** Opens a PDF that was brought; one that needed no password to be read needs none here. */
function load(bytes: Uint8Array): Promise<PDFDocument> {
  return PDFDocument.load(bytes, {
    password: '',
    updateMetadata: false,
    // Nothing else waits for this thread, so there is no need to pause for it.
    parseSpeed: ParseSpeeds.Fastest,
  });
}

/**
 * Where all brought pages are of one file, in its own order, that file is what we write on. `null` where they are
 * not.
 */
async function wholeFile(pages: readonly Page[], file: FileLoader): Promise<Assembled | null> {
  const papers = pages.flatMap(({ paper }) => (paper.kind === 'pdf' ? [paper] : []));
  const first = papers[0];
  if (!first || !papers.every((paper, i) => paper.file === first.file && paper.number === i + 1))
    return null;
  const doc = await load(await file(first.file));
  if (doc.getPageCount() !== papers.length) return null;
  const source = doc.getPages();
  const origin = originOf(doc, first.file);
  const keys = source.map((page, i) => keyOf(page, i, origin));
  const refs = new Map(keys.map((key, i) => [key, source[i]!.ref]));
  const destinations = new Destinations(doc);
  const outline = readOutline(doc, destinations);
  const labels = readPageLabels(doc);
  const active = dropActive(doc);
  cutLinks(source, destinations, keys);
  tieLinks(source, refs, 'go');
  // Each link says itself where it leads: names of places aren't needed any more.
  const named = NAMES.filter((key) => doc.catalog.delete(PDFName.of(key)));
  if (active || named.length > 0) dropUnreachable(doc.context);
  pages.forEach((page, i) => {
    if (page.paper.kind !== 'pdf') doc.insertPage(i, [page.width, page.height]);
  });
  if (labels) {
    const own = labels.values();
    writePageLabels(
      doc,
      pages.map(({ paper }) => (paper.kind === 'pdf' ? (own.next().value ?? null) : null)),
    );
  }
  return { doc, contents: entriesFor(outline, keys, refs) };
}

/** A new file, with copies of the brought pages in the order of the board. */
async function copied(pages: readonly Page[], file: FileLoader): Promise<Assembled> {
  const doc = await PDFDocument.create();
  const sources = new Map<FileHash, SourceFile>();
  const refs = new Map<PageKey, PDFRef>();
  const labels: (PageLabel | null)[] = [];
  const printed: PDFPage[] = [];
  for (const { paper, width, height } of pages) {
    if (paper.kind !== 'pdf') {
      doc.addPage([width, height]);
      labels.push(null);
      continue;
    }
    let source = sources.get(paper.file);
    if (!source)
      sources.set(
        paper.file,
        (source = new SourceFile(await load(await file(paper.file)), doc, paper.file)),
      );
    const page = source.copy(paper.number - 1);
    doc.addPage(page);
    printed.push(page);
    labels.push(source.labels?.[paper.number - 1] ?? null);
    const key = source.keys[paper.number - 1]!;
    if (!refs.has(key)) refs.set(key, page.ref);
  }
  tieLinks(printed, refs, 'go');
  dropStrayPages(doc);
  writePageLabels(doc, labels);
  const contents = [...sources.values()].flatMap(({ outline, keys }) =>
    entriesFor(outline, keys, refs),
  );
  return { doc, contents: eachOnce(contents) };
}

/** Parts of one file have the same entries that lead to the web. */
function eachOnce(entries: readonly WrittenEntry[]): WrittenEntry[] {
  const said = new Set<string>();
  return entries.filter(({ title, to, web, under }) => {
    if (to || !web || under.length > 0) return true;
    const key = `${title}\n${web}`;
    return !said.has(key) && said.add(key);
  });
}

/** Entries of a file's contents, without those that lead to no page of the new file nor to the web, and hold none that do. */
export function entriesFor(
  outline: readonly OutlineEntry[],
  keys: readonly PageKey[],
  refs: ReadonlyMap<PageKey, PDFRef>,
): WrittenEntry[] {
  return outline.flatMap(({ title, to, web, open, under }) => {
    const inner = entriesFor(under, keys, refs);
    const page = to && refs.get(keys[to.page]!);
    if (!page && !web && inner.length === 0) return [];
    return [{ title, to: page ? { page, view: to.view } : null, web, open, under: inner }];
  });
}
