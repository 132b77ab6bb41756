import { BoardDraft, boardOutline, emptyBoard, itemsOn, pageSnapshot } from '@cuaderno/core/board';
import { newId } from '@cuaderno/core/id';
import { encodePoints } from '@cuaderno/core/ink';
import { apply, operation } from '@cuaderno/core/ops';
import { encodePiece, PROTOCOL } from '@cuaderno/core/wire';
import type { Item } from '@cuaderno/core/board';
import type { Person } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { Entry } from '@cuaderno/core/log';
import type { Operation } from '@cuaderno/core/ops';
import { addInk, addPages, somePages } from '@cuaderno/core/testing';
import type { BoardSession } from './board-session';
import { LessonLine } from './lesson-line';
import { pretendPerson } from './pretend-person';
import { PretendServer } from './pretend-socket';

const board = newId();
const me = newId();
const ida = newId();
const lesson = { id: newId(), openedAt: 1 };
const page = somePages(1)[0]!;
const PROBLEM = {
  type: 'urn:cuaderno:no-pen',
  title: 'No pen',
  status: 403,
  detail: 'Ask for one.',
};

/** The board after these lines, the page being entry 1, with what is on it. */
function snapshot(entries: readonly Entry[] = []) {
  const draft = new BoardDraft(emptyBoard(board));
  apply(addPages([page]), draft, { by: ida, at: 0, lesson: null });
  for (const entry of entries) apply(entry.op, draft, entry);
  return boardOutline(draft.done(), 1 + entries.length, new Set([page.id]));
}

const entry = (seq: number, by: Id, op: Operation): Entry => ({
  seq,
  by,
  at: seq,
  lesson: lesson.id,
  op,
});

const person = (change: Partial<Person>): Person =>
  pretendPerson({ id: me, name: 'Ana', ...change });

/** How many operations this machine keeps; what other parts keep beside them doesn't count. */
const kept = (): number =>
  Object.keys(localStorage).filter((key) => key.startsWith('cuaderno.pending.')).length;

describe('a board that is open in this window', () => {
  let server: PretendServer;
  let line: LessonLine;
  let session: BoardSession;
  let now: number;

  beforeEach(() => {
    jasmine.clock().install();
    now = 1000;
    spyOn(performance, 'now').and.callFake(() => now);
    spyOn(Math, 'random').and.returnValue(0.5);
    start();
  });

  afterEach(() => {
    line.close();
    jasmine.clock().uninstall();
    localStorage.clear();
  });

  function start(): void {
    server = new PretendServer();
    line = new LessonLine('/live/lesson', server.dial, (then) => then());
    session = line.open(null);
  }

  function pass(ms: number): void {
    for (let left = ms; left > 0; left -= 100) {
      now += 100;
      jasmine.clock().tick(100);
    }
  }

  function welcome(entries: readonly Entry[] = [], whole = true): void {
    server.line.open();
    server.line.say({
      kind: 'welcome',
      now: Date.now(),
      you: me,
      window: me,
      role: 'student',
      lesson,
    });
    server.line.say({
      kind: 'board.opened',
      board,
      number: 3,
      page: page.id,
      outline: whole ? snapshot(entries) : null,
    });
  }

  const items = (): Item[] => itemsOn(session.board().pages.get(page.id)!);
  const ids = (): Id[] => items().map(({ id }) => id);
  const sentOps = (): Id[] => server.line.of('ops').flatMap(({ ops }) => ops.map(({ id }) => id));
  const applied = (from: number, ...ops: Operation[]) =>
    server.line.say({ kind: 'applied', on: 3, from, by: ida, at: 5, ops });

  it('says hello, and shows the board it is given, at the page where the tutor is', () => {
    expect(session.line()).toBe('joining');
    expect(session.ready()).toBeFalse();
    welcome();
    expect(server.line.of('hello')).toEqual([
      { kind: 'hello', protocol: PROTOCOL, boards: [{ board: null, since: -1 }] },
    ]);
    expect(session.line()).toBe('live');
    expect(session.ready()).toBeTrue();
    expect(session.startPage()).toBe(page.id);
    expect(session.board().pages.size).toBe(1);
  });

  it('shows my line at once, sends it, and keeps it until it is confirmed', () => {
    welcome();
    const ink = addInk(page.id);
    session.do(ink);
    expect(ids()).toEqual([ink.id]);
    expect(sentOps()).toEqual([ink.id]);
    expect(session.unconfirmed()).toBe(1);
    expect(kept()).toBe(1);
    server.line.say({ kind: 'confirmed', board, at: 7, seqs: [2], ids: [ink.id] });
    expect(ids()).toEqual([ink.id]);
    expect(session.unconfirmed()).toBe(0);
    expect(kept()).toBe(0);
    expect(items()[0]!.at).toBe(7);
  });

  it('takes my line back when it is refused, and says why', () => {
    welcome();
    const ink = addInk(page.id);
    session.do(ink);
    server.line.say({ kind: 'refused', board, id: ink.id, problem: PROBLEM });
    expect(ids()).toEqual([]);
    expect(session.problem()).toEqual(PROBLEM);
    expect(kept()).toBe(0);
    // Others saw it being drawn: it goes from their pages too.
    expect(server.line.of('live.end')).toEqual([{ kind: 'live.end', stroke: ink.id }]);
  });

  it('waits for what is missing in between, and shows all of it in its order', () => {
    welcome();
    const [a, b] = [addInk(page.id, 1), addInk(page.id, 2)];
    applied(3, b);
    expect(ids()).toEqual([]);
    applied(2, a);
    expect(ids()).toEqual([a.id, b.id]);
    applied(2, a);
    expect(ids()).toEqual([a.id, b.id]);
  });

  it('asks anew, from where it stands, where something stays missing', () => {
    welcome();
    applied(3, addInk(page.id));
    pass(4000);
    expect(server.lines.length).toBe(2);
    server.line.open();
    expect(server.line.of('hello')[0]!.boards).toEqual([{ board, since: 1 }]);
  });

  it('asks anew where nobody confirms', () => {
    welcome();
    const ink = addInk(page.id);
    session.do(ink);
    for (let i = 0; i < 12; i++) {
      server.line.say({ kind: 'pong', n: i });
      pass(1000);
      if (server.lines.length > 1) break;
    }
    expect(server.lines.length).toBe(2);
    welcome([], false);
    expect(sentOps()).toEqual([ink.id]);
  });

  it('goes on while the line is away, and sends what was done when it is back', () => {
    welcome();
    server.line.end();
    expect(session.line()).toBe('away');
    const lines = [addInk(page.id, 1), addInk(page.id, 2)];
    for (const one of lines) session.do(one);
    expect(ids()).toEqual(lines.map(({ id }) => id));
    expect(session.unconfirmed()).toBe(2);
    pass(300);
    welcome([], false);
    expect(session.line()).toBe('live');
    expect(sentOps()).toEqual(lines.map(({ id }) => id));
  });

  it('shows what came in between before my own lines, and doubles none', () => {
    welcome();
    const mine = addInk(page.id, 1);
    session.do(mine);
    server.line.end();
    pass(300);
    // It had arrived before the break; the answer had not.
    const theirs = addInk(page.id, 2);
    welcome([entry(2, me, mine), entry(3, ida, theirs)]);
    server.line.say({ kind: 'confirmed', board, at: 7, seqs: [2], ids: [mine.id] });
    expect(ids()).toEqual([mine.id, theirs.id]);
    expect(session.unconfirmed()).toBe(0);
    expect(kept()).toBe(0);
  });

  it('offers after a reload what an earlier visit could not get confirmed', () => {
    welcome();
    server.line.end();
    const ink = addInk(page.id);
    session.do(ink);
    line.close();
    start();
    welcome();
    expect(ids()).toEqual([ink.id]);
    expect(sentOps()).toEqual([ink.id]);
  });

  it('undoes and redoes my own lines only, also those of before a reload', () => {
    const mine = addInk(page.id, 1);
    const theirs = addInk(page.id, 2);
    welcome([entry(2, me, mine), entry(3, ida, theirs)]);
    expect(session.canUndo()).toBeTrue();
    session.undo();
    expect(ids()).toEqual([theirs.id]);
    session.undo();
    expect(ids()).toEqual([theirs.id]);
    expect(session.canUndo()).toBeFalse();
    session.redo();
    expect(ids()).toEqual([mine.id, theirs.id]);
  });

  it('undoes what the server did on my behalf, all of it as one step', () => {
    welcome();
    const pages = somePages(2).map((spec, i) => ({ ...spec, order: `${page.order}${i + 5}` }));
    applied(2, addPages(pages));
    const gesture = {};
    for (const { id } of pages) session.done({ kind: 'pages.restore', pages: [id] }, gesture);
    session.undo();
    const removed = () =>
      [...session.board().pages.values()].filter((one) => one.removed).map(({ id }) => id);
    expect(removed().sort()).toEqual(pages.map(({ id }) => id).sort());
    expect(session.canUndo()).toBeFalse();
    session.redo();
    expect(removed()).toEqual([]);
  });

  describe('of which what is on pages comes later', () => {
    const other = { ...somePages(1)[0]!, order: `${page.order}5` };
    const [first, second] = [addInk(page.id, 1), addInk(other.id, 2)];
    const here = (id: Id): Id[] => itemsOn(session.board().pages.get(id)!).map((item) => item.id);
    const full = () => {
      const draft = new BoardDraft(emptyBoard(board));
      apply(addPages([page, other]), draft, { by: ida, at: 0, lesson: null });
      for (const [i, op] of [first, second].entries()) apply(op, draft, entry(i + 2, me, op));
      return draft.done();
    };
    const come = (): void => {
      server.line.open();
      server.line.say({
        kind: 'welcome',
        now: Date.now(),
        you: me,
        window: me,
        role: 'student',
        lesson,
      });
      server.line.say({
        kind: 'board.opened',
        board,
        number: 3,
        page: page.id,
        outline: boardOutline(full(), 3, new Set([page.id])),
      });
    };
    const give = (seq: number, ...more: Operation[]): void => {
      const draft = new BoardDraft(full());
      for (const op of more) apply(op, draft, entry(9, ida, op));
      const pages = [pageSnapshot(draft.done().pages.get(other.id)!)];
      server.line.say({ kind: 'pages', board, seq, ids: [other.id], pages });
    };

    it('shows the page in view at once, and asks for the rest', () => {
      come();
      expect(session.ready()).toBeTrue();
      expect(here(page.id)).toEqual([first.id]);
      expect([...session.coming().keys()]).toEqual([other.id]);
      expect(server.line.of('pages')).toEqual([{ kind: 'pages', board, ids: [other.id] }]);
      give(3);
      expect(here(other.id)).toEqual([second.id]);
      expect(session.coming().size).toBe(0);
    });

    it('keeps what I draw and what others draw there meanwhile', () => {
      come();
      const [mine, theirs] = [addInk(other.id, 3), addInk(other.id, 4)];
      session.do(mine);
      applied(4, theirs);
      expect(here(other.id)).toEqual([theirs.id, mine.id]);
      give(4, theirs);
      expect(here(other.id)).toEqual([second.id, theirs.id, mine.id]);
      server.line.say({ kind: 'confirmed', board, at: 7, seqs: [5], ids: [mine.id] });
      expect(here(other.id)).toEqual([second.id, theirs.id, mine.id]);
    });

    it('undoes first what I did since, then what I did before, when all is here', () => {
      come();
      const mine = addInk(page.id, 5);
      session.do(mine);
      give(3);
      session.undo();
      expect(here(page.id)).toEqual([first.id]);
      session.undo();
      expect(here(other.id)).toEqual([]);
      session.undo();
      expect(here(page.id)).toEqual([]);
      expect(session.canUndo()).toBeFalse();
    });

    it('asks again after a break, for what has not come', () => {
      come();
      server.line.end();
      pass(300);
      welcome([], false);
      expect(server.line.of('hello')[0]!.boards).toEqual([{ board, since: 3 }]);
      expect(server.line.of('pages')).toEqual([{ kind: 'pages', board, ids: [other.id] }]);
      give(3);
      expect(here(other.id)).toEqual([second.id]);
    });

    it('leaves what is on screen there when the board is sent anew, until it comes', () => {
      come();
      give(3);
      server.line.end();
      pass(300);
      come();
      expect(here(other.id)).toEqual([second.id]);
      expect(session.coming().size).toBe(1);
      const theirs = addInk(other.id, 6);
      give(3, theirs);
      expect(here(other.id)).toEqual([second.id, theirs.id]);
    });
  });

  it('sends many operations in messages of at most sixty', () => {
    welcome();
    server.line.end();
    for (let i = 0; i < 150; i++) session.do(addInk(page.id, i));
    pass(300);
    welcome([], false);
    expect(server.line.of('ops').map(({ ops }) => ops.length)).toEqual([60, 60, 30]);
  });

  it('knows at once what I may do', () => {
    welcome();
    const trust = (t: Person['trust']) =>
      server.line.say({ kind: 'people', people: [person({ trust: t })] });
    trust('view');
    expect(session.applies()(page.id).trust).toBe('view');
    trust('write');
    expect(session.applies()(page.id).trust).toBe('write');
    trust('view');
    expect(session.applies()(page.id).trust).toBe('view');
  });

  it('hands on others’ strokes under way; sends mine while the line is there, and not later', () => {
    welcome();
    const heard: unknown[] = [];
    session.liveInk.subscribe((event) => heard.push(event));
    const stroke = newId();
    const points = [{ x: 1, y: 2, pressure: 1, time: 0 }];
    const start = { page: page.id, style: { tool: 'pen', ink: 'fern', width: 2 } } as const;
    server.line.say({
      ...{ kind: 'live.ink', on: 3, by: ida, start, n: 5 },
      points: encodePoints(points),
    });
    server.line.say({ kind: 'live.more', n: 5, piece: encodePiece(points, points[0]!) });
    server.line.say({ kind: 'live.end', n: 5, item: null });
    expect(heard).toEqual([
      { kind: 'points', n: 5, by: ida, start, points },
      { kind: 'points', n: 5, by: ida, start: undefined, points },
      { kind: 'end', n: 5, item: null },
    ]);
    session.sendInk(stroke, start, points);
    session.sendInk(stroke, undefined, points);
    server.line.end();
    session.sendInk(stroke, undefined, points);
    session.endInk(stroke);
    expect(server.line.of('live.ink').length).toBe(1);
    expect(server.line.of('live.more').length).toBe(1);
    expect(server.line.of('live.end')).toEqual([]);
  });

  it('says again where I look when the line is back', () => {
    welcome();
    session.look(page.id);
    session.look(page.id);
    expect(server.line.of('page.viewed').length).toBe(1);
    server.line.end();
    pass(300);
    welcome([], false);
    expect(server.line.of('page.viewed')).toEqual([{ kind: 'page.viewed', board, page: page.id }]);
  });

  it('says where I look to a lesson that begins', () => {
    welcome();
    session.look(page.id);
    server.line.say({ kind: 'lesson', lesson: { id: newId(), openedAt: 1 } });
    expect(server.line.of('page.viewed').length).toBe(2);
  });

  it('tells the ways in which it can be over', () => {
    for (const [code, state] of [
      [4410, 'over'],
      [4401, 'not-in'],
      [4426, 'old'],
    ] as const) {
      line.close();
      start();
      welcome();
      server.line.end(code);
      expect(session.line()).toBe(state);
    }
  });

  it('is over for a student when the tutor closes the lesson', () => {
    welcome();
    session.do(operation({ kind: 'board.rename', title: 'Neap', former: 'Ebb' }));
    server.line.say({ kind: 'over', at: 9 });
    expect(session.line()).toBe('over');
    expect(session.people()).toEqual([]);
    expect(session.lesson()).toBeNull();
  });
});
