import type { ClientMessage } from '@cuaderno/core/features';
import type { Send } from './features/feature';

/** How long before the line was lost a message may have been sent and not have arrived, in ms. */
const ON_ITS_WAY = 5000;

interface Wish {
  readonly message: ClientMessage;
  readonly isSo: () => boolean;
  /** When it was handed to the network, in ms since 1970; `null` while it wasn't, or is to be once more. */
  readonly sentAt: number | null;
}

/**
 * What was said once and is meant to hold, as that all pens are taken back: where the line or the server went while it
 * was being said, it is said again when they are back, in the order in which it was said, unless it is so by then.
 */
export class StandingWishes {
  private wishes: readonly Wish[] = [];

  constructor(private readonly send: Send) {}

  /** @param isSo whether the lesson, as far as it is known here, is as `message` would have it */
  say(message: ClientMessage, isSo: () => boolean): void {
    this.wishes = [...this.open(), this.sent(message, isSo)];
  }

  /** The line is away: what was answered before is settled, and what has been on its way for long had arrived. */
  lost(): void {
    const now = Date.now();
    this.wishes = this.open()
      .filter(({ sentAt }) => sentAt === null || now - sentAt < ON_ITS_WAY)
      .map((wish) => ({ ...wish, sentAt: null }));
  }

  /** The line is back. */
  begin(): void {
    this.wishes = this.open().map(({ message, isSo }) => this.sent(message, isSo));
  }

  clear(): void {
    this.wishes = [];
  }

  private sent(message: ClientMessage, isSo: () => boolean): Wish {
    return { message, isSo, sentAt: this.send(message) ? Date.now() : null };
  }

  /** Those that aren't settled: messages arrive in their order, so what was sent before one that is so has arrived, too. */
  private open(): Wish[] {
    const last = this.wishes.findLastIndex(({ sentAt, isSo }) => sentAt !== null && isSo());
    return this.wishes.slice(last + 1);
  }
}
