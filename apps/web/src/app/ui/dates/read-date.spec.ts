import { isDayFirst, readDay, readMonth, readTime } from './read-date';

const NOW = new Date(2026, 11, 1, 9, 30);

function day(text: string, dayFirst = true): string | null {
  const at = readDay(text, NOW, dayFirst);
  return at && `${at.getFullYear()}-${at.getMonth() + 1}-${at.getDate()}`;
}

describe('A day that is typed', () => {
  it('is read as people write it', () => {
    for (const text of [
      '3 Dec 2026',
      'Thu 3 December 2026',
      'dec 3, 2026',
      '2026-12-03',
      '3.12.26',
    ])
      expect(day(text)).withContext(text).toBe('2026-12-3');
  });

  it('has its day and month in the order of the language', () => {
    expect(day('4/3/2027')).toBe('2027-3-4');
    expect(day('4/3/2027', false)).toBe('2027-4-3');
    expect(isDayFirst('en-US')).toBeFalse();
    expect(isDayFirst('nb')).toBeTrue();
  });

  it('is in the nearest year where none is written', () => {
    expect(day('3 dec')).toBe('2026-12-3');
    expect(day('12 January')).toBe('2027-1-12');
    expect(day('29.11.')).toBe('2026-11-29');
  });

  it('isn’t read where there is no such day', () => {
    for (const text of [
      '',
      '3',
      'next week',
      '30 Feb 2026',
      '2026-13-01',
      '2026-12',
      '1 Dec 12026',
    ])
      expect(day(text)).withContext(text).toBeNull();
  });
});

describe('A month that is typed', () => {
  it('is read as people write it', () => {
    for (const text of ['November 2026', 'nov 26', '11/2026', '2026-11', 'Nov']) {
      const at = readMonth(text, NOW);
      expect([at?.getFullYear(), at?.getMonth()]).withContext(text).toEqual([2026, 10]);
    }
  });

  it('isn’t read where there is no such month', () => {
    for (const text of ['', '11', '13/2026', 'soon']) expect(readMonth(text, NOW)).toBeNull();
  });
});

describe('A time that is typed', () => {
  it('is read as people write it', () => {
    for (const text of ['16:30', '16.30', '1630', '16h30', '4:30 pm', '4:30PM', '430 p.m.'])
      expect(readTime(text)).withContext(text).toEqual({ hour: 16, minute: 30 });
    expect(readTime('9')).toEqual({ hour: 9, minute: 0 });
    expect(readTime('12 am')).toEqual({ hour: 0, minute: 0 });
    expect(readTime('12pm')).toEqual({ hour: 12, minute: 0 });
  });

  it('isn’t read where there is no such time', () => {
    for (const text of ['', '24:00', '16:60', '13 pm', '0 am', 'noon', '16:3'])
      expect(readTime(text)).withContext(text).toBeNull();
  });
});
