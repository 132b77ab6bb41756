import PQueue from 'p-queue';

/**
 * What changes a tutor's shelf, one after the other: names are given by what is there already. When
 * something has changed, anyone who looks at it is told.
 */
export class KeyedMutex {
  private readonly queues = new Map<string, PQueue>();

  /** @param changed is told whose shelf isn't what it was */
  constructor(private readonly changed: (tutor: string) => void) {}

  /** Throws what `work` throws; then nothing has changed. */
  take<T>(tutor: string, work: () => Promise<T>): Promise<T> {
    let queue = this.queues.get(tutor);
    if (!queue) {
      queue = new PQueue({ concurrency: 1 }).on('idle', () => this.queues.delete(tutor));
      this.queues.set(tutor, queue);
    }
    const turn = queue.add(work);
    turn.then(() => this.changed(tutor)).catch(() => undefined);
    return turn;
  }
}
