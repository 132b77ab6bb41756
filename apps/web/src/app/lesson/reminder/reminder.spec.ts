import { TestBed } from '@angular/core/testing';
import type { Planned } from '../../api/timetable';
import { Screen } from '../../testing/screen';
import { Reminder } from './reminder';

const MINUTE = 60_000;

function soon(minutes: number, change: Partial<Planned> = {}): Planned {
  const at = Date.now() + minutes * MINUTE;
  return {
    ...{
      plan: 'p',
      course: 'c1',
      courseName: 'Tides',
      topic: '',
      was: `in ${minutes}`,
      wall: '',
      zone: 'UTC',
    },
    ...{
      at,
      until: at + 50 * MINUTE,
      buffer: 10,
      series: true,
      state: 'planned',
      why: '',
      heldAs: null,
      ...change,
    },
  };
}

describe('the reminder', () => {
  beforeEach(() => {
    sessionStorage.clear();
    jasmine
      .clock()
      .install()
      .mockDate(new Date(2026, 10, 24, 16, 21));
  });
  afterEach(() => jasmine.clock().uninstall());

  async function shown(lesson: Planned, open = false): Promise<Screen<Reminder>> {
    const now = Date.now();
    const course = { id: 'c1', lesson: open ? { id: 'l', board: 'b' } : null };
    const answers = {
      [`GET /timetable?from=${now}&to=${now + 12 * MINUTE}`]: { lessons: [lesson], clashes: [] },
      'GET /today': { courses: [course], records: [] },
    };
    return Screen.show(Reminder, {}, answers);
  }

  it('comes ten minutes before a lesson, and goes when the tutor knows', async () => {
    const lesson = soon(9);
    const screen = await shown(lesson);
    expect(screen.text).toContain('Tides begins in 9 minutes, at 16:30.');
    await screen.press('All right');
    expect(screen.text).toBe('');
    // Another window of this browser, or a reload, says it no more.
    TestBed.resetTestingModule();
    expect((await shown(lesson)).text).toBe('');
  });

  it('says nothing of what is later, cancelled or open already', async () => {
    for (const [lesson, open] of [
      [soon(11), false],
      [soon(5, { state: 'cancelled' }), false],
      [soon(5), true],
    ] as const) {
      expect((await shown(lesson, open)).text).toBe('');
      TestBed.resetTestingModule();
    }
  });
});
