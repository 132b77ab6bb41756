import { PDFDocument } from '@cantoo/pdf-lib';
import { readFile } from 'node:fs/promises';
import { pathToFileURL } from 'node:url';
import { parentPort, workerData } from 'node:worker_threads';

/* A thread that exports records as the server's does, and loads and saves the plain file beside it. */
const { makeRecordPdf } = (await import(
  pathToFileURL((workerData as { exporter: string }).exporter).href
)) as { makeRecordPdf(task: unknown): Promise<unknown> };

parentPort!.on('message', ({ kind, path, task }: { kind: string; path: string; task: unknown }) => {
  void (async () => {
    const began = performance.now();
    if (kind === 'plain') await (await PDFDocument.load(await readFile(path))).save();
    else await makeRecordPdf(task);
    parentPort!.postMessage({ ms: performance.now() - began });
  })();
});
