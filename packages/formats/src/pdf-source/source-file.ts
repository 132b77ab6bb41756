import {
  PDFArray,
  PDFName,
  PDFNull,
  PDFObjectCopier,
  PDFPage,
  PDFPageLeaf,
  PDFPageTree,
} from '@cantoo/pdf-lib';
import type { PDFDocument, PDFDict } from '@cantoo/pdf-lib';
import { dropActive } from './active.js';
import { Destinations } from './destinations.js';
import { completeForm, drawFieldsIn } from './forms.js';
import { copyLayers } from './layers.js';
import { cutLinks, keyOf, originOf } from './links.js';
import type { PageKey } from './links.js';
import { readOutline } from './outline.js';
import type { OutlineEntry } from './outline.js';
import { readPageLabels } from './page-labels.js';
import type { PageLabel } from './page-labels.js';
import { dropUnreachable } from './reachable.js';
import { dictOf } from './values.js';

/** Entries of a page that lead to other parts of its file. */
const OUTWARD = ['B', 'StructParents', 'Tabs', 'TemplateInstantiated', 'PieceInfo', 'Thumb'];
/** Resources to which a page's drawing may be added by name. */
const NAMED = ['XObject', 'Font', 'ExtGState'];

/**
 * A brought PDF from which pages are copied into another: without what acts by itself, with its fields drawn in, and
 * with its links cut, so that a page takes along nothing but what is its own.
 */
export class SourceFile {
  readonly keys: readonly PageKey[];
  readonly outline: readonly OutlineEntry[];
  readonly labels: readonly PageLabel[] | null;
  private readonly copier: PDFObjectCopier;
  private layers = false;

  /** @param name by which the file is told from others; what it was a part of, if it was, has its own */
  constructor(
    private readonly source: PDFDocument,
    private readonly target: PDFDocument,
    readonly name: string,
  ) {
    const pages = source.getPages();
    const origin = originOf(source, name);
    this.keys = pages.map((page, i) => keyOf(page, i, origin));
    const destinations = new Destinations(source);
    dropActive(source);
    this.outline = readOutline(source, destinations);
    this.labels = readPageLabels(source);
    completeForm(source);
    drawFieldsIn(source, pages);
    cutLinks(pages, destinations, this.keys);
    this.copier = PDFObjectCopier.for(source.context, target.context);
  }

  /** A copy of a page, which isn't put into the new file yet; each copy is one by itself. */
  copy(index: number): PDFPage {
    const { context } = this.target;
    if (!this.layers) copyLayers(this.source, this.target, this.copier);
    this.layers = true;
    const node = this.copier.copy(this.source.getPage(index).node);
    for (const key of OUTWARD) node.delete(PDFName.of(key));
    // What a copy is added to isn't shared with another copy of the same page.
    for (const key of ['Annots', 'Contents']) {
      const list = node.lookup(PDFName.of(key));
      if (list instanceof PDFArray) node.set(PDFName.of(key), list.clone(context));
    }
    const shared = dictOf(node, 'Resources');
    if (shared) {
      const own = shared.clone(context);
      for (const key of NAMED) {
        const named = dictOf(shared, key);
        if (named) own.set(PDFName.of(key), named.clone(context));
      }
      node.set(PDFName.of('Resources'), own);
    }
    return PDFPage.of(node, context.register(node), this.target);
  }
}

/**
 * Empties pages that came along although they aren't pages of the new file: a hostile or a broken file may lead to its
 * other pages from anywhere.
 */
export function dropStrayPages(doc: PDFDocument): void {
  const root = doc.catalog.Pages();
  const own = new Set<PDFDict>([root]);
  root.traverse((node) => own.add(node));
  let found = false;
  for (const [ref, object] of doc.context.enumerateIndirectObjects())
    if ((object instanceof PDFPageLeaf || object instanceof PDFPageTree) && !own.has(object)) {
      doc.context.assign(ref, PDFNull);
      found = true;
    }
  if (found) dropUnreachable(doc.context);
}
