/**
 * What changes a tutor's shelf, one after the other: names are given by what is there already. When
 * something has changed, whoever looks at it is told.
 */
export class KeyedMutex {
  private readonly last = new Map<string, Promise<unknown>>();

  /** @param changed is told whose shelf isn't what it was */
  constructor(private readonly changed: (tutor: string) => void) {}

  /** Throws what `work` throws; then nothing has changed. */
  take<T>(tutor: string, work: () => Promise<T>): Promise<T> {
    const before = this.last.get(tutor) ?? Promise.resolve();
    const turn = before.then(work);
    const over = turn
      .then(() => this.changed(tutor))
      .catch(() => undefined)
      .then(() => {
        if (this.last.get(tutor) === over) this.last.delete(tutor);
      });
    this.last.set(tutor, over);
    return turn;
  }
}
