/** How long a piece of work may take, in ms: a frame has room for it beside all else. */
const PIECE = 4;

/**
 * Work for which nobody waits, done in small pieces: one after a frame, so that none of them makes a
 * frame late.
 */
export class Preparing {
  private frame = 0;
  private task: ReturnType<typeof setTimeout> | undefined;

  /** @param work goes on until it is told that it is enough; returns whether nothing is left */
  constructor(private readonly work: (enough: () => boolean) => boolean) {}

  /** There may be something to do. */
  start(): void {
    if (this.frame || this.task !== undefined) return;
    this.frame = requestAnimationFrame(() => {
      this.frame = 0;
      this.task = setTimeout(() => {
        this.task = undefined;
        const until = performance.now() + PIECE;
        if (!this.work(() => performance.now() > until)) this.start();
      });
    });
  }

  stop(): void {
    cancelAnimationFrame(this.frame);
    clearTimeout(this.task);
    this.frame = 0;
    this.task = undefined;
  }
}
