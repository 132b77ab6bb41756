import { BlendMode, LineCapStyle, PDFDocument, rgb } from '@cantoo/pdf-lib';
import type { Color, PDFPage } from '@cantoo/pdf-lib';
import { readFile, writeFile } from 'node:fs/promises';
import { pathToFileURL } from 'node:url';
import { valueSymbol } from 'piscina';
import { parentPort, workerData } from 'node:worker_threads';
import type { BoardPdfTask } from '../../apps/server/dist/records/board-pdf-worker.js';

/** A path of ink, as the PDF library is given it. */
export interface InkPath {
  /** Of the page, from 0. */
  readonly page: number;
  /** As SVG has it, in points from the top left corner. */
  readonly data: string;
  /** `#rrggbb` */
  readonly colour: string;
  readonly multiply: boolean;
  /** Of the pen, in points; `null` where the path is filled. */
  readonly width: number | null;
}

/*
 * A thread that exports a record as the server's does; or draws the same ink on the same sheets by the PDF library's own
 * calls; or loads and saves a file as it is.
 */
const { exporter, what, task } = workerData as {
  exporter: string;
  what: { load: string } | { draw: { sheets: string; ink: string } } | { keep: string | null };
  task: BoardPdfTask;
};
const { makeBoardPdf } = (await import(pathToFileURL(exporter).href)) as {
  /** As the worker hands it to the server: without a copy. */
  makeBoardPdf(task: BoardPdfTask): Promise<{ [valueSymbol]: Uint8Array }>;
};

function colourOf(hex: string): Color {
  const part = (at: number): number => parseInt(hex.slice(at, at + 2), 16) / 255;
  return rgb(part(1), part(3), part(5));
}

function drawOn(page: PDFPage, { data, colour, multiply, width }: InkPath): void {
  page.drawSvgPath(data, {
    ...{ x: 0, y: page.getHeight() },
    ...(multiply ? { blendMode: BlendMode.Multiply } : {}),
    ...(width === null
      ? { color: colourOf(colour), borderWidth: 0 }
      : {
          ...{ borderColor: colourOf(colour), borderWidth: width },
          borderLineCap: LineCapStyle.Round,
        }),
  });
}

async function drawn(sheets: string, ink: readonly InkPath[]): Promise<Uint8Array> {
  const doc = await PDFDocument.load(await readFile(sheets));
  const pages = doc.getPages();
  for (const path of ink) drawOn(pages[path.page]!, path);
  return doc.save();
}

// What is to be drawn is there already: reading a log and shaping lines is no part of the library's work.
const ink = 'draw' in what ? (JSON.parse(await readFile(what.draw.ink, 'utf8')) as InkPath[]) : [];
const began = performance.now();
const pdf =
  'load' in what
    ? await (await PDFDocument.load(await readFile(what.load))).save()
    : 'draw' in what
      ? await drawn(what.draw.sheets, ink)
      : (await makeBoardPdf(task))[valueSymbol];
const ms = performance.now() - began;
if ('keep' in what && what.keep) await writeFile(what.keep, pdf);
parentPort!.postMessage(ms);
