import { MessageChannel } from 'node:worker_threads';
import { MAKING } from '../workers/worker-pool.js';
import type { Workers } from '../workers/workers.js';
import type { SealTask } from './seal-worker.js';

/** Longest that writing down one record may take, in ms. */
const LIMIT = 300_000;

/** Writes down what is in records, on a thread of its own. */
export class RecordWriter {
  private readonly pool;

  constructor(workers: Workers) {
    this.pool = workers.pool(new URL('./seal-worker.js', import.meta.url), {
      ...{ name: 'sealRecord', memory: MAKING },
    });
  }

  /** @param told how many pages are done, and of how many */
  async write(
    task: Omit<SealTask, 'news'>,
    told: (done: number, of: number) => void,
  ): Promise<void> {
    const { port1, port2 } = new MessageChannel();
    port1.on('message', ([done, of]: [number, number]) => told(done, of));
    try {
      await this.pool.run(
        { ...task, news: port2 },
        { transferList: [task.port, port2], signal: AbortSignal.timeout(LIMIT) },
      );
    } finally {
      port1.close();
    }
  }
}
