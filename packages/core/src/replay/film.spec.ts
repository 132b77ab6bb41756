import fc from 'fast-check';
import { filmFrames, filmLength, Pace, pageInView } from './index.js';
import type { ReplayEvent, Turn } from './index.js';

const whole = { from: 1_000_000, to: 1_600_000 };
const wish = { speed: 2, rate: 20, still: 2000 };
const event = (from: number, length: number): ReplayEvent => ({
  ...{ by: 'ana', page: 'p1', kind: 'ink.add' },
  ...{ from: whole.from + from, to: whole.from + from + length },
});
const turn = (page: string, at: number): Turn => ({ page, at: whole.from + at });
const anyDeed = fc
  .tuple(fc.integer({ min: 0, max: 590_000 }), fc.integer({ min: 0, max: 10_000 }))
  .map(([from, length]) => event(from, length));

describe('the frames of a film', () => {
  it('are many while a line is drawn, and few while nothing is', () => {
    const pace = Pace.even(whole);
    const frames = filmFrames(pace, [event(100_000, 4000)], [], wish);
    // The line takes two seconds at twice the speed: forty steps, its beginning and its end.
    const during = frames.filter(({ at }) => at >= 50_000 && at <= 52_000);
    expect(during.length).toBe(41);
    expect(frames.length).toBe(25 + 41 + 124);
    expect(during[0]!.time).toBe(whole.from + 100_000);
    expect(during[40]!.time).toBe(whole.from + 104_000);
  });

  it('follow each other without a gap, up to the end of the lesson and a moment longer', () => {
    fc.assert(
      fc.property(
        fc.array(anyDeed, { maxLength: 20 }),
        fc.array(fc.integer({ min: 0, max: 600_000 }), { maxLength: 5 }),
        fc.constantFrom(0.5, 1, 4, 16),
        fc.boolean(),
        (events, turnedAt, speed, skips) => {
          const turns = turnedAt.sort((a, b) => a - b).map((at) => turn('p2', at));
          const pace = skips ? Pace.skippingIdle(whole, events) : Pace.even(whole);
          const frames = filmFrames(pace, events, turns, { ...wish, speed });
          let end = 0;
          for (const { at, length } of frames) {
            expect(at).toBeCloseTo(end, 6);
            expect(length).toBeGreaterThan(0);
            expect(length).toBeLessThanOrEqual(wish.still);
            end = at + length;
          }
          expect(end).toBeCloseTo(filmLength(pace, { speed }) + wish.still, 6);
          expect(frames.at(-1)!.time).toBeGreaterThan(whole.to - 1 - (1000 / wish.rate) * speed);
          // Whatever was done is seen within one step of the film.
          for (const time of [...events.map(({ to }) => to), ...turns.map(({ at }) => at)]) {
            const seen = frames.find((frame) => frame.time >= time);
            const due = pace.playAt(time) / speed;
            expect(seen === undefined ? 0 : seen.at - due).toBeLessThanOrEqual(1000 / wish.rate);
          }
        },
      ),
    );
  });

  it('are one for a lesson in which nothing was done', () => {
    expect(filmFrames(Pace.even({ from: 5, to: 5 }), [], [], wish)).toEqual([
      { at: 0, length: 2000, time: 5 },
    ]);
  });
});

describe('the page that is shown', () => {
  const turns = [turn('p1', 0), turn('p2', 5000), turn('p3', 9000)];
  const last = { page: 'p7', at: whole.from + 6000 };
  const at = (ms: number): number => whole.from + ms;

  it('is where something happened, or was turned to, whichever was later', () => {
    expect(pageInView({ last: null }, [], at(1))).toBeNull();
    expect(pageInView({ last: null }, turns, at(5000))).toBe('p2');
    expect(pageInView({ last }, turns, at(8999))).toBe('p7');
    expect(pageInView({ last }, turns, at(9000))).toBe('p3');
    expect(pageInView({ last }, [], at(9000))).toBe('p7');
  });
});
