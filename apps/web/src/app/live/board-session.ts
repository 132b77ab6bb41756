import { computed, signal } from '@angular/core';
import type { Signal, WritableSignal } from '@angular/core';
import { boardFromOutline, emptyBoard, pageFromSnapshot } from '@cuaderno/core/board';
import { onItsSheet } from '@cuaderno/core/edits';
import { MAX_OPERATIONS } from '@cuaderno/core/features';
import { fill, History, predict, receive, replica, withdraw } from '@cuaderno/core/log';
import { inParts, operation } from '@cuaderno/core/ops';
import { appliesTo, teaches } from '@cuaderno/core/permissions';
import { inMessages, pack } from '@cuaderno/core/wire';
import type { Board } from '@cuaderno/core/board';
import type { BoardWanted, Person, ServerMessage, View } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { InkPoint } from '@cuaderno/core/ink';
import type { Replica, ProjectedEntry } from '@cuaderno/core/log';
import type { Change, Operation } from '@cuaderno/core/ops';
import type { EffectivePermissions, Role, Trust } from '@cuaderno/core/permissions';
import type { Problem } from '@cuaderno/core/problem';
import { Subject } from 'rxjs';
import type { LessonFeatures } from './features/register';
import type { LessonLine, LineState } from './lesson-line';
import type { LessonState } from './lesson-state';
import type { LiveInkEvent, StrokeStart } from './live-ink';
import { PageArrivals } from './page-arrivals';
import { PendingStore } from './pending-store';

/** Stands for the id of a board that hasn't come. */
const NAMELESS = '____________';

/** Somebody's operations on a board that came too late. */
export interface LateWork {
  readonly board: Id;
  readonly person: Id;
  readonly ops: readonly Operation[];
}

/** Why something isn't taken any more that was allowed when it was done. */
const TOO_LATE = new Set(
  ['no-pen', 'pens-in', 'no-such-page'].map((code) => `urn:cuaderno:${code}`),
);

/** How long an operation may wait for its confirmation before the line is tried anew, in ms. */
const PATIENCE = 8000;
/** How long entries may be missing in between before they are asked for, in ms. */
const GAP_PATIENCE = 2000;
/** What the server says of a board that this window has open. */
type BoardAnswer = Extract<
  ServerMessage,
  { kind: 'board.opened' | 'board.closed' | 'pages' | 'applied' | 'confirmed' | 'refused' }
>;

/**
 * One board, open in this window: predicts what its person does, sends it, keeps it until it is
 * confirmed, and takes in what everyone else does. Who that is and what lesson is open says the window's line.
 */
export class BoardSession {
  private readonly state = signal<Replica>(replica(emptyBoard(NAMELESS), -1));
  private store: PendingStore | null = null;
  private history: History | null = null;
  /** Entries that came before those they follow. */
  private readonly early = new Map<number, ProjectedEntry>();
  private readonly sent = new Map<Id, number>();
  private gapSince: number | null = null;
  private looking: Id | null = null;
  private readonly pageArrivals = new PageArrivals((ids) => {
    const board = this.id();
    return board !== null && this.lessonLine.send({ kind: 'pages', board, ids });
  });
  /** Whether what was done on an earlier visit can be undone by now. */
  private resumed = false;
  /** What stands for it in what is told of it; `null` while nothing is. */
  number: number | null = null;
  /** Whether the server tells of this board just now. */
  private isOpen = false;

  /** Which board it is; `null` before the server has named the one to begin on. */
  readonly id: Signal<Id | null>;
  private readonly named: WritableSignal<Id | null>;
  /** Why nothing is told of this board any more, or can't be. */
  readonly closed = signal<Problem | null>(null);
  /** What is on screen: all that is confirmed, and one's own that isn't yet. */
  readonly board = computed<Board>(() => this.state().view);
  /** The page to begin on. */
  readonly startPage = signal<Id | null>(null);
  /** A page to begin at in place of the one that the server proposes, if it is there. */
  wishedPage: Id | null = null;
  /** Where this window was on it last, or is to go; `null` where it wasn't there. */
  readonly place = signal<View | null>(null);
  readonly ready = computed(() => this.state().seq >= 0);
  /** Pages of which what is on them hasn't come yet. */
  readonly coming = this.pageArrivals.coming;
  readonly unconfirmed = computed(() => this.state().unconfirmed.length);
  readonly canUndo = signal(false);
  readonly canRedo = signal(false);
  readonly liveInk = new Subject<LiveInkEvent>();
  /** What waited for the line to come back. */
  private readonly waited = new Set<Id>();

  // What the line knows, for those who have a board in hand.
  readonly line: Signal<LineState>;
  readonly quiet: Signal<boolean>;
  readonly keeps: Signal<boolean>;
  readonly me: Signal<Id | null>;
  readonly role: Signal<Role>;
  readonly lessonState: LessonState;
  readonly features: LessonFeatures;
  readonly people: Signal<readonly Person[]>;
  readonly lesson: Signal<{ id: Id; openedAt: number } | null>;
  readonly mine: Signal<Person | null>;
  readonly problem: WritableSignal<Problem | null>;
  readonly trust = computed<Trust>(() =>
    teaches(this.role()) ? 'hands' : (this.mine()?.trust ?? 'view'),
  );
  /** What this person may do on a page, and why. */
  readonly applies = computed(() => {
    const actor = {
      id: this.me() ?? '',
      role: this.role(),
      trust: this.trust(),
      person: this.mine()?.rules ?? {},
      course: this.features.pens.rules(),
    };
    return (page: Id | null): EffectivePermissions => {
      const board = this.board();
      return appliesTo(actor, board, board.pages.get(page ?? ''));
    };
  });

  /** Made by `LessonLine.open`. */
  constructor(
    private readonly lessonLine: LessonLine,
    board: Id | null,
  ) {
    this.named = signal(board);
    this.id = this.named.asReadonly();
    const { line, quiet, keeps, me, role, lessonState, features, people, lesson } = lessonLine;
    const { mine, problem } = lessonLine;
    this.line = line;
    this.quiet = quiet;
    this.keeps = keeps;
    this.me = me;
    this.role = role;
    this.lessonState = lessonState;
    this.features = features;
    this.people = people;
    this.lesson = lesson;
    this.mine = mine;
    this.problem = problem;
  }

  /** What is asked of the server to have it open. */
  get wanted(): BoardWanted {
    return { board: this.id(), since: this.state().seq };
  }

  /** Does something at once, keeps it on this machine, and sends it. */
  do(change: Change | Operation, gesture: object | null = null): void {
    const placed = onItsSheet(this.board(), change);
    if ('id' in placed) return this.step([placed], gesture);
    const ops = inParts(placed).map(operation);
    this.step(ops, gesture ?? (ops.length > 1 ? {} : null));
  }

  /** Does something that this person can't take back by themselves. */
  doForGood(change: Change): void {
    this.make(inParts(onItsSheet(this.board(), change)).map(operation));
  }

  /** Does several things as one step. */
  doAll(changes: readonly Change[]): void {
    this.step(
      changes.flatMap((change) => inParts(onItsSheet(this.board(), change)).map(operation)),
      {},
    );
  }

  private step(ops: readonly Operation[], gesture: object | null): void {
    for (const op of ops) this.history?.record(op, gesture);
    this.make(ops);
  }

  /** What the server did on this person's behalf can be undone as what they did themselves. */
  done(change: Change, gesture: object): void {
    this.history?.record(operation(change), gesture);
    this.noteHistory();
  }

  undo(): void {
    this.make(this.history?.undo(this.board()) ?? []);
  }

  redo(): void {
    this.make(this.history?.redo(this.board()) ?? []);
  }

  sendInk(stroke: Id, start: StrokeStart | undefined, points: readonly InkPoint[]): void {
    const board = this.id();
    if (!board || !this.isHeard) return;
    const message = this.lessonLine.underWay.outgoing(board, stroke, start, points);
    if (message) this.lessonLine.send(message);
  }

  endInk(stroke: Id): void {
    if (this.isHeard) this.lessonLine.send({ kind: 'live.end', stroke });
  }

  /** This window shows a page of it. */
  look(page: Id): void {
    if (this.looking === page) return;
    this.looking = page;
    this.tellLooking();
    this.askOn();
  }

  /** This window shows another board. */
  lookAway(): void {
    this.looking = null;
  }

  /** Says which page this window shows: also to a lesson that has just begun. */
  tellLooking(): void {
    const [board, page] = [this.id(), this.looking];
    if (board && page && this.isHeard) this.lessonLine.send({ kind: 'page.viewed', board, page });
  }

  /** Whether what is said of it now reaches the server. */
  private get isHeard(): boolean {
    return this.line() === 'live' && this.isOpen;
  }

  /** Calls back when all that is on these pages is here: at once, as a rule. */
  whenHere(pages: readonly Id[], then: () => void): void {
    this.pageArrivals.whenHere(pages, then);
    this.askOn();
  }

  private make(ops: readonly Operation[]): void {
    const me = this.me();
    if (!me || ops.length === 0) return;
    const stamp = { by: me, at: Date.now(), lesson: this.lesson()?.id ?? null };
    let next = this.state();
    for (const op of ops) {
      next = predict(next, op, stamp);
      this.store?.add(op);
    }
    this.state.set(next);
    this.send(ops);
    this.noteHistory();
  }

  private send(ops: readonly Operation[]): void {
    const board = this.id();
    if (!board || !this.isHeard || !this.keeps()) return;
    const now = performance.now();
    for (const batch of inMessages(ops, MAX_OPERATIONS, pack)) {
      if (!this.lessonLine.send({ kind: 'ops', board, ops: batch })) return;
      for (const { id } of batch) this.sent.set(id, now);
    }
  }

  handle(message: BoardAnswer): void {
    switch (message.kind) {
      case 'board.opened':
        this.opened(message);
        break;
      case 'board.closed':
        this.isOpen = false;
        this.closed.set(message.problem);
        this.tellAllLate();
        break;
      case 'pages':
        this.fill(message);
        break;
      case 'applied': {
        const { from, by, at, ops } = message;
        const lesson = this.lesson()?.id ?? null;
        this.receive(ops.map((op, i) => ({ seq: from + i, by, at, lesson, op })));
        break;
      }
      case 'confirmed':
        this.confirm(message.at, message.seqs, message.ids);
        break;
      case 'refused':
        this.refuse(message.id, message.problem);
    }
  }

  /** The line broke: what was sent may not have come. */
  lost(): void {
    this.isOpen = false;
    this.number = null;
    this.sent.clear();
    this.pageArrivals.lost();
  }

  /** What was sent while nothing could be kept wasn't taken: all of it is offered again when there is room. */
  offerAgain(): void {
    this.sent.clear();
    this.send(this.state().unconfirmed.map(({ op }) => op));
  }

  private opened(message: Extract<ServerMessage, { kind: 'board.opened' }>): void {
    const { board: id, number, page, outline } = message;
    const you = this.me();
    if (!you) return;
    this.named.set(id);
    this.number = number;
    this.closed.set(null);
    this.isOpen = true;
    if (outline) {
      this.early.clear();
      const wished = outline.pages.some(({ id, removed }) => id === this.wishedPage && !removed);
      this.startPage.set(wished ? this.wishedPage : page);
      this.store ??= new PendingStore(id, you);
      this.history ??= new History(you);
      // After a break, what is on screen stays there until it comes anew.
      const { board, coming } = boardFromOutline(outline, this.state().confirmed);
      this.pageArrivals.expect(coming);
      const known = this.state().unconfirmed;
      const ids = new Set(known.map(({ op }) => op.id));
      const stamp = { by: you, at: Date.now(), lesson: this.lesson()?.id ?? null };
      const kept = this.store.load().filter((op) => !ids.has(op.id));
      for (const op of kept) this.waited.add(op.id);
      this.state.set(replica(board, outline.seq, [...kept.map((op) => ({ op, stamp })), ...known]));
    }
    this.resume();
    const pending = this.state().unconfirmed.map(({ op }) => op);
    for (const op of pending) this.waited.add(op.id);
    this.send(pending);
    this.tellLooking();
    this.askOn();
  }

  /** What is on pages comes as it stands after all that was told before. */
  private fill(message: Extract<ServerMessage, { kind: 'pages' }>): void {
    if (message.seq !== this.state().seq) return this.lessonLine.reconnect();
    this.state.set(fill(this.state(), message.pages.map(pageFromSnapshot)));
    this.pageArrivals.arrived(message.ids);
    this.resume();
    this.lessonLine.idle(() => this.askOn());
  }

  private askOn(): void {
    if (this.isHeard) this.pageArrivals.askOn(this.state().view, this.looking ?? this.startPage());
  }

  /** Once all is here, what was done on an earlier visit can be undone, too. */
  private resume(): void {
    if (!this.resumed && this.ready() && this.coming().size === 0) {
      this.resumed = true;
      this.history?.resume(this.board(), this.lesson()?.id ?? null);
    }
    this.noteHistory();
  }

  private confirm(at: number, seqs: readonly number[], ids: readonly Id[]): void {
    const pending = new Map(this.state().unconfirmed.map((p) => [p.op.id, p]));
    const entries: ProjectedEntry[] = [];
    ids.forEach((id, i) => {
      const mine = pending.get(id);
      if (!mine) return this.settle(id);
      const seq = seqs[i]!;
      if (seq > this.state().seq) entries.push({ ...mine.stamp, at, seq, op: mine.op });
      else {
        // It came back with everything else after a break.
        this.settle(id);
        this.state.set(withdraw(this.state(), id));
      }
    });
    this.receive(entries);
  }

  /** Takes entries in as soon as none before them is missing. */
  private receive(entries: readonly ProjectedEntry[]): void {
    for (const entry of entries) if (entry.seq > this.state().seq) this.early.set(entry.seq, entry);
    const run: ProjectedEntry[] = [];
    for (let seq = this.state().seq + 1; this.early.has(seq); seq++) {
      run.push(this.early.get(seq)!);
      this.early.delete(seq);
    }
    if (run.length > 0) {
      this.state.set(receive(this.state(), run)!);
      for (const { op } of run) this.settle(op.id);
    }
    this.gapSince = this.early.size > 0 ? (this.gapSince ?? performance.now()) : null;
    this.noteHistory();
  }

  private settle(id: Id): void {
    this.sent.delete(id);
    this.waited.delete(id);
    this.store?.remove(id);
  }

  /** The server doesn't take it. What waited for the line isn't lost by that: its tutor will see it. */
  private refuse(id: Id, problem: Problem): void {
    const op = this.state().unconfirmed.find((one) => one.op.id === id)?.op;
    const isLate =
      this.role() !== 'tutor' && this.waited.has(id) && TOO_LATE.has(problem.type) && op;
    if (isLate) this.sent.delete(id);
    else this.settle(id);
    this.state.set(withdraw(this.state(), id));
    this.endInk(id);
    if (isLate) this.tellLate([op]);
    else this.problem.set(problem);
  }

  /** What hasn't arrived by now is late: the lesson is over, or the class hasn't this board any more. */
  tellAllLate(): void {
    const pending = this.state().unconfirmed.map(({ op }) => op);
    if (pending.length > 0) this.tellLate(pending);
  }

  private tellLate(ops: readonly Operation[]): void {
    const [board, person] = [this.id(), this.me()];
    if (board && person) this.lessonLine.late.next({ board, person, ops });
  }

  /** Those have gone to the tutor, or can go nowhere. */
  settled(ids: readonly Id[]): void {
    for (const id of ids) {
      this.settle(id);
      this.state.set(withdraw(this.state(), id));
    }
  }

  private noteHistory(): void {
    this.canUndo.set(this.history?.canUndo ?? false);
    this.canRedo.set(this.history?.canRedo ?? false);
  }

  /** Whether something that should have come by now hasn't: an answer, or what lies between two entries. */
  isLate(): boolean {
    if (!this.isOpen) return false;
    const now = performance.now();
    const late = [...this.sent.values()].some((at) => now - at > PATIENCE);
    if (!late && (this.gapSince === null || now - this.gapSince <= GAP_PATIENCE)) return false;
    this.gapSince = null;
    this.early.clear();
    return true;
  }
}
