import { formatLength, formatTimesIn, formatWhen } from './format-time';

describe('times in words', () => {
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

  it('say how long', () => {
    expect(formatLength(50 * 60_000)).toBe('50 min');
    expect(formatLength(65 * 60_000)).toBe('1 h 05 min');
  });
});
