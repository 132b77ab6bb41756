import type { Id } from '@cuaderno/core';
import type { LiveConnection } from '../../connection.js';
import type { LiveService } from '../../service.js';
import { WindowAllowances } from '../../window-allowances.js';
import type { ClientHandlers, LiveFeature } from '../feature.js';

/** Boards that one window may open in a second on the whole, and at once. */
const BOARDS_A_SECOND = 2;
const BOARDS_AT_ONCE = 24;

/** The boards that windows have open, what is done on them, and what is asked of them. Who may do what, the sequencer says. */
export class BoardMessages implements LiveFeature<'board'> {
  readonly handlers: ClientHandlers<'board'> = {
    'board.open': (window, { board, since }) => this.open(window, board, since),
    'board.close': (window, { board }) => this.service.closeBoard(window, board),
    ops: (window, { board, ops }) => this.service.offer(window, board, ops),
    pages: (window, { board, ids }) => this.service.give(window, board, ids),
  };

  private readonly opening = new WindowAllowances(BOARDS_A_SECOND, BOARDS_AT_ONCE);

  constructor(
    private readonly service: Pick<LiveService, 'offer' | 'give' | 'openBoard' | 'closeBoard'>,
  ) {}

  restore(): void {
    // Boards are read from their logs.
  }

  /** Boards come as they are opened. */
  sendSnapshot(): void {
    // See above.
  }

  leave(): void {
    // Its boards are closed before it goes.
  }

  private open(window: LiveConnection, board: Id | null, since: number): void {
    // Whoever keeps asking for boards to be sent has had them.
    if (!this.opening.take(window)) return window.refuse('message-too-many');
    this.service.openBoard(window, board, since).catch((error: unknown) => window.failed(error));
  }
}
