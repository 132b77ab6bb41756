import { ROOMY } from '../workers/worker-pool.js';
import type { Workers } from '../workers/workers.js';
import type {
  BoardFileNews,
  BoardFileTask,
  BoardLogNews,
  BoardLogTask,
} from './board-file-worker.js';

/** Longest that unpacking one, and writing down its log, may take, in ms. */
const LIMIT = 60_000;

/** Unpacks board files and lays them down, on a thread of their own. */
export class BoardFileReader {
  private readonly pool;

  constructor(workers: Workers) {
    this.pool = workers.pool(new URL('./board-file-worker.js', import.meta.url), {
      ...{ name: 'openBoardFile', memory: ROOMY },
    });
  }

  /** Unpacks a board file; one that can't be unpacked within the limits is too large. */
  open(task: BoardFileTask): Promise<BoardFileNews> {
    return this.pool
      .run<BoardFileNews>(task, { signal: AbortSignal.timeout(LIMIT) })
      .catch((error) => ({ kind: 'fault', fault: 'too-large', message: String(error) }));
  }

  /** Makes the log of a board that was unpacked, and writes it down. */
  lay(task: BoardLogTask): Promise<BoardLogNews> {
    return this.pool
      .run<BoardLogNews>(task, {
        ...{ name: 'layBoardFile', transferList: [task.port] },
        signal: AbortSignal.timeout(LIMIT),
      })
      .catch((error) => ({ kind: 'fault', fault: 'too-large', message: String(error) }));
  }
}
