import { MessageChannel, Worker } from 'node:worker_threads';
import type { MessagePort } from 'node:worker_threads';
import type { WorkerAnswer, Lend, Request, Statement } from './worker.js';

/** Thrown where the database refused or could not do something. */
export class DatabaseError extends Error {
  override readonly name = 'DatabaseError';
}

/** Asks the database's own thread, from the thread that started it or from one that was lent a port. */
export class Connection {
  private readonly waiting = new Map<number, (answer: WorkerAnswer) => void>();
  private next = 0;
  private gone: Error | null = null;

  constructor(private readonly line: Worker | MessagePort) {
    line.on('message', (answer: WorkerAnswer) => {
      this.waiting.get(answer.id)?.(answer);
      this.waiting.delete(answer.id);
    });
    line.on('error', (error: Error) => this.fail(error));
    const over = (): void => this.fail(new Error('The database was closed.'));
    line.on('exit', over).on('close', over);
  }

  /** Does all or none. Throws `DatabaseError`. */
  send(statements: Statement[]): Promise<unknown[][]> {
    return new Promise((resolve, reject) => {
      if (this.gone) return reject(new DatabaseError(this.gone.message));
      const id = this.next++;
      this.waiting.set(id, (answer) =>
        answer.rows ? resolve(answer.rows) : reject(new DatabaseError(answer.error)),
      );
      this.line.postMessage({ id, statements } satisfies Request);
    });
  }

  /** A port through which another thread may ask; the line ends when either side closes it. */
  lend(): MessagePort {
    const { port1, port2 } = new MessageChannel();
    this.line.postMessage({ port: port1 } satisfies Lend, [port1]);
    return port2;
  }

  /** Finishes what was asked for, then closes: the database, or only the port that was lent. */
  async close(): Promise<void> {
    const { line } = this;
    if (!(line instanceof Worker)) return line.close();
    const exited = new Promise((resolve) => line.once('exit', resolve));
    line.postMessage('close');
    await exited;
  }

  private fail(error: Error): void {
    this.gone ??= error;
    for (const [id, answer] of this.waiting) answer({ id, error: error.message });
    this.waiting.clear();
  }
}

/** Starts the database's thread. @param url as libSQL has it: `file:` for one on disk */
export function connect(url: string): Connection {
  return new Connection(
    new Worker(new URL('./worker.js', import.meta.url), { workerData: { url } }),
  );
}
