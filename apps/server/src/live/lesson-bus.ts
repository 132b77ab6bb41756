import { Sequencer } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import type { FastifyBaseLogger } from 'fastify';
import type { LogStore } from '../boards/log-store.js';
import { ProblemError } from '../problems/index.js';
import { Room } from './room.js';

/**
 * Where boards are open. This is the seam at which live work can be spread over processes: all
 * who are on one board meet in one room, wherever that is.
 */
export interface LessonBus {
  /** The board's room, opened if need be; `null` where there is no such board. */
  room(board: Id): Promise<Room | null>;
  /** The board's room if it is open. */
  open(board: Id): Room | undefined;
  /**
   * Does something to logs on disk that no room does: meanwhile these boards stand still, and afterwards everyone
   * who is on them comes back to what is on disk.
   */
  shut<T>(boards: readonly Id[], what: () => Promise<T>): Promise<T>;
  /** Called when something on a board is held back or shown from now on, or pages were taken out or came back. */
  onHeld: (board: Id, when: 'now' | 'soon') => void;
  /** Called when students may do or see something else on a board from now on. */
  onRules: (board: Id) => void;
  /** Called when there was no room on the disk for what was written. */
  onFull: () => void;
}

/** How long a room is kept when nobody is in it, in ms: whoever comes back finds the board open. */
const REST = 300_000;
/** How many are kept so at most. */
const RESTING = 6;

/** All rooms in this process. */
export class LocalBus implements LessonBus {
  private readonly rooms = new Map<Id, Room>();
  onHeld: (board: Id, when: 'now' | 'soon') => void = () => undefined;
  onRules: (board: Id) => void = () => undefined;
  onFull: () => void = () => undefined;
  /** Boards that are not to be opened before this. */
  private readonly closed = new Map<Id, Promise<void>>();
  private readonly opening = new Map<Id, Promise<Room | null>>();
  /** Rooms that nobody is in, the longest empty first, with what will put them away. */
  private readonly resting = new Map<Room, ReturnType<typeof setTimeout>>();

  constructor(
    private readonly store: LogStore,
    private readonly log: FastifyBaseLogger,
    /** Which lesson is open on a board. */
    private readonly lessonOn: (board: Id) => Id | null,
  ) {}

  open(board: Id): Room | undefined {
    const room = this.rooms.get(board);
    return room?.isBroken ? undefined : room;
  }

  room(board: Id): Promise<Room | null> {
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
      const rooms = boards.flatMap((board) => this.open(board) ?? []);
      await Promise.all(rooms.map((room) => standStill(room, gate)));
      const result = await what();
      for (const room of rooms) room.retire();
      return result;
    } finally {
      for (const board of boards) this.closed.delete(board);
      open();
    }
  }

  /** Puts a room away when it has been empty for a while, or too many are. */
  private letRest(room: Room): void {
    clearTimeout(this.resting.get(room));
    this.resting.delete(room);
    this.resting.set(room, setTimeout(() => this.putAway(room), REST).unref());
    for (const other of this.resting.keys()) {
      if (this.resting.size <= RESTING) break;
      this.putAway(other);
    }
  }

  /** Puts all rooms away that nobody is in; for tests. */
  putAllAway(): void {
    for (const room of this.resting.keys()) this.putAway(room);
  }

  private putAway(room: Room): void {
    clearTimeout(this.resting.get(room));
    this.resting.delete(room);
    // Someone may have come in meanwhile.
    if (!room.isIdle || this.rooms.get(room.id) !== room) return;
    this.rooms.delete(room.id);
    room.retire();
  }

  private async load(id: Id): Promise<Room | null> {
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
    const room = new Room(
      ...([id, num, new Sequencer(board, seq, known), this.store, this.log, unreadable] as const),
    );
    room.lesson = this.lessonOn(id);
    room.onHeld = (when) => this.onHeld(id, when);
    room.onFull = () => this.onFull();
    room.onRules = () => this.onRules(id);
    room.onIdle = () => this.letRest(room);
    room.successor = () => roomOf(this, id);
    this.rooms.set(id, room);
    return room;
  }
}

/** Resolves when all that was offered to the room is on disk, and nothing more is done there before `until`. */
function standStill(room: Room, until: Promise<void>): Promise<void> {
  return new Promise((resolve) => {
    const still = (): Promise<void> => {
      resolve();
      return until;
    };
    // A room that had to be given up stands still.
    room.between(still).catch(() => resolve());
  });
}

/** The board's room. Throws `not-found` where there is no such board. */
export async function roomOf(bus: LessonBus, board: Id): Promise<Room> {
  const room = await bus.room(board);
  if (!room) throw new ProblemError('not-found');
  return room;
}
