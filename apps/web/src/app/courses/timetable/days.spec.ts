import { daysLater, isoDay, mondayOf, weekOf } from './days';

describe('weeks (ISO 8601)', () => {
  it('begin on Monday', () => {
    expect(isoDay(mondayOf(new Date(2026, 10, 26, 15).getTime()))).toBe('2026-11-23');
    expect(isoDay(mondayOf(new Date(2026, 10, 29, 23).getTime()))).toBe('2026-11-23');
    expect(isoDay(daysLater(new Date(2026, 9, 24), 7))).toBe('2026-10-31');
  });

  it('are counted from the one with the year’s first Thursday', () => {
    // 2026 began on a Thursday and has 53 weeks; 4 January 2027 is the Monday of week 1 (computed by the rule).
    for (const [day, week] of [
      [new Date(2026, 0, 1), 1],
      [new Date(2026, 11, 31), 53],
      [new Date(2027, 0, 3), 53],
      [new Date(2027, 0, 4), 1],
    ] as const)
      expect(weekOf(mondayOf(day.getTime()))).toBe(week);
  });
});
