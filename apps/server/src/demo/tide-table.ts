import { degrees, PDFDocument, rgb, StandardFonts } from '@cantoo/pdf-lib';
import type { PDFFont, PDFPage } from '@cantoo/pdf-lib';

const SEA = rgb(0.05, 0.36, 0.45);
const GRID = rgb(0.72, 0.78, 0.8);

/** Height of the water at Solvik, a harbour that doesn't exist, in metres; `hours` from midnight on the 1st. */
function height(hours: number): number {
  // Two made-up harmonics with the periods of the moon's and the sun's half-daily tides.
  return (
    2.1 +
    1.35 * Math.cos((2 * Math.PI * hours) / 12.4206 - 1.1) +
    0.42 * Math.cos((2 * Math.PI * hours) / 12 - 0.4)
  );
}

interface TideTurn {
  readonly hours: number;
  readonly metres: number;
}

function turns(day: number): TideTurn[] {
  const found: TideTurn[] = [];
  const step = 1 / 60;
  for (let t = day * 24; t < (day + 1) * 24; t += step) {
    const [a, b, c] = [height(t - step), height(t), height(t + step)] as const;
    if ((b >= a && b > c) || (b <= a && b < c)) found.push({ hours: t, metres: b });
  }
  return found;
}

function clock(hours: number): string {
  const minutes = Math.round(hours * 60) % 1440;
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
}

/** Four pages: how to read a table, half a month of it, a curve on its side, and a cropped exercise. */
export async function tideTable(): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  doc.setTitle('Tides at Solvik, December');
  const font = await doc.embedFont(StandardFonts.Helvetica);
  const bold = await doc.embedFont(StandardFonts.HelveticaBold);
  month(doc.addPage([595.28, 841.89]), 0, font, bold);
  month(doc.addPage([595.28, 841.89]), 15, font, bold);
  // Drawn upright and shown turned, as scanners and office programs leave pages.
  const turned = doc.addPage([595.28, 841.89]);
  turned.setRotation(degrees(90));
  curve(turned, font, bold);
  const cropped = doc.addPage([595.28, 841.89]);
  exercise(cropped, font, bold);
  cropped.setCropBox(40, 300, 515, 510);
  return doc.save();
}

function month(page: PDFPage, from: number, font: PDFFont, bold: PDFFont): void {
  page.drawText('Tides at Solvik, December', { x: 56, y: 780, size: 20, font: bold, color: SEA });
  page.drawText('Times of high and low water, heights in metres. Made up for practice.', {
    x: 56,
    y: 760,
    size: 10,
    font,
  });
  ['Day', '1st', '', '2nd', '', '3rd', '', '4th', ''].forEach((head, i) =>
    page.drawText(head, { x: 60 + i * 54, y: 728, size: 11, font: bold }),
  );
  for (let i = 0; i < 15; i++) {
    const y = 702 - i * 42;
    page.drawLine({
      start: { x: 56, y: y + 22 },
      end: { x: 539, y: y + 22 },
      thickness: 0.5,
      color: GRID,
    });
    page.drawText(String(from + i + 1), { x: 60, y, size: 12, font: bold });
    turns(from + i)
      .slice(0, 4)
      .forEach(({ hours, metres }, k) => {
        page.drawText(clock(hours % 24), { x: 114 + k * 108, y, size: 12, font });
        page.drawText(metres.toFixed(1), {
          x: 168 + k * 108,
          y,
          size: 12,
          font: metres > 2.1 ? bold : font,
        });
      });
  }
}

/** Drawn for a page that is shown turned a quarter clockwise: along the sheet's long side. */
function curve(page: PDFPage, font: PDFFont, bold: PDFFont): void {
  const turned = degrees(90);
  const put = (along: number, up: number): { x: number; y: number } => ({ x: 595 - up, y: along });
  const text = (words: string, along: number, up: number, size: number, with_: PDFFont): void =>
    page.drawText(words, { ...put(along, up), size, font: with_, rotate: turned, color: SEA });
  text('Two days of water', 60, 540, 20, bold);
  text('Where would you let the boat in? Mark it.', 60, 516, 12, font);
  const at = (t: number, m: number): { x: number; y: number } =>
    put(60 + (t / 48) * 720, 90 + m * 95);
  for (let m = 0; m <= 4; m++) {
    page.drawLine({ start: at(0, m), end: at(48, m), thickness: 0.5, color: GRID });
    text(`${m} m`, 30, 86 + m * 95, 10, font);
  }
  for (let t = 0; t <= 48; t += 6) {
    page.drawLine({ start: at(t, 0), end: at(t, 4), thickness: 0.4, color: GRID });
    text(clock(t % 24), 50 + (t / 48) * 720, 68, 9, font);
  }
  for (let t = 0; t < 48; t += 0.25)
    page.drawLine({
      start: at(t, height(t)),
      end: at(t + 0.25, height(t + 0.25)),
      thickness: 1.8,
      color: SEA,
    });
}

function exercise(page: PDFPage, font: PDFFont, bold: PDFFont): void {
  page.drawText('Outside the crop: the key, for the tutor', { x: 60, y: 200, size: 12, font });
  page.drawText('The rule of twelfths', { x: 64, y: 770, size: 20, font: bold, color: SEA });
  page.drawText('In six hours the water rises 1, 2, 3, 3, 2 and 1 twelfths of its range.', {
    x: 64,
    y: 744,
    size: 12,
    font,
  });
  page.drawText('Low water 0.6 m at 06:10, high water 3.6 m at 12:20.', {
    x: 64,
    y: 716,
    size: 13,
    font,
  });
  [1, 2, 3, 3, 2, 1].forEach((twelfths, i) => {
    const x = 84 + i * 74;
    page.drawRectangle({
      x,
      y: 400,
      width: 52,
      height: twelfths * 70,
      borderColor: SEA,
      borderWidth: 1.2,
    });
    page.drawText(`${i + 1}. hour`, { x: x + 4, y: 382, size: 11, font });
  });
  page.drawText('How deep is it at 09:10?', { x: 64, y: 340, size: 14, font: bold });
}
