import { PDFHexString, PDFName, PDFNumber, PDFString } from '@cantoo/pdf-lib';
import type { PDFContext, PDFDocument, PDFObject, PDFRef, PDFDict } from '@cantoo/pdf-lib';
import type { Destinations } from './destinations.js';
import type { Destination } from './destinations.js';
import { addressOf } from './address.js';
import { dictOf, numberOf, textOf } from './values.js';

/** An entry of the contents of a file (ISO 32000-1, 12.3.3). */
export interface OutlineEntry {
  readonly title: string;
  /** Where it leads; `null` where that is nowhere in the file. */
  readonly to: Destination | null;
  /** The address that it leads to outside of it; `null` for none. */
  readonly web: string | null;
  /** Whether what is under it is shown at first. */
  readonly open: boolean;
  readonly under: readonly OutlineEntry[];
}

/** Entries that are read at most, and how deep. */
const MOST = 10_000;
const DEEPEST = 30;

/** Dictionaries of all entries; as many as a broken chain gives. */
export function outlineEntries(catalog: PDFDict): Set<PDFDict> {
  const seen = new Set<PDFDict>();
  const root = dictOf(catalog, 'Outlines');
  const waiting = [root && dictOf(root, 'First')];
  while (waiting.length > 0 && seen.size < MOST) {
    const entry = waiting.pop();
    if (!entry || seen.has(entry)) continue;
    seen.add(entry);
    waiting.push(dictOf(entry, 'Next'), dictOf(entry, 'First'));
  }
  return seen;
}

export function readOutline(doc: PDFDocument, destinations: Destinations): OutlineEntry[] {
  const seen = new Set<PDFDict>();
  const level = (first: PDFDict | null, depth: number): OutlineEntry[] => {
    const entries: OutlineEntry[] = [];
    for (let next = first; next && !seen.has(next) && seen.size < MOST;) {
      seen.add(next);
      entries.push({
        title: textOf(next, 'Title').trim(),
        to: destinations.of(next),
        web: addressOf(dictOf(next, 'A')),
        open: (numberOf(next, 'Count') ?? 0) > 0,
        under: depth < DEEPEST ? level(dictOf(next, 'First'), depth + 1) : [],
      });
      next = dictOf(next, 'Next');
    }
    return entries;
  };
  const root = dictOf(doc.catalog, 'Outlines');
  return root ? level(dictOf(root, 'First'), 0) : [];
}

/** Writes entries as the contents of a file, in place of what it had. */
export function writeOutline(doc: PDFDocument, entries: readonly WrittenEntry[]): void {
  const { context, catalog } = doc;
  if (entries.length === 0) {
    catalog.delete(PDFName.of('Outlines'));
    return;
  }
  const root = context.nextRef();
  const { first, last, shown } = level(context, root, entries);
  context.assign(
    root,
    context.obj({ Type: 'Outlines', First: first, Last: last, Count: PDFNumber.of(shown) }),
  );
  catalog.set(PDFName.of('Outlines'), root);
}

/** An entry that leads to a page of the file that is written, or to the web, or only holds others. */
export interface WrittenEntry {
  readonly title: string;
  readonly to: { readonly page: PDFRef; readonly view: readonly PDFObject[] } | null;
  readonly web?: string | null;
  readonly open: boolean;
  readonly under: readonly WrittenEntry[];
}

/** One level of entries. `shown` counts those that are seen while the level is open. */
function level(
  context: PDFContext,
  parent: PDFRef,
  entries: readonly WrittenEntry[],
): { first: PDFRef; last: PDFRef; shown: number } {
  const refs = entries.map(() => context.nextRef());
  let shown = entries.length;
  entries.forEach(({ title, to, web, open, under }, i) => {
    const entry: Record<string, unknown> = { Title: PDFHexString.fromText(title), Parent: parent };
    if (to) entry['Dest'] = [to.page, ...to.view];
    // ASCII, and whatever else was in it as it was (12.6.4.7).
    else if (web) entry['A'] = { S: 'URI', URI: PDFString.of(web.replace(/[\\()]/g, '\\$&')) };
    if (i > 0) entry['Prev'] = refs[i - 1];
    if (i < refs.length - 1) entry['Next'] = refs[i + 1];
    if (under.length > 0) {
      const inner = level(context, refs[i]!, under);
      entry['First'] = inner.first;
      entry['Last'] = inner.last;
      entry['Count'] = open ? inner.shown : -inner.shown;
      if (open) shown += inner.shown;
    }
    context.assign(refs[i]!, context.obj(entry as never));
  });
  return { first: refs[0]!, last: refs[refs.length - 1]!, shown };
}
