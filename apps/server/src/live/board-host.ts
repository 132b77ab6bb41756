import {
  audienceOf,
  boardFor,
  changesFiles,
  changesHidden,
  hiddenOf,
  isOperation,
  isWhole,
  maySee,
  nearestPages,
  pack,
  packMessage,
  packWithBoard,
  packWithPages,
  same,
  sizeOf,
  projectFor,
} from '@cuaderno/core';
import type {
  Actor,
  Audience,
  Board,
  Entry,
  Id,
  KeptEntry,
  Operation,
  ServerMessage,
  Sequencer,
  ProjectedEntry,
  Unreadable,
} from '@cuaderno/core';
import type { FastifyBaseLogger } from 'fastify';
import type { LogStore } from '../boards/log-store.js';
import { isDiskFull } from '../problems/index.js';
import { Commit, refuse, runs } from './commit.js';
import type { TakenOperation } from './commit.js';
import type { Member } from './member.js';
import { OfferQueue } from './offer-queue.js';
import type { Offer } from './offer-queue.js';
import { packedFor, projectEntry } from './passing-on.js';
import type { End } from './passing-on.js';

/** Operations in one commit at most, so that the first of a flood needn't wait for the last; but see `together`. */
const COMMIT_SIZE = 400;
/** For how long operations are given their places before those that have them are made durable, in ms. */
const COMMIT_WORK = 8;
/** Items that come with a board at once: those of the page in view, and of others while they are few. */
const FIRST_ITEMS = 100;
/** Pages with items that come with a board at once. */
const FIRST_PAGES = 5;
/** Times a window may ask for pages before it has any of them. */
const MAX_ASKS = 4;

/**
 * One board, open: gives operations their order, makes them durable, then confirms them and passes
 * them on. Everything that must see the board between two commits waits in the same queue.
 */
export class BoardHost {
  private readonly members = new Set<Member>();
  /** How often each asks for pages just now. */
  private readonly asks = new WeakMap<Member, number>();
  private readonly queue = new OfferQueue();
  private running = false;
  private broken = false;
  /**
   * Set when the board was put away, since nobody was here any more or its log was changed on disk: another
   * room may have it by now, and anyone who still has hold of this one is sent on to that.
   */
  private retired = false;
  /** The room that has the board after this one. */
  successor: () => Promise<BoardHost> = () => Promise.resolve(this);
  /** Called when nobody is here any more and nothing is left to do. */
  onIdle: () => void = () => undefined;
  /** Called when something is hidden or shown from now on; `soon` where pages were taken out or came back. */
  onHiddenChanged: (when: 'now' | 'soon') => void = () => undefined;
  /** Called when there was no room on the disk for what was written. */
  onFull: () => void = () => undefined;
  /** Called when students may do or see something else on it from now on. */
  onRules: () => void = () => undefined;
  /** Called when it is called something else from now on. */
  onTitle: () => void = () => undefined;
  /** The lesson in which things are written just now. */
  lesson: Id | null = null;

  constructor(
    readonly id: Id,
    /** Stands for it in what its windows are told. */
    readonly number: number,
    private readonly num: number,
    private readonly sequencer: Sequencer,
    private readonly store: LogStore,
    private readonly log: FastifyBaseLogger,
    /** What can't be read of its log. */
    readonly unreadable: readonly Entry<Unreadable>[],
  ) {}

  get isIdle(): boolean {
    return this.members.size === 0 && this.queue.isEmpty && !this.running;
  }

  get isBroken(): boolean {
    return this.broken;
  }

  /** Takes operations in; the outcome is told to `from`. */
  offer(ops: readonly Operation[], from: Member): void {
    for (const op of ops) this.queue.offer({ op, from, actor: () => from.actor() });
    this.begin();
  }

  /**
   * Takes operations that the server makes on someone's behalf: all of them in one commit, so that a page that was
   * imported is never there without what was written on it. On disk when this returns.
   */
  async applyAs(ops: readonly Operation[], actor: Actor): Promise<void> {
    if (this.retired) return (await this.successor()).applyAs(ops, actor);
    const together = {};
    for (const op of ops) this.queue.offer({ op, from: null, actor: () => actor, together });
    await this.inTurn(
      () => undefined,
      (host) => host.applyAs(ops, actor),
    );
  }

  /** Takes in what was made on another board, with its makers' names, in one commit. On disk when this returns. */
  async append(entries: readonly Omit<Entry, 'seq'>[]): Promise<void> {
    if (this.retired) return (await this.successor()).append(entries);
    const together = {};
    for (const { op, by, at, lesson } of entries) {
      const actor: Actor = { id: by, role: 'tutor', trust: 'hands', imports: true };
      this.queue.offer({ op, from: null, origin: { at, lesson }, actor: () => actor, together });
    }
    await this.inTurn(
      () => undefined,
      (host) => host.append(entries),
    );
  }

  /** Runs `what` between two commits, when all that was offered before is on disk. */
  async between<T>(
    what: (board: Board, seq: number, host: BoardHost) => T | Promise<T>,
  ): Promise<T> {
    if (this.retired) return (await this.successor()).between(what);
    return this.inTurn(what, (host) => host.between(what));
  }

  /** @param elsewhere what is done instead if another host has the board when the turn comes */
  private inTurn<T>(
    what: (board: Board, seq: number, host: BoardHost) => T | Promise<T>,
    elsewhere: (host: BoardHost) => Promise<T>,
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
      this.queue.run(run);
      this.begin();
    });
  }

  /**
   * Lets a window in. It is given what it misses: all entries after `since`, or the board with what is
   * on the page in view, as far as its person may see them.
   * @param start the page to begin on, of the board as they see it; `undefined` where this window isn't to come in any
   * more
   */
  async join(
    member: Member,
    since: number,
    start: (seen: Board) => Id | null | undefined,
  ): Promise<void> {
    await this.between(async (board, seq, host) => {
      const seen = boardFor(board, member.viewer);
      const missed = since >= 0 && since <= seq ? await host.missed(member, since) : null;
      const page = start(seen);
      // They may have gone while they waited.
      if (page === undefined) return;
      const first = { kind: 'board.opened', board: host.id, number: host.number, page };
      const near = (): Set<Id> =>
        new Set(nearestPages(seen, page, ({ items }) => items.size, FIRST_ITEMS, FIRST_PAGES));
      member.send(
        missed ? pack({ ...first, outline: null }) : packWithBoard(first, seen, seq, near()),
      );
      for (const run of runs(host.number, missed ?? [])) member.send(run);
      host.members.add(member);
    });
  }

  /** Sends what is on pages, as they stand when all that was said before has been sent. */
  async give(member: Member, ids: readonly Id[]): Promise<void> {
    const waiting = this.asks.get(member) ?? 0;
    // Anyone who keeps asking is served when the line has taken what they asked for.
    if (waiting >= MAX_ASKS) return member.drop();
    this.asks.set(member, waiting + 1);
    await this.between((board, seq) => {
      const seen = boardFor(board, member.viewer);
      const pages = ids.flatMap((id) => seen.pages.get(id) ?? []);
      member.send(packWithPages({ kind: 'pages', board: this.id, seq, ids }, pages));
    }).finally(() => this.asks.set(member, this.asks.get(member)! - 1));
  }

  /** Whether an operation with one of these ids was taken. */
  knowsAny(ids: readonly Id[]): boolean {
    return ids.some((id) => this.sequencer.knows(id));
  }

  /** The board as it is now, on disk or about to be. */
  get board(): Board {
    return this.sequencer.board;
  }

  /** The board as it is this moment, to look at only: the next operation changes it. */
  get now(): Board {
    return this.sequencer.current;
  }

  /** Whom this page is for. One that is only on its way isn't known to anyone yet. */
  audienceOf(page: Id): Audience {
    return audienceOf(this.sequencer.current.pages.get(page));
  }

  /** Entries after `since` as they are sent to a member; `null` where only the whole board will do. */
  private async missed(member: Member, since: number): Promise<ProjectedEntry[] | null> {
    const kept = await this.store.entries(this.num, since);
    const entries = kept.filter(isWhole);
    // Something was taken out of the board: what they have isn't it any more.
    if (entries.length < kept.length) return null;
    if (maySee(member.viewer, 'tutors')) return entries;
    // What was hidden in between isn't known any more for each of them.
    if (entries.some(({ op }) => changesHidden(op))) return null;
    const { current } = this.sequencer;
    return entries.map((entry) => ({
      ...entry,
      op: projectFor(entry.op, hiddenOf(entry.op, current), current, member.viewer),
    }));
  }

  leave(member: Member): void {
    this.members.delete(member);
    if (this.isIdle) this.onIdle();
  }

  /** Sends to everyone but `except`. */
  broadcast(message: ServerMessage, except: Member | null = null): void {
    const bytes = pack(message);
    for (const member of this.members) if (member !== except) member.send(bytes);
  }

  /** Sends what may be dropped to those whom it is for, but not to `except`. */
  broadcastLive(message: ServerMessage, except: Member, audience: Audience): void {
    const bytes = packMessage(message);
    for (const member of this.members)
      if (member !== except && maySee(member.viewer, audience)) member.sendLive(bytes);
  }

  private begin(): void {
    if (this.running) return;
    this.running = true;
    this.work().catch((error: unknown) => this.log.error({ err: error }, 'a board got stuck'));
  }

  private async work(): Promise<void> {
    // What else arrives in this turn of the event loop goes into the same commit.
    await new Promise((resolve) => setImmediate(resolve));
    while (!this.queue.isEmpty) {
      const job = this.queue.job();
      try {
        if (job) await job();
        else await this.commit();
      } catch (error) {
        // What was offered while it failed is answered, too.
        this.fail(error);
      }
    }
    this.running = false;
    if (this.isIdle) this.onIdle();
  }

  private async commit(): Promise<void> {
    const commit = new Commit();
    const begun = performance.now();
    for (
      let turn = this.queue.turn(), n = 0;
      turn;
      turn = n < COMMIT_SIZE && performance.now() - begun < COMMIT_WORK ? this.queue.turn() : null
    ) {
      if (!this.broken) for (const offer of turn) this.place(offer, commit);
      n += turn.length;
    }
    if (this.broken) return;
    try {
      await this.tellKnown(commit);
      if (commit.taken.length > 0)
        await this.store.append(
          this.num,
          commit.taken.map(({ entry }) => entry),
        );
    } catch (error) {
      this.fail(error);
      return;
    }
    for (const [member, { seqs, ids }] of commit.confirmations)
      member.send(
        pack({
          kind: 'confirmed',
          board: this.id,
          at: commit.at,
          seqs,
          ids,
        } satisfies ServerMessage),
      );
    this.passOn(commit.taken);
    const ops = commit.taken.map(({ entry }) => entry.op);
    if (ops.some(changesHidden)) this.onHiddenChanged('now');
    else if (ops.some(changesFiles)) this.onHiddenChanged('soon');
    if (ops.some((op) => changesRules(op) || changesHidden(op))) this.onRules();
    if (ops.some(({ kind }) => kind === 'board.rename')) this.onTitle();
  }

  /** Gives an operation its place, or says why it has none. */
  private place(offer: Offer, commit: Commit): void {
    const { op, from } = offer;
    if (!from) return this.sequence(offer, commit);
    const begun = performance.now();
    const { seq } = this.sequencer;
    try {
      this.sequence(offer, commit);
    } catch (error) {
      // Where it was half done, the board in memory isn't what it was any more.
      if (this.sequencer.seq !== seq) throw error;
      this.log.error({ err: error, board: this.id, kind: op.kind }, 'an operation was not taken');
      refuse(from, this.id, op.id, 'bad-item');
      from.drop();
    }
    from.worked(performance.now() - begun);
  }

  private sequence({ op, actor, from, origin }: Offer, commit: Commit): void {
    const { lesson } = origin ?? this;
    const before = hiddenOf(op, this.sequencer.current);
    const who = actor();
    // What a tutor writes isn't measured: only students' share of a lesson is limited.
    const cost = from && from.viewer.role !== 'tutor' ? sizeOf(op) : 0;
    // What is kept already takes up no more.
    if (from && !this.sequencer.knows(op.id) && !from.mayKeep(cost))
      return refuse(from, this.id, op.id, 'too-much');
    const verdict = this.sequencer.offer(op, who, origin?.at ?? commit.at, lesson);
    if (verdict.kind === 'taken') {
      const { entry } = verdict;
      const projected = projectEntry(entry, before, this.sequencer.current, this.members);
      commit.taken.push({ entry, from, ...projected });
      commit.confirm(from, entry.seq, op.id);
      if (cost > 0) from?.keeps(cost);
    } else if (verdict.kind === 'known') commit.known.push({ seq: verdict.seq, op, from });
    else if (from) refuse(from, this.id, op.id, verdict.code);
  }

  /** Who offers again what is kept is told so; who offers something else by the same id is not. */
  private async tellKnown({ known, taken, confirm }: Commit): Promise<void> {
    if (known.length === 0) return;
    const here = new Map(taken.map(({ entry }) => [entry.seq, entry as KeptEntry]));
    const wanted = known.map(({ seq }) => seq).filter((seq) => !here.has(seq));
    for (const entry of await this.store.some(this.num, wanted)) here.set(entry.seq, entry);
    for (const { seq, op, from } of known) {
      const kept = here.get(seq)?.op;
      // What was taken out of the log is known by its id alone.
      if (!kept || !isOperation(kept) || same(kept, op)) confirm(from, seq, op.id);
      else if (from) refuse(from, this.id, op.id, 'id-taken');
    }
  }

  /** Each member gets what others wrote, in runs as long as can be, as far as they may see it. */
  private passOn(taken: readonly TakenOperation[]): void {
    for (let i = 0; i < taken.length;) {
      const { from } = taken[i]!;
      let end = i + 1;
      while (end < taken.length && taken[end]!.from === from) end++;
      const run = taken.slice(i, end);
      const bytesFor = packedFor(this.number, run, this.endsOf(run, from));
      for (const member of this.members)
        if (member !== from) for (const bytes of bytesFor(member.viewer)) member.send(bytes);
      i = end;
    }
  }

  /** Lines that were under way are these items, which follow; anyone who wasn't shown the one isn't sent the other. */
  private endsOf(run: readonly TakenOperation[], from: Member | null): End[] {
    return run.flatMap(({ entry: { op } }) => {
      const n = op.kind === 'ink.add' ? from?.strokeThatIs(op.id) : undefined;
      if (n === undefined || op.kind !== 'ink.add') return [];
      const bytes = pack({ kind: 'live.end', n, item: op.id } satisfies ServerMessage);
      return [{ bytes, audience: this.audienceOf(op.page) }];
    });
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
