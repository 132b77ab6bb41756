import fc from 'fast-check';
import { BREATH, IDLE, Pace } from './index.js';

const whole = { from: 1_000_000, to: 1_600_000 };
const stretch = fc
  .tuple(fc.integer({ min: -1000, max: 601_000 }), fc.integer({ min: 0, max: 20_000 }))
  .map(([from, length]) => ({ from: whole.from + from, to: whole.from + from + length }));
const happening = fc.array(stretch, { maxLength: 40 });

describe('the pace of a replay', () => {
  it('takes as long as the lesson where nothing is skipped', () => {
    const pace = Pace.even(whole);
    expect(pace.length).toBe(600_000);
    expect(pace.lessonAt(1234)).toBe(whole.from + 1234);
    expect(pace.playAt(whole.from + 1234)).toBe(1234);
  });

  it('passes over what is idle in a breath, and plays the rest as long as it took', () => {
    const pace = Pace.skippingIdle(whole, [
      { from: whole.from + 60_000, to: whole.from + 64_000 },
      { from: whole.from + 65_000, to: whole.from + 66_000 },
      { from: whole.from + 300_000, to: whole.from + 300_000 },
    ]);
    // Before the first, 60 s; between, 1 s that is no pause; then 234 s, and 300 s to the end.
    expect(pace.length).toBe(BREATH + 6000 + BREATH + BREATH);
    expect(pace.lessonAt(BREATH)).toBe(whole.from + 60_000);
    expect(pace.lessonAt(BREATH + 5000)).toBe(whole.from + 65_000);
    expect(pace.lessonAt(BREATH / 2)).toBe(whole.from + 30_000);
    expect(pace.lessonAt(1e9)).toBe(whole.to);
    expect(pace.playAt(whole.from + 66_000)).toBe(BREATH + 6000);
  });

  it('leaves out no moment in which something happened, and never goes back', () => {
    fc.assert(
      fc.property(happening, fc.integer({ min: 0, max: 600_000 }), (list, ms) => {
        const pace = Pace.skippingIdle(whole, list);
        const lesson = whole.from + ms;
        expect(pace.lessonAt(pace.playAt(lesson))).toBeCloseTo(lesson, 3);
        const during = list.some(({ from, to }) => from <= lesson && lesson + 10 <= to);
        if (during && lesson + 10 <= whole.to)
          expect(pace.playAt(lesson + 10) - pace.playAt(lesson)).toBeCloseTo(10, 3);
        expect(pace.playAt(lesson + 1000)).toBeGreaterThanOrEqual(pace.playAt(lesson));
        expect(pace.length).toBeLessThanOrEqual(600_000);
      }),
    );
  });

  it('of an empty lesson is a breath, or nothing at all', () => {
    expect(Pace.skippingIdle(whole, []).length).toBe(BREATH);
    expect(Pace.skippingIdle({ from: 5, to: 5 }, []).length).toBe(0);
    expect(Pace.skippingIdle({ from: 5, to: 5 }, []).lessonAt(0)).toBe(0);
    expect(Pace.skippingIdle({ from: 0, to: IDLE }, []).length).toBe(IDLE);
  });
});
