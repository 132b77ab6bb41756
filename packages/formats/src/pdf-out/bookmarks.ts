import { PDFDict, PDFHexString, PDFName, PDFNumber, PDFRef } from '@cantoo/pdf-lib';
import type { PDFDocument } from '@cantoo/pdf-lib';
import type { Page } from '@cuaderno/core';

/** What the outline that a file brought along is called within ours. */
const OF_THE_FILE = 'Contents of the file';

/**
 * An outline by the names of the pages (ISO 32000-1, 12.3.3). The one that the imported file has is kept, as the
 * last entry of it; where no page has a name, it stays as it is.
 */
export function addBookmarks(doc: PDFDocument, pages: readonly Page[]): void {
  const named = pages.flatMap(({ name }, i) =>
    name === '' ? [] : [{ name, page: doc.getPage(i) }],
  );
  if (named.length === 0) return;
  const { context, catalog } = doc;
  const root = context.nextRef();
  const entries = named.map(({ name, page }) => ({
    ref: context.nextRef(),
    entry: {
      Title: PDFHexString.fromText(name),
      Parent: root,
      Dest: [page.ref, 'XYZ', null, null, null],
    } as Record<string, unknown>,
  }));
  const own = catalog.lookup(PDFName.of('Outlines'));
  if (
    own instanceof PDFDict &&
    !saysTheSame(
      own,
      named.map(({ name }) => name),
    )
  ) {
    const ref = context.nextRef();
    const [first, last] = [own.get(PDFName.of('First')), own.get(PDFName.of('Last'))];
    if (first instanceof PDFRef && last instanceof PDFRef) {
      let count = 0;
      for (const child of childrenOf(own)) {
        child.set(PDFName.of('Parent'), ref);
        count++;
      }
      // Closed, so that one sees the pages first.
      const entry = {
        Title: PDFHexString.fromText(OF_THE_FILE),
        Parent: root,
        First: first,
        Last: last,
      };
      entries.push({ ref, entry: { ...entry, Count: -count } });
    }
  }
  entries.forEach(({ ref, entry }, i) => {
    const [before, after] = [entries[i - 1], entries[i + 1]];
    if (before) entry['Prev'] = before.ref;
    if (after) entry['Next'] = after.ref;
    context.assign(ref, context.obj(entry as never));
  });
  const outline = {
    ...{ Type: 'Outlines', Count: PDFNumber.of(entries.length) },
    ...{ First: entries[0]!.ref, Last: entries[entries.length - 1]!.ref },
  };
  context.assign(root, context.obj(outline));
  catalog.set(PDFName.of('Outlines'), root);
}

/** Entries of the first level; as many as a broken chain gives. */
function childrenOf(outline: PDFDict): PDFDict[] {
  const children: PDFDict[] = [];
  const seen = new Set<PDFDict>();
  let next = outline.lookup(PDFName.of('First'));
  while (next instanceof PDFDict && !seen.has(next) && seen.size < 10_000) {
    seen.add(next);
    children.push(next);
    next = next.lookup(PDFName.of('Next'));
  }
  return children;
}

/** Whether pages are called as the file's own outline, of one level, calls them: then nothing of it is lost. */
function saysTheSame(outline: PDFDict, names: readonly string[]): boolean {
  const children = childrenOf(outline);
  return (
    children.length <= names.length &&
    children.every((child) => {
      const title = child.lookup(PDFName.of('Title'));
      const said = title && 'decodeText' in title ? (title as PDFHexString).decodeText() : '';
      return child.get(PDFName.of('First')) === undefined && names.includes(said.trim());
    })
  );
}
