import { PDFDocument } from '@cantoo/pdf-lib';
import { readFile } from 'node:fs/promises';
import { pathToFileURL } from 'node:url';
import { parentPort, workerData } from 'node:worker_threads';

/* A thread that exports a record as the server's does, or loads and saves the plain file. */
const { exporter, kind, path, task } = workerData as {
  exporter: string;
  kind: 'plain' | 'record';
  path: string;
  task: unknown;
};
const { makeRecordPdf } = (await import(pathToFileURL(exporter).href)) as {
  makeRecordPdf(task: unknown): Promise<unknown>;
};

const began = performance.now();
if (kind === 'plain') await (await PDFDocument.load(await readFile(path))).save();
else await makeRecordPdf(task);
parentPort!.postMessage(performance.now() - began);
