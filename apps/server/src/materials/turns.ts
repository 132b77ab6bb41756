/** Work that must not run at the same time as other work of the same tutor: one after the other. */
export class Turns {
  private readonly last = new Map<string, Promise<unknown>>();

  take<T>(whose: string, work: () => Promise<T>): Promise<T> {
    const before = this.last.get(whose) ?? Promise.resolve();
    const turn = before.then(work, work);
    const over = turn
      .catch(() => undefined)
      .then(() => {
        if (this.last.get(whose) === over) this.last.delete(whose);
      });
    this.last.set(whose, over);
    return turn;
  }
}
