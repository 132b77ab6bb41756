import {
  degrees,
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFNumber,
  StandardFonts,
} from '@cantoo/pdf-lib';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A PDF of so many pages, each with its number on it. */
export async function plainPdf(
  pages: number,
  size: [number, number] = [595, 842],
): Promise<Buffer> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (let i = 1; i <= pages; i++)
    doc.addPage(size).drawText(`Page ${i}`, { x: 50, y: 50, size: 20, font });
  return Buffer.from(await doc.save());
}

/** Pages cropped and turned in all four ways. */
export async function oddPdf(): Promise<Buffer> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (const angle of [0, 90, 180, 270]) {
    const page = doc.addPage([500, 700]);
    page.setCropBox(50, 100, 300, 400);
    page.setRotation(degrees(angle));
    page.drawText(`Turned by ${angle}`, { x: 80, y: 300, size: 18, font });
  }
  return Buffer.from(await doc.save());
}

/**
 * Page labels i, ii, A-1, A-2 … (ISO 32000-1, 12.4.2), and an outline that names pages 3, 5 and the
 * last, page 5 twice (12.3.3): once straight, once by a named destination, once within another.
 */
export async function namedPdf(pages: number): Promise<Buffer> {
  const doc = await PDFDocument.load(await plainPdf(pages, [200, 200]));
  const { context, catalog } = doc;
  const ref = (number: number) => doc.getPage(number - 1).ref;
  const labels = { Nums: [0, { S: 'r' }, 2, { S: 'D', P: PDFHexString.fromText('A-') }] };
  catalog.set(PDFName.of('PageLabels'), context.obj(labels));
  catalog.set(PDFName.of('Dests'), context.obj({ neap: [ref(5), 'Fit'] }));
  const [root, ebb, neap, again, answers] = Array.from({ length: 5 }, () => context.nextRef()) as [
    ...ReturnType<typeof context.nextRef>[],
  ];
  const entry = (title: string, rest: object) =>
    context.obj({ Title: PDFHexString.fromText(title), Parent: root!, ...rest } as never);
  context.assign(root!, context.obj({ First: ebb!, Last: answers!, Count: PDFNumber.of(3) }));
  context.assign(ebb!, entry('Ebb – 干潮', { Dest: [ref(3), 'Fit'], Next: neap! }));
  context.assign(
    neap!,
    entry(' Neap\u202e  tides ', {
      Dest: PDFName.of('neap'),
      Next: answers!,
      First: again!,
      Last: again!,
    }),
  );
  context.assign(again!, entry('Again', { Dest: [ref(5), 'Fit'], Parent: neap! }));
  context.assign(answers!, entry('Answers', { A: { S: 'GoTo', D: [ref(pages), 'Fit'] } }));
  catalog.set(PDFName.of('Outlines'), root!);
  return Buffer.from(await doc.save());
}

/** Locked with a password, by qpdf. */
export function lockedPdf(): Promise<Buffer> {
  return encrypted(['secret', 'owner', '256']);
}

/** One that anybody may read, and nobody may print or change, by qpdf. */
export function boundPdf(): Promise<Buffer> {
  return encrypted(['', 'owner', '256', '--print=none', '--modify=none']);
}

async function encrypted(how: readonly string[]): Promise<Buffer> {
  const folder = mkdtempSync(join(tmpdir(), 'cuaderno-locked-'));
  const [open, locked] = [join(folder, 'open.pdf'), join(folder, 'locked.pdf')] as const;
  writeFileSync(open, await plainPdf(1));
  execFileSync('qpdf', ['--encrypt', ...how, '--', open, locked]);
  return readFileSync(locked);
}
