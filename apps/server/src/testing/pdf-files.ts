import { degrees, PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
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

/** Locked with a password, by qpdf. */
export async function lockedPdf(): Promise<Buffer> {
  const folder = mkdtempSync(join(tmpdir(), 'cuaderno-locked-'));
  const [open, locked] = [join(folder, 'open.pdf'), join(folder, 'locked.pdf')] as const;
  writeFileSync(open, await plainPdf(1));
  execFileSync('qpdf', ['--encrypt', 'secret', 'owner', '256', '--', open, locked]);
  return readFileSync(locked);
}
