import { computed, signal, untracked } from '@angular/core';
import { CLOSE, MAX_BOARDS } from '@cuaderno/core/features';
import { PROTOCOL } from '@cuaderno/core/wire';
import type { BoardWanted, ClientMessage, ServerMessage } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { Role } from '@cuaderno/core/permissions';
import type { Problem } from '@cuaderno/core/problem';
import { Subject } from 'rxjs';
import type { Subscription } from 'rxjs';
import { whenIdle } from '../browser/when-idle';
import { BoardSession } from './board-session';
import type { LateWork } from './board-session';
import { keptByPeople } from './kept-by-people';
import { LessonState } from './lesson-state';
import { InkSender } from './live-ink';
import { LiveLink } from './live-link';
import type { Dial, LinkEvent } from './live-link';

/** How things stand with the server. */
export type LineState = 'joining' | 'live' | 'away' | 'over' | 'not-in' | 'door' | 'old';

/** How often it is looked whether something that should have come hasn't, in ms. */
const WATCH = 1000;
/** Longest that is waited for a moment in which nothing else is to be done, in ms. */
const IDLE_WAIT = 500;
/** Boards that stay open once they were looked at: going back to one takes no time. Below `MAX_BOARDS`. */
const STAY_OPEN = MAX_BOARDS - 2;

/** Messages that are about one board. */
type BoardMessage = Extract<ServerMessage, { readonly board: Id | null }>;

/**
 * This window's one line to the server: who one is on it, the lesson, and the boards that are open here. It mends
 * itself, and opens those boards anew.
 */
export class LessonLine {
  private readonly link: LiveLink;
  private readonly subscription: Subscription;
  private readonly watch: ReturnType<typeof setInterval>;
  /** Boards that are open here; the one that was looked at last comes last. */
  private readonly sessions = signal<readonly BoardSession[]>([]);

  /** Whether it was looked, since this line is there, for what was left on other boards. */
  private hasLooked = false;

  readonly line = signal<LineState>('joining');
  /** Whether nothing is heard of the server just now, for longer than it should take. */
  readonly quiet = signal(false);
  /** Whether the server can keep what is written just now. */
  readonly keeps = signal(true);
  readonly me = signal<Id | null>(null);
  readonly role = signal<Role>('student');
  /** Whether this person is something else by now than this line was dialled for: what it has is another's. */
  readonly isOfAnother = signal(false);
  /** The lesson: who is in it and what is said there. */
  readonly lessonState = new LessonState((message) => this.line() === 'live' && this.send(message));
  /** What is known of that lesson, feature by feature. */
  readonly features = this.lessonState.features;
  readonly people = this.features.presence.people;
  readonly lesson = this.lessonState.lesson;
  readonly mine = computed(() => this.people().find(({ id }) => id === this.me()) ?? null);
  /** The boards that are open here and have a name, by that. */
  readonly boards = computed<ReadonlyMap<Id, BoardSession>>(
    () => new Map(this.sessions().flatMap((one) => (one.id() ? [[one.id()!, one]] : []))),
  );
  /** How much of what was done on any board here isn't confirmed. */
  readonly unconfirmed = computed(() =>
    this.sessions().reduce((sum, { unconfirmed }) => sum + unconfirmed(), 0),
  );
  /** What the server would not take, last. */
  readonly problem = signal<Problem | null>(null);
  /** Others' strokes under way, and one's own. */
  readonly underWay = new InkSender();
  /**
   * What was done while the line was away, and couldn't be taken when it was back: it is kept in this browser until it
   * has gone to the tutor as late lines.
   */
  readonly late = new Subject<LateWork>();

  /**
   * @param path where it leads, as `/live/lesson`
   * @param idle calls back when nothing else is to be done
   */
  constructor(
    path: string,
    dial?: Dial,
    readonly idle = (then: () => void): void => void whenIdle(then, IDLE_WAIT),
  ) {
    this.link = new LiveLink(path, dial);
    this.subscription = this.link.events.subscribe((event) => this.onEvent(event));
    this.watch = setInterval(() => this.check(), WATCH);
  }

  /**
   * A board, open in this window from now on; the same one as before, where it is open already.
   * @param board `null` for the one to begin on, which the server names
   */
  open(board: Id | null): BoardSession {
    return untracked(() => this.openNow(board));
  }

  private openNow(board: Id | null): BoardSession {
    const known = board && this.sessions().find((session) => session.id() === board);
    if (known) {
      this.sessions.update((all) => [...all.filter((session) => session !== known), known]);
      return known;
    }
    // What isn't confirmed yet is waited for. Room is made before the server is asked for one more.
    const rests = this.sessions().filter(({ unconfirmed }) => unconfirmed() === 0);
    const tooMany = Math.max(0, this.sessions().length + 1 - STAY_OPEN);
    for (const one of rests.slice(0, tooMany)) this.drop(one);
    const session = new BoardSession(this, board);
    this.sessions.update((all) => [...all, session]);
    this.ask(session);
    return session;
  }

  send(message: ClientMessage): boolean {
    return this.link.send(message);
  }

  /** Whatever comes next may be missing something: all is asked for anew, on a new connection. */
  reconnect(): void {
    this.link.reconnect();
  }

  /** Somebody has signed in again: what they did meanwhile is sent, and what others did comes. */
  comeBack(): void {
    this.link.resume();
  }

  /** From now on it leads there, when it has to be dialled again. */
  leadTo(path: string): void {
    this.link.path = path;
  }

  /** Operations of these ids have gone to the tutor as late lines, or can go nowhere. */
  settled(ids: readonly Id[]): void {
    for (const session of this.sessions()) session.settled(ids);
  }

  close(): void {
    clearInterval(this.watch);
    this.subscription.unsubscribe();
    this.lessonState.leave();
    this.link.close();
  }

  /** Where the line is away, it is asked for with the next hello. */
  private ask(session: BoardSession): void {
    if (this.line() === 'live') this.send({ kind: 'board.open', ...session.wanted });
  }

  private forget(session: BoardSession): void {
    this.sessions.update((all) => all.filter((one) => one !== session));
  }

  private drop(session: BoardSession): void {
    this.forget(session);
    const board = session.id();
    if (board && this.line() === 'live') this.send({ kind: 'board.close', board });
  }

  private onEvent(event: LinkEvent): void {
    switch (event.kind) {
      case 'open': {
        const boards: BoardWanted[] = this.sessions().map(({ wanted }) => wanted);
        this.send({ kind: 'hello', protocol: PROTOCOL, boards });
        break;
      }
      case 'quiet':
        this.quiet.set(event.is);
        break;
      case 'away':
        this.quiet.set(false);
        this.lost();
        this.line.set('away');
        break;
      case 'ended':
        // Whoever is sent out is heard by nobody and hears nobody, at once.
        this.lessonState.leave();
        if (event.code === CLOSE.over) this.end();
        else if (event.code === CLOSE.old) this.line.set('old');
        else if (event.code === CLOSE.door) this.line.set('door');
        else {
          this.lost();
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
      case 'board.closed': {
        const session = this.sessionOf(message);
        session?.handle(message);
        // It isn't asked for with the next hello: who wants it opens it anew.
        if (session) this.forget(session);
        break;
      }
      case 'board.opened':
      case 'pages':
      case 'confirmed':
      case 'refused':
        this.sessionOf(message)?.handle(message);
        if (message.kind === 'board.opened') this.openWithKept();
        break;
      case 'applied':
        this.numbered(message.on)?.handle(message);
        break;
      case 'live.ink':
      case 'live.more':
      case 'live.end': {
        const came = this.underWay.incoming(message);
        if (came) this.numbered(came.on)?.liveInk.next(came.event);
        break;
      }
      case 'lesson':
        this.lessonState.begin(message.lesson);
        if (message.lesson) for (const session of this.sessions()) session.tellLooking();
        break;
      case 'over':
        this.lessonState.over();
        if (this.role() !== 'tutor') this.end();
        break;
      case 'keeping':
        this.keeps.set(message.on);
        for (const session of this.sessions()) session.offerAgain();
        break;
      case 'problem':
        this.problem.set(message.problem);
        break;
      default:
        this.lessonState.handle(message);
    }
  }

  private numbered(on: number): BoardSession | undefined {
    return this.sessions().find(({ number }) => number === on);
  }

  /** The one that a message is about; the answer for the board to begin on names that board. */
  private sessionOf({ kind, board }: BoardMessage): BoardSession | undefined {
    const known = this.sessions().find(({ id }) => id() === board);
    return known ?? (kind === 'board.opened' ? this.sessions().find(({ id }) => !id()) : undefined);
  }

  private welcome(message: Extract<ServerMessage, { kind: 'welcome' }>): void {
    const { you, role, lesson } = message;
    if (this.me() !== null && role !== this.role()) return this.isOfAnother.set(true);
    this.me.set(you);
    this.role.set(role);
    this.lessonState.ahead.set(message.now - Date.now());
    this.keeps.set(true);
    this.problem.set(null);
    // From here on what features have to say goes out.
    this.line.set('live');
    this.lessonState.begin(lesson);
    this.hasLooked = false;
  }

  /** What this person did on other boards and isn't confirmed goes out as well: those are opened for it. */
  private openWithKept(): void {
    // When it is known which board this window begins on: that one needn't be opened for it.
    if (this.hasLooked) return;
    this.hasLooked = true;
    for (const { board, person } of keptByPeople())
      if (person === this.me()) this.openBehind(board);
  }

  /** Opens a board that nobody looks at here, if it isn't open: what happens on it is told from now on. */
  openBehind(board: Id): void {
    const all = this.sessions();
    const isKnown = all.some(({ id }) => id() === board || !id());
    if (isKnown || all.length >= MAX_BOARDS || this.line() !== 'live') return;
    const session = new BoardSession(this, board);
    this.sessions.update((all) => [session, ...all]);
    this.ask(session);
  }

  /** What was sent may not have come; it is sent again when the line is back. */
  private lost(): void {
    this.lessonState.lost();
    this.underWay.forget();
    for (const session of this.sessions()) session.lost();
  }

  /** The lesson is over: what hasn't arrived by then is late. */
  private end(): void {
    if (this.line() === 'over') return;
    this.line.set('over');
    for (const session of this.sessions()) session.tellAllLate();
  }

  /** Whatever should have come by now is asked for once more, on a new connection. */
  private check(): void {
    if (this.line() !== 'live') return;
    const late = this.sessions().filter((session) => session.isLate());
    if (late.length > 0) this.link.reconnect();
  }
}
