import fc from 'fast-check';
import type { ReplayEvent } from './events.js';
import { statisticsOf } from './statistics.js';

const MINUTE = 60_000;
const [maren, ida, noor] = ['maren_______', 'ida_________', 'noor________'];
const [first, second] = ['page_1______', 'page_2______'];
const whole = { from: 1_000_000, to: 1_000_000 + 50 * MINUTE };
const NOTHING = { chat: [], gestures: [], turns: [] };

const line = (by: string, minute: number, length: number): ReplayEvent => ({
  ...{ by, page: first, kind: 'ink.add' },
  from: whole.from + minute * MINUTE,
  to: whole.from + minute * MINUTE + length,
});

describe('statistics of a lesson', () => {
  it('says for how long it was at each page, by the turns of who leads it', () => {
    const at = (minute: number) => whole.from + minute * MINUTE;
    const turns = [
      { by: maren, page: first, at: at(0.2) },
      { by: ida, page: second, at: at(3) },
      { by: maren, page: second, at: at(10) },
      { by: maren, page: first, at: at(45) },
    ];
    const { pages } = statisticsOf(whole, [], { ...NOTHING, turns }, [maren, ida], maren);
    expect(pages).toEqual([
      { page: first, length: 15 * MINUTE },
      { page: second, length: 35 * MINUTE },
    ]);
    expect(statisticsOf(whole, [], NOTHING, [maren], maren).pages).toBeNull();
  });

  it('says how much each wrote in each step of it', () => {
    const events = [line(ida, 0, 2000), line(ida, 4.99, 1200), line(noor, 49.99, 90_000)];
    const { step, people } = statisticsOf(whole, events, NOTHING, [ida, noor], null);
    expect(step).toBe(5 * MINUTE);
    const [one, other] = people;
    expect(one!.writing.slice(0, 3)).toEqual([2600, 600, 0]);
    // What goes on after the close isn't of the lesson.
    expect(other!.writing).toEqual([...Array<number>(9).fill(0), 600]);
    expect([one!.lines, other!.lines]).toEqual([2, 1]);
  });

  it('counts hands, signals and messages of each', () => {
    const told = (by: string, what: string) => ({ by, what, at: whole.from });
    const gestures = [
      told(ida, 'hand'),
      told(ida, 'hand.down'),
      told(ida, 'hand'),
      told(noor, 'lost'),
      told(noor, 'signal.none'),
    ];
    const chat = [{ by: noor, at: whole.from }];
    const { people } = statisticsOf(whole, [], { ...NOTHING, chat, gestures }, [ida, noor], null);
    expect(people.map(({ hands, signals, messages }) => [hands, signals, messages])).toEqual([
      [2, 0, 0],
      [0, 1, 1],
    ]);
  });

  it('has all the time that pens were down within the lesson in its steps, however long it was', () => {
    const event = fc.record({
      minute: fc.double({ min: 0, max: 300, noNaN: true }),
      ms: fc.nat(9000),
    });
    fc.assert(
      fc.property(fc.nat(300), fc.array(event), (minutes, list) => {
        const span = { from: whole.from, to: whole.from + minutes * MINUTE };
        const events = list.map(({ minute, ms }) => line(ida, minute, ms));
        const { people, step } = statisticsOf(span, events, NOTHING, [ida], null);
        const [{ writing }] = people as [(typeof people)[0]];
        const end = span.from + writing.length * step;
        const within = events.reduce(
          (sum, { from, to }) => sum + Math.max(0, Math.min(to, end) - Math.min(from, end)),
          0,
        );
        expect(writing.reduce((sum, one) => sum + one, 0)).toBeCloseTo(within, 3);
        expect(writing.length).toBeLessThanOrEqual(16);
      }),
    );
  });
});
