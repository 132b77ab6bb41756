import type { LiveService } from '../../service.js';
import type { ClientHandlers, LiveFeature } from '../feature.js';

/** What is done on the board, and what is asked of it. Who may do what, the sequencer says. */
export class BoardMessages implements LiveFeature<'board'> {
  readonly handlers: ClientHandlers<'board'> = {
    ops: (window, { ops }) => this.service.offer(window, ops),
    pages: (window, { ids }) => this.service.give(window, ids),
  };

  constructor(private readonly service: Pick<LiveService, 'offer' | 'give'>) {}

  restore(): void {
    // The board is read from its log.
  }

  /** The board itself came with the welcome. */
  sendSnapshot(): void {
    // See above.
  }
}
