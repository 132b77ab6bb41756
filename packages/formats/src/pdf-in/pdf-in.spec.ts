import { degrees, PDFDocument, PDFNumber, PDFName } from '@cantoo/pdf-lib';
import { inspectPdf, PdfError, sniffPdf } from './index.js';

const text = (words: string): Uint8Array => new TextEncoder().encode(words);

async function fault(bytes: Uint8Array): Promise<string> {
  try {
    await (await inspectPdf(bytes)).close();
    return 'none';
  } catch (error) {
    return error instanceof PdfError ? error.fault : String(error);
  }
}

async function made(pages: (doc: PDFDocument) => void): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  pages(doc);
  return doc.save();
}

describe('a file that is brought as PDF', () => {
  it('is read without slowing every array of the process down', () => {
    expect(Array.prototype.push.toString()).toContain('[native code]');
  });

  it('is known by its content: header in the first 1024 bytes, end mark in the last', () => {
    expect(() => sniffPdf(text('%PDF-1.7\n%%EOF'))).not.toThrow();
    expect(() => sniffPdf(text(`${' '.repeat(1000)}%PDF-1.7\n%%EOF\n\n`))).not.toThrow();
    const faults = ['', 'PK\u0003\u0004', '%PDF-1.7\n1 0 obj'].map((t) => {
      try {
        sniffPdf(text(t));
        return 'none';
      } catch (error) {
        return (error as PdfError).fault;
      }
    });
    expect(faults).toEqual(['empty', 'not-pdf', 'truncated']);
  });

  it('has its faults told apart', async () => {
    expect(await fault(text(''))).toBe('empty');
    expect(await fault(text('<html></html>'))).toBe('not-pdf');
    expect(await fault(text('%PDF-1.4\nrubbish\n%%EOF'))).toBe('broken');
    const whole = await made((doc) => void doc.addPage());
    expect(await fault(whole.slice(0, whole.length - 40))).toBe('truncated');
    expect(await fault(whole)).toBe('none');
  });

  it('tells crop box, turn and unit of each page', async () => {
    const bytes = await made((doc) => {
      doc.addPage([300, 400]);
      const odd = doc.addPage([300, 400]);
      odd.setCropBox(10, 20, 100, 200);
      odd.setRotation(degrees(-90));
      odd.node.set(PDFName.of('UserUnit'), PDFNumber.of(2));
    });
    const pdf = await inspectPdf(bytes);
    expect(pdf.count).toBe(2);
    expect(await pdf.placement(1)).toEqual({ box: [0, 0, 300, 400], rotate: 0, unit: 1 });
    expect(await pdf.placement(2)).toEqual({ box: [10, 20, 110, 220], rotate: 270, unit: 2 });
    await pdf.close();
  });
});
