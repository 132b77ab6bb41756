import { BoardDraft, boardOutline, emptyBoard, itemsOn } from '@cuaderno/core/board';
import type { PageSpec } from '@cuaderno/core/board';
import { CLOSE } from '@cuaderno/core/features';
import { newId } from '@cuaderno/core/id';
import type { Id } from '@cuaderno/core/id';
import type { Role } from '@cuaderno/core/permissions';
import { apply } from '@cuaderno/core/ops';
import { addInk, addPages, somePages } from '@cuaderno/core/testing';
import type { BoardSession } from './board-session';

import { LessonLine } from './lesson-line';
import { PendingStore } from './pending-store';
import { PretendServer } from './pretend-socket';

const me = newId();
const ida = newId();
const WITHDRAWN = {
  ...{ type: 'urn:cuaderno:board-withdrawn', title: 'It was taken back.' },
  ...{ status: 410, detail: 'Go on with another.' },
};

interface SomeBoard {
  readonly id: Id;
  readonly page: PageSpec;
}
const someBoard = (): SomeBoard => ({ id: newId(), page: somePages(1)[0]! });

describe('the line of a window', () => {
  let server: PretendServer;
  let line: LessonLine;
  let star: SomeBoard;
  let moon: SomeBoard;

  beforeEach(() => {
    localStorage.clear();
    jasmine.clock().install();
    spyOn(Math, 'random').and.returnValue(0.5);
    server = new PretendServer();
    line = new LessonLine('/live/lesson', server.dial, (then) => then());
    [star, moon] = [someBoard(), someBoard()];
  });
  afterEach(() => {
    line.close();
    jasmine.clock().uninstall();
    localStorage.clear();
  });

  const welcome = (role: Role = 'student'): void => {
    server.line.open();
    server.line.say({
      ...{ kind: 'welcome', now: Date.now(), you: me, window: newId(), role },
      lesson: { id: newId(), openedAt: 1 },
    });
  };
  /** The server gives a board. @param isKnown what is missing follows as entries */
  const gives = ({ id, page }: SomeBoard, isKnown = false): void => {
    const draft = new BoardDraft(emptyBoard(id));
    apply(addPages([page]), draft, { by: ida, at: 0, lesson: null });
    const outline = isKnown ? null : boardOutline(draft.done(), 1, new Set([page.id]));
    const number = id === star.id ? 1 : 2;
    server.line.say({ kind: 'board.opened', board: id, number, page: page.id, outline });
  };
  const linesOn = (session: BoardSession, { page }: SomeBoard): Id[] =>
    itemsOn(session.board().pages.get(page.id)!).map(({ id }) => id);
  const begin = (): BoardSession => {
    const session = line.open(null);
    welcome();
    gives(star);
    return session;
  };

  it('is another’s, with all that it has, once this person is something else', () => {
    line.open(star.id);
    welcome();
    gives(star);
    expect(line.isOfAnother()).toBeFalse();
    server.line.end(CLOSE.again);
    jasmine.clock().tick(60_000);
    welcome('helper');
    expect(line.isOfAnother()).toBeTrue();
    expect(line.role()).toBe('student');
  });

  it('begins on the board that the server names, and opens others as they are wanted', () => {
    const first = begin();
    expect(first.id()).toBe(star.id);
    const second = line.open(moon.id);
    expect(server.line.of('board.open')).toEqual([
      { kind: 'board.open', board: moon.id, since: -1 },
    ]);
    expect(second.ready()).toBeFalse();
    gives(moon);
    expect(second.ready()).toBeTrue();
    // One that is open needn't be asked for again.
    expect(line.open(star.id)).toBe(first);
    expect(server.line.of('board.open').length).toBe(1);
  });

  it('says which board each thing is on, and shows what comes on the board that it is on', () => {
    const first = begin();
    const second = line.open(moon.id);
    gives(moon);
    const [mine, theirs] = [addInk(moon.page.id), addInk(star.page.id)];
    second.do(mine);
    expect(server.line.of('ops').map(({ board }) => board)).toEqual([moon.id]);
    server.line.say({ kind: 'applied', on: 1, from: 2, by: ida, at: 5, ops: [theirs] });
    expect(linesOn(first, star)).toEqual([theirs.id]);
    expect(linesOn(second, moon)).toEqual([mine.id]);
    server.line.say({ kind: 'confirmed', board: moon.id, at: 5, seqs: [2], ids: [mine.id] });
    expect(line.unconfirmed()).toBe(0);
  });

  it('comes back after a break to all boards that were open, with what was done on each', () => {
    const first = begin();
    const second = line.open(moon.id);
    gives(moon);
    server.line.end();
    const [a, b] = [addInk(star.page.id), addInk(moon.page.id)];
    first.do(a);
    second.do(b);
    expect(line.unconfirmed()).toBe(2);
    jasmine.clock().tick(300);
    welcome();
    expect(server.line.of('hello')[0]!.boards).toEqual([
      { board: star.id, since: 1 },
      { board: moon.id, since: 1 },
    ]);
    expect(server.line.of('ops')).toEqual([]);
    gives(moon, true);
    gives(star, true);
    expect(server.line.of('ops').map(({ board, ops }) => [board, ops[0]!.id])).toEqual([
      [moon.id, b.id],
      [star.id, a.id],
    ]);
  });

  it('sends what an earlier visit left on another board, which nobody looks at now', () => {
    const kept = addInk(moon.page.id);
    new PendingStore(moon.id, me).add(kept);
    begin();
    expect(server.line.of('board.open')).toEqual([
      { kind: 'board.open', board: moon.id, since: -1 },
    ]);
    gives(moon);
    expect(server.line.of('ops').map(({ board, ops }) => [board, ops[0]!.id])).toEqual([
      [moon.id, kept.id],
    ]);
  });

  it('has a student’s lines late where the class hasn’t the board any more', () => {
    begin();
    const second = line.open(moon.id);
    gives(moon);
    const late: Id[] = [];
    line.late.subscribe(({ board, ops }) => late.push(board, ...ops.map(({ id }) => id)));
    const mine = addInk(moon.page.id);
    second.do(mine);
    server.line.say({ kind: 'board.closed', board: moon.id, problem: WITHDRAWN });
    expect(second.closed()).toEqual(WITHDRAWN);
    expect(late).toEqual([moon.id, mine.id]);
  });

  it('lets go of boards that were looked at long ago, but not of what isn’t confirmed on them', () => {
    const first = begin();
    first.do(addInk(star.page.id));
    for (let i = 0; i < 8; i++) line.open(newId());
    const closed = server.line.of('board.close').map(({ board }) => board);
    expect(closed.length).toBe(3);
    expect(closed).not.toContain(star.id);
    expect(line.boards().get(star.id)).toBe(first);
  });

  it('tells where this window looks: on the board in sight, and again when the line is back', () => {
    const first = begin();
    first.look(star.page.id);
    const second = line.open(moon.id);
    gives(moon);
    first.lookAway();
    second.look(moon.page.id);
    server.line.end();
    jasmine.clock().tick(300);
    welcome();
    gives(star, true);
    gives(moon, true);
    expect(server.line.of('page.viewed')).toEqual([
      { kind: 'page.viewed', board: moon.id, page: moon.page.id },
    ]);
  });
});
