import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';

/** Sixty sheets of text and lines, such as a workbook has. */
export async function workbook(pages: number): Promise<Buffer> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (let i = 1; i <= pages; i++) {
    const page = doc.addPage([595, 842]);
    // Once for the page: named for every line, its resources would hold the font 45 times.
    page.setFont(font);
    for (let line = 0; line < 45; line++) {
      const text = `${i}.${line} The tide that comes in at noon goes out again before the lamps are lit.`;
      page.drawText(text, { x: 50, y: 790 - line * 16, size: 11 });
      page.drawLine({
        start: { x: 50, y: 787 - line * 16 },
        end: { x: 545, y: 787 - line * 16 },
        thickness: 0.3,
      });
    }
  }
  return Buffer.from(await doc.save());
}
