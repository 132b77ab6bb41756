import { newId } from '@cuaderno/core/id';
import { LessonState } from './lesson-state';
import { pretendPerson } from './pretend-person';
import type { ClientMessage } from '@cuaderno/core/features';

const ida = newId();
const board = newId();
const lesson = { id: newId(), openedAt: 1 };

describe('what was said and is meant to hold', () => {
  let heard: string[];
  let isLive: boolean;
  let state: LessonState;

  const told = (message: ClientMessage): string =>
    message.kind === 'trust' ? `trust ${message.who} ${message.trust}` : message.kind;
  /** Ida has a pen, or hasn't, as the server tells. */
  const idaHas = (trust: 'view' | 'write'): void => {
    const people = [pretendPerson({ id: ida, name: 'Ida', trust })];
    state.handle({ kind: 'people', people });
  };
  const breaks = (): void => {
    isLive = false;
    state.lost();
  };
  const isBack = (): string[] => {
    isLive = true;
    heard = [];
    state.begin(lesson);
    return heard;
  };

  beforeEach(() => {
    jasmine.clock().install().mockDate();
    heard = [];
    isLive = true;
    state = new LessonState((message) => {
      if (isLive) heard.push(told(message));
      return isLive;
    });
    state.begin(lesson);
    idaHas('write');
  });
  afterEach(() => jasmine.clock().uninstall());

  it('is said when the line is back, where it was said while it was away', () => {
    breaks();
    state.features.pens.setTrust('all', 'view');
    expect(isBack()).toEqual(['trust all view']);
  });

  it('is said again where the server went before it was heard', () => {
    state.features.lessonBoards.show(board);
    breaks();
    expect(isBack()).toEqual(['board.show']);
  });

  it('is said again however long the server can’t be reached', () => {
    state.features.lessonBoards.show(board);
    breaks();
    jasmine.clock().tick(60_000);
    breaks();
    expect(isBack()).toEqual(['board.show']);
  });

  it('isn’t said again once it was so, whatever others said since', () => {
    state.features.pens.setTrust('all', 'view');
    idaHas('view');
    state.features.pens.setTrust(ida, 'write');
    idaHas('write');
    breaks();
    expect(isBack()).toEqual([]);
  });

  it('isn’t said again long after it was sent: it had arrived', () => {
    state.features.pens.setTrust('all', 'view');
    jasmine.clock().tick(6000);
    breaks();
    expect(isBack()).toEqual([]);
  });

  it('keeps its order, and goes with the lesson', () => {
    breaks();
    state.features.pens.setTrust('all', 'view');
    state.features.pens.setTrust(ida, 'write');
    state.features.inStep.setStep(true);
    expect(isBack()).toEqual(['trust all view', `trust ${ida} write`, 'step']);
    breaks();
    state.over();
    expect(isBack()).toEqual([]);
  });
});
