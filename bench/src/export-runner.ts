import { PDFDocument } from '@cantoo/pdf-lib';
import { readFile, writeFile } from 'node:fs/promises';
import { pathToFileURL } from 'node:url';
import { valueSymbol } from 'piscina';
import { parentPort, workerData } from 'node:worker_threads';

/* A thread that exports a record as the server's does, or loads and saves a file as it is. */
const { exporter, what, task } = workerData as {
  exporter: string;
  what: { load: string } | { keep: string | null };
  task: unknown;
};
const { makeBoardPdf } = (await import(pathToFileURL(exporter).href)) as {
  /** As the worker hands it to the server: without a copy. */
  makeBoardPdf(task: unknown): Promise<{ [valueSymbol]: Uint8Array }>;
};

const began = performance.now();
const pdf =
  'load' in what
    ? await (await PDFDocument.load(await readFile(what.load))).save()
    : (await makeBoardPdf(task))[valueSymbol];
const ms = performance.now() - began;
if ('keep' in what && what.keep) await writeFile(what.keep, pdf);
parentPort!.postMessage(ms);
