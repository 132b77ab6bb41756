import { degrees, PDFDocument, rgb, StandardFonts } from '@cantoo/pdf-lib';

/** Sheets with their number and some lines on them. */
export async function samplePdf(pages: number): Promise<Buffer> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (let i = 1; i <= pages; i++) {
    const page = doc.addPage([595, 842]);
    page.drawText(`Sheet ${i} of ${pages}`, { x: 60, y: 780, size: 20, font });
    page.drawRectangle({
      x: 60,
      y: 60,
      width: 475,
      height: 90,
      borderWidth: 1,
      borderColor: rgb(0.6, 0.6, 0.6),
    });
  }
  return Buffer.from(await doc.save());
}

/** Cropped pages, turned in all four ways. */
export async function oddPdf(): Promise<Buffer> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (const angle of [0, 90, 180, 270]) {
    const page = doc.addPage([600, 800]);
    page.setCropBox(100, 150, 360, 480);
    page.setRotation(degrees(angle));
    page.drawText(`Turned by ${angle}`, { x: 130, y: 200, size: 18, font });
  }
  return Buffer.from(await doc.save());
}
