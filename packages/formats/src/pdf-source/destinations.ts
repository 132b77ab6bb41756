import { PDFArray, PDFDict, PDFName, PDFNumber, PDFRef } from '@cantoo/pdf-lib';
import type { PDFDocument, PDFObject } from '@cantoo/pdf-lib';
import { arrayOf, dictOf, dictsIn, wordsOf } from './values.js';

/** A place in a PDF that links and contents lead to. */
export interface Destination {
  /** From 0. */
  readonly page: number;
  /** What is seen of it (ISO 32000-1, table 151): `XYZ`, `Fit` … with its numbers. */
  readonly view: readonly PDFObject[];
}

/** Names of places that are read at most. */
const MOST_NAMES = 100_000;

/** Finds where links of a file lead, by its pages and by the names that it has for places (12.3.2). */
export class Destinations {
  private readonly pages = new Map<string, number>();
  private names: Map<string, PDFObject> | null = null;

  constructor(private readonly doc: PDFDocument) {
    doc.getPages().forEach(({ ref }, i) => this.pages.set(ref.tag, i));
  }

  /** Where a link, an entry of the contents or an action leads; `null` where that isn't a page of the file. */
  of(source: PDFDict): Destination | null {
    const action = dictOf(source, 'A');
    const place = action
      ? action.lookup(PDFName.of('S')) === PDFName.of('GoTo') && action.lookup(PDFName.of('D'))
      : source.lookup(PDFName.of('Dest'));
    return place ? this.find(place) : null;
  }

  private find(place: PDFObject | undefined): Destination | null {
    if (place instanceof PDFDict) return this.explicit(place.lookup(PDFName.of('D')));
    if (place instanceof PDFName) {
      const old = dictOf(this.doc.catalog, 'Dests');
      const named = old?.lookup(place) ?? this.named(place.decodeText());
      return this.explicit(named instanceof PDFDict ? named.lookup(PDFName.of('D')) : named);
    }
    const name = wordsOf(place);
    if (name === null) return this.explicit(place);
    const named = this.named(name);
    return this.explicit(named instanceof PDFDict ? named.lookup(PDFName.of('D')) : named);
  }

  private explicit(place: PDFObject | undefined): Destination | null {
    if (!(place instanceof PDFArray) || place.size() === 0 || place.size() > 10) return null;
    const target = place.get(0);
    const view = place.asArray().slice(1);
    const page =
      target instanceof PDFRef
        ? this.pages.get(target.tag)
        : // Some programs count pages instead.
          target instanceof PDFNumber
          ? target.asNumber()
          : undefined;
    if (page === undefined || !Number.isInteger(page) || page < 0 || page >= this.pages.size)
      return null;
    return view.every(isPlain) ? { page, view } : null;
  }

  /** Of the tree of names (7.9.6). */
  private named(name: string): PDFObject | undefined {
    if (!this.names) {
      this.names = new Map();
      const names = dictOf(this.doc.catalog, 'Names');
      const root = names && dictOf(names, 'Dests');
      const seen = new Set<PDFDict>();
      const waiting = root ? [root] : [];
      for (let node = waiting.pop(); node; node = waiting.pop()) {
        if (seen.has(node)) continue;
        seen.add(node);
        waiting.push(...dictsIn(arrayOf(node, 'Kids')));
        const list = arrayOf(node, 'Names');
        for (let i = 0; list && i + 1 < list.size() && this.names.size < MOST_NAMES; i += 2) {
          const [key, value] = [wordsOf(list.lookup(i)), list.lookup(i + 1)];
          if (key !== null && value) this.names.set(key, value);
        }
      }
    }
    return this.names.get(name);
  }
}

/** Names, numbers and nothing: what a view is made of. */
function isPlain(part: PDFObject): boolean {
  return !(part instanceof PDFArray || part instanceof PDFDict || part instanceof PDFRef);
}
