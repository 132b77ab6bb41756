import { speedOf } from './thin-line';

describe('how fast a line is', () => {
  const came = (transferSize: number, startTime: number, responseEnd: number) => ({
    ...{ transferSize, startTime, responseEnd },
  });

  it('is told by what came over it while something was on its way', () => {
    expect(speedOf([came(80_000, 0, 10_000)])).toBe(8000);
    // Two at once share it; a rest between costs nothing.
    expect(speedOf([came(40_000, 0, 10_000), came(40_000, 0, 10_000)])).toBe(8000);
    expect(speedOf([came(40_000, 0, 5000), came(40_000, 60_000, 65_000)])).toBe(8000);
  });

  it('isn’t told by what was kept, or by little', () => {
    expect(speedOf([came(0, 0, 3), came(0, 0, 4)])).toBeNull();
    expect(speedOf([came(900, 0, 400)])).toBeNull();
    expect(speedOf([])).toBeNull();
  });
});
