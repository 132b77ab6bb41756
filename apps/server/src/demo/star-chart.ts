import { PDFDocument, rgb, StandardFonts } from '@cantoo/pdf-lib';
import type { PDFFont, PDFPage } from '@cantoo/pdf-lib';
import { chance } from '@cuaderno/core/testing';

const NIGHT = rgb(0.07, 0.11, 0.24);
const GRID = rgb(0.62, 0.68, 0.8);
const A4 = [595.28, 841.89] as [number, number];

/** Stars of a figure: across and up the sheet from 0 to 1, and how bright (larger is brighter). */
interface Constellation {
  readonly name: string;
  readonly task: string;
  readonly stars: readonly (readonly [x: number, y: number, size: number, name?: string])[];
  readonly lines: readonly (readonly [number, number])[];
}

// Figures drawn by eye for the demo: right enough to recognise, no atlas.
const FIGURES: Constellation[] = [
  {
    name: 'The Great Bear',
    task: 'Join the seven bright stars. Which two point to the Pole Star?',
    stars: [
      [0.72, 0.62, 4, 'Dubhe'],
      [0.7, 0.44, 3.4, 'Merak'],
      [0.53, 0.4, 3.2, 'Phecda'],
      [0.5, 0.54, 2.4, 'Megrez'],
      [0.38, 0.58, 3.8, 'Alioth'],
      [0.29, 0.62, 3.4, 'Mizar'],
      [0.16, 0.56, 3.6, 'Alkaid'],
    ],
    lines: [[3, 4]],
  },
  {
    name: 'Cassiopeia',
    task: 'Join the five stars. Is it an M or a W tonight?',
    stars: [
      [0.2, 0.55, 3, 'Segin'],
      [0.36, 0.42, 3.2, 'Ruchbah'],
      [0.5, 0.56, 3.8, 'Navi'],
      [0.66, 0.44, 3.9, 'Schedar'],
      [0.78, 0.6, 3.4, 'Caph'],
    ],
    lines: [],
  },
  {
    name: 'Orion',
    task: 'Circle the red giant. Underline the brightest star of the foot.',
    stars: [
      [0.38, 0.72, 4.4, 'Betelgeuse'],
      [0.62, 0.7, 3.2, 'Bellatrix'],
      [0.45, 0.5, 3, 'Alnitak'],
      [0.5, 0.515, 3, 'Alnilam'],
      [0.55, 0.53, 3, 'Mintaka'],
      [0.4, 0.28, 3, 'Saiph'],
      [0.64, 0.3, 4.6, 'Rigel'],
    ],
    lines: [
      [2, 3],
      [3, 4],
    ],
  },
];

/** The sky-watching class's star chart: an overview and a page for each figure. */
export async function starChart(): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  doc.setTitle('Star chart for November evenings');
  const font = await doc.embedFont(StandardFonts.Helvetica);
  const bold = await doc.embedFont(StandardFonts.HelveticaBold);
  overview(doc.addPage(A4), font, bold);
  for (const figure of FIGURES) drawFigure(doc.addPage(A4), figure, font, bold);
  table(doc.addPage(A4), font, bold);
  return doc.save();
}

function overview(page: PDFPage, font: PDFFont, bold: PDFFont): void {
  page.drawText('The sky on a November evening', {
    x: 56,
    y: 770,
    size: 22,
    font: bold,
    color: NIGHT,
  });
  page.drawText('Hold the sheet over your head, north to the north.', {
    x: 56,
    y: 746,
    size: 12,
    font,
  });
  const [cx, cy, r] = [297, 420, 230];
  page.drawCircle({ x: cx, y: cy, size: r, borderColor: NIGHT, borderWidth: 1.6 });
  for (const part of [1 / 3, 2 / 3])
    page.drawCircle({ x: cx, y: cy, size: r * part, borderColor: GRID, borderWidth: 0.5 });
  for (let i = 0; i < 12; i++) {
    const a = (i * Math.PI) / 6;
    page.drawLine({
      start: { x: cx, y: cy },
      end: { x: cx + r * Math.cos(a), y: cy + r * Math.sin(a) },
      thickness: 0.4,
      color: GRID,
    });
  }
  const random = chance(11);
  for (let i = 0; i < 260; i++) {
    const a = random() * 2 * Math.PI;
    const d = Math.sqrt(random()) * r * 0.97;
    page.drawCircle({
      x: cx + d * Math.cos(a),
      y: cy + d * Math.sin(a),
      size: 0.5 + random() ** 4 * 2.6,
      color: NIGHT,
    });
  }
  for (const [name, x, y] of [
    ['N', cx - 5, cy + r + 10],
    ['S', cx - 5, cy - r - 22],
    ['E', cx - r - 20, cy - 5],
    ['W', cx + r + 10, cy - 5],
  ] as const)
    page.drawText(name, { x, y, size: 14, font: bold, color: NIGHT });
  page.drawText('What do you find first? Mark it.', { x: 56, y: 110, size: 13, font });
}

function drawFigure(page: PDFPage, figure: Constellation, font: PDFFont, bold: PDFFont): void {
  page.drawText(figure.name, { x: 56, y: 770, size: 22, font: bold, color: NIGHT });
  page.drawText(figure.task, { x: 56, y: 744, size: 13, font });
  const at = ([x, y]: Constellation['stars'][number]): { x: number; y: number } => ({
    x: 60 + x * 475,
    y: 130 + y * 600,
  });
  for (const [a, b] of figure.lines)
    page.drawLine({
      start: at(figure.stars[a]!),
      end: at(figure.stars[b]!),
      thickness: 0.8,
      color: GRID,
    });
  for (const star of figure.stars) {
    const { x, y } = at(star);
    page.drawCircle({ x, y, size: star[2], color: NIGHT });
    if (star[3]) page.drawText(star[3], { x: x + 9, y: y - 14, size: 11, font });
  }
  const random = chance(figure.name.length);
  for (let i = 0; i < 70; i++)
    page.drawCircle({
      x: 60 + random() * 475,
      y: 160 + random() * 540,
      size: 0.4 + random() * 0.8,
      color: GRID,
    });
  page.drawRectangle({ x: 56, y: 60, width: 483, height: 64, borderColor: GRID, borderWidth: 0.8 });
  page.drawText('Seen on:', { x: 64, y: 106, size: 10, font });
}

function table(page: PDFPage, font: PDFFont, bold: PDFFont): void {
  page.drawText('My observations', { x: 56, y: 770, size: 22, font: bold, color: NIGHT });
  const columns = [56, 156, 276, 396, 539];
  ['Date', 'Figure', 'Where it stood', 'What I noticed'].forEach((head, i) =>
    page.drawText(head, { x: columns[i]! + 6, y: 726, size: 12, font: bold }),
  );
  for (let row = 0; row <= 12; row++) {
    const y = 744 - row * 50 + (row === 0 ? 0 : 18);
    page.drawLine({ start: { x: 56, y }, end: { x: 539, y }, thickness: 0.7, color: GRID });
  }
  for (const x of columns)
    page.drawLine({ start: { x, y: 744 }, end: { x, y: 162 }, thickness: 0.7, color: GRID });
  page.drawText('Cloudy? Write that down too: it counts.', { x: 56, y: 130, size: 11, font });
}
