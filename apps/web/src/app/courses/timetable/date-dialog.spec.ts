import type { Planned } from '../../api/timetable';
import { Screen } from '../../testing/screen';
import { DateDialog } from './date-dialog';

/** Four in the afternoon in Oslo, in winter: midnight in Tokyo (IANA time zone database). */
const at = Date.UTC(2026, 11, 1, 15, 0);

describe('one date of the timetable', () => {
  const planned = (zone: string): Planned =>
    ({
      ...{ plan: 'p1', course: 'c1', courseName: 'Tides', topic: '', series: true },
      ...{ at, until: at + 50 * 60_000, was: '2026-12-01T16:00', wall: '2026-12-01T16:00' },
      ...{ zone, state: 'planned', why: '' },
    }) as unknown as Planned;
  const words = (): string =>
    document.querySelector('.p-dialog')!.textContent!.replace(/\s+/g, ' ');
  afterEach(() => document.querySelectorAll('.p-dialog-mask').forEach((mask) => mask.remove()));

  it('says its times in one zone, that of the lesson, and beside them by whose clock they are', async () => {
    await Screen.show(DateDialog, { lesson: planned('Europe/Oslo') }, {});
    expect(words()).toContain('Tuesday 1 December, 16:00–16:50');
    expect(document.querySelector<HTMLInputElement>('input[aria-label=Time]')!.value).toBe('16:00');
  });

  it('says what that is by the clock of this machine, where that is another', async () => {
    await Screen.show(DateDialog, { lesson: planned('Pacific/Apia') }, {});
    expect(words()).toContain('by the clock of Pacific/Apia');
    // Apia is thirteen hours ahead of UTC (IANA time zone database).
    expect(words()).toContain('Wednesday 2 December, 04:00–04:50');
    expect(words()).toMatch(/By the clock of [^,]+, this lesson is Tuesday 1 December, \d\d:\d\d/);
  });
});
