import { Worker } from 'node:worker_threads';
import type { Answer, Request, Statement } from './worker.js';

/** Thrown where the database refused or could not do something. */
export class DatabaseError extends Error {
  override readonly name = 'DatabaseError';
}

/** Speaks to the database's own thread. */
export class Connection {
  private readonly worker: Worker;
  private readonly waiting = new Map<number, (answer: Answer) => void>();
  private next = 0;
  private gone: Error | null = null;

  /** @param url as libSQL has it: `file:` for one on disk */
  constructor(url: string) {
    this.worker = new Worker(new URL('./worker.js', import.meta.url), { workerData: { url } });
    this.worker.on('message', (answer: Answer) => {
      this.waiting.get(answer.id)?.(answer);
      this.waiting.delete(answer.id);
    });
    this.worker.on('error', (error) => this.fail(error));
    this.worker.on('exit', () => this.fail(new Error('The database was closed.')));
  }

  /** Does all or none. Throws `DatabaseError`. */
  send(statements: Statement[]): Promise<unknown[][]> {
    return new Promise((resolve, reject) => {
      if (this.gone) return reject(new DatabaseError(this.gone.message));
      const id = this.next++;
      this.waiting.set(id, (answer) =>
        answer.rows ? resolve(answer.rows) : reject(new DatabaseError(answer.error)),
      );
      this.worker.postMessage({ id, statements } satisfies Request);
    });
  }

  /** Finishes what was asked for, then closes. */
  async close(): Promise<void> {
    const exited = new Promise((resolve) => this.worker.once('exit', resolve));
    this.worker.postMessage('close');
    await exited;
  }

  private fail(error: Error): void {
    this.gone ??= error;
    for (const [id, answer] of this.waiting) answer({ id, error: error.message });
    this.waiting.clear();
  }
}
