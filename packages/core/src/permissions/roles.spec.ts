import { emptyBoard } from '../board/index.js';
import type { Board } from '../board/index.js';
import { ALL_APPLIES, appliesTo, LOOKS_ONLY, mayWriteOn } from './index.js';
import { isAtLeast, Role, teaches } from './index.js';

const RULES = { trust: 'hands', addPages: true, chatAll: true, turn: false } as const;

describe('what somebody is in a lesson', () => {
  it('goes from watching to teaching', () => {
    const may = (least: Role): Role[] => Role.options.filter((role) => isAtLeast(role, least));
    expect(may('watcher')).toEqual(['watcher', 'student', 'helper', 'tutor']);
    expect(may('student')).toEqual(['student', 'helper', 'tutor']);
    expect(may('helper')).toEqual(['helper', 'tutor']);
    expect(may('tutor')).toEqual(['tutor']);
    expect(Role.options.filter(teaches)).toEqual(['helper', 'tutor']);
  });

  it('lets who teaches do all, and who watches nothing, whatever is said for the class or a page', () => {
    const board: Board = emptyBoard('b');
    const ruled = { rules: { trust: 'view' } } as const;
    for (const trust of ['view', 'write', 'hands'] as const) {
      const by = (role: Role) => ({ id: 'x', role, trust, person: RULES, course: RULES });
      expect(appliesTo(by('helper'), ruled, ruled)).toEqual(ALL_APPLIES);
      expect(mayWriteOn(by('helper'), ruled, ruled)).toBeTrue();
      expect(appliesTo(by('watcher'), board, undefined)).toEqual(LOOKS_ONLY);
      expect(mayWriteOn(by('watcher'), board, undefined)).toBeFalse();
    }
    expect(LOOKS_ONLY).toEqual(
      jasmine.objectContaining({
        trust: 'view',
        addPages: false,
        chatAll: false,
        chatTutor: false,
      }),
    );
  });
});
