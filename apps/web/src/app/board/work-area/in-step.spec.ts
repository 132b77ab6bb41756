import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Machine, View, WindowSize } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { Role } from '@cuaderno/core/permissions';
import { Subject } from 'rxjs';
import type { BoardSession } from '../../live/board-session';
import type { PlacedView } from '../../live/features/in-step/in-step-state';
import { InStep } from './in-step';

const at = (y: number): View => ({ page: 'page_1______', x: 0, y, width: 100, height: 50 });

const BOARD = 'board_1_____';
const onBoard = (y: number, board = BOARD): PlacedView => ({ board, view: at(y) });

describe('being in step', () => {
  let now: number;
  let said: [number, boolean][];
  let went: (number | string | null)[];
  const line = signal('live');
  const role = signal<Role>('tutor');
  const inStep = signal(false);
  const leads = signal(true);
  const around = signal(false);
  let shown: number[];
  const led = signal<PlacedView | null>(null);
  const moved = signal(0);
  let gathered: Subject<PlacedView>;
  let part: View;
  let hidden: boolean;
  let hasBoard: boolean;

  beforeEach(() => {
    jasmine.clock().install();
    now = 1000;
    spyOn(performance, 'now').and.callFake(() => now);
    [said, went, shown] = [[], [], []];
    leads.set(true);
    around.set(false);
    role.set('tutor');
    inStep.set(false);
    led.set(null);
    gathered = new Subject();
    part = at(0);
    hidden = false;
    hasBoard = true;
    const session = {
      line,
      role,
      features: {
        inStep: {
          ...{ on: inStep, led, gathered },
          sendView: (_board: Id, { y }: View, final: boolean) => said.push([y, final]),
        },
        presence: {
          showWindow: (_board: Id, _machine: Machine, _size: WindowSize, { y }: View) =>
            shown.push(y),
        },
        lessonBoards: { isShown: () => hasBoard },
      },
      id: () => BOARD,
      board: () => ({ id: BOARD, pages: new Map([[part.page, { hidden }]]) }),
    } as unknown as BoardSession;
    const stage = {
      moved,
      view: {
        get part() {
          return part;
        },
        follow: (view: View | null) => went.push(view && view.y),
        show: ({ y }: View) => went.push(`once ${y}`),
      },
      size: () => ({ width: 800, height: 600 }),
    };
    TestBed.runInInjectionContext(
      () =>
        new InStep(
          () => session,
          () => stage,
          () => leads(),
          () => around(),
        ),
    );
    TestBed.tick();
  });
  afterEach(() => jasmine.clock().uninstall());

  const moves = (y: number, after: number): void => {
    now += after;
    jasmine.clock().tick(after);
    part = at(y);
    moved.update((n) => n + 1);
    TestBed.tick();
  };

  it('a tutor’s window says what it shows: at once, a few times a second, and where it rests', () => {
    moves(1, 10);
    expect(said).toEqual([]);
    inStep.set(true);
    TestBed.tick();
    moves(2, 10);
    moves(3, 10);
    moves(4, 30);
    jasmine.clock().tick(200);
    // What is written moves nothing.
    moves(4, 10);
    jasmine.clock().tick(200);
    expect(said).toEqual([
      [1, false],
      [4, false],
      [4, true],
    ]);
    inStep.set(false);
    TestBed.tick();
    moves(9, 100);
    expect(said.length).toBe(3);
  });

  it('says it once more when a page that was hidden is shown', () => {
    inStep.set(true);
    hidden = true;
    moves(1, 50);
    jasmine.clock().tick(200);
    expect(said.at(-1)).toEqual([1, true]);
    const before = said.length;
    moves(1, 50);
    jasmine.clock().tick(200);
    expect(said.length).toBe(before);
    hidden = false;
    moves(1, 50);
    jasmine.clock().tick(200);
    expect(said.slice(before)).toEqual([
      [1, false],
      [1, true],
    ]);
  });

  it('a student’s window shows what it is told as long as that lasts, or once', () => {
    role.set('student');
    leads.set(false);
    inStep.set(true);
    led.set(onBoard(5));
    TestBed.tick();
    expect(went.at(-1)).toBe(5);
    moves(6, 50);
    expect(said).toEqual([]);
    inStep.set(false);
    TestBed.tick();
    expect(went.at(-1)).toBeNull();
    gathered.next(onBoard(7));
    expect(went.at(-1)).toBe('once 7');
  });

  it('follows nobody on another board, and says it anew when the class has this one', () => {
    role.set('student');
    leads.set(false);
    inStep.set(true);
    led.set(onBoard(5, 'board_2_____'));
    TestBed.tick();
    expect(went.at(-1)).toBeNull();
    gathered.next(onBoard(6, 'board_2_____'));
    expect(went.at(-1)).toBeNull();
    role.set('tutor');
    leads.set(true);
    hasBoard = false;
    moves(1, 50);
    jasmine.clock().tick(200);
    const before = said.length;
    hasBoard = true;
    moves(1, 50);
    jasmine.clock().tick(200);
    expect(said.length).toBeGreaterThan(before);
  });

  it('a student who leads says what their window shows, and the tutor follows or looks around', () => {
    role.set('student');
    inStep.set(true);
    TestBed.tick();
    moves(3, 50);
    expect(said.at(-1)).toEqual([3, false]);
    role.set('tutor');
    leads.set(false);
    led.set(onBoard(8));
    TestBed.tick();
    expect(went.at(-1)).toBe(8);
    around.set(true);
    TestBed.tick();
    expect(went.at(-1)).toBeNull();
  });

  it('a student’s window tells its tutor where it is, when it rests', () => {
    role.set('student');
    leads.set(false);
    moves(1, 10);
    moves(2, 200);
    expect(shown).toEqual([]);
    jasmine.clock().tick(600);
    moves(2, 10);
    jasmine.clock().tick(600);
    expect(shown).toEqual([2]);
  });
});
