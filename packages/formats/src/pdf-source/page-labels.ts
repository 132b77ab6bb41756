import { PDFDict, PDFHexString, PDFName, PDFNumber } from '@cantoo/pdf-lib';
import type { PDFDocument } from '@cantoo/pdf-lib';
import { arrayOf, dictOf, dictsIn, nameOf, numberOf, textOf } from './values.js';

/** What a program calls a page beside its position (ISO 32000-1, 12.4.2): `iv`, `A-3` … */
export interface PageLabel {
  /** `D`, `R`, `r`, `A` or `a`; `null` where there is only what stands before. */
  readonly style: string | null;
  readonly before: string;
  readonly number: number;
}

const STYLES = ['D', 'R', 'r', 'A', 'a'];
const MOST = 100_000;

/** Labels of all pages; `null` where the file has none. */
export function readPageLabels(doc: PDFDocument): PageLabel[] | null {
  const root = dictOf(doc.catalog, 'PageLabels');
  if (!root) return null;
  const starts = new Map<number, PageLabel>();
  const seen = new Set<PDFDict>();
  const waiting = [root];
  for (let node = waiting.pop(); node; node = waiting.pop()) {
    if (seen.has(node)) continue;
    seen.add(node);
    waiting.push(...dictsIn(arrayOf(node, 'Kids')));
    const list = arrayOf(node, 'Nums');
    for (let i = 0; list && i + 1 < list.size() && starts.size < MOST; i += 2) {
      const [at, label] = [list.lookup(i), list.lookup(i + 1)];
      if (at instanceof PDFNumber && label instanceof PDFDict) starts.set(at.asNumber(), of(label));
    }
  }
  const labels: PageLabel[] = [];
  let last: PageLabel = { style: 'D', before: '', number: 1 };
  for (let i = 0; i < doc.getPageCount(); i++) {
    last = starts.get(i) ?? (i === 0 ? last : { ...last, number: last.number + 1 });
    labels.push(last);
  }
  return labels;
}

function of(label: PDFDict): PageLabel {
  const style = nameOf(label, 'S');
  const number = numberOf(label, 'St') ?? 1;
  return {
    style: style !== null && STYLES.includes(style) ? style : null,
    before: textOf(label, 'P'),
    number: Number.isInteger(number) && number > 0 ? number : 1,
  };
}

/** Writes the labels of all pages; a page without one is called by its position. */
export function writePageLabels(doc: PDFDocument, labels: readonly (PageLabel | null)[]): void {
  const { context, catalog } = doc;
  if (labels.every((label) => label === null)) {
    catalog.delete(PDFName.of('PageLabels'));
    return;
  }
  const list = context.obj([]);
  let last: PageLabel | null = null;
  labels.forEach((given, i) => {
    const label: PageLabel = given ?? { style: 'D', before: '', number: i + 1 };
    const goesOn: boolean =
      last !== null &&
      last.style === label.style &&
      last.before === label.before &&
      (label.style === null || last.number + 1 === label.number);
    if (!goesOn) {
      list.push(PDFNumber.of(i));
      list.push(
        context.obj({
          ...(label.style === null ? {} : { S: label.style }),
          ...(label.before === '' ? {} : { P: PDFHexString.fromText(label.before) }),
          ...(label.number === 1 ? {} : { St: label.number }),
        }),
      );
    }
    last = label;
  });
  catalog.set(PDFName.of('PageLabels'), context.obj({ Nums: list }));
}
