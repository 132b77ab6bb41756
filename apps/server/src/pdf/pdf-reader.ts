import type { Taken } from '@cuaderno/formats/pdf-annotations';
import type { Separated } from '@cuaderno/formats/pdf-out';
import { MessageChannel } from 'node:worker_threads';
import { isOverLimits, MAKING, ROOMY } from '../workers/worker-pool.js';
import type { Workers } from '../workers/workers.js';
import type { AnnotationsTask } from './annotations-worker.js';
import type { InspectNews, InspectTask } from './pdf-worker.js';
import type { SeparateTask } from './separate-worker.js';

/** Longest that reading a PDF, taking it apart, and taking annotations out of it may take, in ms. */
const READ_LIMIT = 60_000;
const SEPARATE_LIMIT = 300_000;
/** Longer than this nobody waits for annotations to become ink. */
const ANNOTATIONS_LIMIT = 30_000;
/** How long the thread that reads PDFs waits for one, in ms. */
const WARM = 10 * 60_000;

/** Reads stored PDFs, and takes them apart, on threads of their own. */
export class PdfReader {
  private readonly reading;
  private readonly separating;
  private readonly extracting;

  constructor(workers: Workers) {
    this.reading = workers.pool(new URL('./pdf-worker.js', import.meta.url), {
      name: 'inspect',
      idle: WARM,
      // It is there for long, and mostly idle: it needn't keep room for what lives a moment.
      memory: { ...ROOMY, maxYoungGenerationSizeMb: 24 },
    });
    this.separating = workers.pool(new URL('./separate-worker.js', import.meta.url), {
      ...{ name: 'separate', memory: MAKING },
    });
    this.extracting = workers.pool(new URL('./annotations-worker.js', import.meta.url), {
      ...{ name: 'annotationsOf', memory: MAKING },
    });
  }

  /**
   * A tutor is where a PDF may be brought next, and will wait for it: the thread that reads them is loaded, and stays so
   * for some minutes. It takes 70 MB, which a server where nobody is needn't hold.
   */
  expect(): void {
    if (this.reading.waiting > 0) return;
    const signal = AbortSignal.timeout(READ_LIMIT);
    // What is wrong will be told with the file itself.
    this.reading.run(null, { name: 'ready', signal }).catch(() => undefined);
  }

  /**
   * Tells `onNews` of a PDF's pages as they are read, the last word being `done` or `fault`.
   * @param most pages that it may have: of one that has more, only their number is told
   */
  async inspect(
    path: string,
    from: number,
    most: number,
    onNews: (news: InspectNews) => void,
  ): Promise<void> {
    const { port1, port2 } = new MessageChannel();
    const lastWord = new Promise<void>((resolve) => {
      port1.on('message', (news: InspectNews) => {
        onNews(news);
        if (news.kind === 'done' || news.kind === 'fault') resolve();
      });
    });
    const task: InspectTask = { path, from, most, port: port2 };
    try {
      const signal = AbortSignal.timeout(READ_LIMIT);
      await this.reading.run(task, { transferList: [port2], signal });
      await lastWord;
    } catch (error) {
      if (!isOverLimits(error)) throw error;
      onNews({ kind: 'fault', fault: 'too-slow' });
    } finally {
      port1.close();
    }
  }

  /** Takes pages out of a PDF, for those who may not have them. */
  separate(path: string, numbers: readonly number[]): Promise<Separated> {
    const task: SeparateTask = { path, numbers };
    return this.separating.run(task, { signal: AbortSignal.timeout(SEPARATE_LIMIT) });
  }

  /**
   * Takes what was written on a stored PDF out of it; `null` where nothing was, or it can't be done within the limits:
   * then the file is shown as it is.
   */
  async annotationsOf(path: string): Promise<Taken | null> {
    const signal = AbortSignal.timeout(ANNOTATIONS_LIMIT);
    const may = this.reading.run<boolean>({ path }, { signal, name: 'mayBeWrittenOn' });
    if (!(await may.catch(() => false))) return null;
    const task: AnnotationsTask = { path };
    return this.extracting.run<Taken | null>(task, { signal }).catch(() => null);
  }

  /** Whether a stored PDF is protected by its maker; not, as far as we know, where it can't be read within the limits. */
  async isProtected(path: string): Promise<boolean> {
    const signal = AbortSignal.timeout(ANNOTATIONS_LIMIT);
    return this.reading.run<boolean>({ path }, { signal, name: 'isProtected' }).catch(() => false);
  }
}
