import { degrees, PDFArray, PDFDocument, PDFName, rgb, StandardFonts } from '@cantoo/pdf-lib';

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

/** Sheets on each of which another program has written so many lines: ink annotations (ISO 32000-2, 12.5.6.13). */
export async function writtenOnPdf(pages: number, lines: number): Promise<Buffer> {
  const doc = await PDFDocument.load(await samplePdf(pages));
  const { context } = doc;
  for (const page of doc.getPages()) {
    const annotations = Array.from({ length: lines }, (_, i) => {
      const y = 700 - (i % 60) * 10;
      const path = Array.from({ length: 20 }, (_, at) => [60 + at * 10, y + (at % 3)]).flat();
      return context.register(
        context.obj({
          ...{ Type: 'Annot', Subtype: 'Ink', Rect: [55, y - 5, 265, y + 8], F: 4 },
          ...{ C: [0.1, 0.2, 0.6], InkList: [path], BS: { W: 2 } },
        }),
      );
    });
    const list = PDFArray.withContext(context);
    for (const one of annotations) list.push(one);
    page.node.set(PDFName.of('Annots'), list);
  }
  return Buffer.from(await doc.save());
}
