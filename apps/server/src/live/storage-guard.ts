import type { FastifyBaseLogger } from 'fastify';

/** How often it is tried whether there is room again, in ms. */
const TRY_EVERY = 1500;

/**
 * Whether what is written can be kept just now. When the disk is full, writing rests for everyone until
 * something can be written down again: nobody is told that anything is kept which isn't.
 */
export class StorageGuard {
  private timer: ReturnType<typeof setTimeout> | null = null;
  private closed = false;
  /** Called when it stops and when it goes on. */
  onChange: (keeps: boolean) => void = () => undefined;

  /** @param probe writes something down, as large as many lines are; rejects where there is no room */
  constructor(
    private readonly probe: () => Promise<void>,
    private readonly log: FastifyBaseLogger,
  ) {}

  get isOn(): boolean {
    return this.timer === null;
  }

  /** There was no room for something. */
  lost(): void {
    if (this.timer || this.closed) return;
    this.log.error('the disk is full: writing rests until there is room');
    this.later();
    this.onChange(false);
  }

  close(): void {
    this.closed = true;
    if (this.timer) clearTimeout(this.timer);
  }

  private later(): void {
    this.timer = setTimeout(() => {
      this.tryAgain().catch((error: unknown) => {
        this.log.error({ err: error }, 'whether there is room again could not be found out');
        this.later();
      });
    }, TRY_EVERY).unref();
  }

  private async tryAgain(): Promise<void> {
    const keeps = await this.probe().then(
      () => true,
      () => false,
    );
    if (this.closed) return;
    if (!keeps) return this.later();
    this.timer = null;
    this.log.info('there is room on the disk again: writing goes on');
    this.onChange(true);
  }
}
