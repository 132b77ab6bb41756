import { Sequencer } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import type { FastifyBaseLogger } from 'fastify';
import type { LogStore } from '../boards/log-store.js';
import { ProblemError } from '../problems/index.js';
import { BoardHost } from './board-host.js';

/**
 * Where boards are open. This is the seam at which live work can be spread over processes: all
 * who are on one board meet in one room, wherever that is.
 */
export interface LessonBus {
  /** The open board, opened if need be; `null` where there is no such board. */
  host(board: Id): Promise<BoardHost | null>;
  /** The open board if it is open. */
  open(board: Id): BoardHost | undefined;
  /**
   * Does something to logs on disk that no room does: meanwhile these boards stand still, and afterwards everyone
   * who is on them comes back to what is on disk.
   */
  shut<T>(boards: readonly Id[], what: () => Promise<T>): Promise<T>;
  /** Called when something on a board is hidden or shown from now on, or pages were taken out or came back. */
  onHiddenChanged: (board: Id, when: 'now' | 'soon') => void;
  /** Called when students may do or see something else on a board from now on. */
  onRules: (board: Id) => void;
  /** Called when a board is called something else from now on. */
  onTitle: (board: Id) => void;
  /** Called when there was no room on the disk for what was written. */
  onFull: () => void;
}

/** How long a board is kept open when nobody is on it, in ms: anyone who comes back finds the board open. */
const REST = 300_000;
/** How many are kept so at most. */
const RESTING = 6;

/** All open boards of this process. */
export class LocalBus implements LessonBus {
  private readonly hosts = new Map<Id, BoardHost>();
  onHiddenChanged: (board: Id, when: 'now' | 'soon') => void = () => undefined;
  onRules: (board: Id) => void = () => undefined;
  onTitle: (board: Id) => void = () => undefined;
  onFull: () => void = () => undefined;
  /** Boards that were opened so far. */
  private opened = 0;
  /** Boards that are not to be opened before this. */
  private readonly closed = new Map<Id, Promise<void>>();
  private readonly opening = new Map<Id, Promise<BoardHost | null>>();
  /** Rooms that nobody is in, the longest empty first, with what will put them away. */
  private readonly resting = new Map<BoardHost, ReturnType<typeof setTimeout>>();

  constructor(
    private readonly store: LogStore,
    private readonly log: FastifyBaseLogger,
    /** Which lesson is open on a board. */
    private readonly lessonOn: (board: Id) => Id | null,
  ) {}

  open(board: Id): BoardHost | undefined {
    const host = this.hosts.get(board);
    return host?.isBroken ? undefined : host;
  }

  host(board: Id): Promise<BoardHost | null> {
    const open = this.open(board);
    if (open) return Promise.resolve(open);
    let opening = this.opening.get(board);
    if (!opening) {
      opening = (this.closed.get(board) ?? Promise.resolve())
        .then(() => this.load(board))
        .finally(() => this.opening.delete(board));
      this.opening.set(board, opening);
    }
    return opening;
  }

  async shut<T>(boards: readonly Id[], what: () => Promise<T>): Promise<T> {
    let open!: () => void;
    const gate = new Promise<void>((resolve) => (open = resolve));
    const under = boards.flatMap((board) => this.opening.get(board) ?? []);
    for (const board of boards) this.closed.set(board, gate);
    try {
      await Promise.allSettled(under);
      const hosts = boards.flatMap((board) => this.open(board) ?? []);
      await Promise.all(hosts.map((host) => standStill(host, gate)));
      const result = await what();
      for (const host of hosts) host.retire();
      return result;
    } finally {
      for (const board of boards) this.closed.delete(board);
      open();
    }
  }

  /** Puts a board away when nobody has been on it for a while, or too many are. */
  private letRest(host: BoardHost): void {
    clearTimeout(this.resting.get(host));
    this.resting.delete(host);
    this.resting.set(host, setTimeout(() => this.putAway(host), REST).unref());
    for (const other of this.resting.keys()) {
      if (this.resting.size <= RESTING) break;
      this.putAway(other);
    }
  }

  /** Puts all boards away that nobody is on; for tests. */
  putAllAway(): void {
    for (const host of this.resting.keys()) this.putAway(host);
  }

  private putAway(host: BoardHost): void {
    clearTimeout(this.resting.get(host));
    this.resting.delete(host);
    // Someone may have come in meanwhile.
    if (!host.isIdle || this.hosts.get(host.id) !== host) return;
    this.hosts.delete(host.id);
    host.retire();
  }

  private async load(id: Id): Promise<BoardHost | null> {
    const loaded = await this.store.load(id).catch((error: unknown) => {
      this.log.error({ err: error, board: id }, 'a board could not be opened');
      throw new ProblemError('board-damaged');
    });
    if (!loaded) return null;
    const { num, board, seq, known, unreadable } = loaded;
    if (unreadable.length > 0)
      this.log.error(
        { board: id, entries: unreadable.map((entry) => entry.seq) },
        'entries of a board can’t be read: it is opened without them',
      );
    const host = new BoardHost(
      ...([
        id,
        ++this.opened,
        num,
        new Sequencer(board, seq, known),
        this.store,
        this.log,
        unreadable,
      ] as const),
    );
    host.lesson = this.lessonOn(id);
    host.onHiddenChanged = (when) => this.onHiddenChanged(id, when);
    host.onFull = () => this.onFull();
    host.onRules = () => this.onRules(id);
    host.onTitle = () => this.onTitle(id);
    host.onIdle = () => this.letRest(host);
    host.successor = () => hostOf(this, id);
    this.hosts.set(id, host);
    return host;
  }
}

/** Resolves when all that was offered to the board is on disk, and nothing more is done there before `until`. */
function standStill(host: BoardHost, until: Promise<void>): Promise<void> {
  return new Promise((resolve) => {
    const still = (): Promise<void> => {
      resolve();
      return until;
    };
    // A room that had to be given up stands still.
    host.between(still).catch(() => resolve());
  });
}

/** The open board. Throws `not-found` where there is no such board. */
export async function hostOf(bus: LessonBus, board: Id): Promise<BoardHost> {
  const host = await bus.host(board);
  if (!host) throw new ProblemError('not-found');
  return host;
}
