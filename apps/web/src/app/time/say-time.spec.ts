import { sayLength, sayWhen } from './say-time';

describe('times in words', () => {
  const now = new Date(2026, 10, 23, 12, 0).getTime();

  it('say today and tomorrow, by the day and not by hours', () => {
    expect(sayWhen(new Date(2026, 10, 23, 16, 30).getTime(), now)).toBe('today at 16:30');
    expect(sayWhen(new Date(2026, 10, 24, 0, 5).getTime(), now)).toBe('tomorrow at 00:05');
    expect(sayWhen(new Date(2026, 10, 26, 17, 30).getTime(), now)).toBe(
      'Thursday 26 November at 17:30',
    );
  });

  it('say how long', () => {
    expect(sayLength(50 * 60_000)).toBe('50 min');
    expect(sayLength(65 * 60_000)).toBe('1 h 05 min');
  });
});
