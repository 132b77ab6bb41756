import { computed, signal } from '@angular/core';
import { boardFromOutline, emptyBoard, pageFromSnapshot } from '@cuaderno/core/board';
import { onItsSheet } from '@cuaderno/core/edits';
import { CLOSE, MAX_OPERATIONS } from '@cuaderno/core/features';
import { fill, History, predict, receive, replica, withdraw } from '@cuaderno/core/log';
import { inParts, operation } from '@cuaderno/core/ops';
import { appliesTo } from '@cuaderno/core/permissions';
import { inMessages, pack, PROTOCOL } from '@cuaderno/core/wire';
import type { Board } from '@cuaderno/core/board';
import type { ServerMessage } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { InkPoint } from '@cuaderno/core/ink';
import type { Replica, ProjectedEntry } from '@cuaderno/core/log';
import type { Change, Operation } from '@cuaderno/core/ops';
import type { EffectivePermissions, Role, Trust } from '@cuaderno/core/permissions';
import type { Problem } from '@cuaderno/core/problem';
import { Subject } from 'rxjs';
import type { Subscription } from 'rxjs';
import { whenIdle } from '../browser/when-idle';
import { LiveLink } from './live-link';
import type { Dial, LinkEvent } from './live-link';
import { LessonState } from './lesson-state';
import { InkSender } from './live-ink';
import type { LiveInkEvent, StrokeStart } from './live-ink';
import { PageArrivals } from './page-arrivals';
import { PendingStore } from './pending-store';

/** How things stand with the server. */
export type LineState = 'joining' | 'live' | 'away' | 'over' | 'not-in' | 'door' | 'old';

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
/** Longest that is waited for a moment in which nothing else is to be done, in ms. */
const IDLE_WAIT = 500;

/**
 * One board, open in this window: predicts what its person does, sends it, keeps it until it is
 * confirmed, and takes in what everyone else does.
 */
export class BoardSession {
  private readonly link: LiveLink;
  private readonly subscription: Subscription;
  private readonly state = signal<Replica>(replica(emptyBoard('____________'), -1));
  private store: PendingStore | null = null;
  private history: History | null = null;
  /** Entries that came before those they follow. */
  private readonly early = new Map<number, ProjectedEntry>();
  private readonly sent = new Map<Id, number>();
  private gapSince: number | null = null;
  private readonly watch: ReturnType<typeof setInterval>;
  private readonly underWay = new InkSender();
  private looking: Id | null = null;
  private readonly pageArrivals = new PageArrivals((ids) => this.link.send({ kind: 'pages', ids }));
  /** Whether what was done on an earlier visit can be undone by now. */
  private resumed = false;

  /** What is on screen: all that is confirmed, and one's own that isn't yet. */
  readonly board = computed<Board>(() => this.state().view);
  readonly line = signal<LineState>('joining');
  /** Whether nothing is heard of the server just now, for longer than it should take. */
  readonly quiet = signal(false);
  /** Whether the server can keep what is written just now. */
  readonly keeps = signal(true);
  readonly me = signal<Id | null>(null);
  readonly role = signal<Role>('student');
  /** The lesson on this board: who is in it and what is said there. */
  readonly lessonState = new LessonState(
    (message) => this.line() === 'live' && this.link.send(message),
  );
  /** What is known of that lesson, feature by feature. */
  readonly features = this.lessonState.features;
  readonly people = this.features.presence.people;
  readonly lesson = this.lessonState.lesson;
  /** The page to begin on. */
  readonly startPage = signal<Id | null>(null);
  readonly ready = computed(() => this.state().seq >= 0);
  /** Pages of which what is on them hasn't come yet. */
  readonly coming = this.pageArrivals.coming;
  readonly unconfirmed = computed(() => this.state().unconfirmed.length);
  /** What the server would not take, last. */
  readonly problem = signal<Problem | null>(null);
  readonly canUndo = signal(false);
  readonly canRedo = signal(false);
  readonly mine = computed(() => this.people().find(({ id }) => id === this.me()) ?? null);
  readonly trust = computed<Trust>(() =>
    this.role() === 'tutor' ? 'hands' : (this.mine()?.trust ?? 'view'),
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
  readonly liveInk = new Subject<LiveInkEvent>();
  /**
   * What was done while the line was away, and couldn't be taken when it was back: it is kept in this browser until it
   * has gone to the tutor as late lines.
   */
  readonly late = new Subject<LateWork>();
  /** What waited for the line to come back. */
  private readonly waited = new Set<Id>();

  /** @param idle calls back when nothing else is to be done */
  constructor(
    path: string,
    dial?: Dial,
    private readonly idle = (then: () => void): void => void whenIdle(then, IDLE_WAIT),
  ) {
    this.link = new LiveLink(path, dial);
    this.subscription = this.link.events.subscribe((event) => this.onEvent(event));
    this.watch = setInterval(() => this.check(), 1000);
  }

  /** Somebody has signed in again: what they did meanwhile is sent, and what others did comes. */
  comeBack(): void {
    this.link.resume();
  }

  close(): void {
    clearInterval(this.watch);
    this.subscription.unsubscribe();
    this.link.close();
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
    if (this.line() !== 'live') return;
    const message = this.underWay.outgoing(stroke, start, points);
    if (message) this.link.send(message);
  }

  endInk(stroke: Id): void {
    if (this.line() === 'live') this.link.send({ kind: 'live.end', stroke });
  }

  look(page: Id): void {
    if (this.looking === page) return;
    this.looking = page;
    if (this.line() !== 'live') return;
    this.link.send({ kind: 'page.viewed', page });
    this.askOn();
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
    if (this.line() !== 'live' || !this.keeps()) return;
    const now = performance.now();
    for (const batch of inMessages(ops, MAX_OPERATIONS, pack)) {
      if (!this.link.send({ kind: 'ops', ops: batch })) return;
      for (const { id } of batch) this.sent.set(id, now);
    }
  }

  private onEvent(event: LinkEvent): void {
    switch (event.kind) {
      case 'open':
        this.link.send({ kind: 'hello', protocol: PROTOCOL, since: this.state().seq });
        break;
      case 'quiet':
        this.quiet.set(event.is);
        break;
      case 'away':
        this.quiet.set(false);
        this.sent.clear();
        this.pageArrivals.lost();
        this.underWay.forget();
        this.line.set('away');
        break;
      case 'ended':
        if (event.code === CLOSE.over) this.end();
        else if (event.code === CLOSE.old) this.line.set('old');
        else if (event.code === CLOSE.door) this.line.set('door');
        else {
          this.sent.clear();
          this.pageArrivals.lost();
          this.underWay.forget();
          this.line.set('not-in');
        }
        break;
      case 'message':
        this.onMessage(event.message);
        break;
    }
  }

  private onMessage(message: ServerMessage): void {
    switch (message.kind) {
      case 'welcome':
        this.welcome(message);
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
        break;
      case 'live.ink':
      case 'live.more':
      case 'live.end': {
        const event = this.underWay.incoming(message);
        if (event) this.liveInk.next(event);
        break;
      }
      case 'lesson':
        this.lessonState.begin(message.lesson);
        break;
      case 'over':
        this.lessonState.over();
        if (this.role() === 'student') this.end();
        break;
      case 'keeping':
        this.keeps.set(message.on);
        // What was sent meanwhile wasn't taken: all of it is offered again when there is room.
        this.sent.clear();
        if (message.on) this.send(this.state().unconfirmed.map(({ op }) => op));
        break;
      case 'problem':
        this.problem.set(message.problem);
        break;
      default:
        this.lessonState.handle(message);
    }
  }

  private welcome(message: Extract<ServerMessage, { kind: 'welcome' }>): void {
    const { you, role, lesson, page, board } = message;
    this.me.set(you);
    this.role.set(role);
    this.lessonState.ahead.set(message.now - Date.now());
    this.keeps.set(true);
    // From here on what features have to say goes out.
    this.line.set('live');
    this.lessonState.begin(lesson);
    if (board) {
      this.early.clear();
      this.startPage.set(page);
      this.store ??= new PendingStore(board.id, you);
      this.history ??= new History(you);
      // After a break, what is on screen stays there until it comes anew.
      const outline = boardFromOutline(board, this.state().confirmed);
      this.pageArrivals.expect(outline.coming);
      const known = this.state().unconfirmed;
      const ids = new Set(known.map(({ op }) => op.id));
      const stamp = { by: you, at: Date.now(), lesson: lesson?.id ?? null };
      const kept = this.store.load().filter(({ id }) => !ids.has(id));
      for (const { id } of kept) this.waited.add(id);
      this.state.set(
        replica(outline.board, board.seq, [...kept.map((op) => ({ op, stamp })), ...known]),
      );
    }
    this.problem.set(null);
    this.resume();
    const pending = this.state().unconfirmed.map(({ op }) => op);
    for (const { id } of pending) this.waited.add(id);
    this.send(pending);
    if (this.looking) this.link.send({ kind: 'page.viewed', page: this.looking });
    this.askOn();
  }

  /** What is on pages comes as it stands after all that was told before. */
  private fill(message: Extract<ServerMessage, { kind: 'pages' }>): void {
    if (message.seq !== this.state().seq) return this.link.reconnect();
    this.state.set(fill(this.state(), message.pages.map(pageFromSnapshot)));
    this.pageArrivals.arrived(message.ids);
    this.resume();
    this.idle(() => this.askOn());
  }

  private askOn(): void {
    if (this.line() === 'live')
      this.pageArrivals.askOn(this.state().view, this.looking ?? this.startPage());
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
      this.role() === 'student' && this.waited.has(id) && TOO_LATE.has(problem.type) && op;
    if (isLate) this.sent.delete(id);
    else this.settle(id);
    this.state.set(withdraw(this.state(), id));
    this.endInk(id);
    if (isLate) this.tellLate([op]);
    else this.problem.set(problem);
  }

  /** The lesson is over: what hasn't arrived by then is late. */
  private end(): void {
    if (this.line() === 'over') return;
    this.line.set('over');
    const pending = this.state().unconfirmed.map(({ op }) => op);
    if (pending.length > 0) this.tellLate(pending);
  }

  private tellLate(ops: readonly Operation[]): void {
    const [board, person] = [this.board().id, this.me()];
    if (person) this.late.next({ board, person, ops });
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

  /** Whatever should have come by now is asked for once more, on a new connection. */
  private check(): void {
    if (this.line() !== 'live') return;
    const now = performance.now();
    const late = [...this.sent.values()].some((at) => now - at > PATIENCE);
    if (late || (this.gapSince !== null && now - this.gapSince > GAP_PATIENCE)) {
      this.gapSince = null;
      this.early.clear();
      this.link.reconnect();
    }
  }
}
