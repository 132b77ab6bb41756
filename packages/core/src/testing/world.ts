import {
  boardFromOutline,
  boardOutline,
  emptyBoard,
  itemsOn,
  pagesInOrder,
} from '../board/index.js';
import type { Board, Page } from '../board/index.js';
import { newId } from '../id/index.js';
import type { Id } from '../id/index.js';
import { fill, History, predict, receive, replica, Sequencer, withdraw } from '../log/index.js';
import type { Entry, Replica, ProjectedEntry } from '../log/index.js';
import { defaultsOf } from '../kinds/index.js';
import type { Operation } from '../ops/index.js';
import type { Actor } from '../permissions/index.js';
import { changesHidden, hiddenOf, projectFor } from '../ops/index.js';
import { boardFor } from '../viewers/index.js';
import type { Viewer } from '../viewers/index.js';
import { pack, unpack } from '../wire/index.js';
import { student, tutor } from './boards.js';

/*
 * A server and three browsers with post between them that is delivered when a test says so, doubled or
 * lost: what the log must stand.
 */

/** All of a board that anyone could notice, to compare two of them. */
export function seen(board: Board): unknown {
  return [
    [board.title, board.sheet, board.rules],
    pagesInOrder(board).map((page) => [
      page.id,
      [page.name, page.order, page.width, page.height, page.paper],
      [page.hidden ?? false, page.privateNotes ?? [], page.rules ?? {}],
      itemsOn(page).map((item) =>
        item.kind === 'ink' ? { ...item, ink: [...item.ink] } : { ...defaultsOf(item), ...item },
      ),
    ]),
  ];
}

/** What was asked for: those of these pages that there are, after entry `seq`. */
interface PagesGiven {
  readonly ids: readonly Id[];
  readonly pages: readonly Page[];
  readonly seq: number;
}

/** A browser: its replica, its history, and the post to and from the server. */
export class Browser {
  replica: Replica;
  readonly history: History;
  readonly outbox: Operation[] = [];
  readonly inbox: (ProjectedEntry[] | { refused: Id } | PagesGiven)[] = [];
  /** Pages of which what is on them hasn't come yet. */
  readonly coming = new Set<Id>();

  constructor(
    readonly id: Id,
    board: Board,
  ) {
    this.replica = replica(board, 0);
    this.history = new History(id);
  }

  make(op: Operation): void {
    this.replica = predict(this.replica, op, { by: this.id, at: 0, lesson: null });
    this.outbox.push(op);
  }
}

export class World {
  readonly empty = emptyBoard(newId());
  readonly server = new Sequencer(this.empty, 0);
  readonly log: Entry[] = [];
  /** The log as it was sent to each student. */
  readonly told = new Map<Id, ProjectedEntry[]>();
  readonly actors: Actor[] = [tutor(), student('write'), student('view')];
  readonly browsers = this.actors.map(({ id }) => new Browser(id, this.empty));

  deliver(i: number): void {
    const browser = this.browsers[i]!;
    const op = browser.outbox.shift();
    if (op) this.take(op, i);
  }

  take(op: Operation, i: number): void {
    const before = hiddenOf(op, this.server.board);
    const verdict = this.server.offer(op, this.actors[i]!, this.log.length + 1, null);
    if (verdict.kind === 'taken') {
      this.log.push(verdict.entry);
      for (const viewer of this.actors.slice(1)) {
        const told = projectFor(op, before, this.server.board, viewer);
        this.told.set(viewer.id, [...this.logOf(viewer.id), { ...verdict.entry, op: told }]);
      }
      this.browsers.forEach((browser, n) => browser.inbox.push([this.logFor(n).at(-1)!]));
    } else if (verdict.kind === 'known') {
      this.browsers[i]!.inbox.push([this.logFor(i)[verdict.seq - 1]!]);
    } else {
      this.browsers[i]!.inbox.push({ refused: op.id });
    }
  }

  /** The first is a tutor, the others are students. */
  logFor(i: number): readonly ProjectedEntry[] {
    return i === 0 ? this.log : this.logOf(this.actors[i]!.id);
  }

  private logOf(student: Id): readonly ProjectedEntry[] {
    return this.told.get(student) ?? [];
  }

  open(i: number): void {
    const browser = this.browsers[i]!;
    const message = browser.inbox.shift();
    if (!message) return;
    if ('refused' in message) browser.replica = withdraw(browser.replica, message.refused);
    else if ('ids' in message) {
      // After something that was lost on the way, pages would be ahead of the rest.
      if (message.seq !== browser.replica.seq) return this.reconnect(i);
      browser.replica = fill(browser.replica, message.pages);
      for (const id of message.ids) browser.coming.delete(id);
    } else {
      const next = receive(browser.replica, message);
      if (next) browser.replica = next;
      else this.reconnect(i);
    }
  }

  /** All post under way is lost; the browser asks for what it missed and sends what is pending. */
  reconnect(i: number): void {
    const browser = this.browsers[i]!;
    browser.inbox.length = 0;
    browser.outbox.length = 0;
    const missed = this.log.slice(browser.replica.seq);
    if (i === 0) browser.replica = receive(browser.replica, missed)!;
    else if (missed.some(({ op }) => changesHidden(op))) {
      // What was missed can't be told piece by piece; the board as it is now is sent.
      return this.anew(i, new Set());
    } else {
      const board = this.server.board;
      const told = missed.map((entry) => ({
        ...entry,
        op: projectFor(entry.op, hiddenOf(entry.op, board), board, this.viewer(i)),
      }));
      browser.replica = receive(browser.replica, told)!;
    }
    browser.outbox.push(...browser.replica.unconfirmed.map(({ op }) => op));
  }

  /** All post under way is lost; the browser is sent the board as it is, with what is on some pages. */
  anew(i: number, whole: ReadonlySet<Id>): void {
    const browser = this.browsers[i]!;
    browser.inbox.length = 0;
    browser.outbox.length = 0;
    const sent = boardOutline(this.boardFor(i), this.log.length, whole);
    const { board, coming } = boardFromOutline(
      unpack(pack(sent)) as never,
      browser.replica.confirmed,
    );
    const known = new Set(this.log.map(({ op }) => op.id));
    const pending = browser.replica.unconfirmed.filter(({ op }) => !known.has(op.id));
    browser.replica = replica(board, this.log.length, pending);
    browser.coming.clear();
    for (const id of coming.keys()) browser.coming.add(id);
    browser.outbox.push(...browser.replica.unconfirmed.map(({ op }) => op));
  }

  /** Sends what is on pages that this browser lacks: `count` of them. */
  give(i: number, count = Infinity): void {
    const ids = [...this.browsers[i]!.coming].slice(0, count);
    const { pages } = this.boardFor(i);
    const there = ids.flatMap((id) => pages.get(id) ?? []);
    this.browsers[i]!.inbox.push({ ids, pages: there, seq: this.log.length });
  }

  boardFor(i: number): Board {
    return boardFor(this.server.board, this.viewer(i));
  }

  private viewer(i: number): Viewer {
    return this.actors[i]!;
  }

  settle(): void {
    this.browsers.forEach((_, i) => this.reconnect(i));
    this.browsers.forEach((browser, i) => {
      while (browser.outbox.length > 0) this.deliver(i);
    });
    this.browsers.forEach((_, i) => this.give(i));
    this.browsers.forEach((browser, i) => {
      while (browser.inbox.length > 0) this.open(i);
    });
  }
}
