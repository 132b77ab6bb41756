import { BoardDraft, boardOutline, emptyBoard, itemsOn } from '@cuaderno/core/board';
import { newId } from '@cuaderno/core/id';
import { apply } from '@cuaderno/core/ops';
import type { Id } from '@cuaderno/core/id';
import { addInk, addPages, somePages } from '@cuaderno/core/testing';
import type { BoardSession, LateWork } from './board-session';
import { LessonLine } from './lesson-line';
import { PretendServer } from './pretend-socket';

const [board, me] = [newId(), newId()];
const page = somePages(1)[0]!;
const PROBLEM = {
  type: 'urn:cuaderno:no-pen',
  title: 'No pen',
  status: 403,
  detail: 'Ask for one.',
};

describe('what was done while the line was away, and comes too late', () => {
  let server: PretendServer;
  let line: LessonLine;
  let session: BoardSession;
  let late: LateWork[];

  beforeEach(() => {
    jasmine.clock().install();
    spyOn(Math, 'random').and.returnValue(0.5);
    server = new PretendServer();
    line = new LessonLine('/live/lesson', server.dial, (then) => then());
    session = line.open(null);
    late = [];
    welcome();
    line.late.subscribe((work) => late.push(work));
    server.line.end();
  });

  afterEach(() => {
    line.close();
    jasmine.clock().uninstall();
    localStorage.clear();
  });

  /** @param isBack after a break: nothing has changed meanwhile */
  function welcome(isBack = false): void {
    const draft = new BoardDraft(emptyBoard(board));
    apply(addPages([page]), draft, { by: me, at: 0, lesson: null });
    server.line.open();
    server.line.say({
      ...{ kind: 'welcome', now: Date.now(), you: me, window: me, role: 'student' },
      lesson: { id: newId(), openedAt: 1 },
    });
    server.line.say({
      kind: 'board.opened',
      ...{ board, number: 3, page: page.id },
      outline: isBack ? null : boardOutline(draft.done(), 1, new Set([page.id])),
    });
  }

  const pass = (ms: number) => jasmine.clock().tick(ms);
  const ids = (): Id[] => itemsOn(session.board().pages.get(page.id)!).map(({ id }) => id);
  const kept = (): number =>
    Object.keys(localStorage).filter((key) => key.startsWith('cuaderno.pending.')).length;
  const sentOps = (): Id[] => server.line.of('ops').flatMap(({ ops }) => ops.map(({ id }) => id));
  const isLate = (): Id[] => late.flatMap(({ ops }) => ops.map(({ id }) => id));

  it('goes from the page and is kept here until the tutor has it', () => {
    const ink = addInk(page.id);
    session.do(ink);
    pass(300);
    welcome(true);
    expect(sentOps()).toEqual([ink.id]);
    server.line.say({ kind: 'refused', board, id: ink.id, problem: PROBLEM });
    expect(ids()).toEqual([]);
    expect(late[0]).toEqual({ board, person: me, ops: [ink] });
    expect(kept()).toBe(1);
    // It is told in other words.
    expect(session.problem()).toBeNull();
    session.settled([ink.id]);
    expect(kept()).toBe(0);
  });

  it('is what was refused for want of a pen, and nothing else', () => {
    const ink = addInk(page.id);
    session.do(ink);
    pass(300);
    welcome(true);
    const problem = { ...PROBLEM, type: 'urn:cuaderno:bad-ink' };
    server.line.say({ kind: 'refused', board, id: ink.id, problem });
    expect(late).toEqual([]);
    expect(session.problem()).toEqual(problem);
    expect(kept()).toBe(0);
  });

  it('is all that hasn’t arrived when the lesson is over', () => {
    const [a, b] = [addInk(page.id, 1), addInk(page.id, 2)];
    session.do(a);
    session.do(b);
    pass(300);
    server.line.end(4410);
    expect(session.line()).toBe('over');
    expect(isLate()).toEqual([a.id, b.id]);
    expect(session.unconfirmed()).toBe(2);
    session.settled([a.id, b.id]);
    expect(session.unconfirmed()).toBe(0);
    expect(kept()).toBe(0);
  });
});
