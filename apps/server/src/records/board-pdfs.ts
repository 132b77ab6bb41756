import { MAKING } from '../workers/worker-pool.js';
import type { Workers } from '../workers/workers.js';
import type { BoardPdfTask } from './board-pdf-worker.js';

/** Longest that making one may take, in ms. */
const LIMIT = 300_000;

/** Makes PDFs of records and boards, on a thread of their own. */
export class BoardPdfs {
  private readonly pool;

  constructor(workers: Workers) {
    this.pool = workers.pool(new URL('./board-pdf-worker.js', import.meta.url), {
      ...{ name: 'makeBoardPdf', memory: MAKING },
    });
  }

  /** Rejects where it can't be made within the limits, or `signal` ends it. */
  make(task: BoardPdfTask, signal: AbortSignal): Promise<Uint8Array> {
    return this.pool.run(task, {
      transferList: [task.port],
      signal: AbortSignal.any([signal, AbortSignal.timeout(LIMIT)]),
    });
  }
}
