import { PDFDocument } from '@cantoo/pdf-lib';

/** A file without some of its pages, and each of those as a file of its own. */
export interface Separated {
  /** The others at their numbers; empty sheets stand where pages were taken. */
  readonly rest: Uint8Array;
  /** A file of one page for each page that was taken, in the order that was asked for. */
  readonly taken: readonly Uint8Array[];
}

/**
 * Takes pages out of a PDF so that nothing of them is left in it: what they alone used is not
 * written either. Their own text and vectors stay as they were.
 * @param numbers of the pages to be taken, from 1
 */
export async function separatePdf(
  bytes: Uint8Array,
  numbers: readonly number[],
): Promise<Separated> {
  const source = await PDFDocument.load(bytes, { password: '', updateMetadata: false });
  const gone = new Set(numbers);
  const rest = await PDFDocument.create();
  const stay = source.getPageIndices().filter((i) => !gone.has(i + 1));
  const copies = await rest.copyPages(source, stay);
  for (const i of source.getPageIndices()) {
    if (gone.has(i + 1)) rest.addPage([72, 72]);
    else rest.addPage(copies.shift()!);
  }
  const taken: Uint8Array[] = [];
  for (const number of numbers) {
    const single = await PDFDocument.create();
    const [page] = await single.copyPages(source, [number - 1]);
    single.addPage(page!);
    taken.push(await single.save());
  }
  return { rest: await rest.save(), taken };
}
