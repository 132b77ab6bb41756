import {
  formatClock,
  formatDate,
  formatLength,
  formatSpan,
  formatTimesIn,
  formatWhen,
} from './format-time';
import { inShownZone, showTimesIn, thisZone } from './shown-zone';

describe('times in words', () => {
  afterEach(() => showTimesIn(null));

  const now = new Date(2026, 10, 23, 12, 0).getTime();

  it('say today and tomorrow, by the day and not by hours', () => {
    expect(formatWhen(new Date(2026, 10, 23, 16, 30).getTime(), now)).toBe('today at 16:30');
    expect(formatWhen(new Date(2026, 10, 24, 0, 5).getTime(), now)).toBe('tomorrow at 00:05');
    expect(formatWhen(new Date(2026, 10, 26, 17, 30).getTime(), now)).toBe(
      'Thursday 26 November at 17:30',
    );
  });

  it('are by the clock of the zone that is named, its summer time and its day included', () => {
    const winter = Date.UTC(2026, 11, 1, 15, 30);
    expect(formatTimesIn(winter, winter + 3_600_000, 'Europe/Oslo')).toBe(
      'Tuesday 1 December, 16:30–17:30',
    );
    expect(formatTimesIn(winter, winter + 3_600_000, 'Asia/Tokyo')).toBe(
      'Wednesday 2 December, 00:30–01:30',
    );
    const summer = Date.UTC(2026, 6, 1, 15, 30);
    expect(formatTimesIn(summer, summer, 'Europe/Oslo')).toBe('Wednesday 1 July, 17:30–17:30');
  });

  it('are by the clock of the account’s zone where one is set, its day included', () => {
    const at = Date.UTC(2026, 11, 1, 20, 30);
    showTimesIn('Asia/Tokyo');
    expect(formatWhen(at, Date.UTC(2026, 11, 1, 12, 0))).toBe('tomorrow at 05:30');
    expect(formatWhen(at, Date.UTC(2026, 11, 1, 16, 0))).toBe('today at 05:30');
    expect(formatDate(at)).toBe('Wed, 2 Dec 2026');
    expect(inShownZone()).toEqual({ zone: 'Asia/Tokyo' });
    showTimesIn('America/New_York');
    expect(formatSpan(at, at + 3_600_000)).toBe('15:30–16:30');
  });

  it('are by this machine’s clock where the browser hasn’t heard of the account’s zone', () => {
    showTimesIn('Europe/Nowhere');
    expect(inShownZone().zone).toBe(thisZone());
    expect(formatClock(0)).toMatch(/^\d\d:\d\d$/);
  });

  it('say how long', () => {
    expect(formatLength(50 * 60_000)).toBe('50 min');
    expect(formatLength(65 * 60_000)).toBe('1 h 05 min');
  });
});
