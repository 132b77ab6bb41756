import {
  boardFor,
  changesHeld,
  heldOf,
  nearestPages,
  pack,
  packMessage,
  packWithBoard,
  packWithPages,
  REFUSALS,
  toldToStudents,
} from '@cuaderno/core';
import type {
  Actor,
  Board,
  Entry,
  Id,
  Operation,
  Role,
  ServerMessage,
  Sequencer,
  ToldEntry,
} from '@cuaderno/core';
import type { FastifyBaseLogger } from 'fastify';
import type { LogStore } from '../boards/log-store.js';
import { isDiskFull, problem } from '../problems/index.js';
import type { Member } from './member.js';

/** Operations in one commit at most, so that the first of a flood needn't wait for the last; but see `together`. */
const COMMIT_SIZE = 400;
/** Items that come with a board at once: those of the page in view, and of others while they are few. */
const FIRST_ITEMS = 100;
/** Pages with items that come with a board at once. */
const FIRST_PAGES = 5;
/** Times a window may ask for pages before it has any of them. */
const MAX_ASKS = 4;
/** Strokes that are told apart: as many as two bytes say. */
const STROKE_NUMBERS = 1 << 14;

/** When and in which lesson something was made that is brought from elsewhere. */
interface Origin {
  readonly at: number;
  readonly lesson: Id | null;
}

interface Offer {
  readonly op: Operation;
  readonly origin?: Origin;
  readonly actor: () => Actor;
  /** Whom to tell; an import has nobody. */
  readonly from: Member | null;
  /** What has the same one is on disk together, or not at all. */
  readonly together?: object;
}

/** An entry that has its place, and what students are told of it. */
interface Taken {
  readonly entry: Entry;
  readonly told: ToldEntry;
  readonly from: Member | null;
}

type Job = { readonly run: () => void | Promise<void> };

/**
 * One board, open: gives operations their order, makes them durable, then confirms them and passes
 * them on. Everything that must see the board between two commits waits in the same queue.
 */
export class Room {
  private readonly members = new Set<Member>();
  /** How often each asks for pages just now. */
  private readonly asks = new WeakMap<Member, number>();
  private queue: (Offer | Job)[] = [];
  private running = false;
  private strokes = 0;
  private broken = false;
  /**
   * Set when the board was put away, since nobody was here any more or its log was changed on disk: another
   * room may have it by now, and whoever still has hold of this one is sent on to that.
   */
  private retired = false;
  /** The room that has the board after this one. */
  successor: () => Promise<Room> = () => Promise.resolve(this);
  /** Called when nobody is here any more and nothing is left to do. */
  onIdle: () => void = () => undefined;
  /** Called when something is held back or shown from now on. */
  onHeld: () => void = () => undefined;
  /** Called when there was no room on the disk for what was written. */
  onFull: () => void = () => undefined;
  /** Called when students may do or see something else on it from now on. */
  onRules: () => void = () => undefined;
  /** The lesson in which things are written just now. */
  lesson: Id | null = null;

  constructor(
    readonly id: Id,
    private readonly num: number,
    private readonly sequencer: Sequencer,
    private readonly store: LogStore,
    private readonly log: FastifyBaseLogger,
  ) {}

  get isIdle(): boolean {
    return this.members.size === 0 && this.queue.length === 0 && !this.running;
  }

  get isBroken(): boolean {
    return this.broken;
  }

  /** Takes operations in; the outcome is told to `from`. */
  offer(ops: readonly Operation[], from: Member): void {
    for (const op of ops) this.queue.push({ op, from, actor: () => from.actor() });
    void this.work();
  }

  /**
   * Takes operations that the server makes on someone's behalf: all of them in one commit, so that a page that was
   * imported is never there without what was written on it. On disk when this returns.
   */
  async take(ops: readonly Operation[], actor: Actor): Promise<void> {
    if (this.retired) return (await this.successor()).take(ops, actor);
    const together = {};
    for (const op of ops) this.queue.push({ op, from: null, actor: () => actor, together });
    await this.inTurn(
      () => undefined,
      (room) => room.take(ops, actor),
    );
  }

  /** Takes in what was made on another board, with its makers' names, in one commit. On disk when this returns. */
  async bring(entries: readonly Omit<Entry, 'seq'>[]): Promise<void> {
    if (this.retired) return (await this.successor()).bring(entries);
    const together = {};
    for (const { op, by, at, lesson } of entries) {
      const actor: Actor = { id: by, role: 'tutor', trust: 'hands', imports: true };
      this.queue.push({ op, from: null, origin: { at, lesson }, actor: () => actor, together });
    }
    await this.inTurn(
      () => undefined,
      (room) => room.bring(entries),
    );
  }

  /** Runs `what` between two commits, when all that was offered before is on disk. */
  async between<T>(what: (board: Board, seq: number, room: Room) => T | Promise<T>): Promise<T> {
    if (this.retired) return (await this.successor()).between(what);
    return this.inTurn(what, (room) => room.between(what));
  }

  /** @param elsewhere what is done instead if another room has the board when the turn comes */
  private inTurn<T>(
    what: (board: Board, seq: number, room: Room) => T | Promise<T>,
    elsewhere: (room: Room) => Promise<T>,
  ): Promise<T> {
    return new Promise((resolve, reject) => {
      const run = async (): Promise<void> => {
        // The queue here needn't wait for that.
        if (this.retired) return resolve(this.successor().then(elsewhere));
        if (this.broken) return reject(new Error('The board has to be opened again.'));
        try {
          resolve(await what(this.sequencer.board, this.sequencer.seq, this));
        } catch (error) {
          reject(error as Error);
        }
      };
      this.queue.push({ run });
      void this.work();
    });
  }

  /**
   * Lets a window in. It is given what it misses: all entries after `since`, or the board with what is
   * on the page in view, as far as its person may see them.
   * @param welcome the first message, to which the board is added, or `null` if entries follow
   */
  async join(
    member: Member,
    since: number,
    welcome: (seen: Board) => Omit<Extract<ServerMessage, { kind: 'welcome' }>, 'board'>,
  ): Promise<void> {
    await this.between(async (board, seq, room) => {
      const seen = boardFor(board, member.role);
      const missed = since >= 0 && since <= seq ? await room.missed(member, since) : null;
      const first = welcome(seen);
      const near = (): Set<Id> =>
        new Set(
          nearestPages(seen, first.page, ({ items }) => items.size, FIRST_ITEMS, FIRST_PAGES),
        );
      member.send(
        missed ? pack({ ...first, board: null }) : packWithBoard(first, seen, seq, near()),
      );
      for (const run of runs(missed ?? [])) member.send(run);
      room.members.add(member);
    });
  }

  /** Sends what is on pages, as they stand when all that was said before has been sent. */
  async give(member: Member, ids: readonly Id[]): Promise<void> {
    const waiting = this.asks.get(member) ?? 0;
    // Whoever keeps asking is served when the line has taken what they asked for.
    if (waiting >= MAX_ASKS) return member.drop();
    this.asks.set(member, waiting + 1);
    await this.between((board, seq) => {
      const seen = boardFor(board, member.role);
      const pages = ids.flatMap((id) => seen.pages.get(id) ?? []);
      member.send(packWithPages({ kind: 'pages', seq, ids }, pages));
    }).finally(() => this.asks.set(member, this.asks.get(member)! - 1));
  }

  /** The board as it is now, on disk or about to be. */
  get board(): Board {
    return this.sequencer.board;
  }

  /** The board as it is this moment, to look at only: the next operation changes it. */
  get now(): Board {
    return this.sequencer.current;
  }

  /** Whether students are shown this page. One that is only on its way isn't known to anyone yet. */
  isShown(page: Id): boolean {
    const here = this.sequencer.current.pages.get(page);
    return here !== undefined && !here.held;
  }

  /** Entries after `since` as a member is told of them; `null` where only the whole board will do. */
  private async missed(member: Member, since: number): Promise<ToldEntry[] | null> {
    const kept = await this.store.entries(this.num, since);
    const entries = kept.filter((entry): entry is Entry => entry.op.kind !== 'nothing');
    // Something was taken out of the board: what they have isn't it any more.
    if (entries.length < kept.length) return null;
    if (member.role === 'tutor') return entries;
    // What was held back in between isn't known any more for each of them.
    if (entries.some(({ op }) => changesHeld(op))) return null;
    const { current } = this.sequencer;
    return entries.map((entry) => ({
      ...entry,
      op: toldToStudents(entry.op, heldOf(entry.op, current), current),
    }));
  }

  leave(member: Member): void {
    this.members.delete(member);
    if (this.isIdle) this.onIdle();
  }

  /** What stands for a stroke in its pieces; numbers come again when nobody remembers what they stood for. */
  numberStroke(): number {
    return (this.strokes = (this.strokes + 1) % STROKE_NUMBERS);
  }

  /** Sends to everyone but `except`. */
  broadcast(message: ServerMessage, except: Member | null = null): void {
    const bytes = pack(message);
    for (const member of this.members) if (member !== except) member.send(bytes);
  }

  /** @param only who may see it, where not everyone may */
  broadcastLive(message: ServerMessage, except: Member, only?: Role): void {
    const bytes = packMessage(message);
    for (const member of this.members)
      if (member !== except && (!only || member.role === only)) member.sendLive(bytes);
  }

  private async work(): Promise<void> {
    if (this.running) return;
    this.running = true;
    // What else arrives in this turn of the event loop goes into the same commit.
    await new Promise((resolve) => setImmediate(resolve));
    while (this.queue.length > 0) {
      const next = this.queue[0]!;
      if ('run' in next) {
        this.queue.shift();
        await next.run();
        continue;
      }
      await this.commit(this.queue.splice(0, this.nextCommit()) as Offer[]);
    }
    this.running = false;
    if (this.isIdle) this.onIdle();
  }

  /** How many of those that wait go into the next commit. */
  private nextCommit(): number {
    const { queue } = this;
    const isOffer = (at: number): boolean => at < queue.length && 'op' in queue[at]!;
    const belongs = (at: number): boolean => {
      const [here, last] = [queue[at] as Offer, queue[at - 1] as Offer];
      return here.together !== undefined && here.together === last.together;
    };
    let n = 0;
    while (isOffer(n) && (n < COMMIT_SIZE || belongs(n))) n++;
    return n;
  }

  private async commit(offers: readonly Offer[]): Promise<void> {
    if (this.broken) return;
    const at = Date.now();
    const taken: Taken[] = [];
    const confirmations = new Map<Member, { seqs: number[]; ids: Id[] }>();
    const confirm = (member: Member | null, seq: number, id: Id): void => {
      if (!member) return;
      const list = confirmations.get(member) ?? { seqs: [], ids: [] };
      list.seqs.push(seq);
      list.ids.push(id);
      confirmations.set(member, list);
    };
    for (const { op, actor, from, origin } of offers) {
      const { lesson } = origin ?? this;
      const before = heldOf(op, this.sequencer.current);
      const verdict = this.sequencer.offer(op, actor(), origin?.at ?? at, lesson);
      if (verdict.kind === 'taken') {
        const { entry } = verdict;
        const told = toldToStudents(op, before, this.sequencer.current);
        taken.push({ entry, from, told: { ...entry, op: told } });
        confirm(from, verdict.entry.seq, op.id);
      } else if (verdict.kind === 'known') {
        confirm(from, verdict.seq, op.id);
      } else {
        const details = problem('refused', REFUSALS[verdict.code]);
        details.type = `urn:cuaderno:${verdict.code}`;
        from?.send(pack({ kind: 'refused', id: op.id, problem: details } satisfies ServerMessage));
      }
    }
    if (taken.length > 0) {
      try {
        await this.store.append(
          this.num,
          taken.map(({ entry }) => entry),
        );
      } catch (error) {
        this.fail(error);
        return;
      }
    }
    for (const [member, { seqs, ids }] of confirmations)
      member.send(pack({ kind: 'confirmed', at, seqs, ids } satisfies ServerMessage));
    this.passOn(taken);
    if (taken.some(({ entry }) => changesHeld(entry.op))) this.onHeld();
    if (taken.some(({ entry: { op } }) => changesRules(op) || changesHeld(op))) this.onRules();
  }

  /** Each member gets what others wrote, in runs as long as can be, as far as they may see it. */
  private passOn(taken: readonly Taken[]): void {
    for (let i = 0; i < taken.length;) {
      const { from } = taken[i]!;
      let end = i + 1;
      while (end < taken.length && taken[end]!.from === from) end++;
      const run = taken.slice(i, end);
      const whole = runs(run.map(({ entry }) => entry));
      // Mostly everyone is told the same, and then it is packed once.
      const alike = run.every(({ entry, told }) => told.op === entry.op);
      const told = alike ? whole : runs(run.map((one) => one.told));
      for (const member of this.members)
        if (member !== from)
          for (const bytes of member.role === 'tutor' ? whole : told) member.send(bytes);
      i = end;
    }
  }

  /** Another room has the board from now on: everyone comes back to that one, and what the server wants is done there. */
  retire(): void {
    this.retired = true;
    this.sendAway();
  }

  /** Everyone goes, and comes back to the board as it is on disk. */
  private sendAway(): void {
    this.broken = true;
    for (const member of this.members) member.drop();
    this.members.clear();
  }

  /**
   * The disk refused. Nobody was told that these operations are kept, and nobody will be: everyone
   * is sent away, comes back to the board as it is on disk, and offers again what is pending.
   */
  private fail(error: unknown): void {
    this.log.error({ err: error, board: this.id }, 'a commit failed; the board is opened again');
    if (isDiskFull(error)) this.onFull();
    this.sendAway();
  }
}

function changesRules(op: Operation): boolean {
  return op.kind === 'board.rules' || (op.kind === 'page.change' && op.to.rules !== undefined);
}

/** Entries as messages: neighbours of one person at one time share a message. */
function runs(entries: readonly ToldEntry[]): Uint8Array[] {
  const messages: Uint8Array[] = [];
  for (let i = 0; i < entries.length;) {
    const { seq: from, by, at } = entries[i]!;
    let end = i + 1;
    while (end < entries.length && entries[end]!.by === by && entries[end]!.at === at) end++;
    const ops = entries.slice(i, end).map(({ op }) => op);
    messages.push(pack({ kind: 'applied', from, by, at, ops } satisfies ServerMessage));
    i = end;
  }
  return messages;
}
