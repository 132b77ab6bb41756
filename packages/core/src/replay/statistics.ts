import * as z from 'zod';
import { Id } from '../id/index.js';
import type { ReplayEvent } from './events.js';
import type { Stretch } from './pace.js';

/** Steps into which the writing of a lesson is divided are one of these, in minutes. */
const STEPS = [1, 2, 5, 10, 15, 30, 60, 120, 240];
/** Steps of a lesson at most. */
const MOST_STEPS = 16;
const MINUTE = 60_000;

/** What there is to count in a lesson; all lengths in ms. */
export const LessonStatistics = z.object({
  /** For how long the lesson was at each page, in the order in which it came there; `null` if not kept. */
  pages: z.array(z.object({ page: Id, length: z.number() })).nullable(),
  /** How long a step of `writing` is. */
  step: z.number(),
  people: z.array(
    z.object({
      id: Id,
      /** For how long their pen was down, in each step from the opening on. */
      writing: z.array(z.number()),
      lines: z.number(),
      hands: z.number(),
      signals: z.number(),
      messages: z.number(),
    }),
  ),
});
export type LessonStatistics = z.infer<typeof LessonStatistics>;

/** What happened beside the pages; times in ms since 1970. */
export interface Beside {
  readonly chat: readonly { readonly by: Id; readonly at: number }[];
  /** `hand`, `hand.down`, a signal, or `signal.none`. */
  readonly gestures: readonly { readonly by: Id; readonly what: string; readonly at: number }[];
  readonly turns: readonly { readonly by: Id; readonly page: Id; readonly at: number }[];
}

/**
 * What a tutor looks at after a lesson.
 *
 * @param whole from its opening to its close
 * @param people who was there, in order of arrival
 * @param leads whose page turns are those of the lesson
 */
export function statisticsOf(
  whole: Stretch,
  events: readonly ReplayEvent[],
  beside: Beside,
  people: readonly Id[],
  leads: Id | null,
): LessonStatistics {
  const length = Math.max(0, whole.to - whole.from);
  const minutes = STEPS.find((one) => length / (one * MINUTE) <= MOST_STEPS) ?? STEPS.at(-1)!;
  const step = minutes * MINUTE;
  const steps = Math.max(1, Math.ceil(length / step));
  const count = (list: readonly { readonly by: Id }[], id: Id): number =>
    list.filter(({ by }) => by === id).length;
  const hands = beside.gestures.filter(({ what }) => what === 'hand');
  const signals = beside.gestures.filter(
    ({ what }) => !what.startsWith('hand') && what !== 'signal.none',
  );
  return {
    pages: timesOfPages(
      whole,
      beside.turns.filter(({ by }) => by === leads),
    ),
    step,
    people: people.map((id) => {
      const lines = events.filter(({ by, kind }) => by === id && kind === 'ink.add');
      return {
        id,
        writing: inSteps(lines, whole.from, step, steps),
        lines: lines.length,
        hands: count(hands, id),
        signals: count(signals, id),
        messages: count(beside.chat, id),
      };
    }),
  };
}

/** How much of these stretches lies in each step, in ms; what lies outside of them is left out. */
function inSteps(list: readonly Stretch[], from: number, step: number, steps: number): number[] {
  const sums = Array<number>(steps).fill(0);
  for (const one of list)
    for (let i = Math.max(0, Math.floor((one.from - from) / step)); i < steps; i++) {
      const begins = from + i * step;
      if (begins >= one.to) break;
      sums[i]! += Math.min(one.to, begins + step) - Math.max(one.from, begins);
    }
  return sums;
}

/** Before the first turn the lesson was at the page to which that turned: it is told once one has stayed. */
function timesOfPages(whole: Stretch, turns: Beside['turns']): LessonStatistics['pages'] {
  if (turns.length === 0) return null;
  const lengths = new Map<Id, number>();
  turns.forEach(({ page, at }, i) => {
    const from = i === 0 ? whole.from : Math.max(whole.from, at);
    const to = Math.min(whole.to, turns[i + 1]?.at ?? whole.to);
    lengths.set(page, (lengths.get(page) ?? 0) + Math.max(0, to - from));
  });
  return [...lengths].map(([page, length]) => ({ page, length }));
}
