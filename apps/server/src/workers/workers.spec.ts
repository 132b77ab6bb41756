import { MessageChannel, Worker } from 'node:worker_threads';
import { PDFDocument } from '@cantoo/pdf-lib';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { InspectNews } from '../pdf/pdf-worker.js';
import { PdfReader } from '../pdf/pdf-reader.js';
import { BoardPdfs } from '../records/board-pdfs.js';
import { Workers } from './workers.js';

/** What a thread answers that runs this text as a module. */
function answerOf(text: string): Promise<unknown> {
  const worker = new Worker(new URL(`data:text/javascript,${encodeURIComponent(text)}`));
  return new Promise((resolve, reject) => worker.once('message', resolve).once('error', reject));
}

describe('worker threads', () => {
  it('load no HTTP parser: a thread that ends while one is compiled takes the server with it', async () => {
    const module = (name: string) => JSON.stringify(new URL(name, import.meta.url).href);
    for (const name of ['../pdf/pdf-worker.js', '../records/board-pdf-worker.js']) {
      const loaded = await answerOf(`
        import { parentPort } from 'node:worker_threads';
        await import(${module(name)});
        parentPort.postMessage(process.moduleLoadList.filter((name) => name.includes('undici')));
      `);
      expect(loaded).withContext(name).toEqual([]);
    }
  });

  it('have a Response that gives the bytes of a stream, as pdf.js asks of it', async () => {
    const module = JSON.stringify(new URL('./own-response.js', import.meta.url).href);
    const bytes = await answerOf(`
      import { parentPort } from 'node:worker_threads';
      await import(${module});
      const stream = new Blob(['low ', 'water']).stream();
      parentPort.postMessage(await new Response(stream).bytes());
    `);
    expect(new TextDecoder().decode(bytes as Uint8Array)).toBe('low water');
  });

  it('end when they are told to, with a file under way', async () => {
    const doc = await PDFDocument.create();
    for (let i = 0; i < 20; i++) doc.addPage();
    const path = join(mkdtempSync(join(tmpdir(), 'cuaderno-workers-')), 'twenty.pdf');
    writeFileSync(path, await doc.save());
    const workers = new Workers();
    const pdfs = new PdfReader(workers);
    const news: InspectNews[] = [];
    const reading = pdfs.inspect(path, 1, 5000, (word) => news.push(word));
    // Of a kind of which no thread is there yet.
    const taken = pdfs.separate(path, [1, 2]);
    await workers.close();
    await reading;
    expect(news.at(-1)).toEqual({ kind: 'done' });
    expect(await taken).toBeDefined();
  });

  it('tell of a record that can’t be made', async () => {
    const workers = new Workers();
    const { port1, port2 } = new MessageChannel();
    port1.on('message', ({ id }: { id: number }) => port1.postMessage({ id, error: 'no disk' }));
    const task = {
      port: port2,
      of: { board: 'b' },
      title: '',
      author: '',
      date: 0,
      ink: 'drawn' as const,
      files: '',
    };
    const made = new BoardPdfs(workers).make(task, new AbortController().signal);
    await expectAsync(made).toBeRejected();
    port1.close();
    await workers.close();
  });
});
