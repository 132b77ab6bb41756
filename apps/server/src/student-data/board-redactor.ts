import { MAKING } from '../workers/worker-pool.js';
import type { Workers } from '../workers/workers.js';
import type { TakenFromBoard, TakeOutTask } from './take-out-worker.js';

/** Longest that looking through the boards of a tutor may take, in ms. */
const LIMIT = 300_000;

/** Finds what people drew on boards, and what is to stand in its place in their logs, on a thread of its own. */
export class BoardRedactor {
  private readonly pool;

  constructor(workers: Workers) {
    this.pool = workers.pool(new URL('./take-out-worker.js', import.meta.url), {
      ...{ name: 'takeOutOf', memory: MAKING },
    });
  }

  takeOut(task: TakeOutTask): Promise<TakenFromBoard[]> {
    return this.pool.run(task, {
      ...{ transferList: [task.port], signal: AbortSignal.timeout(LIMIT) },
    });
  }
}
